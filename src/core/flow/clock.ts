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

/** A clock of its own, with nothing but a clock's fields. Written out: a history makes very many of them. */
export function clockOf({
	state,
	column,
	entered,
	started,
	finished,
	archived,
	before,
}: CardClock): CardClock {
	return { state, column, entered, started, finished, archived, before };
}

/** The clock after a card came to a column, or to the backlog (null), at an instant. */
export function enter(layout: Layout, clock: CardClock, column: number | null, at: Instant): CardClock {
	if (clock.archived || column === clock.column) return clock;
	const moved = clockOf(clock);
	moved.column = column;
	moved.entered = at;
	if (column === null) {
		moved.state = 'none';
		moved.started = moved.finished = null;
		return moved;
	}
	const done = layout.columns[column]?.kind === 'done';
	if (clock.state === 'done') {
		if (done) return moved;
		moved.state = 'running';
		moved.finished = null;
	} else if (done) {
		moved.state = 'done';
		moved.finished = at;
		if (clock.state !== 'running') moved.started = at;
	} else if (clock.state !== 'running' && column >= layout.commitment) {
		moved.state = 'running';
		moved.started = at;
	}
	return moved;
}

/** The clock after a card was archived: one that is not done is dropped, a done one stays done. */
export function archive(clock: CardClock): CardClock {
	if (clock.archived) return clock;
	const put = clockOf(clock);
	put.archived = true;
	if (clock.state === 'done') return put;
	put.state = 'dropped';
	put.before = clock.state === 'running' ? 'running' : 'none';
	return put;
}

/** The clock after an archived card was restored: the state it had before. */
export function restore(clock: CardClock): CardClock {
	if (!clock.archived) return clock;
	const back = clockOf(clock);
	back.archived = false;
	if (clock.state === 'dropped') back.state = clock.before;
	return back;
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
