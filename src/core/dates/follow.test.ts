import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import fc from 'fast-check';
import { lengthOf } from '../calendar/workdays.ts';
import { weekday } from '../calendar/days.ts';
import {
	follow,
	keptLength,
	nextWorkday,
	shifted,
	shiftedBy,
	spanOf,
	type Blocks,
	type DatedCard,
	type Dates,
	type Following,
} from './follow.ts';

const week = (day: number) => weekday(day) < 5;
/** A Monday. */
const MONDAY = 4 + 7 * 10;
const card = (
	id: string,
	start: number | null,
	due: number | null,
	more: Partial<DatedCard> = {},
): DatedCard => ({
	...{ id, start, due, state: 'waits', mine: true, works: week },
	...more,
});
const graph = (...cards: DatedCard[]) => new Map(cards.map((one) => [one.id, one]));
const chain = (...ids: string[]): Blocks[] => ids.slice(1).map((to, i) => ({ from: ids[i]!, to }));
const to = (id: string, start: number | null, due: number | null) => new Map([[id, { start, due }]]);

describe('what follows from moving a card', () => {
	test('is moved to the first working day after it, keeping its length over the weekend, and so on down', () => {
		assert.equal(weekday(MONDAY), 0);
		const cards = graph(
			card('a', MONDAY, MONDAY + 1),
			card('b', MONDAY + 2, MONDAY + 4),
			card('c', MONDAY + 7, MONDAY + 7),
		);
		assert.deepEqual(follow(cards, chain('a', 'b', 'c'), to('a', MONDAY + 2, MONDAY + 3)), {
			moved: [
				// Three days: Friday, Monday and Tuesday.
				{ card: 'b', after: 'a', start: MONDAY + 4, due: MONDAY + 8 },
				{ card: 'c', after: 'b', start: MONDAY + 9, due: MONDAY + 9 },
			],
			conflicts: [],
		});
	});

	test('is nothing where it still holds, and nothing is pulled earlier', () => {
		const cards = graph(card('a', MONDAY, MONDAY + 1), card('b', MONDAY + 4, MONDAY + 4));
		const nothing: Following = { moved: [], conflicts: [] };
		assert.deepEqual(follow(cards, chain('a', 'b'), to('a', MONDAY, MONDAY + 3)), nothing);
		assert.deepEqual(follow(cards, chain('a', 'b'), to('a', MONDAY - 7, MONDAY - 6)), nothing);
	});

	test('goes after the latest of all that it still waits for; what is over holds nobody up', () => {
		const cards = graph(
			card('a', MONDAY, MONDAY),
			card('late', MONDAY, MONDAY + 8),
			card('done', MONDAY, MONDAY + 30, { state: 'over' }),
			card('b', MONDAY + 1, null),
		);
		const links = ['a', 'late', 'done'].map((from) => ({ from, to: 'b' }));
		assert.deepEqual(follow(cards, links, to('a', null, MONDAY + 1)).moved, [
			{ card: 'b', after: 'late', start: MONDAY + 9, due: null },
		]);
	});

	test('stops at what has begun, is done, is not one’s own or has no dates, and at who never works', () => {
		const stays = (more: Partial<DatedCard>, why: string) => {
			const cards = graph(
				card('a', MONDAY, MONDAY),
				card('b', MONDAY + 1, MONDAY + 1, more),
				card('c', MONDAY + 2, MONDAY + 2),
			);
			assert.deepEqual(follow(cards, chain('a', 'b', 'c'), to('a', MONDAY + 4, MONDAY + 4)), {
				moved: [],
				conflicts: [{ card: 'b', after: 'a', why }],
			});
		};
		stays({ state: 'begun' }, 'begun');
		stays({ state: 'over' }, 'over');
		stays({ mine: false }, 'not-yours');
		stays({ works: () => false }, 'no-days');
		const between = graph(card('a', MONDAY, MONDAY), card('b', null, null), card('c', MONDAY, MONDAY));
		assert.deepEqual(follow(between, chain('a', 'b', 'c'), to('a', MONDAY + 4, MONDAY + 4)), {
			moved: [],
			conflicts: [],
		});
	});

	test('says so where what is moved by hand starts before the end of what it waits for', () => {
		const cards = graph(card('a', MONDAY, MONDAY + 3), card('b', MONDAY + 4, MONDAY + 4));
		assert.deepEqual(follow(cards, chain('a', 'b'), to('b', MONDAY, MONDAY)).conflicts, [
			{ card: 'b', after: 'a', why: 'by-hand' },
		]);
	});

	test('a chain of a hundred thousand cards is followed to its end', () => {
		const ids = Array.from({ length: 100_000 }, (_, i) => String(i));
		const cards = new Map(ids.map((id, i) => [id, card(id, MONDAY + i, MONDAY + i, { works: () => true })]));
		const { moved } = follow(cards, chain(...ids), to('0', MONDAY, MONDAY + 1));
		assert.equal(moved.length, 99_999);
		assert.equal(moved.at(-1)!.due, MONDAY + 100_000);
	});
});

