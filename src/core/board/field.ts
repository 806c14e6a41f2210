import type { Day } from '../calendar/zone.ts';
import type { FieldValue } from '../fields/own.ts';
import type { Expectation } from '../flow/expectation.ts';
import type { BoardHead, CardView, ServiceClass } from '../pages/board.ts';
import { list } from '../words.ts';

/** A value by which cards are put together: its key, and what it is called. The empty key stands for none. */
export interface Value {
	key: string;
	name: string;
	/** What else it may be called where that is meant by nothing else. */
	also?: string;
}

/** Plain words that cards can be told by, beside the values of a field: `late`, `not sized`. */
export interface Said {
	key: string;
	words: string;
	is(card: CardView): boolean;
}

/** What is to be done to a card so that it gets another value of a field. */
export type Change =
	| { do: 'move'; column: string | null }
	| { do: 'cards'; change: CardsChange }
	| { do: 'plan'; sprint: number | null }
	| { do: 'due'; due: string | null }
	| { do: 'start'; start: string | null; due?: string | null }
	| { do: 'title'; title: string }
	| { do: 'review'; reviewer?: string | null; due?: string | null }
	| { do: 'percent'; percent: number | null }
	| { do: 'length'; due: string }
	| { do: 'size'; size: number }
	| { do: 'left'; left: number }
	| { do: 'own'; field: string; value: FieldValue | null };

/** What can be changed of many cards in one step. */
export interface CardsChange {
	type?: string;
	class?: ServiceClass;
	lane?: string | null;
	label?: string[];
	unlabel?: string[];
	initiative?: string | null;
	ready?: boolean;
	owners?: string[];
}

/**
 * A field of a card, built in or the board's own, as everything that shows, filters, sorts, arranges, counts or exports
 * cards reads it.
 */
export interface Field {
	id: string;
	name: string;
	/** A card as people read it in this field; empty for nothing. */
	text(card: CardView): string;
	/** What orders cards by it; null comes last. */
	order(card: CardView): string | number | null;
	/** By which values cards can be put together. Left out: by none. */
	values?: {
		/** Those of a card: several for owners and labels; never empty. */
		of(card: CardView): string[];
		/** All that there are, in their order, whether cards have them or not. */
		known: Value[];
		/** What one is called that is not among them. */
		name(key: string): string;
		/** What is to be done so that a card has another one in the place of one. Left out: nothing can. */
		put?(card: CardView, to: string, from: string): Change | null;
		/** What dragging a card to another one does, as a sentence has it: `hands a card over`. */
		does?: string;
	};
	/** What else cards can be told by in it. */
	said?: Said[];
	/** It holds a day: what it says of a card is one such as `2026-12-04`. What is to be done so that it is another one, or none. */
	day?: (card: CardView, day: string | null) => Change | null;
	/** An amount that can be summed up. */
	sum?(card: CardView): number;
	/** What stands for it in a table that is saved, where that is not what people read: a figure without its unit. */
	cell?(card: CardView): number | null;
	/** What else the heads of tables call it. */
	also?: readonly string[];
}

/** What stands for a field of a card in a table that is saved. */
export const cellOf = (field: Field, card: CardView): string | number | null =>
	field.cell ? field.cell(card) : field.text(card);

/** What fields are made of: a board, and the moment and the person that look at it. */
export interface Looking {
	board: Pick<
		BoardHead,
		| 'key'
		| 'unit'
		| 'columns'
		| 'lanes'
		| 'people'
		| 'types'
		| 'labels'
		| 'initiatives'
		| 'sprints'
		| 'sprintDays'
		| 'sprintName'
		| 'fields'
		| 'off'
		| 'timeZone'
	>;
	today: Day;
	/** Who looks. */
	me: string | null;
	/** Whether the team works on a day; Monday to Friday where nothing says. */
	works?: (day: Day) => boolean;
	/** How often cards were carried over, by their numbers. */
	carried?: Readonly<Record<number, number>>;
	expectation?: Expectation | null;
}

/** One field by its id. */
export const fieldNamed = (fields: readonly Field[], id: string): Field | undefined =>
	fields.find((field) => field.id === id);

/** What a board's sentence says of how its cards are arranged: `by owners; dragging hands a card over`. */
export const arrangedWords = (by: Field, lanes: Field | null): string =>
	[
		`Arranged by ${list([by.name.toLowerCase(), ...(lanes ? [lanes.id === 'lane' ? 'in its lanes' : `in lanes of ${lanes.name.toLowerCase()}`] : [])])}`,
		...(by.values?.put && by.values.does
			? [`dragging ${by.values.does}`]
			: ['cards stay where they are put']),
	].join('; ');
