import { fsum } from 'd3-array';
import { atOnce, inParts, STEP } from '../steps.ts';
import { calendarDays, type DayCount } from '../calendar/day-count.ts';
import { dayText, mondayOf, parseDay, weekText } from '../calendar/days.ts';
import type { Day, Instant, Zone } from '../calendar/zone.ts';
import { pastShapes } from './ageing.ts';
import { expectation, WINDOW_DAYS as EXPECTED_FROM, type Expectation } from './expectation.ts';
import type { FlowFold } from './fold.ts';
import type { ColumnKind, Layout, LayoutColumn } from './layout.ts';
import { inCardOrder, type Lifetime, type Spell } from './lifetime.ts';
import { flowReport, type FlowReport } from './report.ts';
import { columnHours, cycleDays } from './times.ts';
import { finishedByWeek } from './weeks.ts';

/** A card that was finished in the range. */
export interface FinishedCard {
	card: string;
	day: string;
	took: number;
}

/** A reason that blocked cards, with the days it cost the cards finished in the range. */
export interface BlockedReason {
	reason: string;
	days: number;
	cards: string[];
}

/** Everything a flow page shows of a range of days. The report in it is what `measure` prints of the board's flow. */
export interface FlowFigures {
	from: string;
	to: string;
	first: string;
	/** Shown: pictures have it; others were taken away or are hidden, and count all the same. */
	columns: { name: string; kind: ColumnKind; limit: number | null; shown: boolean }[];
	/** The place of the commitment column. */
	commitment: number;
	report: FlowReport;
	finished: FinishedCard[];
	/** The ages at which finished cards left each column for the last time, rising. */
	shapes: number[][];
	/** Hours that the finished cards stood in each column between start and finish, blocked time left out. */
	columnHours: number[];
	blockedHours: number;
	blockedBy: BlockedReason[];
	/** The cards standing in each column at the end of the range; of done columns, which only grow, none are listed. */
	standing: string[][];
	expectation: Expectation | null;
	/** Finished cards of each week of the whole history, for choosing a range. */
	allWeeks: { week: string; monday: string; finished: number }[];
}

/** The board of a flow page: its columns with their limits, and its calendar. */
export interface FlowBoard extends Layout {
	zone: Zone;
	columns: (LayoutColumn & { limit: number | null })[];
}

/**
 * The figures of a flow page.
 * @param flow the history of the board up to asOf
 */
export function flowFigures(...of: Parameters<typeof flowFiguresInSteps>): FlowFigures {
	return atOnce(flowFiguresInSteps(...of));
}

/** The same for many cards, in steps between which others may have their turn; the history stays as it is meanwhile. */
export function* flowFiguresInSteps(
	board: FlowBoard,
	flow: FlowFold,
	asOf: Instant,
	from: Day,
	to: Day,
	count: DayCount = calendarDays,
): Generator<void, FlowFigures> {
	const { zone } = board;
	const today = zone.day(asOf);
	const last = Math.min(to, today);
	yield* flow.reach(from, last);
	yield* flow.reach(today - EXPECTED_FROM, today);
	const inRange = flow.finishedIn(from, last);
	const first = flow.first === null ? today : Math.min(zone.day(flow.first), today);
	yield;
	const report = flowReport(board, flow, asOf, from, to, count);
	yield;
	const finished = inRange.map((life) => ({
		card: life.card,
		day: dayText(zone.day(life.finished!)),
		took: cycleDays(life, zone, count)!,
	}));
	yield;
	const shapes = yield* pastShapes(inRange, board, zone, from, last, count);
	const times = yield* whereTimeGoes(board, inRange, asOf);
	const standing = standingAt(board, flow, Math.min(asOf, zone.startOf(last + 1) - 1));
	yield;
	return {
		from: dayText(from),
		to: dayText(last),
		first: dayText(first),
		columns: board.columns.map(({ name, kind, limit, retired, hidden }) => ({
			name,
			kind,
			limit,
			shown: !retired && !hidden,
		})),
		commitment: board.commitment,
		report,
		finished,
		shapes,
		...times,
		standing,
		expectation: expectation(flow.finishedIn(today - EXPECTED_FROM, today), zone, asOf, 85, count),
		allWeeks: finishedByWeek(flow.finishedByDay(), first - 6, today + 6, today + 7).map(
			({ week, monday, finished }) => ({
				week,
				monday: dayText(monday),
				finished,
			}),
		),
	};
}

