import type { Instant } from '../calendar/zone.ts';
import type { HistoryEvent } from './history.ts';
import { columnIndex, type Layout } from './layout.ts';

export type ClockState = 'none' | 'running' | 'done' | 'dropped';

/** Where a card stands and what its clock says. Columns are places in the layout; null is the backlog. */
export interface CardClock {
	state: ClockState;
	column: number | null;
	/** When it came to the place where it stands; null while it has never been in a column. */
	entered: Instant | null;
	started: Instant | null;
	finished: Instant | null;
	archived: boolean;
	/** The state that restoring a dropped card brings back. */
	before: 'none' | 'running';
}

export const NEW_CLOCK: CardClock = {
	state: 'none',
	column: null,
	entered: null,
	started: null,
	finished: null,
	archived: false,
	before: 'none',
};

/** The clock after a card came to a column, or to the backlog (null), at an instant. */
export function enter(layout: Layout, clock: CardClock, column: number | null, at: Instant): CardClock {
	if (clock.archived || column === clock.column) return clock;
	const moved = { ...clock, column, entered: at };
	if (column === null) return { ...moved, state: 'none', started: null, finished: null };
	const done = layout.columns[column]?.kind === 'done';
	if (clock.state === 'done') return done ? moved : { ...moved, state: 'running', finished: null };
	if (clock.state === 'running') return done ? { ...moved, state: 'done', finished: at } : moved;
	if (done) return { ...moved, state: 'done', started: at, finished: at };
	return column >= layout.commitment ? { ...moved, state: 'running', started: at } : moved;
}

/** The clock after a card was archived: one that is not done is dropped, a done one stays done. */
export function archive(clock: CardClock): CardClock {
	if (clock.archived) return clock;
	if (clock.state === 'done') return { ...clock, archived: true };
	return {
		...clock,
		archived: true,
		state: 'dropped',
		before: clock.state === 'running' ? 'running' : 'none',
	};
}

/** The clock after an archived card was restored: the state it had before. */
export function restore(clock: CardClock): CardClock {
	if (!clock.archived) return clock;
	return { ...clock, archived: false, state: clock.state === 'dropped' ? clock.before : clock.state };
}

/** The clock after one event; the same clock when the event says nothing to it. */
export function step(layout: Layout, clock: CardClock, event: HistoryEvent): CardClock {
	switch (event.event) {
		case 'column':
			return enter(layout, clock, columnIndex(layout, event.value), event.at);
		case 'archived':
			return archive(clock);
		case 'restored':
			return restore(clock);
		default:
			return clock;
	}
}
