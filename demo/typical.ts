import type { Zone } from '../src/core/calendar/zone.ts';
import { standing } from '../src/core/flow/standing.ts';
import { median } from '../src/core/capacity/promise.ts';
import { carryOver } from '../src/core/sprint/carry-over.ts';
import { sprintAccounts } from '../src/core/sprint/accounts.ts';
import type { DemoBoard } from './boards.ts';
import type { DemoPerson } from './people.ts';
import { fileOf, historyOf } from './planning.ts';
import { simulate, type DemoHistory } from './simulate.ts';

/** Lives that are tried; each takes well under a tenth of a second. */
const LIVES = 60;
/** What happens on a board in half a year, at least. */
const EVENTS = 1050;
/** What the middle sprint of a team like these carries over of its work. */
const CARRIED = 0.2;
const NEAR = 0.03;
/** Cards that stand in the first column at least; in each other one stands one. */
const LINED_UP = 2;

/**
 * The half year of a board. A life may turn out untypical by chance: of several, the first is taken in which the middle
 * sprint carries about a fifth of its work, storms take some of most sprints, some cards go round again and again, and something stands in every column;
 * the nearest where none is quite like that. The same for the same instant.
 */
export function typicalHistory(
	board: DemoBoard,
	people: readonly DemoPerson[],
	zone: Zone,
	now: number,
): DemoHistory {
	if (!board.sprintDays) return simulate(board, people, zone, now);
	let nearest: { history: DemoHistory; off: number } | null = null;
	for (let life = 0; life < LIVES; life++) {
		const history = simulate(board, people, zone, now, life);
		const off = untypical(board, history, zone, now);
		if (off === 0) return history;
		if (!nearest || off < nearest.off) nearest = { history, off };
	}
	return nearest!.history;
}

/** How far a life is from a typical one; 0 where it is one. Sprints count that were closed before today. */
function untypical(board: DemoBoard, history: DemoHistory, zone: Zone, now: number): number {
	const day = zone.day(now);
	const today = zone.startOf(day);
	const [file, events] = [fileOf(board, history, zone), historyOf(history)];
	const { ledgers } = sprintAccounts(file, events, today);
	const [stands] = standing(file, zone, events, day, day, now);
	const short = stands!.columns.filter(
		(cards, i) => file.columns[i]!.kind !== 'done' && cards < (i === 0 ? LINED_UP : 1),
	).length;
	const closed = new Set(
		history.sprints.flatMap((s) => (s.closedAt !== null && s.closedAt < today ? [s.number] : [])),
	);
	const past = ledgers.filter((ledger) => closed.has(ledger.number));
	const { sprints, chronic } = carryOver(past, [], new Map());
	const carried = Math.abs((median(sprints.map((sprint) => sprint.bySize ?? 0)) ?? 0) - CARRIED);
	const stormy = past.filter((ledger) =>
		ledger.stints.some((stint) => !stint.planned && stint.worked > 0),
	).length;
	return (
		Math.max(0, carried - NEAR) +
		Math.max(0, 0.7 - stormy / past.length) * (board.unit === 'hours' ? 1 : 0) +
		Math.max(0, 3 - chronic.length) / 10 +
		short / 10 +
		// Half a year in which little happened shows little.
		Math.max(0, 1 - history.events.length / EVENTS)
	);
}