/** Hours of the finished cards by column and blocked, and what blocked them, most days first. */
function* whereTimeGoes(
	board: Layout,
	lives: readonly Lifetime[],
	asOf: Instant,
): Generator<void, Pick<FlowFigures, 'columnHours' | 'blockedHours' | 'blockedBy'>> {
	const hours = board.columns.map(() => 0);
	const reasons = new Map<string, { days: number; cards: Set<string> }>();
	let blocked = 0;
	const add = (life: Lifetime) => {
		columnHours(life, board, asOf).forEach((h, column) => (hours[column]! += h));
		for (const blockage of life.blockages) {
			const span = {
				from: Math.max(blockage.from, life.started!),
				until: Math.min(blockage.until ?? asOf, life.finished!),
			};
			if (span.until <= span.from) continue;
			// Blocked time is its own band, so it is taken out of the column it was spent in.
			const inside = { ...life, blockages: [], stays: life.stays.map((stay) => clip(stay, span, asOf)) };
			columnHours(inside, board, asOf).forEach((h, column) => (hours[column]! -= h));
			blocked += (span.until - span.from) / 3_600_000;
			const reason = reasons.get(blockage.reason) ?? { days: 0, cards: new Set<string>() };
			reason.days += (span.until - span.from) / 86_400_000;
			reason.cards.add(life.card);
			reasons.set(blockage.reason, reason);
		}
	};
	for (const some of inParts(lives, STEP)) {
		some.forEach(add);
		yield;
	}
	const blockedBy = [...reasons].map(([reason, { days, cards }]) => ({ reason, days, cards: [...cards] }));
	return { columnHours: hours, blockedHours: blocked, blockedBy: blockedBy.sort((a, b) => b.days - a.days) };
}

function clip<S extends { from: number; until: number | null }>(
	stay: S,
	span: { from: number; until: number },
	asOf: Instant,
): S {
	const from = Math.max(stay.from, span.from);
	return { ...stay, from, until: Math.max(from, Math.min(stay.until ?? asOf, span.until)) };
}

/** The cards in each column at an instant, but for done columns; archived ones stand nowhere. */
function standingAt(board: Layout, flow: FlowFold, at: Instant): string[][] {
	const columns: Lifetime[][] = board.columns.map(() => []);
	const then = (spell: Spell) => spell.from <= at && (spell.until === null || spell.until > at);
	for (const life of flow.movedAfter(at)) {
		const stay = life.stays.findLast(then);
		if (!stay || board.columns[stay.column]!.kind === 'done' || life.archivings?.some(then)) continue;
		columns[stay.column]!.push(life);
	}
	return columns.map((cards) => inCardOrder(cards).map((life) => life.card));
}

/**
 * The cards behind one figure of a range; null where there is no such figure.
 * @param which of a dot its day and days such as `2026-10-02 5`, of a week its name, of a column or reason its words
 */
export function cardsBehind(
	figures: FlowFigures,
	of: 'finished' | 'dot' | 'week' | 'column' | 'reason',
	which: string,
): string[] | null {
	const finished = (matches: (card: FinishedCard) => boolean) =>
		figures.finished.filter(matches).map(({ card }) => card);
	switch (of) {
		case 'finished':
			return finished(() => true);
		case 'dot':
			return finished(({ day, took }) => `${day} ${took}` === which);
		case 'week':
			return finished(({ day }) => weekText(mondayOf(parseDay(day)!)) === which);
		case 'column':
			return figures.standing[figures.columns.findIndex(({ name }) => name === which)] ?? null;
		case 'reason':
			return figures.blockedBy.find(({ reason }) => reason === which)?.cards ?? null;
	}
}

/** Share of the finished cards' time in which nobody worked on them: in queues, in done columns before reopening, or blocked. */
export function waitingShare(
	figures: Pick<FlowFigures, 'columns' | 'columnHours' | 'blockedHours'>,
): number | null {
	const all = fsum(figures.columnHours) + figures.blockedHours;
	const worked = figures.columnHours.reduce(
		(sum, h, i) => sum + (figures.columns[i]!.kind === 'work' ? h : 0),
		0,
	);
	return all > 0 ? 1 - worked / all : null;
}
