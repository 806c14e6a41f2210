import type { Instant } from '../calendar/zone.ts';
import type { KeptFlow, Resting } from '../flow/fold.ts';
import type { Lifetime } from '../flow/lifetime.ts';
import type { KeptSince, Owners } from '../rounds/since.ts';
import { columnsOf, rowsOf, type Columns, type Packed } from '../shelf.ts';
import type { KeptAccounts } from '../sprint/accounts.ts';
import type { KeptWork } from '../sprint/work.ts';
import type { Notes, Sums } from '../sprint/book.ts';

/** What is said of a bundle of cards at rest; their keys, lifetimes, work and owners follow, as four texts that stay packed. */
export interface BundleHead extends Resting {
	count: number;
}

/** A text of what is kept of a board: cards, their work, their owners, a bundle of cards at rest, a sprint's book, or the rest. */
export interface Line {
	lives?: Columns<KeptLife>;
	works?: Columns<KeptWork>;
	owners?: Columns<Owners>;
	bundle?: BundleHead;
	book?: number;
	/** Of a sprint that is over: what was noted of it follows, as a text that stays packed. */
	sums?: Sums;
	notes?: KeptNotes;
	end?: { last: Instant | null; since: KeptSince | null; flow: KeptFlow; accounts: KeptAccounts };
}

/** A lifetime as it is written: its stays one after the other, as three numbers each. */
type KeptLife = Omit<Lifetime, 'stays'> & { stays: (number | null)[] };

/** What is noted of a sprint, as it is written. */
type KeptNotes = { [K in keyof Notes]: Columns<Notes[K][number]> };

export const line = (part: Line): Packed => ({ text: JSON.stringify(part) });

export const packed = (what: object): Packed => ({ text: JSON.stringify(what) });

/** The rows of a text that was written as columns. */
export const rowsIn = <T>(text: Packed): T[] => rowsOf(JSON.parse(text.text) as Columns<T>);

export const keptLives = (lives: readonly Lifetime[]): Columns<KeptLife> =>
	columnsOf(lives.map(({ stays, ...life }) => ({ ...life, stays: flat(stays) })));

export const livesOf = (kept: readonly KeptLife[]): Lifetime[] =>
	kept.map((life) => Object.assign(life, { stays: unflat(life.stays) }));

export const keptNotes = ({ stints, moves }: Notes): KeptNotes => ({
	stints: columnsOf(stints),
	moves: columnsOf(moves),
});

export const notesOf = ({ stints, moves }: KeptNotes): Notes => ({
	stints: rowsOf(stints),
	moves: rowsOf(moves),
});

const flat = (stays: Lifetime['stays']) => stays.flatMap(({ column, from, until }) => [column, from, until]);

const unflat = (numbers: readonly (number | null)[]): Lifetime['stays'] =>
	Array.from({ length: numbers.length / 3 }, (_, i) => ({
		column: numbers[i * 3]!,
		from: numbers[i * 3 + 1]!,
		until: numbers[i * 3 + 2]!,
	}));
