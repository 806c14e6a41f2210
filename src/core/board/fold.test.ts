import assert from 'node:assert/strict';
import { describe, test } from 'node:test';
import { calendarDays } from '../calendar/day-count.ts';
import { parseInstant } from '../calendar/instant.ts';
import { flowFigures } from '../flow/figures.ts';
import { flowOf } from '../flow/fold.ts';
import type { HistoryEvent } from '../flow/history.ts';
import { inCardOrder } from '../flow/lifetime.ts';
import { cardReport } from '../flow/report.ts';
import { lasting } from '../rounds/since.ts';
import { sprintAccounts } from '../sprint/accounts.ts';
import { random } from '../testing/random.ts';
import { readVector, VECTORS } from '../testing/vectors.ts';
import { BoardFold } from './fold.ts';

type Board = ReturnType<typeof readVector>['board'];

/** What a history says at an instant, read at once. */
function atOnce(board: Board, events: readonly HistoryEvent[], asOf: number) {
	const flow = flowOf(board, events, asOf);
	return figuresOf(
		board,
		flow,
		sprintAccounts(board, events, asOf),
		lasting(board, limitsOf(board), events, asOf),
		asOf,
	);
}

const limitsOf = (board: Board) => board.columns.map((column) => column.limit);

function figuresOf(
	board: Board,
	flow: ReturnType<typeof flowOf>,
	accounts: ReturnType<typeof sprintAccounts>,
	since: ReturnType<typeof lasting> | null,
	asOf: number,
) {
	const today = board.zone.day(asOf);
	return {
		// Asked first, while what is over is packed still.
		before: flowFigures(board, flow, asOf, today - 80, today - 30),
		figures: flowFigures(board, flow, asOf, today - 40, today),
		cards: inCardOrder(flow.lives.byCard.values()).map((life) => cardReport(life, board, asOf, calendarDays)),
		ledgers: accounts.ledgers.map(({ stints, moves, ...sums }) => ({
			...sums,
			stints: stints.map((stint) => ({ ...stint })),
			moves,
		})),
		left: inCardOrder(accounts.cards.values()).map(
			({ card, size, left, sprint, waits, done, first, worked, carried }) => ({
				...{ card, size, left, sprint, waits, done, first, worked, carried },
			}),
		),
		waiting: inCardOrder(accounts.waiting).map(({ card }) => card),
		seen: inCardOrder(accounts.carried()).map(({ card, carried }) => [card, carried]),
		lists: board.sprints.map(({ number }) => inCardOrder(accounts.onList(number)).map(({ card }) => card)),
		starved: since && [...since.starved],
		idle: since && new Map([...since.idle].sort()),
	};
}

/** What a board shows of itself before anybody asks for its past. */
function namesOf(fold: BoardFold, board: Board, asOf: number) {
	const today = board.zone.day(asOf);
	return {
		today,
		finished: [...fold.flow.finishedByDay()].sort(([a], [b]) => a - b),
		started: [...fold.flow.started].sort(([a], [b]) => a - b),
		running: inCardOrder(fold.flow.running).map(({ card }) => card),
		days: fold.flow.days.between(today - 40, today),
		waiting: inCardOrder(fold.accounts.waiting).map(({ card }) => card),
		carried: inCardOrder(fold.accounts.carried()).map(({ card, carried }) => [card, carried]),
		sums: fold.accounts.ledgers.map(({ delivered, unplanned, open }) => [delivered, unplanned, open]),
		moved: inCardOrder([...fold.flow.movedAfter(asOf)].filter(({ state }) => state === 'running')).length,
	};
}

