import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import { dayText } from '../calendar/days.ts';
import { parseInstant } from '../calendar/instant.ts';
import { flowOf } from '../flow/fold.ts';
import { sprintAccounts } from '../sprint/accounts.ts';
import { sized, splitOff } from '../sprint/left.ts';
import { readVector } from '../testing/vectors.ts';
import type { CardEvent } from '../pages/card.ts';
import { historySentences } from './history-sentences.ts';
import { ribbonOfSprints, ribbonOfWeeks } from './ribbon.ts';

describe('the ribbon', () => {
	const { board, events } = readVector('middle');
	const at = parseInstant('2026-04-30T09:00:00Z')!;
	const accounts = sprintAccounts(board, events, at);
	const { ledgers, cards } = accounts;
	const hours = (number: number) => {
		const { starts, ends } = board.sprints.find((sprint) => sprint.number === number)!;
		return { from: starts, hours: Array.from({ length: ends - starts + 1 }, () => 8) };
	};
	const segments = ribbonOfSprints(board, [], accounts, at, () => null, hours, 40);

	test('shows of past sprints what the ledger says', () => {
		const past = segments.filter((segment) => segment.kind === 'past');
		assert.ok(past.length > 2 && past.length <= 6);
		for (const segment of past) {
			const ledger = ledgers.find((known) => known.number === segment.number)!;
			assert.equal(segment.done, ledger.delivered, 'done is what was delivered, as everywhere');
			assert.equal(
				segment.leftOver + ledger.burned + ledger.removed,
				ledger.committed + ledger.added + ledger.resized,
			);
		}
	});

	test('shows the running sprint’s burndown from the committed total to what is left now', () => {
		const running = segments.find((segment) => segment.kind === 'running')!;
		assert.equal(running.days[0]!.left, running.committed);
		assert.equal(running.days.at(-1)!.left, running.left);
		assert.equal(running.days.at(-1)!.day, '2026-04-30');
		assert.ok(running.days.every((day) => Math.abs(day.scope - day.burned - day.left) < 1e-6));
		assert.equal(running.guide.at(-1)!.left, 0);
	});

	test('ends in what waits', () => {
		const later = segments.at(-1)!;
		assert.equal(later.kind, 'later');
		assert.equal(
			later.kind === 'later' && later.cards,
			[...cards.values()].filter((card) => card.waits && card.sprint === null).length,
		);
	});

	test('on a board without sprints it is weeks: each finish once, this week last', () => {
		const weeks = ribbonOfWeeks(board, flowOf(board, events, at), at);
		assert.equal(weeks.length, 12);
		const last = weeks.at(-1)!;
		assert.ok(last.kind === 'week' && last.running && last.monday === dayText(board.zone.day(at) - 3));
	});
});

describe('what is left', () => {
	test('a first size sets it, a later one moves it, a done card keeps its nothing', () => {
		assert.deepEqual(sized({ size: null, left: 4 }, 6, false), { size: 6, left: 6 });
		assert.deepEqual(sized({ size: 10, left: 4 }, 7, false), { size: 7, left: 1 });
		assert.deepEqual(sized({ size: 10, left: 1 }, 5, false), { size: 5, left: 0 });
		assert.deepEqual(sized({ size: 10, left: 0 }, 20, true), { size: 20, left: 0 });
	});
	test('a split takes at most what is left, and an unsized card stays unsized', () => {
		assert.deepEqual(splitOff({ size: 10, left: 4 }, 6), { part: 4, size: 6, left: 0 });
		assert.deepEqual(splitOff({ size: null, left: 4 }, 1), { part: 1, size: null, left: 3 });
	});
});

describe('a card’s history in sentences', () => {
	const event = (kind: string, value = '', more: Partial<CardEvent> = {}): CardEvent => ({
		seq: 1,
		at: '2026-11-23T10:00:00Z',
		kind,
		value,
		who: 'Ines',
		before: null,
		after: null,
		undone: false,
		command: null,
		...more,
	});
	const says = (...events: CardEvent[]) => historySentences(events, 'hours').map((sentence) => sentence.text);

	test('says where it went, from where, and why it was let through', () => {
		assert.deepEqual(
			says(
				event('column', 'Ready'),
				event('column', 'Making', { after: { letThrough: 'storm' } }),
				event('column', ''),
			),
			[
				'Ines brought it to Ready.',
				'Ines moved it from Ready to Making. It was let through over the limit: storm.',
				'Ines put it back to the backlog from Making.',
			],
		);
	});

	test('a move that was taken back does not count for the next', () => {
		assert.deepEqual(
			says(
				event('column', 'Ready'),
				event('column', 'Making', { undone: true }),
				event('undone'),
				event('column', 'Check'),
			).at(-1),
			'Ines moved it from Ready to Check.',
		);
	});

	test('has a sentence for everything that is written of a card', () => {
		for (const kind of [
			'created',
			'ordered',
			'blocked',
			'unblocked',
			'sized',
			'left',
			'worked',
			'split',
			'sprint',
			'planned',
			'owner',
			'unowner',
			'type',
			'class',
			'label',
			'due',
			'renamed',
			'described',
			'archived',
			'restored',
			'undone',
		])
			assert.match(says(event(kind, 'x'))[0] ?? '', /^Ines .+\.$/, kind);
		assert.deepEqual(says(event('sized', '8'), event('sized', '5')), [
			'Ines sized it at 8 h.',
			'Ines changed its size from 8 h to 5 h.',
		]);
		assert.deepEqual(says(event('unheard-of')), []);
	});
});
