import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import fc from 'fast-check';
import { parseDay } from '../calendar/days.ts';
import { mulberry32 } from './chance.ts';
import { daysAway, hoursOn, rawHours, shareOn, sprintDays, type Rota } from './hours.ts';
import { odds, takeOff, tooLittle, type OddsInput } from './odds.ts';
import { learn, median, partsInHours, partsInPoints, placedBy, type PlannedCard } from './promise.ts';
import { shareOut, type Hand, type LooseCard } from './share-out.ts';
import { personWeeks, type WeekBoard } from './weeks.ts';

const day = (text: string) => parseDay(text)!;
const rota = (more: Partial<Rota> = {}): Rota => ({
	boards: ['a', 'b'],
	weeks: [{ person: 'ann', from: day('2026-01-01'), hours: [8, 8, 8, 8, 4, 0, 0] }],
	absences: [],
	shares: [{ person: 'ann', from: day('2026-01-01'), boards: { a: 1 } }],
	holidays: new Set(),
	// Whoever it is about has always been there.
	members: ['ann', 'bob', 'cyd'].map((person) => ({ person, from: 0, until: null })),
	...more,
});

describe('hours', () => {
	test('are those of the weekday, less what one is away, never below 0', () => {
		const away = rota({
			absences: [
				{ person: 'ann', from: day('2026-11-24'), to: day('2026-11-24'), hours: 3 },
				{ person: 'ann', from: day('2026-11-25'), to: day('2026-11-26'), hours: null },
				{ person: 'ann', from: day('2026-11-27'), to: day('2026-11-27'), hours: 6 },
				{ person: 'bob', from: day('2026-11-23'), to: day('2026-11-27'), hours: null },
			],
		});
		const week = [23, 24, 25, 26, 27, 28].map((d) => hoursOn(away, 'ann', day(`2026-11-${d}`)));
		assert.deepEqual(week, [8, 5, 0, 0, 0, 0]);
		assert.deepEqual(
			daysAway(away, 'ann', day('2026-11-23'), day('2026-11-29')),
			[25, 26, 27].map((d) => day(`2026-11-${d}`)),
		);
	});

	test('are 0 on a holiday, also on the first day of a sprint', () => {
		const holiday = rota({ holidays: new Set([day('2026-11-23')]) });
		assert.equal(rawHours(holiday, 'ann', 'a', day('2026-11-23'), day('2026-11-27')), 28);
		assert.equal(hoursOn(holiday, 'ann', day('2026-11-23')), 0);
	});

	test('are the same in the weeks in which the clocks change: days are dates', () => {
		const hours = (from: string, to: string) => rawHours(rota(), 'ann', 'a', day(from), day(to));
		assert.equal(hours('2026-03-23', '2026-03-29'), 36);
		assert.equal(hours('2026-10-19', '2026-10-25'), 36);
		assert.equal(hours('2026-06-01', '2026-06-07'), 36);
	});

	test('begin for someone who joins in the middle of a sprint on the day they join', () => {
		const joined = rota({
			weeks: [{ person: 'ann', from: day('2026-11-26'), hours: [8, 8, 8, 8, 8, 0, 0] }],
		});
		assert.equal(rawHours(joined, 'ann', 'a', day('2026-11-23'), day('2026-12-04')), 7 * 8);
	});

	test('of a dated week do not rewrite the past', () => {
		const part = rota({
			weeks: [
				{ person: 'ann', from: day('2026-01-01'), hours: [8, 8, 8, 8, 8, 0, 0] },
				{ person: 'ann', from: day('2026-11-25'), hours: [4, 4, 4, 0, 0, 0, 0] },
			],
		});
		assert.equal(rawHours(part, 'ann', 'a', day('2026-11-23'), day('2026-11-29')), 8 + 8 + 4);
	});

	test('of someone on two boards are shared, equally unless said otherwise', () => {
		const equal = rota({ shares: [] });
		assert.equal(shareOn(equal, 'ann', 'a', day('2026-11-23')), 0.5);
		assert.equal(shareOn(equal, 'ann', 'other', day('2026-11-23')), 0);
		const set = rota({
			shares: [
				{ person: 'ann', from: day('2026-01-01'), boards: { a: 0.7, b: 0.3 } },
				{ person: 'ann', from: day('2026-11-26'), boards: { b: 1 } },
			],
		});
		assert.equal(rawHours(set, 'ann', 'a', day('2026-11-23'), day('2026-11-27')), 16.8);
		assert.equal(rawHours(set, 'ann', 'b', day('2026-11-23'), day('2026-11-27')), 19.2);
	});

	test('of a sprint end where the next one starts', () => {
		const sprint = { starts: 10, ends: 30 };
		assert.deepEqual(sprintDays(sprint, [sprint, { starts: 24 }, { starts: 40 }]), { from: 10, to: 23 });
		assert.deepEqual(sprintDays(sprint, [{ starts: 2 }]), { from: 10, to: 30 });
	});

	test('never come to more on all boards than a person works', () => {
		const share = fc.record({ a: fc.integer({ min: 0, max: 50 }), b: fc.integer({ min: 0, max: 50 }) });
		const absence = fc.record({
			from: fc.integer({ min: 0, max: 40 }),
			length: fc.integer({ min: 0, max: 9 }),
			hours: fc.option(fc.integer({ min: 1, max: 9 })),
		});
		fc.assert(
			fc.property(share, fc.array(absence, { maxLength: 6 }), ({ a, b }, list) => {
				const start = day('2026-11-02');
				const given = rota({
					shares: [{ person: 'ann', from: 0, boards: { a: a / 100, b: b / 100 } }],
					absences: list.map(({ from, length, hours }) => ({
						person: 'ann',
						from: start + from,
						to: start + from + length,
						hours,
					})),
				});
				let all = 0;
				for (let d = start; d < start + 40; d++) all += hoursOn(given, 'ann', d);
				const sum =
					rawHours(given, 'ann', 'a', start, start + 39) + rawHours(given, 'ann', 'b', start, start + 39);
				assert.ok(Math.abs(sum - (all * (a + b)) / 100) < 1e-3, `${sum} of ${all}`);
			}),
		);
	});
});

