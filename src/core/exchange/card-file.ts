import { fsum } from 'd3-array';
import { parse } from 'csv-parse/sync';
import { stringify } from 'csv-stringify/sync';
import { BLANK } from '../board/blank.ts';
import { fieldsOf } from '../board/fields.ts';
import type { CardsChange, Change, Field, Looking } from '../board/field.ts';
import { readTyped, typeable } from '../board/typed.ts';
import type { FieldValue } from '../fields/own.ts';
import type { CardView } from '../pages/board.ts';
import type { LineError } from './history-file.ts';

/** What a new card gets only once it is there: a table of cards does not say it. */
const LATER = new Set(['column', 'lane', 'sprint', 'left', 'done', 'reviewer', 'review', 'length']);

/** What a column of a table can hold that is no field of a card by itself: its text, and the title of the card it is part of. */
const BESIDE: readonly Head[] = [
	{ id: 'description', name: 'Description', also: ['details', 'note', 'notes', 'text'] },
	{ id: 'parent', name: 'Part of', also: ['parent'] },
];

/** What a column of a table of cards can hold, as its head calls it. */
export type Head = Pick<Field, 'id' | 'name' | 'also'>;

/** What the columns of a table of cards can hold on a board. */
export function tableHeads(fields: readonly Field[]): Head[] {
	const [title, ...more] = fields
		.filter((field) => typeable(field) && !LATER.has(field.id))
		.map(({ id, name, also }) => ({ id, name, also }));
	return [title!, BESIDE[0]!, ...more, BESIDE[1]!];
}

/** A table as it was read: its header, and each further record with the line on which it starts. */
export interface Table {
	header: string[];
	records: { line: number; fields: string[] }[];
}

/** Which column of the table holds which field, by its place from 0. */
export type Mapping = Record<string, number>;

/** A card that a table describes; what the table says nothing of is left out. */
export interface TableCard extends Pick<CardsChange, 'type' | 'class' | 'owners' | 'ready'> {
	line: number;
	title: string;
	description?: string;
	size?: number;
	labels?: string[];
	start?: string;
	due?: string;
	initiative?: string;
	/** The line of the card that it is a sub-card of. */
	parent?: number;
	/** What it holds in fields of the board's own, by their ids. */
	fields?: Record<string, FieldValue>;
}

const MOST_CARDS = 1000;

/** Reads a CSV file (RFC 4180, UTF-8; commas, semicolons or tabs between fields). */
export function readTable(text: string): { ok: true; table: Table } | { ok: false; errors: LineError[] } {
	const refuse = (line: number, reason: string) => ({ ok: false as const, errors: [{ line, reason }] });
	if (text.includes('\0') || text.includes('\uFFFD'))
		return refuse(1, 'this is not a CSV file in UTF-8: it holds bytes that are no text');
	const whole = text.replace(/^\uFEFF/, '').replace(/\r\n?/g, '\n');
	if (!whole.trim()) return refuse(1, 'the file is empty');
	const first = whole.slice(0, whole.indexOf('\n') >= 0 ? whole.indexOf('\n') : undefined);
	const delimiter = [',', ';', '\t'].sort((a, b) => first.split(b).length - first.split(a).length)[0]!;
	const records: Table['records'] = [];
	try {
		parse(whole, {
			delimiter,
			relax_column_count: true,
			skip_empty_lines: true,
			on_record: (fields: string[], { lines }) => {
				const inside = fsum(fields, (field) => field.split('\n').length - 1);
				if (fields.some((field) => field.trim()))
					records.push({ line: lines - inside, fields: fields.map(undefuse) });
				return null;
			},
		});
	} catch (error) {
		const { lines = records.length + 1, message } = error as Error & { lines?: number };
		return refuse(
			lines,
			message.includes('Quote')
				? 'a quote is opened and never closed, or stands in the middle of a field'
				: message,
		);
	}
	const [header, ...rest] = records;
	if (!header) return refuse(1, 'the file is empty');
	if (!rest.length) return refuse(header.line, 'there is a header and no card below it');
	if (rest.length > MOST_CARDS)
		return refuse(
			rest[MOST_CARDS]!.line,
			`at most ${MOST_CARDS} cards can be read at once; this file has ${rest.length}`,
		);
	return { ok: true, table: { header: header.fields.map((field) => field.trim()), records: rest } };
}

