import type { ColumnKind } from './layout.ts';
import type { Unit } from '../words.ts';

/** How urgent a card is: at once, by a fixed date, in its turn, or when there is time. */
export type ServiceClass = 'expedite' | 'fixed' | 'standard' | 'background';

/** Parts of a board that it can do without: what is off leaves every screen. */
export const SWITCHES = ['hours', 'lanes', 'classes', 'dates', 'types'] as const;
export type Switch = (typeof SWITCHES)[number];

/** A column as a template has it. */
export interface TemplateColumn {
	name: string;
	kind: ColumnKind;
	limit: number | null;
	mode: 'advise' | 'hold';
	policy: string;
}

/** A lane as a template has it. */
export interface TemplateLane {
	name: string;
	class: ServiceClass | null;
	limit: number | null;
	mode: 'advise' | 'hold';
}

/** A field as a template has it. */
export interface TemplateField {
	name: string;
	kind: 'text' | 'number' | 'date' | 'choice' | 'yes-no';
	choices: string[];
}

/** How a board is set up, without its cards: what a template keeps, and what a new board begins with. */
export interface BoardSetUp {
	unit: Unit;
	/** null: continuous flow */
	sprintDays: number | null;
	/** 0: Monday. */
	sprintWeekday: number;
	sprintName: string;
	columns: TemplateColumn[];
	/** The name of the column in which a card's clock starts. */
	commitment: string;
	types: {
		name: string;
		checklist: string[];
		size?: number | null;
		class?: ServiceClass | null;
	}[];
	labels: string[];
	/** Lanes across the columns; a template that was kept before there were any has none. */
	lanes?: TemplateLane[];
	/** Fields that it adds to its cards. */
	fields?: TemplateField[];
	/** How many cards one person may have in hand; null for any number. */
	/** The states that lines of checklists can have. */
	lineStates?: string[];
	personLimit?: number | null;
	personMode?: 'advise' | 'hold';
	off: Switch[];
}

/** A template: named by the work it is for, with one sentence that says how that goes. */
export interface Template {
	id: string;
	name: string;
	sentence: string;
	setUp: BoardSetUp;
}

/**
 * A key proposed from a board's name: the first letters of its words, or the first letters of its only one. Keys that are
 * taken get a number.
 */
export function keyFrom(name: string, taken: (key: string) => boolean = () => false): string {
	const words = name
		.normalize('NFD')
		.replace(/\p{Diacritic}/gu, '')
		.toUpperCase()
		.split(/[^A-Z0-9]+/)
		.filter((word) => /^[A-Z]/.test(word));
	const letters = words.length > 1 ? words.map((word) => word[0]).join('') : (words[0] ?? 'BOARD');
	const key = letters.slice(0, words.length > 1 ? 5 : 4).padEnd(2, 'B');
	for (let n = 1; ; n++) {
		const tried = n === 1 ? key : `${key}${n}`;
		if (!taken(tried)) return tried;
	}
}

/** A board's address from its name: `field-work`. */
export function slugFrom(name: string): string {
	const slug = name
		.normalize('NFD')
		.replace(/\p{Diacritic}/gu, '')
		.toLowerCase()
		.replace(/[^a-z0-9]+/g, '-')
		.replace(/^-+|-+$/g, '')
		.slice(0, 60);
	return slug || 'board';
}