describe('a board folded step by step', () => {
	for (const [name, text] of VECTORS)
		test(`says of the ${name} history what reading it at once says, wherever it stops`, async () => {
			const { board, events } = readVector(name);
			const end = parseInstant(text)!;
			const next = random(name.length);
			const known = events.filter((event) => event.at <= end);
			let fold = new BoardFold(board);
			let taken = 0;
			while (taken < known.length) {
				let stop = Math.min(known.length, taken + 1 + Math.floor(next() * known.length * 0.3));
				// What happens at one instant comes together.
				while (stop < known.length && known[stop]!.at === known[stop - 1]!.at) stop++;
				const now = stop < known.length ? known[stop - 1]!.at : end;
				// Sprints that start or close later are not known of yet.
				const sprints = board.sprints.map((sprint) => ({
					...sprint,
					startedAt: sprint.startedAt !== null && sprint.startedAt <= now ? sprint.startedAt : null,
					closedAt: sprint.closedAt !== null && sprint.closedAt <= now ? sprint.closedAt : null,
				}));
				// Now and then another process goes on from what this one has kept.
				if (next() < 0.6)
					fold = (await BoardFold.from({ ...board, sprints }, fold.kept(1 + Math.floor(next() * 5))))!;
				assert.ok(fold.goOn(sprints, known.slice(taken, stop), now));
				taken = stop;
				if (next() < 0.3) for (const _ of fold.tidy());
				// What is packed stays packed over some steps.
				if (next() < 0.5 && taken < known.length) continue;
				const stepped = figuresOf(board, fold.flow, fold.accounts, fold.since!, now);
				assert.deepEqual(stepped, atOnce({ ...board, sprints }, known.slice(0, taken), now));
			}
		});

	for (const [name, text] of VECTORS)
		test(`says the same of the ${name} history after something was taken back, here and there`, async () => {
			const { board, events } = readVector(name);
			const end = parseInstant(text)!;
			const next = random(name.length + 7);
			let known = events.filter((event) => event.at <= end);
			let fold = new BoardFold(board);
			assert.ok(fold.goOn(board.sprints, known, end));
			for (let round = 0; round < 12; round++) {
				// Some cards lose some of what happened to them; one gets another size long ago instead.
				const cards = [...new Set(known.slice(1).map((event) => event.card))].filter(() => next() < 0.06);
				const was = known;
				known = known.flatMap((event) => {
					if (event.at === was[0]!.at || !cards.includes(event.card) || next() < 0.8) return [event];
					return event.event === 'sized' ? [{ ...event, value: '7' }] : [];
				});
				const now = known;
				const of = (list: readonly HistoryEvent[], card: string) =>
					list.filter((event) => event.card === card);
				const replaced = cards.map((card) => ({ card, was: of(was, card), is: of(now, card) }));
				if (next() < 0.4) fold = (await BoardFold.from(board, fold.kept(1 + Math.floor(next() * 5))))!;
				assert.ok(fold.replace(replaced, end));
				const { starved: _starved, idle: _idle, ...rest } = atOnce(board, known, end);
				const {
					starved: none,
					idle: nobody,
					...said
				} = figuresOf(board, fold.flow, fold.accounts, fold.since, end);
				assert.deepEqual(said, rest);
				if (cards.length)
					assert.deepEqual([none, nobody], [null, null], 'what has lasted is not known any more');
			}
		});

	for (const [name, text] of VECTORS)
		test(`keeps of the ${name} history all that it knows: what goes on from there keeps the same`, async () => {
			const { board, events } = readVector(name);
			const end = parseInstant(text)!;
			const fold = new BoardFold(board);
			const known = events.filter((event) => event.at <= end);
			assert.ok(fold.goOn(board.sprints, known, end));
			const kept = [...fold.kept(3)];
			assert.deepEqual([...(await BoardFold.from(board, kept))!.kept(3)], kept);
			assert.equal(await BoardFold.from(board, kept.slice(0, -1)), null, 'without its end it is not whole');
			if (fold.accounts.ledgers.length)
				assert.equal(
					await BoardFold.from({ ...board, sprints: board.sprints.slice(1) }, kept),
					null,
					'a sprint is gone',
				);
		});

	test('leaves what is over packed until it is asked for', async () => {
		const { board, events } = readVector('small');
		const end = parseInstant(VECTORS.find(([name]) => name === 'small')![1])!;
		const fold = new BoardFold(board);
		const known = events.filter((event) => event.at <= end);
		assert.ok(fold.goOn(board.sprints, known, end));
		const read = new Set<string>();
		const texts = [...fold.kept(2)].map(({ text }) => ({
			get text() {
				read.add(text);
				return text;
			},
		}));
		const packed = (await BoardFold.from(board, texts))!;
		const first = read.size;
		assert.ok(first < texts.length, 'some of it stays packed');
		const { today, ...figures } = namesOf(fold, board, end);
		assert.deepEqual(namesOf(packed, board, end), { today, ...figures });
		assert.equal(read.size, first, 'what stands on the board now says nothing of what is over');
		const life = [...fold.flow.doneCards()][0]!;
		assert.deepEqual(packed.flow.lives.byCard.get(life.card), life);
		assert.ok(read.size > first, 'it is read once it is asked for');
		assert.deepEqual(
			packed.flow.finishedIn(-Infinity, Infinity).map(({ card }) => card),
			fold.flow.finishedIn(-Infinity, Infinity).map(({ card }) => card),
		);
		assert.equal(packed.flow.lives.byCard.size, fold.flow.lives.byCard.size);
	});

	test('is folded anew where something happened before its end', () => {
		const { board, events } = readVector('small');
		const fold = new BoardFold(board);
		assert.ok(fold.take(events.slice(10, 20)));
		assert.equal(fold.take(events.slice(0, 1)), false, 'an earlier event');
		assert.ok(fold.goOn(board.sprints, [], Infinity));
		assert.equal(fold.take(events.slice(20, 21)), false, 'an event before a sprint that has closed');
		const moved = board.sprints.map((sprint) => ({
			...sprint,
			startedAt: sprint.startedAt && sprint.startedAt + 1,
		}));
		assert.equal(fold.goOn(moved, [], Infinity), false, 'a sprint that started otherwise');
	});
});
