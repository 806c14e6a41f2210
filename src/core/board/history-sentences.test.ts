import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import type { CardEvent } from '../pages/card.ts';
import { historySentences } from './history-sentences.ts';

let seq = 0;
const event = (kind: string, value = '', more: Partial<CardEvent> = {}): CardEvent => ({
	seq: ++seq,
	at: '2026-11-23T14:20:00Z',
	kind,
	value,
	who: 'Ines Okoro',
	before: null,
	after: null,
	undone: false,
	command: null,
	...more,
});
const say = (...events: CardEvent[]) => historySentences(events, 'hours').map((one) => one.text);

describe('what refining and planning leave in a card’s history', () => {
	const sentences: [kind: string, value: string, text: string, more?: Partial<CardEvent>][] = [
		['start', '2026-12-01', 'set its start to Tue 1 Dec 2026.'],
		['start', '', 'took away its start.'],
		['initiative', 'Open figures', 'made it part of Open figures.'],
		['initiative', '', 'took it out of its initiative.'],
		['ready', 'yes', 'marked it as ready.'],
		['ready', 'no', 'took back that it is ready.'],
		['label', 'mast', 'labelled it mast.'],
		['unlabelled', 'mast', 'took the label mast off.'],
		['type', 'Repair', 'made its type Repair.'],
		['type', '', 'took away its type.'],
		['part-of', '12', 'made it a sub-card of 12.'],
		['part-of', '', 'let it stand by itself.'],
		['split-to', '13', 'split card 13 off it.'],
		['split-from', '7', 'split it off card 7.'],
		['linked', '9', 'said that it blocks 9.', { after: { kind: 'blocks' } }],
		['linked', '9', 'linked it to 9.', { after: { kind: 'relates' } }],
		['unlinked', '9', 'took away its link to 9.'],
		['line-added', 'Call', 'added to its checklist: Call.'],
		['line-changed', 'Call twice', 'changed a checklist line to: Call twice.'],
		['line-done', 'Call', 'ticked off: Call.'],
		['line-undone', 'Call', 'has still to do: Call.'],
		['line-removed', 'Call', 'took off its checklist: Call.'],
		['lines-ordered', '', 'put its checklist into another order.'],
		['waits-for', 'the Friday boat', 'said what it waits for: the Friday boat.'],
		['comment', 'Is this wanted?', 'said something.'],
		['sprint', '14', 'put it on sprint 14.'],
		['sprint', '', 'took it off the sprint.'],
		['planned', 'no', 'marked it as unplanned.'],
		['committed', '14', 'started sprint 14 with it.'],
		['split', '4', 'split off 4 h to another card.'],
	];
	for (const [kind, value, text, more] of sentences)
		test(`${kind} “${value}”`, () => assert.deepEqual(say(event(kind, value, more)), [`Ines Okoro ${text}`]));

	test('an order is of the backlog until the card stands in a column', () => {
		assert.deepEqual(say(event('ordered'), event('column', 'Building'), event('ordered')), [
			'Ines Okoro moved it within the backlog.',
			'Ines Okoro brought it to Building.',
			'Ines Okoro moved it within its column.',
		]);
	});

	test('what was taken back is still said, marked, and moves nothing on', () => {
		const [first, second] = historySentences(
			[event('sized', '5', { undone: true }), event('sized', '8')],
			'points',
		);
		assert.deepEqual([first!.undone, first!.text], [true, 'Ines Okoro sized it at 5 points.']);
		assert.equal(second!.text, 'Ines Okoro sized it at 8 points.');
	});

	test('what happens to people or the board, and is no matter of the card, says nothing of it', () => {
		assert.deepEqual(say(event('people', 'Ann is away.'), event('sprint-started', '3')), []);
	});
});
