import { calendarDays, type DayCount } from '../calendar/day-count.ts';
import type { Day, Instant } from '../calendar/zone.ts';
import { FlowFold } from '../flow/fold.ts';
import { forecastReport, type ForecastReport } from '../forecast/report.ts';
import type { HistoryEvent } from '../flow/history.ts';
import { inCardOrder } from '../flow/lifetime.ts';
import { cardReport, flowReport, type CardReport, type FlowReport } from '../flow/report.ts';
import { SprintAccounts } from '../sprint/accounts.ts';
import type { Ledger, Stint } from '../sprint/ledger.ts';
import type { BoardFile } from '../sprint/board.ts';

/** A sprint's ledger as `measure` prints it. */
type SprintReport = Omit<Ledger, 'unplanned' | 'count' | 'stints' | 'moves'> & {
	stints: Omit<Stint, 'planned' | 'opened' | 'ended'>[];
};

/** What `measure` prints. Every list is in a fixed order, so that two reports can be compared as text. */
export interface Report extends FlowReport {
	cards: CardReport[];
	forecast: ForecastReport | null;
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
	events: Iterable<HistoryEvent>,
	asOf: Instant,
	from?: Day,
	to?: Day,
	count: DayCount = calendarDays,
): Report {
	const flow = new FlowFold(board);
	const accounts = new SprintAccounts(board);
	for (const event of events) {
		if (event.at > asOf) break;
		accounts.take(event, flow.take(event));
	}
	accounts.until(asOf);
	return {
		cards: inCardOrder(flow.lives.byCard.values()).map((life) => cardReport(life, board, asOf, count)),
		...flowReport(board, flow, asOf, from, to, count),
		forecast: forecastReport(flow, board.zone, asOf),
		sprints: accounts.ledgers.map(sprintReport),
	};
}

/** A ledger with the fields, and in the order, of the report. */
export function sprintReport({
	unplanned: _unplanned,
	count: _count,
	stints,
	moves: _moves,
	...sums
}: Ledger): SprintReport {
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
