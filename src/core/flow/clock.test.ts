import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import fc from 'fast-check';
import { zoneOf } from '../calendar/zone.ts';
import { atOnce } from '../steps.ts';
import { ageing, pastShapes } from './ageing.ts';
import { archive, enter, NEW_CLOCK, restore, type CardClock } from './clock.ts';
import { expectationOf } from './expectation.ts';
import type { FiledEvent } from '../events/kinds.ts';
import { inOrder, type HistoryEvent } from './history.ts';
import type { Layout } from './layout.ts';
import { lifetimes } from './lifetime.ts';
import { standing } from './standing.ts';
import {
	activeHours,
	blockedHours,
	columnHours,
	cycleDays,
	cycleHours,
	flowEfficiency,
	leadDays,
} from './times.ts';

const HOUR = 3_600_000;
const DAY = 24 * HOUR;
const utc = zoneOf('UTC');
const layout: Layout = {
	columns: [
		{ name: 'Ready', kind: 'queue' },
		{ name: 'Making', kind: 'work' },
		{ name: 'Check', kind: 'queue' },
		{ name: 'Done', kind: 'done' },
		{ name: 'Told', kind: 'done' },
	],
	commitment: 1,
};
const [READY, MAKING, CHECK, DONE, TOLD] = [0, 1, 2, 3, 4];
const go = (...moves: [column: number | null, at: number][]) =>
	moves.reduce<CardClock>((clock, [column, at]) => enter(layout, clock, column, at), NEW_CLOCK);

describe('the clock', () => {
	test('starts at or after the commitment column', () => {
		assert.equal(go([READY, 1]).state, 'none');
		assert.deepEqual(
			[go([READY, 1], [MAKING, 2]).state, go([READY, 1], [MAKING, 2]).started],
			['running', 2],
		);
		assert.equal(go([CHECK, 5]).started, 5);
	});

	test('straight to done takes no time', () => {
		const clock = go([DONE, 7]);
		assert.deepEqual([clock.state, clock.started, clock.finished], ['done', 7, 7]);
	});

	test('before the commitment it keeps running; in the backlog it forgets', () => {
		assert.deepEqual(
			[go([MAKING, 1], [READY, 2]).state, go([MAKING, 1], [READY, 2]).started],
			['running', 1],
		);
		assert.deepEqual([go([MAKING, 1], [null, 2]).state, go([MAKING, 1], [null, 2]).started], ['none', null]);
	});

	test('another done column keeps the finish; reopening keeps the start', () => {
		assert.equal(go([MAKING, 1], [DONE, 2], [TOLD, 3]).finished, 2);
		const reopened = go([MAKING, 1], [DONE, 2], [MAKING, 3]);
		assert.deepEqual([reopened.state, reopened.started, reopened.finished], ['running', 1, null]);
	});

	test('where it already stands is no event', () => {
		const clock = go([MAKING, 1]);
		assert.equal(enter(layout, clock, MAKING, 9), clock);
	});

	test('archiving drops what is not done, and restoring brings it back', () => {
		const clock = go([MAKING, 1]);
		assert.equal(archive(clock).state, 'dropped');
		assert.equal(archive(archive(clock)).state, 'dropped');
		assert.deepEqual(restore(archive(clock)).state, 'running');
		assert.equal(enter(layout, archive(clock), DONE, 4).state, 'dropped', 'moves are ignored while archived');
		assert.equal(archive(go([DONE, 1])).state, 'done');
	});

	test('whatever happens, a state has the instants that belong to it', () => {
		const move = fc.tuple(
			fc.constantFrom(null, 0, 1, 2, 3, 4),
			fc.constantFrom('enter', 'archive', 'restore'),
		);
		fc.assert(
			fc.property(fc.array(move, { maxLength: 30 }), (moves) => {
				let clock = NEW_CLOCK;
				moves.forEach(([column, what], at) => {
					clock =
						what === 'enter'
							? enter(layout, clock, column, at)
							: what === 'archive'
								? archive(clock)
								: restore(clock);
					assert.equal(clock.finished !== null, clock.state === 'done');
					if (clock.state === 'running' || clock.state === 'done') assert.notEqual(clock.started, null);
					if (clock.state === 'none') assert.equal(clock.started, null);
					if (clock.finished !== null) assert.ok(clock.started! <= clock.finished);
				});
			}),
		);
	});
});