/** A quote mark that was put before what a spreadsheet would take for a formula comes off again. */
const undefuse = (field: string) => field.replace(/^'(?=[=+\-@\t\r\uFF1D\uFF0B\uFF0D\uFF20])/, '');

/** A first guess at which column holds what, by the words of the header. */
export function guessMapping(table: Table, heads: readonly Head[]): Mapping {
	const mapping: Mapping = {};
	const free = new Map(table.header.map((name, i) => [i, name.toLowerCase()]));
	const take = (id: string, names: readonly string[]) => {
		for (const [i, name] of free)
			if (!(id in mapping) && names.includes(name)) {
				mapping[id] = i;
				free.delete(i);
			}
	};
	// What is called exactly so comes before what is called something like it.
	for (const { id, name } of heads) take(id, [name.toLowerCase()]);
	for (const { id, also } of heads) take(id, also ?? []);
	return mapping;
}

/**
 * The cards that a table describes under a mapping, and every line that cannot be read: its card is not among them, nor is
 * one that would be part of it. Cells are read as what is typed into a field of a card is. A parent is named by the title
 * of a card on an earlier line.
 */
export function readCards(
	table: Table,
	mapping: Mapping,
	looking: Looking,
): { cards: TableCard[]; errors: LineError[] } {
	const errors: LineError[] = [];
	if (mapping.title === undefined)
		return { cards: [], errors: [{ line: 1, reason: 'say which column holds the title' }] };
	const fields = fieldsOf(looking).filter(({ id }) => mapping[id] !== undefined && !LATER.has(id));
	const cards: TableCard[] = [];
	const titles = new Map<string, TableCard>();
	for (const { line, fields: cells } of table.records) {
		const wrong = (reason: string) => void errors.push({ line, reason });
		const cell = (id: string) => (mapping[id] === undefined ? '' : (cells[mapping[id]] ?? '').trim());
		const card: TableCard = { line, title: '' };
		for (const field of fields) {
			const text = cell(field.id);
			if (!text && field.id !== 'title') continue;
			const read = readTyped(field, UNSAID, text, looking);
			if (!read.ok) wrong(sayOf(field, read.reason));
			else if (read.change) takeUp(card, read.change);
		}
		if (!cell('title')) wrong('the title is empty');
		const description = cell('description');
		if (description.length > 50_000) wrong('the description has more than 50,000 characters');
		if (description) card.description = description;
		if ((card.labels?.length ?? 0) > 20) wrong('a card has at most 20 labels');
		if (card.start && card.due && card.start > card.due) wrong('it starts after it is due');
		const parent = cell('parent') ? titles.get(cell('parent').toLowerCase()) : null;
		if (parent === undefined) wrong(`no card on an earlier line is called “${short(cell('parent'))}”`);
		else if (parent?.parent !== undefined)
			wrong(`“${short(parent.title)}” is a sub-card itself and can have none`);
		if (parent) card.parent = parent.line;
		cards.push(card);
		if (card.title) titles.set(card.title.toLowerCase(), card);
	}
	const bad = new Set(errors.map((error) => error.line));
	for (const card of cards)
		if (card.parent !== undefined && bad.has(card.parent) && !bad.has(card.line)) {
			errors.push({ line: card.line, reason: `it is part of line ${card.parent}, which cannot be read` });
			bad.add(card.line);
		}
	return {
		cards: cards.filter((card) => !bad.has(card.line)),
		errors: errors.sort((a, b) => a.line - b.line),
	};
}

/** As long as no class is said, any that is is a change. */
const UNSAID: CardView = { ...BLANK, class: '' as CardView['class'] };

/** What a cell says goes into a card of a table. */
function takeUp(card: TableCard, change: Change): void {
	switch (change.do) {
		case 'title':
			card.title = change.title;
			return;
		case 'size':
			card.size = change.size;
			return;
		case 'start':
			card.start = change.start!;
			return;
		case 'due':
			card.due = change.due!;
			return;
		case 'own':
			if (change.value !== null) card.fields = { ...card.fields, [change.field]: change.value };
			return;
		case 'cards': {
			const { label, unlabel: _none, lane: _later, initiative, ...more } = change.change;
			Object.assign(card, more, label && { labels: label }, initiative && { initiative });
		}
	}
}

/** What is wrong with a cell, naming the field where the reason does not. */
const sayOf = ({ name }: Field, reason: string) =>
	reason.toLowerCase().includes(`the ${name.toLowerCase()} `) ? reason : `${name.toLowerCase()}: ${reason}`;

/** The lines that cannot be read as a table of their own, each with what is wrong with it, to be mended and read again. */
export function badLines(table: Table, errors: readonly LineError[]): string {
	const why = new Map<number, string[]>();
	for (const { line, reason } of errors) why.set(line, [...(why.get(line) ?? []), reason]);
	const rows = table.records.flatMap(({ line, fields }) => {
		const reasons = why.get(line);
		return reasons ? [[...table.header.map((_, i) => fields[i] ?? ''), reasons.join('; ')]] : [];
	});
	return stringify([[...table.header, 'what is wrong'], ...rows], { escape_formulas: true });
}

const short = (text: string) => (text.length > 40 ? `${text.slice(0, 40)}…` : text);
