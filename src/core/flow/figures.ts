import { calendarDays, type DayCount } from '../calendar/day-count.ts';
import { dayText } from '../calendar/days.ts';
import type { Day, Instant } from '../calendar/zone.ts';
import type { BoardFile } from '../exchange/board-file.ts';
import { pastShapes } from './ageing.ts';
import { expectation, type Expectation } from './expectation.ts';
import type { HistoryEvent } from './history.ts';
import type { ColumnKind } from './layout.ts';
import { lifetimes, type Lifetime } from './lifetime.ts';
import { report, type Report } from './report.ts';
import { columnHours } from './times.ts';
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

/** Everything a flow page shows of a range of days. The report in it is the one that `measure` prints. */
export interface FlowFigures {
	from: string;
	to: string;
	first: string;
	columns: { name: string; kind: ColumnKind; limit: number | null }[];
	/** The place of the commitment column. */
	commitment: number;
	report: Report;
	finished: FinishedCard[];
	/** The ages at which finished cards left each column for the last time, rising. */
	shapes: number[][];
	/** Hours that the finished cards stood in each column between start and finish, blocked time left out. */
	columnHours: number[];
	blockedHours: number;
	blockedBy: BlockedReason[];
	/** The cards standing in each column at the end of the range. */
	standing: string[][];
	expectation: Expectation | null;
	/** Finished cards of each week of the whole history, for choosing a range. */
	allWeeks: { week: string; monday: string; finished: number }[];
}

/**
 * The figures of a flow page.
 * @param events in time order
 */
export function flowFigures(
	board: BoardFile,
	events: readonly HistoryEvent[],
	asOf: Instant,
	from: Day,
	to: Day,
	count: DayCount = calendarDays,
): FlowFigures {
	const { zone } = board;
	const today = zone.day(asOf);
	const last = Math.min(to, today);
	const lives = lifetimes(board, events, asOf);
	const done = lives.filter((life) => life.state === 'done');
	const inRange = done.filter((life) => zone.day(life.finished!) >= from && zone.day(life.finished!) <= last);
	const whole = report(board, events, asOf, from, to, count);
	const took = new Map(whole.cards.map((card) => [card.card, card.cycleDays]));
	const first = events[0] ? Math.min(zone.day(events[0].at), today) : today;
	const spent = whereTimeGoes(board, inRange, asOf);
	return {
		from: dayText(from),
		to: dayText(last),
		first: dayText(first),
		columns: board.columns.map(({ name, kind, limit }) => ({ name, kind, limit })),
		commitment: board.commitment,
		report: whole,
		finished: inRange.map((life) => ({
			card: life.card,
			day: dayText(zone.day(life.finished!)),
			took: took.get(life.card)!,
		})),
		shapes: pastShapes(lives, board, zone, from, last, count),
		...spent,
		standing: standingAt(board, events, Math.min(asOf, zone.startOf(last + 1) - 1)),
		expectation: expectation(lives, zone, asOf, 85, count),
		allWeeks: finishedByWeek(
			done.map((life) => zone.day(life.finished!)),
			first - 6,
			today + 6,
			today + 7,
		).map(({ week, monday, finished }) => ({ week, monday: dayText(monday), finished })),
	};
}

/** Hours of the finished cards by column and blocked, and what blocked them, most days first. */
function whereTimeGoes(
	board: BoardFile,
	lives: readonly Lifetime[],
	asOf: Instant,
): Pick<FlowFigures, 'columnHours' | 'blockedHours' | 'blockedBy'> {
	const hours = board.columns.map(() => 0);
	const reasons = new Map<string, { days: number; cards: Set<string> }>();
	let blocked = 0;
	for (const life of lives) {
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

/** The cards in each column at an instant; archived ones only where they are done. */
function standingAt(board: BoardFile, events: readonly HistoryEvent[], at: Instant): string[][] {
	const columns: string[][] = board.columns.map(() => []);
	for (const life of lifetimes(board, events, at))
		if (life.column !== null && (!life.archived || board.columns[life.column]!.kind === 'done'))
			columns[life.column]!.push(life.card);
	return columns;
}

/** Share of the finished cards' time in which nobody worked on them: in queues, in done columns before reopening, or blocked. */
export function waitingShare(
	figures: Pick<FlowFigures, 'columns' | 'columnHours' | 'blockedHours'>,
): number | null {
	const all = figures.columnHours.reduce((sum, h) => sum + h, 0) + figures.blockedHours;
	const worked = figures.columnHours.reduce(
		(sum, h, i) => sum + (figures.columns[i]!.kind === 'work' ? h : 0),
		0,
	);
	return all > 0 ? 1 - worked / all : null;
}
