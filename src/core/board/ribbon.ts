import { fsum } from 'd3-array';
import { dayText, mondayOf, weekText } from '../calendar/days.ts';
import type { Day, Instant } from '../calendar/zone.ts';
import type { BoardFile, BoardSprint } from '../sprint/board.ts';
import type { FlowFold } from '../flow/fold.ts';
import { follow } from '../sprint/follow.ts';
import type { Accounts } from '../sprint/accounts.ts';
import type { CardWork, Ledger } from '../sprint/ledger.ts';
import type { Segment, SprintView } from '../pages/board.ts';

const PAST_SHOWN = 6;
const NEXT_SHOWN = 3;
const WEEKS_SHOWN = 12;

/**
 * The ribbon of a board with sprints: past sprints by what was delivered and what was left over, the running one with
 * its burndown, the next ones with what is placed in them, and what waits behind them.
 * @param goals the sprints with their goals
 * @param accounts the ledgers of its sprints, and what is planned and waits
 * @param promise what the people of a sprint that has not started can promise; null where nothing says
 * @param hours the team's hours on each day of a running sprint, as known at its start, and its first day
 * @param usual what a usual sprint delivers; null while too few are closed
 */
export function ribbonOfSprints(
	board: BoardFile,
	goals: readonly SprintView[],
	accounts: Pick<Accounts, 'ledgers' | 'onList' | 'waiting'>,
	asOf: Instant,
	promise: (sprint: number) => number | null,
	hours: (sprint: number) => { from: Day; hours: readonly number[] },
	usual: number | null,
): Segment[] {
	const ledgers = new Map(accounts.ledgers.map((ledger) => [ledger.number, ledger]));
	const began = board.sprints.filter(({ number }) => ledgers.has(number));
	const isOver = ({ closedAt }: BoardSprint) => closedAt !== null && closedAt <= asOf;
	const named = ({ number, starts, ends }: BoardSprint) => ({
		number,
		starts: dayText(starts),
		ends: dayText(ends),
		goal: goals.find((known) => known.number === number)?.goal ?? '',
	});
	const past = began.filter(isOver).slice(-PAST_SHOWN);
	const running = began.filter((sprint) => !isOver(sprint));
	const next = board.sprints.filter((sprint) => !began.includes(sprint)).slice(0, NEXT_SHOWN);
	const waiting = [...accounts.waiting].filter((card) => card.sprint === null);
	return [
		...past.map((sprint): Segment => {
			const ledger = ledgers.get(sprint.number)!;
			const leftOver = ledger.carried + ledger.returned + ledger.dropped + ledger.splitOff + ledger.open;
			return { kind: 'past', ...named(sprint), done: ledger.delivered, leftOver, cards: ledger.count };
		}),
		...running.map((sprint): Segment => {
			const ledger = ledgers.get(sprint.number)!;
			return {
				kind: 'running',
				...named(sprint),
				committed: ledger.committed,
				left: ledger.open,
				...followed(board, sprint, ledger, hours(sprint.number), asOf),
			};
		}),
		...next.map((sprint): Segment => {
			const placed = [...accounts.onList(sprint.number)];
			return {
				kind: 'next',
				...named(sprint),
				placed: fsum(placed, (card) => card.left),
				cards: placed.length,
				promise: promise(sprint.number),
			};
		}),
		laterOf(waiting, usual),
	];
}

/** A running sprint day by day, as the ribbon draws it. */
function followed(
	board: BoardFile,
	sprint: BoardSprint,
	ledger: Ledger,
	{ from, hours }: { from: Day; hours: readonly number[] },
	asOf: Instant,
): Pick<Extract<Segment, { kind: 'running' }>, 'days' | 'guide'> {
	const dates = {
		from,
		to: from + hours.length - 1,
		startedAt: sprint.startedAt!,
		closedAt: sprint.closedAt,
	};
	const { committed, days, guide } = follow(board.zone, dates, ledger, hours, asOf);
	return {
		days: [
			{ day: dayText(from - 1), left: committed, burned: 0, scope: committed },
			...days.map(({ day, left, burned, scope }) => ({ day: dayText(day), left, burned, scope })),
		],
		guide: guide.map(({ day, left }) => ({ day: dayText(day), left })),
	};
}

/** How many usual sprints the waiting cards would take. Those without a size count as the mean of those with one. */
function laterOf(waiting: readonly CardWork[], usual: number | null): Segment {
	const sized = waiting.filter((card) => card.size !== null);
	const each = sized.length ? fsum(sized, (card) => card.left) / sized.length : 0;
	const unsized = waiting.length - sized.length;
	const work = fsum(sized, (card) => card.left) + unsized * each;
	const sprints = usual && work ? Math.ceil(work / usual - 1e-9) : null;
	return { kind: 'later', cards: waiting.length, sprints, work, unsized, usual };
}

/** The ribbon of a board without sprints: the last weeks by what was finished in each and what was in hand at its end. */
export function ribbonOfWeeks(board: BoardFile, flow: FlowFold, asOf: Instant): Segment[] {
	const today = board.zone.day(asOf);
	const first = mondayOf(today) - 7 * (WEEKS_SHOWN - 1);
	const finished = new Map<Day, number>();
	for (const [day, cards] of flow.finishedByDay())
		finished.set(mondayOf(day), (finished.get(mondayOf(day)) ?? 0) + cards);
	const wip = new Map(flow.days.between(first, today).map((day) => [day.day, day.wip]));
	return Array.from({ length: WEEKS_SHOWN }, (_, i) => {
		const monday = first + 7 * i;
		return {
			kind: 'week' as const,
			week: weekText(monday),
			monday: dayText(monday),
			finished: finished.get(monday) ?? 0,
			wip: wip.get(Math.min(monday + 6, today)) ?? 0,
			running: monday === mondayOf(today),
		};
	});
}
