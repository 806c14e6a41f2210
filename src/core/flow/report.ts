import { dayText } from '../calendar/days.ts';
import { calendarDays, type DayCount } from '../calendar/day-count.ts';
import type { Day, Instant, Zone } from '../calendar/zone.ts';
import { instantText } from '../calendar/instant.ts';
import { ageing } from './ageing.ts';
import { littlesLaw, type LittlesLaw } from './balance.ts';
import type { FlowFold } from './fold.ts';
import type { Layout } from './layout.ts';
import { inCardOrder, type Lifetime } from './lifetime.ts';
import { summary, type Summary } from './percentile.ts';
import { processLimits } from './process-limits.ts';
import { activeHours, blockedHours, cycleDays, cycleHours, flowEfficiency, leadDays } from './times.ts';
import { finishedByWeek } from './weeks.ts';

/** How one card flowed. */
export interface CardReport {
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
}

/** How a board flowed over a range of days. */
export interface FlowReport {
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
}

type Board = Layout & { zone: Zone };

/** How a card flowed, as of an instant. */
export function cardReport(life: Lifetime, board: Board, asOf: Instant, count: DayCount): CardReport {
	const text = (at: Instant | null) => (at === null ? null : instantText(at));
	return {
		card: life.card,
		state: life.state,
		created: text(life.created),
		started: text(life.started),
		finished: text(life.finished),
		cycleDays: cycleDays(life, board.zone, count),
		leadDays: leadDays(life, board.zone, count),
		cycleHours: cycleHours(life),
		activeHours: activeHours(life, board, asOf),
		blockedHours: blockedHours(life, asOf),
		flowEfficiency: flowEfficiency(life, board, asOf),
	};
}

/**
 * How a board flowed.
 * @param flow its history up to asOf
 * @param from first day of the range; the first event's day unless given
 * @param to last day of the range; the as-of day unless given, and never after it
 * @param count how days of cycle time and age are counted
 */
export function flowReport(
	board: Board,
	flow: FlowFold,
	asOf: Instant,
	from?: Day,
	to?: Day,
	count: DayCount = calendarDays,
): FlowReport {
	const { zone } = board;
	const today = zone.day(asOf);
	const first = from ?? (flow.first === null ? today : zone.day(flow.first));
	const last = Math.min(to ?? today, today);
	const inRange = flow.finishedIn(first, last);
	const finished = new Map(flow.finishedByDay());
	const days = flow.days.between(first, last).map(({ day, wip, columns }) => ({
		day: dayText(day),
		finished: finished.get(day) ?? 0,
		arrived: flow.started.get(day) ?? 0,
		wip,
		columns: Object.fromEntries(board.columns.map((column, i) => [column.name, columns[i]!])),
	}));
	const weeks = finishedByWeek(finished, first, last, today);
	const limits = processLimits(weeks.map((week) => week.finished));
	return {
		days,
		cycle: summary(inRange.map((life) => cycleDays(life, zone, count)!)),
		ageing: ageing(inCardOrder(flow.running), zone, asOf, count).map((age) => ({
			...age,
			column: board.columns[age.column]!.name,
		})),
		weeks: weeks.map(({ week, finished: n }) => ({ week, finished: n })),
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
	};
}
