import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import { parseInstant } from '../calendar/instant.ts';
import { sprintAccounts } from '../sprint/accounts.ts';
import { readVector, VECTORS } from '../testing/vectors.ts';
import { closedSprints, pastOf } from './past.ts';
import { learn } from './promise.ts';

describe('what closed sprints say', () => {
	for (const [name, text] of VECTORS)
		test(`of the ${name} history agrees with its ledgers`, () => {
			const { board, events } = readVector(name);
			const asOf = parseInstant(text)!;
			const { ledgers, cards } = sprintAccounts(board, events, asOf);
			const raw = new Map(board.sprints.map((sprint) => [sprint.number, 100 + sprint.number]));
			const closed = closedSprints(board, ledgers, raw, asOf);
			const over = board.sprints.filter((sprint) => sprint.closedAt !== null && sprint.closedAt <= asOf);
			assert.equal(closed.length, over.length, 'each closed sprint, and no other');
			for (const sprint of closed) {
				const ledger = ledgers.find((known) => known.number === sprint.number)!;
				assert.deepEqual([sprint.worked, sprint.delivered], [ledger.worked, ledger.delivered]);
				assert.ok(sprint.unplanned >= 0 && sprint.unplanned <= sprint.worked);
				assert.equal(sprint.raw, 100 + sprint.number);
			}
			const past = pastOf(closed, ledgers, cards);
			assert.equal(past.pairs.length, closed.slice(-6).filter((sprint) => sprint.worked > 0).length);
			for (const { focus, keepBack } of past.pairs) assert.ok(focus > 0 && keepBack >= 0 && keepBack <= 1);
			const done = new Set(
				ledgers
					.filter((ledger) => closed.slice(-6).some((sprint) => sprint.number === ledger.number))
					.flatMap((ledger) =>
						ledger.stints.filter((stint) => stint.outcome === 'done').map((stint) => stint.card),
					),
			);
			assert.ok(past.ratios.length <= done.size);
			assert.ok(past.ratios.every((ratio) => ratio > 0 && Number.isFinite(ratio)));
			const learned = learn(closed);
			if (closed.length < 3) assert.equal(learned.from, 0);
			else
				assert.equal(
					Math.round(learned.delivered! * 1e6),
					Math.round(middle(closed.slice(-6).map((sprint) => sprint.delivered)) * 1e6),
				);
		});

	test('counts how a card turned out against its first size, whatever it was sized at later', () => {
		const { board, events } = readVector('small');
		const asOf = parseInstant('2030-01-01T00:00:00Z')!;
		const { ledgers, cards } = sprintAccounts(board, events, asOf);
		const closed = closedSprints(board, ledgers, new Map(), asOf);
		const before = pastOf(closed, ledgers, cards).ratios;
		const last = events.at(-1)!;
		const later = [...new Set(events.map((event) => event.card))].map((card) => ({
			card,
			at: last.at,
			event: 'sized' as const,
			value: '999',
		}));
		const sized = new Set(events.filter((event) => event.event === 'sized').map((event) => event.card));
		const more = [...events, ...later.filter((event) => sized.has(event.card))];
		const after = sprintAccounts(board, more, asOf);
		assert.notDeepEqual([...after.cards.values()], [...cards.values()], 'they are of another size now');
		assert.deepEqual(pastOf(closed, ledgers, after.cards).ratios, before);
	});
});

function middle(values: number[]): number {
	const sorted = [...values].sort((a, b) => a - b);
	const half = sorted.length / 2;
	return sorted.length % 2 ? sorted[Math.floor(half)]! : (sorted[half - 1]! + sorted[half]!) / 2;
}
