import type { Day, Instant, Zone } from '../calendar/zone.ts';
import { NEW_CLOCK, step, type CardClock } from './clock.ts';
import type { HistoryEvent } from './history.ts';
import type { Layout } from './layout.ts';

/** How many cards stood where at the end of a day. Columns are in the layout's order. */
export interface Standing {
	day: Day;
	/** Cards whose clock was running. */
	wip: number;
	columns: number[];
}

/**
 * Work in hand and cumulative flow: what stood where at the end of each day, from the history up to then (on the
 * as-of day, up to as-of). Archived cards count only in done columns; the backlog is not counted.
 * @param events in time order
 */
export function standing(
	layout: Layout,
	zone: Zone,
	events: readonly HistoryEvent[],
	from: Day,
	to: Day,
	asOf: Instant,
): Standing[] {
	const clocks = new Map<string, CardClock>();
	const columns = layout.columns.map(() => 0);
	let wip = 0;
	let next = 0;
	const count = (clock: CardClock, by: 1 | -1) => {
		if (clock.state === 'running') wip += by;
		if (clock.column === null) return;
		if (clock.archived && layout.columns[clock.column]?.kind !== 'done') return;
		columns[clock.column]! += by;
	};
	const days: Standing[] = [];
	for (let day = from; day <= to; day++) {
		const end = Math.min(zone.startOf(day + 1) - 1, asOf);
		for (; next < events.length && events[next]!.at <= end; next++) {
			const event = events[next]!;
			const before = clocks.get(event.card) ?? NEW_CLOCK;
			const after = step(layout, before, event);
			if (after === before) continue;
			count(before, -1);
			count(after, 1);
			clocks.set(event.card, after);
		}
		days.push({ day, wip, columns: [...columns] });
	}
	return days;
}
