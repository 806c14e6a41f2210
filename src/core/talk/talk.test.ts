import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import fc from 'fast-check';
import type { CardEvent } from '../pages/card.ts';
import { keysIn } from './keys.ts';
import { mentionsIn } from './mentions.ts';
import { asSaid, talkOf } from './talk.ts';

const people = [
	{ id: 'a', name: 'Ann' },
	{ id: 'b', name: 'Ann Marsh' },
	{ id: 'c', name: 'Bo Li', title: 'Cook' },
	{ id: 'd', name: 'Bo Li', title: 'Deck hand' },
];
const said = (text: string) => {
	const { mentions, asks, team, teamAsked, nobody } = mentionsIn(text, people);
	return [
		mentions.join(''),
		asks.join(''),
		team ? (teamAsked ? 'asked' : 'told') : '',
		nobody.join(' '),
	].join('|');
};

describe('whom a text names', () => {
	for (const [text, found] of [
		['@Ann look', 'a|||'],
		['@ann marsh look', 'b|||'],
		['@Annabel look', '|||Annabel'],
		['@Bo Li: both of you', 'cd|||'],
		['@Bo Li (Deck hand), please', 'd|||'],
		['Is it done, @bo li (cook)? @Bo Li (away) knows.', 'd|c||'],
		['Is it done, @Ann?', '|a||'],
		['@Ann is it done? Else say so.', '|a||'],
		['@Ann it is done. Is it?', 'a|||'],
		['@Ann is it 3.5 m?', '|a||'],
		['@Ann\nis it?', 'a|||'],
		['@Ann. And again @Ann?', '|a||'],
		['mail ann@Ann.example?', '|||'],
		['@team, at noon', '||told|'],
		['@Team who?', '||asked|'],
		['@nobody here? @Ann', 'a|||nobody'],
		['@ @@ @1', '|||'],
	] as const)
		test(JSON.stringify(text), () => assert.equal(said(text), found));

	test('never the same person as asked and as only named, and only those there are', () => {
		const piece = fc.constantFrom(
			'@Ann',
			'@Bo Li',
			'@Bo Li (Cook)',
			'@team',
			'@x',
			' ',
			'?',
			'.',
			'\n',
			'word',
			'@',
		);
		fc.assert(
			fc.property(fc.array(piece), (pieces) => {
				const { mentions, asks } = mentionsIn(pieces.join(''), people);
				const all = [...mentions, ...asks];
				assert.equal(new Set(all).size, all.length);
				assert.ok(all.every((id) => people.some((person) => person.id === id)));
			}),
		);
	});
});

test('keys of cards are found, and what is part of a word or an address is none', () => {
	assert.deepEqual(
		keysIn('TIDE-1, (TIDE-1) BUOY-20. xTIDE-2 TIDE-3x TIDE-04 /cards/TIDE-5 tide-6 T-7 AB-8-9'),
		['TIDE-1', 'BUOY-20'],
	);
});

test('what was taken back, and how what was changed read before, is in nothing that is sent', () => {
	const step = fc.record({
		kind: fc.constantFrom('comment', 'comment-changed', 'comment-withdrawn'),
		of: fc.integer({ min: 1, max: 7 }),
		undone: fc.boolean(),
		reply: fc.boolean(),
	});
	fc.assert(
		fc.property(fc.array(step, { maxLength: 12 }), (steps) => {
			const history = steps.map(({ kind, of, undone, reply }, i): CardEvent => ({
				...{
					seq: i + 1,
					at: '',
					kind,
					value: kind === 'comment-withdrawn' ? '' : `words ${i}`,
					who: 'Ann',
					by: 'a',
				},
				...{ undone, command: null, before: null },
				after: kind === 'comment' ? (reply && of <= i ? { replyTo: of } : null) : { of },
			}));
			const sent = asSaid(history);
			// What is read of it is the same as of the whole, and nothing else is in it.
			assert.deepEqual(talkOf(sent), talkOf(history));
			const flat = (comments: ReturnType<typeof talkOf>): string[] =>
				comments.flatMap(({ text, replies }) => [text, ...flat(replies)]);
			assert.deepEqual(
				sent
					.map(({ value }) => value)
					.filter(Boolean)
					.toSorted(),
				flat(talkOf(history)).filter(Boolean).toSorted(),
			);
		}),
	);
});