describe('what is learned', () => {
	const sprint = (number: number, worked: number, unplanned: number, raw = 100, delivered = 40) => ({
		number,
		worked,
		unplanned,
		raw,
		delivered,
	});

	test('is what is usual until three sprints are closed', () => {
		assert.deepEqual(learn([sprint(1, 50, 5), sprint(2, 60, 6)]), {
			focus: 0.75,
			keepBack: 0.2,
			from: 0,
			perDay: null,
			delivered: null,
		});
	});

	test('counts the last six with hours: the median of focus, enough of a keep-back for most', () => {
		const closed = [
			sprint(1, 99, 99),
			sprint(2, 40, 4),
			sprint(3, 50, 10),
			sprint(4, 60, 30),
			sprint(5, 30, 0, 0),
			sprint(6, 70, 7),
			sprint(7, 80, 24),
		];
		const learned = learn(closed);
		assert.equal(learned.from, 6);
		assert.ok(Math.abs(learned.focus - 0.65) < 1e-9);
		// Of 1, 0.1, 0.2, 0.5, 0.1 and 0.3 the fifth smallest: 70% of six is rank 4.2.
		assert.equal(learned.keepBack, 0.5);
		assert.equal(learned.perDay, 40 / (100 / 8));
		assert.equal(learn(closed.map((one) => ({ ...one, worked: 300 }))).focus, 1, 'never above 1');
		const unstaffed = learn([sprint(1, 50, 5), sprint(2, 60, 6), sprint(3, 30, 0, 0)]);
		assert.deepEqual([unstaffed.from, unstaffed.focus, unstaffed.delivered], [0, 0.75, 40]);
		assert.equal(median([1, 2, 3, 10]), 2.5);
		assert.equal(median([]), null);
	});
});

