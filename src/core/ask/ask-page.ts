import type { OwnField } from '../fields/own.ts';

/** Fields of a card that an ask page can ask for, beside its title; fields of the board’s own come by their ids. */
export const ASK_FIELDS = ['description', 'due', 'type', 'labels', 'initiative'] as const;
export type AskField = (typeof ASK_FIELDS)[number];

/** What an ask page asks, and where what is asked for lands. */
export interface AskPage {
	/** What whoever asks is told first, in Markdown. */
	words: string;
	/** Which of the fields above, and which of the board’s own by their ids. */
	fields: string[];
	/** The column in which it lands; null for the backlog. */
	column: string | null;
	/** In the backlog: on top, or at its end. */
	top: boolean;
}

/** Which own fields an ask page asks for, in the board’s order. */
export const ownAsked = (page: AskPage, fields: readonly OwnField[]): OwnField[] =>
	fields.filter(({ id }) => page.fields.includes(id));
