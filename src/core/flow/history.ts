import type { Instant } from '../calendar/zone.ts';

/** What can happen to a card, in the words of the history file. */
export const EVENT_KINDS = [
	'created',
	'column',
	'blocked',
	'unblocked',
	'sized',
	'left',
	'worked',
	'split',
	'sprint',
	'planned',
	'owner',
	'unowner',
	'type',
	'class',
	'label',
	'archived',
	'restored',
] as const;

export type EventKind = (typeof EVENT_KINDS)[number];

/** One thing that happened to one card. The value is the text of the history file: a column's name, a figure, a reason. */
export interface HistoryEvent {
	card: string;
	at: Instant;
	event: EventKind;
	value: string;
}

/** The events in time order; those of one instant keep the order in which they were given. */
export function inOrder<T extends { at: Instant }>(events: readonly T[]): T[] {
	return [...events].sort((a, b) => a.at - b.at);
}