describe('parts in a sprint', () => {
	const raw = new Map([
		['ann', 80],
		['bob', 40],
		['cyd', 0],
	]);

	test('promise what is left of the hours to give after the keep-back', () => {
		const cards: PlannedCard[] = [
			{ card: '1', left: 50, owners: ['ann'] },
			{ card: '2', left: 12, owners: ['ann', 'bob'] },
			{ card: '3', left: 9, owners: ['ann', 'gone'] },
			{ card: '4', left: 5, owners: ['bob'], unplanned: true },
			{ card: '5', left: 2, owners: ['cyd'] },
		];
		const [ann, bob, cyd] = partsInHours(raw, 0.75, 0.2, cards);
		assert.deepEqual([ann!.give, ann!.promise, ann!.placed, ann!.standing], [60, 48, 65, 'over']);
		assert.deepEqual([bob!.placed, bob!.surprises, bob!.standing], [6, 5, 'room']);
		assert.deepEqual([cyd!.promise, cyd!.load, cyd!.standing], [0, null, 'over']);
	});

	test('in points come from velocity by person-day, with nothing kept back', () => {
		const parts = partsInPoints(raw, 1.5, []);
		assert.deepEqual(
			parts.map((part) => part.promise),
			[15, 7.5, 0],
		);
		assert.deepEqual(
			partsInPoints(raw, null, []).map((part) => part.promise),
			[0, 0, 0],
		);
	});

	test('a card larger than anyone’s promise is over, whoever has it', () => {
		for (const owner of ['ann', 'bob'])
			assert.equal(
				partsInHours(raw, 0.75, 0.2, [{ card: '1', left: 49, owners: [owner] }]).find(
					(part) => part.person === owner,
				)!.standing,
				'over',
			);
	});

	test('hold together what is left of their cards: nothing is lost or doubled by sharing', () => {
		const card = fc.record({
			card: fc.string(),
			left: fc.integer({ min: 0, max: 60 }),
			owners: fc.uniqueArray(fc.constantFrom('ann', 'bob', 'cyd', 'gone'), { maxLength: 4 }),
			unplanned: fc.boolean(),
		});
		fc.assert(
			fc.property(fc.array(card, { maxLength: 30 }), (cards) => {
				const team = new Set(raw.keys());
				const { placed, surprises } = placedBy(cards, team);
				const held = [...placed.values(), ...surprises.values()].reduce((a, b) => a + b, 0);
				const owned = cards.filter((one) => one.owners.some((owner) => team.has(owner)));
				assert.ok(Math.abs(held - owned.reduce((sum, one) => sum + one.left, 0)) < 1e-6);
			}),
		);
	});
});

