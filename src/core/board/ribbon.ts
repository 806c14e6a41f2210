import { dayText, mondayOf, weekText } from '../calendar/days.ts';
import type { Instant } from '../calendar/zone.ts';
import type { BoardFile } from '../exchange/board-file.ts';
import type { HistoryEvent } from '../flow/history.ts';
import { lifetimes } from '../flow/lifetime.ts';
import { standing } from '../flow/standing.ts';
import type { CardWork, Ledger } from '../sprint/ledger.ts';
import type { Segment, SprintView } from './view.ts';

const PAST_SHOWN = 6;
const NEXT_SHOWN = 3;
const WEEKS_SHOWN = 12;

/**
 * The ribbon of a board with sprints: past sprints by what was delivered and what was left over, the running one with
 * its burndown, the next ones with what is placed in them, and what waits behind them.
 * @param goals the sprints with their goals
 */
export function ribbonOfSprints(
	board: BoardFile,
	goals: readonly SprintView[],
	ledgers: readonly Ledger[],
	cards: ReadonlyMap<string, CardWork>,
	asOf: Instant,
): Segment[] {
	const past: Segment[] = [];
	const running: Segment[] = [];
	const next: Segment[] = [];
	for (const sprint of board.sprints) {
		const { number } = sprint;
		const named = {
			number,
			starts: dayText(sprint.starts),
			ends: dayText(sprint.ends),
			goal: goals.find((known) => known.number === number)?.goal ?? '',
		};
		const ledger = ledgers.find((known) => known.number === number);
		if (!ledger) {
			const placed = [...cards.values()].filter((card) => card.sprint === number);
			next.push({ kind: 'next', ...named, placed: sum(placed, (card) => card.left), cards: placed.length });
		} else if (sprint.closedAt !== null && sprint.closedAt <= asOf) {
			const leftOver = ledger.carried + ledger.returned + ledger.dropped + ledger.splitOff + ledger.open;
			past.push({ kind: 'past', ...named, done: ledger.burned, leftOver, cards: ledger.stints.length });
		} else {
			running.push({
				kind: 'running',
				...named,
				committed: ledger.committed,
				left: ledger.open,
				burndown: burndown(board, ledger, sprint.starts, sprint.ends, asOf),
			});
		}
	}
	const waiting = [...cards.values()].filter((card) => card.waits && card.sprint === null).length;
	return [
		...past.slice(-PAST_SHOWN),
		...running,
		...next.slice(0, NEXT_SHOWN),
		{ kind: 'later', cards: waiting, sprints: sprintsFor(waiting, ledgers, board, asOf) },
	];
}

/** What was left at the end of each day of a running sprint so far, the committed total first. */
function burndown(
	board: BoardFile,
	ledger: Ledger,
	starts: number,
	ends: number,
	asOf: Instant,
): { day: string; left: number }[] {
	const days = [{ day: dayText(starts - 1), left: ledger.committed }];
	const today = Math.min(board.zone.day(asOf), ends);
	let left = ledger.committed;
	let next = 0;
	for (let day = starts; day <= today; day++) {
		const end = board.zone.startOf(day + 1);
		for (; next < ledger.steps.length && ledger.steps[next]!.at < end; next++)
			left = ledger.steps[next]!.left;
		days.push({ day: dayText(day), left });
	}
	return days;
}

/** How many sprints so many cards take, at the mean of cards done in the last three closed sprints; null until three are closed. */
function sprintsFor(
	cards: number,
	ledgers: readonly Ledger[],
	board: BoardFile,
	asOf: Instant,
): number | null {
	const closed = ledgers.filter((ledger) => {
		const closedAt = board.sprints.find((sprint) => sprint.number === ledger.number)?.closedAt ?? null;
		return closedAt !== null && closedAt <= asOf;
	});
	const last = closed.slice(-3);
	const done = sum(last, (ledger) => ledger.stints.filter((stint) => stint.outcome === 'done').length);
	return last.length < 3 || done === 0 ? null : Math.ceil(cards / (done / 3));
}

/** The ribbon of a board without sprints: the last weeks by what was finished in each and what was in hand at its end. */
export function ribbonOfWeeks(board: BoardFile, events: readonly HistoryEvent[], asOf: Instant): Segment[] {
	const today = board.zone.day(asOf);
	const first = mondayOf(today) - 7 * (WEEKS_SHOWN - 1);
	const finished = lifetimes(board, events, asOf).flatMap((life) =>
		life.state === 'done' && life.finished !== null ? [mondayOf(board.zone.day(life.finished))] : [],
	);
	const wip = new Map(
		standing(board, board.zone, events, first, today, asOf).map((day) => [day.day, day.wip]),
	);
	return Array.from({ length: WEEKS_SHOWN }, (_, i) => {
		const monday = first + 7 * i;
		return {
			kind: 'week' as const,
			week: weekText(monday),
			monday: dayText(monday),
			finished: finished.filter((day) => day === monday).length,
			wip: wip.get(Math.min(monday + 6, today)) ?? 0,
			running: monday === mondayOf(today),
		};
	});
}

function sum<T>(list: readonly T[], figure: (item: T) => number): number {
	return list.reduce((total, item) => total + figure(item), 0);
}
