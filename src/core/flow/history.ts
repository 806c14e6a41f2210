import type { FiledEvent } from '../events/kinds.ts';
import type { Instant } from '../calendar/zone.ts';

/** One thing that happened to one card. The value is the text of the history file: a column's name, a figure, a reason. */
export interface HistoryEvent {
	card: string;
	at: Instant;
	event: FiledEvent;
	value: string;
}

/** The events in time order; those of one instant keep the order in which they were given. */
export function inOrder<T extends { at: Instant }>(events: readonly T[]): T[] {
	return [...events].sort((a, b) => a.at - b.at);
}

/** What moves a card's clock. */
export const CLOCK_EVENTS = ['column', 'archived', 'restored'] as const satisfies readonly FiledEvent[];