const anyDay = fc.integer({ min: MONDAY, max: MONDAY + 25 });
const anyDates: fc.Arbitrary<Dates> = fc.oneof(
	{
		weight: 5,
		arbitrary: fc
			.tuple(anyDay, fc.integer({ min: 0, max: 6 }))
			.map(([start, n]) => ({ start, due: start + n })),
	},
	fc.record({ start: anyDay, due: fc.constant(null) }),
	fc.record({ start: fc.constant(null), due: anyDay }),
	fc.constant({ start: null, due: null }),
);
/** A graph without loops: links lead from a card to a later one. */
const anyGraph = fc
	.array(
		fc.record({
			dates: anyDates,
			state: fc.constantFrom<DatedCard['state']>('waits', 'waits', 'waits', 'begun', 'over'),
			mine: fc.constantFrom(true, true, true, false),
			works: fc.constantFrom<DatedCard['works']>(
				week,
				(day) => weekday(day) !== 2,
				() => true,
			),
		}),
		{ minLength: 2, maxLength: 14 },
	)
	.chain((all) =>
		fc.record({
			cards: fc.constant(
				graph(...all.map(({ dates, ...more }, i) => card(String(i), dates.start, dates.due, more))),
			),
			links: fc
				.uniqueArray(fc.tuple(fc.nat(all.length - 1), fc.nat(all.length - 1)), {
					maxLength: 30,
					selector: ([a, b]) => `${Math.min(a, b)} ${Math.max(a, b)}`,
				})
				.map((pairs) =>
					pairs
						.filter(([a, b]) => a !== b)
						.map(([a, b]) => ({ from: String(Math.min(a, b)), to: String(Math.max(a, b)) })),
				),
			changed: fc
				.uniqueArray(fc.tuple(fc.nat(all.length - 1), anyDates), {
					minLength: 1,
					maxLength: 3,
					selector: ([i]) => i,
				})
				.map((list) => new Map(list.map(([i, dates]) => [String(i), dates]))),
		}),
	);

/** The same, again and again until nothing changes any more, card by card in no order. */
function slowly(
	cards: ReadonlyMap<string, DatedCard>,
	links: readonly Blocks[],
	changed: ReadonlyMap<string, Dates>,
) {
	const now = new Map<string, Dates>([...cards].map(([id, one]) => [id, changed.get(id) ?? one]));
	const end = (id: string, of: Dates = now.get(id)!) => spanOf(of)?.end ?? null;
	for (let again = true; again;) {
		again = false;
		for (const [id, one] of [...cards].reverse()) {
			const span = spanOf(now.get(id)!);
			if (changed.has(id) || !span || one.state !== 'waits' || !one.mine) continue;
			const waitsFor = links
				.filter(({ to }) => to === id)
				.map(({ from }) => from)
				.filter((from) => cards.get(from)!.state !== 'over' && end(from) !== null);
			const pushed = waitsFor.some(
				(from) => end(from) !== end(from, cards.get(from)) && end(from)! >= span.start,
			);
			if (!pushed) continue;
			const start = nextWorkday(one.works, Math.max(...waitsFor.map((from) => end(from)!)))!;
			now.set(id, keptLength(one, start)!);
			again = true;
		}
	}
	return now;
}