describe('sharing out', () => {
	const hand = (person: string, promise: number, placed = 0, skills: string[] = []): Hand => ({
		person,
		promise,
		placed,
		skills,
	});

	test('gives each card to who has most room for it, and then evens out', () => {
		const { owners, placed } = shareOut(
			[
				{ card: '1', left: 10, skills: [] },
				{ card: '2', left: 6, skills: ['radio'] },
				{ card: '3', left: 30, skills: [] },
				{ card: '4', left: 4, skills: [] },
			],
			[hand('ann', 20), hand('bob', 18, 6, ['radio'])],
		);
		assert.deepEqual([...owners].sort(), [
			['1', 'ann'],
			['2', 'bob'],
			['4', 'ann'],
		]);
		assert.deepEqual(
			[...placed],
			[
				['ann', 14],
				['bob', 12],
			],
		);
	});

	test('exchanges two cards where no single move helps', () => {
		// One by one: 9 to ann, 8 to bob, 5 to bob (most room), 2 to ann; 8 and 5 against 9 and 2. An exchange evens it.
		const { placed } = shareOut(
			[9, 8, 5, 2].map((left, i) => ({ card: String(i), left, skills: [] })),
			[hand('ann', 14), hand('bob', 14)],
		);
		assert.ok(Math.max(...placed.values()) <= 13);
	});

	const cards = fc.array(
		fc.record({
			left: fc.integer({ min: 0, max: 20 }),
			skills: fc.subarray(['radio', 'text'] as string[]),
		}),
		{ maxLength: 14 },
	);
	const hands = fc.array(
		fc.record({
			promise: fc.integer({ min: 0, max: 40 }),
			placed: fc.integer({ min: 0, max: 50 }),
			skills: fc.subarray(['radio', 'text'] as string[]),
		}),
		{ minLength: 1, maxLength: 5 },
	);
	const given = fc
		.tuple(cards, hands)
		.map(([c, h]): [LooseCard[], Hand[]] => [
			c.map((card, i) => ({ ...card, card: `C-${i + 10}` })),
			h.map((one, i) => ({ ...one, person: `p${i}` })),
		]);
	const load = (placed: number, promise: number) =>
		promise > 0 ? placed / promise : placed > 0 ? Infinity : 0;

	test('is deterministic, keeps skills and fit, and never makes the largest load worse than 1', () => {
		fc.assert(
			fc.property(given, ([c, h]) => {
				const found = shareOut(c, h);
				const reversed = shareOut(c, [...h].reverse());
				assert.deepEqual([...found.owners].sort(), [...reversed.owners].sort());
				const sums = new Map(h.map((one) => [one.person, one.placed]));
				for (const [key, person] of found.owners) {
					const card = c.find((one) => one.card === key)!;
					const one = h.find((known) => known.person === person)!;
					assert.ok(card.skills.every((skill) => one.skills.includes(skill)));
					sums.set(person, sums.get(person)! + card.left);
				}
				for (const one of h) {
					assert.ok(Math.abs(sums.get(one.person)! - found.placed.get(one.person)!) < 1e-6);
					// Only who was over by cards that had owners before may still be.
					if (sums.get(one.person)! > one.placed) assert.ok(sums.get(one.person)! <= one.promise + 1e-6);
				}
				const largest = (of: (one: Hand) => number) =>
					Math.max(...h.map((one) => load(of(one), one.promise)));
				assert.ok(
					largest((one) => found.placed.get(one.person)!) <=
						Math.max(
							1,
							largest((one) => one.placed),
						) +
							1e-9,
				);
			}),
			{ numRuns: 500 },
		);
	});

	test('leaves no single move that would lower the largest load', () => {
		fc.assert(
			fc.property(given, ([c, h]) => {
				const { owners, placed } = shareOut(c, h);
				const loads = h.map((one) => load(placed.get(one.person)!, one.promise));
				const top = Math.max(...loads);
				if (loads.filter((one) => one > top - 1e-9).length > 1) return;
				const from = h[loads.indexOf(top)]!;
				for (const card of c)
					if (owners.get(card.card) === from.person)
						for (const to of h) {
							if (to === from || !card.skills.every((skill) => to.skills.includes(skill))) continue;
							const more = placed.get(to.person)! + card.left;
							if (more > to.promise) continue;
							assert.ok(
								Math.max(load(placed.get(from.person)! - card.left, from.promise), load(more, to.promise)) >=
									top - 1e-6,
							);
						}
			}),
			{ numRuns: 500 },
		);
	});

	test('takes less than 200 ms for 300 cards and 40 people', () => {
		const draw = mulberry32(7);
		const c = Array.from({ length: 300 }, (_, i) => ({
			card: `C-${1000 + i}`,
			left: 1 + Math.floor(draw() * 12),
			skills: [],
		}));
		const h = Array.from({ length: 40 }, (_, i) => hand(`p${10 + i}`, 40 + Math.floor(draw() * 30)));
		shareOut(c, h);
		const began = performance.now();
		const { owners } = shareOut(c, h);
		const took = performance.now() - began;
		assert.ok(owners.size > 250);
		assert.ok(took < 200, `${took} ms`);
	});
});

