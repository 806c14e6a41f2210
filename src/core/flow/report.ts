import { dayText } from '../calendar/days.ts';
import { calendarDays, type DayCount } from '../calendar/day-count.ts';
import type { Day, Instant } from '../calendar/zone.ts';
import type { BoardFile } from '../exchange/board-file.ts';
import { instantText } from '../exchange/instant.ts';
import { ageing } from './ageing.ts';
import { littlesLaw, type LittlesLaw } from './balance.ts';
import { sprintAccounts, type Ledger, type Stint } from '../sprint/ledger.ts';
import type { HistoryEvent } from './history.ts';
import { lifetimes, type Lifetime } from './lifetime.ts';
import { summary, type Summary } from './percentile.ts';
import { processLimits } from './process-limits.ts';
import { standing } from './standing.ts';
import { activeHours, blockedHours, cycleDays, cycleHours, flowEfficiency, leadDays } from './times.ts';
import { finishedByWeek } from './weeks.ts';

/** A sprint's ledger as `measure` prints it. */
type SprintReport = Omit<Ledger, 'stints' | 'moves'> & {
	stints: Omit<Stint, 'planned' | 'opened' | 'ended'>[];
};

/** What `measure` prints. Every list is in a fixed order, so that two reports can be compared as text. */
export interface Report {
	cards: {
		card: string;
		state: Lifetime['state'];
		created: string | null;
		started: string | null;
		finished: string | null;
		cycleDays: number | null;
		leadDays: number | null;
		cycleHours: number | null;
		activeHours: number | null;
		blockedHours: number | null;
		flowEfficiency: number | null;
	}[];
	days: { day: string; finished: number; arrived: number; wip: number; columns: Record<string, number> }[];
	cycle: Summary | null;
	ageing: { card: string; column: string; ageDays: number; columnDays: number }[];
	weeks: { week: string; finished: number }[];
	xmr: {
		mean: number;
		averageRange: number;
		upper: number;
		lower: number;
		signals: { week: string; rule: string }[];
	} | null;
	littlesLaw: LittlesLaw | null;
	forecast: null;
	sprints: SprintReport[];
}

/**
 * The report of a history at an instant.
 * @param events in time order
 * @param from first day of the range; the first event's day unless given
 * @param to last day of the range; the as-of day unless given, and never after it
 * @param count how days of cycle time, lead time and age are counted
 */
export function report(
	board: BoardFile,
	events: readonly HistoryEvent[],
	asOf: Instant,
	from?: Day,
	to?: Day,
	count: DayCount = calendarDays,
): Report {
	const { zone } = board;
	const today = zone.day(asOf);
	const first = from ?? (events[0] && events[0].at <= asOf ? zone.day(events[0].at) : today);
	const last = Math.min(to ?? today, today);
	const lives = lifetimes(board, events, asOf);
	const done = lives.filter((life) => life.state === 'done');
	const inRange = done.filter((life) => {
		const day = zone.day(life.finished!);
		return day >= first && day <= last;
	});
	const days = daily(board, events, lives, first, last, asOf);
	const weeks = finishedByWeek(
		done.map((life) => zone.day(life.finished!)),
		first,
		last,
		today,
	);
	const limits = processLimits(weeks.map((week) => week.finished));
	const text = (at: Instant | null) => (at === null ? null : instantText(at));
	return {
		cards: lives.map((life) => ({
			card: life.card,
			state: life.state,
			created: text(life.created),
			started: text(life.started),
			finished: text(life.finished),
			cycleDays: cycleDays(life, zone, count),
			leadDays: leadDays(life, zone, count),
			cycleHours: cycleHours(life),
			activeHours: activeHours(life, board, asOf),
			blockedHours: blockedHours(life, asOf),
			flowEfficiency: flowEfficiency(life, board, asOf),
		})),
		days,
		cycle: summary(inRange.map((life) => cycleDays(life, zone, count)!)),
		ageing: ageing(lives, zone, asOf, count).map((age) => ({
			...age,
			column: board.columns[age.column]!.name,
		})),
		weeks: weeks.map(({ week, finished }) => ({ week, finished })),
		xmr: limits && {
			mean: limits.mean,
			averageRange: limits.averageRange,
			upper: limits.upper,
			lower: limits.lower,
			signals: limits.signals.map(({ index, rule }) => ({ week: weeks[index]!.week, rule })),
		},
		littlesLaw: littlesLaw(
			days.map((day) => day.wip),
			inRange.map((life) => cycleHours(life)!),
		),
		forecast: null,
		sprints: sprintAccounts(board, events, asOf).ledgers.map(sprintReport),
	};
}

/** A ledger with the fields, and in the order, of the report. */
export function sprintReport({ stints, moves: _moves, ...sums }: Ledger): SprintReport {
	return {
		...sums,
		stints: stints.map(({ card, entry, resized, burned, worked, splitOff, exit, outcome, kind }) => ({
			card,
			entry,
			resized,
			burned,
			worked,
			splitOff,
			exit,
			outcome,
			kind,
		})),
	};
}

function daily(
	board: BoardFile,
	events: readonly HistoryEvent[],
	lives: readonly Lifetime[],
	from: Day,
	to: Day,
	asOf: Instant,
): Report['days'] {
	const finished = new Map<Day, number>();
	const arrived = new Map<Day, number>();
	const add = (counts: Map<Day, number>, at: Instant | null) => {
		if (at === null) return;
		const day = board.zone.day(at);
		counts.set(day, (counts.get(day) ?? 0) + 1);
	};
	for (const life of lives) {
		if (life.state === 'done') add(finished, life.finished);
		if (life.state === 'done' || life.state === 'running') add(arrived, life.started);
	}
	return standing(board, board.zone, events, from, to, asOf).map(({ day, wip, columns }) => ({
		day: dayText(day),
		finished: finished.get(day) ?? 0,
		arrived: arrived.get(day) ?? 0,
		wip,
		columns: Object.fromEntries(board.columns.map((column, i) => [column.name, columns[i]!])),
	}));
}
