import { group } from 'd3-array';
import { LRUCache } from 'lru-cache';
import type { BoardFold } from '../../../core/board/fold.ts';
import type { BoardHead } from '../../../core/pages/board.ts';
import type { Day } from '../../../core/calendar/zone.ts';
import { calendarDays, workingDays, type DayCount } from '../../../core/calendar/day-count.ts';
import { dayText, mondayOf, parseDay } from '../../../core/calendar/days.ts';
import { teamWorks } from '../../../core/calendar/team-days.ts';
import { atOnce } from '../../../core/steps.ts';
import { flowOf } from '../../../core/flow/fold.ts';
import { cardsBehind, flowFiguresInSteps, type FlowFigures } from '../../../core/flow/figures.ts';
import { cardReport, type CardReport } from '../../../core/flow/report.ts';
import type { BehindFlow, FlowCard, FlowPage } from '../../../core/pages/flow.ts';
import { dayAsked, rangeWithin } from '../asked.ts';
import { notFound } from '../problem.ts';
import { now } from '../time.ts';
import { inTurns } from '../turns.ts';
import { boardFold } from './fold.ts';
import { boardFile, boardHistory, placesInFile } from './history.ts';
import { rotaOf } from './rota.ts';
import { titlesOf } from './titles.ts';

const DEFAULT_WEEKS = 13;
/** With more finished cards than this they are drawn together where they are alike. */
const MANY = 600;

/** A range as somebody asked for it. */
export interface AskedRange {
	from: string | null;
	to: string | null;
	days: string | null;
	/** The id of a column: figures as they would be if the clock of cards started there. */
	clock?: string | null;
}

/** Figures made already: they stand until something happens on the board, or the day is over. */
const made = new LRUCache<string, Made>({ max: 60 });
interface Made {
	/** Let go of where nothing else holds it. */
	fold: WeakRef<BoardFold>;
	seq: number;
	figures: Promise<FlowFigures>;
	page?: FlowPage;
}

/**
 * The flow figures of a board over a range of days; thirteen weeks up to today unless the range is given.
 * @throws Problem 422 when a day of the range cannot be read or the range runs backwards
 */
async function figuresOf(
	head: BoardHead,
	range: AskedRange,
): Promise<{ known: Pick<Made, 'page'>; figures: FlowFigures; today: Day; days: 'working' | 'calendar' }> {
	const at = now().getTime();
	const clock = range.clock ? head.columns.findIndex(({ id }) => id === range.clock) : -1;
	const board = { ...boardFile(head), ...(clock >= 0 && { commitment: placesInFile(head)[clock]! }) };
	const today = board.zone.day(at);
	const last = dayAsked(range.to, 'to') ?? today;
	const first = dayAsked(range.from, 'from') ?? mondayOf(Math.min(last, today)) - 7 * (DEFAULT_WEEKS - 1);
	const [from, to] = rangeWithin(first, last);
	const days = range.days === 'working' ? ('working' as const) : ('calendar' as const);
	if (clock >= 0) {
		// Nobody is told of it but the lead who looks: it is read for them alone and kept nowhere.
		const count = days === 'working' ? await workingDaysOf(head) : calendarDays;
		const flow = flowOf(board, await boardHistory(head), at);
		return {
			known: { page: undefined },
			figures: await inTurns(flowFiguresInSteps(board, flow, at, from, to, count)),
			today,
			days,
		};
	}
	const fold = await boardFold(head);
	const key = `${head.id} ${today} ${from} ${to} ${days}`;
	let known: Made | undefined = made.get(key);
	if (!known || known.fold.deref() !== fold || known.seq !== head.seq || days === 'working') {
		const count = days === 'working' ? await workingDaysOf(head) : calendarDays;
		const figures = asItStands(fold, () => flowFiguresInSteps(board, fold.flow, at, from, to, count));
		known = { fold: new WeakRef(fold), seq: head.seq, figures };
		made.set(key, known);
		figures.catch(() => made.delete(key));
	}
	return { known, figures: await known.figures, today, days };
}

/** What is read of a board in steps: again where it went on meanwhile, and in the end without a rest. */
async function asItStands<T>(fold: BoardFold, read: () => Generator<void, T>): Promise<T> {
	for (let tries = 1; tries <= 3; tries++) {
		const { changes } = fold;
		const found = await inTurns(read());
		if (fold.changes === changes) return found;
	}
	return atOnce(read());
}

/**
 * What the flow page of a board shows over a range of days.
 * @throws Problem 422 when a day of the range cannot be read or the range runs backwards
 */
export async function flowPage(head: BoardHead, range: AskedRange): Promise<FlowPage> {
	const { known, figures: all, today, days } = await figuresOf(head, range);
	if (known.page) return known.page;
	const { finished, shapes, blockedBy, standing: _standing, ...figures } = all;
	const single = finished.length <= MANY;
	const titles = await titlesOf(head, [
		...(single ? finished.map(({ card }) => card) : []),
		...figures.report.ageing.map(({ card }) => card),
	]);
	const page: FlowPage = {
		...figures,
		today: dayText(today),
		days,
		dots: single
			? finished.map((one) => ({ ...one, cards: 1, title: titles[one.card] ?? '' }))
			: [...group(finished, (one) => `${one.day} ${one.took}`).values()].map((alike) => ({
					day: alike[0]!.day,
					took: alike[0]!.took,
					cards: alike.length,
					card: null,
					title: '',
				})),
		shapes: shapes.map((shape) => rollup(shape)),
		blockedBy: blockedBy.map(({ reason, days: cost, cards }) => ({
			reason,
			days: cost,
			cards: cards.length,
		})),
		titles: Object.fromEntries(figures.report.ageing.map(({ card }) => [card, titles[card] ?? ''])),
	};
	known.page = page;
	return page;
}

/** How many there are of each age, the ages rising. */
const rollup = (ages: readonly number[]): [number, number][] =>
	[...group(ages, (age) => age)].map(([age, alike]) => [age, alike.length]);

/**
 * The cards behind one figure of the flow page.
 * @throws Problem 404 where there is no such figure
 */
export async function flowCards(
	head: BoardHead,
	range: AskedRange,
	of: BehindFlow,
	which: string,
): Promise<FlowCard[]> {
	const { figures } = await figuresOf(head, range);
	const cards = cardsBehind(figures, of, which);
	if (!cards) throw notFound('figure');
	const took = new Map(figures.finished.map((one) => [one.card, one.took]));
	const titles = await titlesOf(head, cards);
	return cards.map((card) => ({ card, title: titles[card] ?? '', took: took.get(card) ?? null }));
}

/** How each card that was finished in a range flowed, as `measure` prints it. */
export async function finishedCards(
	head: BoardHead,
	{ from, to, days }: Pick<FlowPage, 'from' | 'to' | 'days'>,
): Promise<CardReport[]> {
	const board = boardFile(head);
	const [{ flow }, count] = await Promise.all([
		boardFold(head),
		days === 'working' ? workingDaysOf(head) : calendarDays,
	]);
	const [first, last] = [parseDay(from)!, parseDay(to)!];
	await inTurns(flow.reach(first, last));
	const cards = flow.finishedIn(first, last);
	return cards.map((life) => cardReport(life, board, now().getTime(), count));
}

/** Days on which the team works, whoever is away. */
async function workingDaysOf(head: BoardHead): Promise<DayCount> {
	const rota = await rotaOf(head.teamId);
	return workingDays((day) => teamWorks(rota, day));
}