describe('odds', () => {
	const ratios = Array.from({ length: 24 }, (_, i) => 0.6 + (i % 8) * 0.2);
	const pairs = [
		{ focus: 0.6, keepBack: 0.1 },
		{ focus: 0.7, keepBack: 0.2 },
		{ focus: 0.5, keepBack: 0.3 },
	];
	const input = (more: Partial<OddsInput> = {}): OddsInput => ({
		cards: [
			{ card: '1', left: 10, owners: ['ann'], skills: [] },
			{ card: '2', left: 12, owners: ['ann', 'bob'], skills: [] },
			{ card: '3', left: 9, owners: ['bob'], skills: [] },
			{ card: '4', left: 6, owners: ['ann'], skills: [] },
		],
		hands: [],
		raw: { ann: 60, bob: 40 },
		past: { ratios, pairs },
		trials: 10_000,
		seed: 11,
		...more,
	});

	/** The same by counting every pair with every combination of ratios: exact, and nothing like the simulation. */
	function exact({ cards, raw, past }: OddsInput): { all: number; each: number[] } {
		const each = cards.map(() => 0);
		let [all, n] = [0, 0];
		const kinds = [...new Set(past.ratios)];
		const weight = kinds.map((ratio) => past.ratios.filter((r) => r === ratio).length / past.ratios.length);
		for (const pair of past.pairs) {
			const go = (i: number, totals: Record<string, number>, done: boolean[], p: number): void => {
				if (i === cards.length) {
					n += p;
					if (done.every(Boolean)) all += p;
					done.forEach((one, c) => (each[c]! += one ? p : 0));
					return;
				}
				const card = cards[i]!;
				kinds.forEach((ratio, k) => {
					const next = { ...totals };
					let fits = card.owners.length > 0;
					for (const owner of card.owners) {
						next[owner] = (next[owner] ?? 0) + (card.left * ratio) / card.owners.length;
						if (next[owner]! > (raw[owner] ?? 0) * pair.focus * (1 - pair.keepBack)) fits = false;
					}
					go(i + 1, next, [...done, fits], p * weight[k]!);
				});
			};
			go(0, {}, [], 1);
		}
		return { all: all / n, each: each.map((one) => one / n) };
	}

	test('agree with a slow independent count within three standard errors', () => {
		for (const more of [
			{},
			{ raw: { ann: 45, bob: 22 }, seed: 5 },
			{ raw: { ann: 80, bob: 80 }, seed: 99 },
			{ raw: { ann: 30, bob: 15 }, seed: 3 },
		]) {
			const asked = input(more);
			const found = odds(asked)!;
			const truth = exact(asked);
			const near = (count: number, p: number, what: string) =>
				assert.ok(
					Math.abs(count / asked.trials - p) <= 3 * Math.sqrt((p * (1 - p)) / asked.trials) + 1e-9,
					`${what}: ${count / asked.trials} for ${p}`,
				);
			near(found.all, truth.all, 'all');
			found.each.forEach((one, i) => near(one.done, truth.each[i]!, one.card));
		}
	});

	test('give the same counts for the same seed, and others for another', () => {
		assert.deepEqual(odds(input()), odds(input()));
		assert.notDeepEqual(odds(input())!.each, odds(input({ seed: 12 }))!.each);
		// The generator’s known first numbers for this seed, in millionths.
		assert.deepEqual(
			[0, 1, 2].map(
				(
					(draw) => () =>
						Math.floor(draw() * 1e6)
				)(mulberry32(42)),
			),
			[601103, 448290, 852465],
		);
	});

	test('of nobody’s card are none, and without enough past there are none at all', () => {
		const found = odds(input({ cards: [{ card: '1', left: 1, owners: [], skills: [] }] }))!;
		assert.deepEqual([found.all, found.each[0]!.done, found.leftOver], [0, 0, 1]);
		assert.deepEqual(found.nobodys, ['1']);
		assert.equal(odds(input({ past: { ratios: ratios.slice(0, 19), pairs } })), null);
		assert.equal(odds(input({ past: { ratios, pairs: pairs.slice(0, 2) } })), null);
		assert.match(tooLittle({ ratios: [], pairs })!, /0 of 20 past cards/);
		assert.match(tooLittle({ ratios, pairs: [] })!, /0 of 3 sprints/);
	});

	test('of an empty sprint and of zero capacity are certain either way', () => {
		assert.equal(odds(input({ cards: [] }))!.all, 10_000);
		assert.equal(odds(input({ raw: { ann: 0, bob: 0 } }))!.all, 0);
	});

	test('of a card that nobody owns are those of whom sharing out gives it to', () => {
		const loose = { card: '5', left: 6, owners: [], skills: ['welding'] };
		const hands = [
			{ person: 'ann', promise: 99, placed: 0, skills: [] },
			{ person: 'bob', promise: 20, placed: 9, skills: ['welding'] },
		];
		const cards = [...input().cards, loose];
		const given = odds(input({ cards, hands }))!;
		assert.deepEqual(given.nobodys, []);
		assert.deepEqual(
			given.each,
			odds(input({ cards: [...input().cards, { ...loose, owners: ['bob'] }] }))!.each,
		);
		const full = odds(input({ cards, hands: [hands[0]!, { ...hands[1]!, promise: 10 }] }))!;
		assert.deepEqual([full.all, full.nobodys], [0, ['5']], 'who can do it has no room');
	});

	test('to reach a level are the least likely cards taken off, reckoned anew each time', () => {
		const tight = input({ raw: { ann: 45, bob: 22 } });
		for (const level of [0.1, 0.5, 0.9, 1]) {
			const off = takeOff(tight, level)!;
			let { cards } = tight;
			for (const card of off) {
				const found = odds({ ...tight, cards })!;
				assert.ok(found.all < level * found.trials, 'not one more than has to come off');
				const least = Math.min(...found.each.map((one) => one.done));
				assert.equal(found.each.findLast((one) => one.done === least)!.card, card);
				cards = cards.filter((known) => known.card !== card);
			}
			const after = odds({ ...tight, cards })!;
			assert.ok(after.all >= level * after.trials);
		}
		assert.deepEqual(takeOff(tight, 0), []);
		assert.equal(takeOff({ ...tight, past: { ratios: [], pairs: [] } }, 0.5), null);
	});

	test('of 300 cards of 40 people take less than a second for 10,000 trials', () => {
		const cards = Array.from({ length: 300 }, (_, i) => ({
			card: String(i),
			left: 1 + (i % 9),
			owners: [`p${i % 40}`],
			skills: [],
		}));
		const raw = Object.fromEntries(Array.from({ length: 40 }, (_, i) => [`p${i}`, 80]));
		const began = performance.now();
		assert.ok(odds(input({ cards, raw }))!.all >= 0);
		assert.ok(performance.now() - began < 1000, `${performance.now() - began} ms`);
	});
});