test('agrees with a slow one on any graph, moves nothing that has begun or is over, pulls nothing and keeps lengths', () => {
	fc.assert(
		fc.property(anyGraph, ({ cards, links, changed }) => {
			const { moved, conflicts } = follow(cards, links, changed);
			const slow = slowly(cards, links, changed);
			const now = new Map<string, Dates>([...cards].map(([id, one]) => [id, changed.get(id) ?? one]));
			for (const { card: id, start, due } of moved) now.set(id, { start, due });
			for (const [id, { start, due }] of now)
				assert.deepEqual({ start, due }, { start: slow.get(id)!.start, due: slow.get(id)!.due }, id);
			for (const { card: id, start, due } of moved) {
				const was = cards.get(id)!;
				assert.equal(was.state, 'waits');
				assert.ok(was.mine && !changed.has(id));
				assert.ok(spanOf({ start, due })!.start > spanOf(was)!.start, 'nothing is pulled earlier');
				if (was.start !== null && was.due !== null)
					assert.equal(lengthOf(was.works, start!, due!), lengthOf(was.works, was.start, was.due));
			}
			for (const { card: id, after } of conflicts)
				assert.ok(spanOf(now.get(after)!)!.end >= spanOf(now.get(id)!)!.start);

			// Doing it again does nothing more.
			const after = new Map([...cards].map(([id, one]) => [id, { ...one, ...now.get(id)! }]));
			assert.deepEqual(follow(after, links, changed).moved, []);
		}),
		{ numRuns: 3000 },
	);
});

test('a day that is shifted lies on a working day, and back again where it came from', () => {
	assert.equal(shiftedBy(week, MONDAY + 4, 1), MONDAY + 7);
	assert.equal(shiftedBy(week, MONDAY + 5, 0), MONDAY + 7);
	assert.equal(shiftedBy(week, MONDAY, -1), MONDAY - 3);
	assert.equal(
		shiftedBy(() => false, MONDAY, 1),
		null,
	);
	fc.assert(
		fc.property(anyDay, fc.integer({ min: -60, max: 60 }), (day, days) => {
			const shifted = shiftedBy(week, day, days)!;
			assert.ok(week(shifted));
			if (week(day)) assert.equal(shiftedBy(week, shifted, -days), day);
		}),
	);
});

test('cards are shifted from a day on, each as long as before, and back again', () => {
	const cards = [
		card('before', MONDAY - 3, MONDAY),
		card('long', MONDAY, MONDAY + 4),
		card('due', null, MONDAY + 1),
		card('begun', MONDAY, MONDAY + 1, { state: 'begun' }),
		card('theirs', MONDAY, MONDAY + 1, { mine: false }),
		card('never', MONDAY, MONDAY + 1, { works: () => false }),
		card('without', null, null),
	];
	const there = shifted(cards, MONDAY, 3);
	assert.deepEqual(
		[...there],
		[
			['long', { start: MONDAY + 3, due: MONDAY + 9 }],
			['due', { start: null, due: MONDAY + 4 }],
		],
	);
	const now = cards.map((one) => ({ ...one, ...there.get(one.id) }));
	assert.deepEqual(
		[...shifted(now, MONDAY + 3, -3)],
		[
			['long', { start: MONDAY, due: MONDAY + 4 }],
			['due', { start: null, due: MONDAY + 1 }],
		],
	);
});
