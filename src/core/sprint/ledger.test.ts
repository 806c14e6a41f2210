import assert from 'node:assert/strict';
import { test } from 'node:test';
import fc from 'fast-check';
import { parseInstant } from '../calendar/instant.ts';
import type { FiledEvent } from '../events/kinds.ts';
import type { HistoryEvent } from '../flow/history.ts';
import { sprintReport } from '../exchange/report.ts';
import { agree, readVector, VECTORS } from '../testing/vectors.ts';
import { sprintAccounts } from './accounts.ts';
import type { Ledger, SprintBoard } from './ledger.ts';
import { balances, sidesOf } from './settle.ts';

const ledgers = (...args: Parameters<typeof sprintAccounts>) => sprintAccounts(...args).ledgers;

for (const [name, asOf] of VECTORS)
	test(`the sprints of the ${name} history have their true ledgers and stints`, () => {
		const { board, events, expected } = readVector(name);
		const actual = ledgers(board, events, parseInstant(asOf)!).map(sprintReport);
		const order = (sprint: Record<string, unknown>) => Object.fromEntries(Object.entries(sprint).sort());
		const sorted = (list: Record<string, unknown>[]) =>
			list.map((s) => order({ ...s, stints: (s.stints as Record<string, unknown>[]).map(order) }));
		agree(sorted(actual as unknown as Record<string, unknown>[]), sorted(expected.sprints), 'sprints');
	});

/** What is left at the start and after each move. */
function leftAfter(ledger: Ledger): number[] {
	let left = ledger.committed;
	return [
		left,
		...ledger.moves.map(
			({ kind, amount }) => (left += kind === 'added' || kind === 'resized' ? amount : -amount),
		),
	];
}

const HOUR = 3_600_000;
const board: SprintBoard = {
	columns: [
		{ name: 'Ready', kind: 'queue' },
		{ name: 'Making', kind: 'work' },
		{ name: 'Done', kind: 'done' },
	],
	commitment: 1,
	unit: 'hours',
	sprints: [1, 2, 3].map((number) => ({
		number,
		starts: number,
		ends: number,
		startedAt: number * 10 * HOUR,
		closedAt: number < 3 ? (number * 10 + 8) * HOUR : null,
	})),
};

const happening = fc.record({
	card: fc.constantFrom('A-1', 'A-2', 'A-3'),
	hour: fc.integer({ min: 0, max: 45 }),
	what: fc.oneof(
		fc.tuple(fc.constant('column' as FiledEvent), fc.constantFrom('', 'Ready', 'Making', 'Done')),
		fc.tuple(
			fc.constantFrom<FiledEvent>('sized', 'left', 'worked', 'split'),
			fc.integer({ min: 0, max: 20 }).map(String),
		),
		fc.tuple(fc.constant('sprint' as FiledEvent), fc.constantFrom('', '1', '2', '3')),
		fc.tuple(fc.constantFrom<FiledEvent>('archived', 'restored'), fc.constant('')),
	),
});

const histories = fc.array(happening, { maxLength: 60 }).map((list): HistoryEvent[] =>
	list
		.map(({ card, hour, what: [event, value] }) => ({ card, at: hour * HOUR, event, value }))
		.filter(({ at, event, value }) => {
			const sprint = event === 'sprint' && board.sprints.find((s) => String(s.number) === value);
			return !sprint || sprint.closedAt === null || at <= sprint.closedAt;
		})
		.sort((a, b) => a.at - b.at),
);

test('both sides of every ledger agree, whatever happens to the cards', () => {
	fc.assert(
		fc.property(histories, (events) => {
			for (const l of ledgers(board, events, 50 * HOUR)) {
				const came = l.committed + l.added + l.resized;
				const went = l.burned + l.splitOff + l.removed + l.carried + l.returned + l.dropped + l.open;
				assert.equal(came, went);
				for (const s of l.stints) assert.equal(s.entry + s.resized, s.burned + s.splitOff + s.exit);
				assert.ok(leftAfter(l).every((left) => left >= 0));
				assert.ok(balances(l));
				const sides = sidesOf(l);
				for (const side of [sides.came, sides.became])
					assert.ok(Math.abs(side.reduce((sum, entry) => sum + entry.amount, 0) - sides.total) < 1e-6);
			}
		}),
		{ numRuns: 2000 },
	);
});

test('what is left of a running sprint is where its moves lead', () => {
	fc.assert(
		fc.property(histories, (events) => {
			const running = ledgers(board, events, 50 * HOUR).find((l) => l.number === 3);
			assert.equal(running && leftAfter(running).at(-1), running?.open);
		}),
	);
});