describe('the weeks of people', () => {
	const board = (more: Partial<WeekBoard> = {}): WeekBoard => ({
		id: 'a',
		unit: 'hours',
		focus: 0.5,
		keepBack: 0.2,
		perDay: null,
		sprints: [
			{
				number: 4,
				from: day('2026-11-23'),
				to: day('2026-12-04'),
				focus: null,
				keepBack: null,
				cards: [{ card: 'A-1', left: 24, owners: ['ann'] }],
			},
		],
		inHand: [],
		...more,
	});

	test('spread a sprint’s work over its days to come, by the hours on them', () => {
		const away = rota({
			absences: [{ person: 'ann', from: day('2026-11-30'), to: day('2026-12-02'), hours: null }],
		});
		const weeks = personWeeks(away, [board()], ['ann'], day('2026-11-25'), 3);
		assert.deepEqual(
			weeks.map((week) => [week.hours, week.give, week.promise, week.placed, week.away]),
			[
				[20, 10, 8, 15, 0],
				[12, 6, 4.8, 9, 3],
				[36, 18, 14.4, 0, 0],
			],
		);
		assert.deepEqual(weeks[0]!.cards, [{ card: 'A-1', hours: 15 }]);
		assert.deepEqual(
			weeks.map((week) => week.standing),
			['over', 'over', 'room'],
		);
	});

	test('lay work in hand without a sprint on the weeks in order, as far as the promise goes', () => {
		const weeks = personWeeks(
			rota(),
			[board({ sprints: [], inHand: [{ card: 'B-1', left: 20, owners: ['ann'] }] })],
			['ann'],
			day('2026-11-23'),
			2,
		);
		assert.deepEqual(
			weeks.map((week) => week.placed),
			[14.4, 5.6],
		);
	});

	test('count points as the hours they usually take', () => {
		const points = board({ unit: 'points', perDay: 2, keepBack: 0.9 });
		const [week] = personWeeks(rota(), [points], ['ann'], day('2026-11-23'), 1);
		// A person-day of 8 hours gives 4 and delivers 2 points: a point is 2 hours, and 24 of them are 48 over two weeks.
		assert.equal(week!.placed, 24);
		assert.equal(week!.promise, week!.give);
	});

	test('conserve hours: what the weeks of a sprint hold is what is left of its cards', () => {
		fc.assert(
			fc.property(
				fc.array(
					fc.record({
						card: fc.uuid(),
						left: fc.integer({ min: 0, max: 40 }),
						owners: fc.uniqueArray(fc.constantFrom('ann', 'bob')),
					}),
					{ maxLength: 10 },
				),
				fc.integer({ min: 0, max: 13 }),
				(cards, offset) => {
					const two = rota({
						weeks: ['ann', 'bob'].map((person) => ({ person, from: 0, hours: [8, 8, 8, 8, 4, 0, 0] })),
						shares: [],
						boards: ['a'],
					});
					const sprint = { ...board().sprints[0]!, cards };
					const weeks = personWeeks(
						two,
						[board({ sprints: [sprint] })],
						['ann', 'bob'],
						day('2026-11-23') + offset,
						4,
					);
					const placed = weeks.reduce((sum, week) => sum + week.placed, 0);
					const owned = cards.filter((card) => card.owners.length).reduce((sum, card) => sum + card.left, 0);
					assert.ok(Math.abs(placed - owned) < 1e-3, `${placed} for ${owned}`);
				},
			),
		);
	});
});
