import { BOARD_EVENTS } from './board-events.ts';
import { CARD_EVENTS } from './card-events.ts';

/** What can happen to a card, and to a board. */
export type CardEventName = keyof typeof CARD_EVENTS;
export type BoardEventName = keyof typeof BOARD_EVENTS;

/** The kinds of events that stand in the history file, in its words. */
export type FiledEvent = {
	[K in CardEventName]: (typeof CARD_EVENTS)[K]['inFile'] extends true ? K : never;
}[CardEventName];

const keys = <T extends object>(table: T) => Object.keys(table) as (keyof T)[];

export const FILED_EVENTS = keys(CARD_EVENTS).filter((kind): kind is FiledEvent => CARD_EVENTS[kind].inFile);

/** Changes of what is set, of which Set-up tells. */
export const SETTING_EVENTS = keys(BOARD_EVENTS).filter((kind) => BOARD_EVENTS[kind].setting);