const event = (card: string, hour: number, kind: FiledEvent, value = ''): HistoryEvent => ({
	card,
	at: hour * HOUR,
	event: kind,
	value,
});

describe('a lifetime', () => {
	const history = inOrder([
		event('A', 0, 'created', 'A card'),
		event('A', 10, 'column', 'Ready'),
		event('A', 20, 'column', 'Making'),
		event('A', 26, 'blocked', 'Part'),
		event('A', 27, 'blocked', 'Ignored'),
		event('A', 32, 'unblocked'),
		event('A', 44, 'column', 'Check'),
		event('A', 50, 'blocked', 'Access'),
		event('A', 68, 'column', 'Done'),
	]);
	const [life] = lifetimes(layout, history, 100 * HOUR) as [ReturnType<typeof lifetimes>[number]];

	test('says how long everything took', () => {
		assert.deepEqual([cycleDays(life, utc), leadDays(life, utc), cycleHours(life)], [3, 3, 48]);
		assert.deepEqual([activeHours(life, layout, 100 * HOUR), blockedHours(life, 100 * HOUR)], [18, 24]);
		assert.equal(flowEfficiency(life, layout, 100 * HOUR), 18 / 48);
		assert.deepEqual(columnHours(life, layout, 100 * HOUR), [0, 24, 24, 0, 0]);
		assert.deepEqual(
			life.blockages.map((blockage) => blockage.reason),
			['Part', 'Access'],
		);
	});

	test('has no figures of a finish before its finish', () => {
		const [early] = lifetimes(layout, history, 60 * HOUR) as [typeof life];
		for (const figure of [
			cycleDays(early, utc),
			leadDays(early, utc),
			cycleHours(early),
			activeHours(early, layout, 60 * HOUR),
			blockedHours(early, 60 * HOUR),
			flowEfficiency(early, layout, 60 * HOUR),
		])
			assert.equal(figure, null);
		assert.deepEqual(ageing([early], utc, 60 * HOUR), [
			{ card: 'A', column: CHECK, ageDays: 3, columnDays: 2 },
		]);
	});

	test('its past shape is the age at the last leaving of each column', () => {
		assert.deepEqual(
			atOnce(pastShapes([life], layout, utc, 0, 10)),
			[[1], [2], [3], [], []],
			'leaving at the very start counts',
		);
		assert.deepEqual(
			atOnce(pastShapes([life], layout, utc, 3, 10)),
			[[], [], [], [], []],
			'outside the window nothing counts',
		);
	});
});

test('stays follow each other without overlap, and what stands is what came less what went', () => {
	const happening = fc.tuple(
		fc.constantFrom('A', 'B', 'C'),
		fc.nat(24 * 12),
		fc.oneof(
			fc.tuple(
				fc.constant<FiledEvent>('column'),
				fc.constantFrom('', 'Ready', 'Making', 'Check', 'Done', 'Told'),
			),
			fc.tuple(fc.constantFrom<FiledEvent>('archived', 'restored'), fc.constant('')),
		),
	);
	fc.assert(
		fc.property(fc.array(happening, { maxLength: 60 }), (list) => {
			const history = inOrder(list.map(([card, hour, [kind, value]]) => event(card, hour, kind, value)));
			const asOf = 13 * DAY;
			const lives = lifetimes(layout, history, asOf);
			for (const life of lives) {
				life.stays.forEach((stay, i) => {
					const next = life.stays[i + 1];
					assert.ok(
						stay.until === null ? !next : stay.until >= stay.from && (!next || next.from >= stay.until),
					);
				});
				assert.equal(life.stays.at(-1)?.until === null ? life.stays.at(-1)!.column : null, life.column);
			}
			const last = standing(layout, utc, history, 0, 13, asOf).at(-1)!;
			assert.equal(last.wip, lives.filter((life) => life.state === 'running').length);
			for (const [column, n] of last.columns.entries())
				assert.equal(
					n,
					lives.filter(
						(life) => life.column === column && (!life.archived || layout.columns[column]!.kind === 'done'),
					).length,
				);
		}),
	);
});

test('an expectation needs ten cards', () => {
	assert.equal(expectationOf([1, 2, 3, 4, 5, 6, 7, 8, 9]), null);
	assert.deepEqual(expectationOf([9, 1, 2, 3, 4, 5, 6, 7, 8, 10]), {
		n: 10,
		median: 5,
		days: 9,
		percentile: 85,
	});
});
