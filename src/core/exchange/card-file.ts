import { parse } from 'csv-parse/sync';
import { stringify } from 'csv-stringify/sync';
import { dayText } from '../calendar/days.ts';
import { typedDay } from '../calendar/typed-day.ts';
import type { Day } from '../calendar/zone.ts';
import { type FieldValue, type OwnField } from '../fields/own.ts';
import { readValue } from '../fields/typed.ts';
import type { LineError } from './history-file.ts';

/** What a column of a table of cards can hold. */
export const CARD_FIELDS = [
	'title',
	'description',
	'size',
	'type',
	'class',
	'labels',
	'owners',
	'start',
	'due',
	'initiative',
	'parent',
] as const;
export type CardField = (typeof CARD_FIELDS)[number];

/** A table as it was read: its header, and each further record with the line on which it starts. */
export interface Table {
	header: string[];
	records: { line: number; fields: string[] }[];
}

/** Which column of the table holds which field, by its place from 0; fields of the board's own by their ids. */
export type Mapping = Partial<Record<CardField, number>> & { [own: string]: number };

/** A card that a table describes. */
export interface TableCard {
	line: number;
	title: string;
	description: string;
	size: number | null;
	type: string;
	class: 'expedite' | 'fixed' | 'standard' | 'background';
	labels: string[];
	/** Ids of people. */
	owners: string[];
	start: string | null;
	due: string | null;
	initiative: string;
	/** The line of the card that it is a sub-card of. */
	parent: number | null;
	/** What it holds in fields of the board's own, by their ids. */
	fields: Record<string, FieldValue>;
}

/** What the board knows, against which a table is checked. */
export interface TableBoard {
	people: readonly { id: string; name: string }[];
	types: readonly string[];
	/** Fields that the board adds to its cards. */
	fields: readonly OwnField[];
	/** The day from which days without a year are told. */
	today: Day;
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
				const inside = fields.reduce((n, field) => n + field.split('\n').length - 1, 0);
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

const NAMES: Record<CardField, RegExp> = {
	title: /^(title|summary|name|card|task|what)$/i,
	description: /^(description|details|notes?|text)$/i,
	size: /^(size|estimate|hours|points|effort)$/i,
	type: /^(type|kind)$/i,
	class: /^(class|class of service)$/i,
	labels: /^(labels?|tags?)$/i,
	owners: /^(owners?|assignees?|who|person)$/i,
	start: /^(start|starts|start date)$/i,
	due: /^(due|due date|deadline|by)$/i,
	initiative: /^(initiative|project|client|epic)$/i,
	parent: /^(parent|part of)$/i,
};

/** A first guess at which column holds what, by the words of the header. */
export function guessMapping(table: Table, own: readonly OwnField[] = []): Mapping {
	const mapping: Mapping = {};
	for (const field of CARD_FIELDS) {
		const at = table.header.findIndex((name) => NAMES[field].test(name));
		if (at >= 0) mapping[field] = at;
	}
	const used = new Set(Object.values(mapping));
	for (const { id, name } of own) {
		const at = table.header.findIndex((one, i) => !used.has(i) && one.toLowerCase() === name.toLowerCase());
		if (at >= 0) mapping[id] = at;
	}
	return mapping;
}

/**
 * The cards that a table describes under a mapping, and every line that cannot be read: its card is not among them, nor is
 * one that would be part of it. A parent is named by the title
 * of a card on an earlier line; labels and owners are separated by commas or semicolons; days are written as people do.
 */
export function readCards(
	table: Table,
	mapping: Mapping,
	board: TableBoard,
): { cards: TableCard[]; errors: LineError[] } {
	const errors: LineError[] = [];
	if (mapping.title === undefined)
		return { cards: [], errors: [{ line: 1, reason: 'say which column holds the title' }] };
	const cards: TableCard[] = [];
	const titles = new Map<string, TableCard>();
	for (const { line, fields } of table.records) {
		const wrong = (reason: string) => void errors.push({ line, reason });
		const text = (field: CardField) => {
			const at = mapping[field];
			return at === undefined ? '' : (fields[at] ?? '').trim();
		};
		const many = (field: CardField) =>
			[
				...new Set(
					text(field)
						.split(/[;,]/)
						.map((part) => part.trim()),
				),
			].filter(Boolean);
		const title = text('title').replace(/\s+/g, ' ');
		if (!title) wrong('the title is empty');
		else if (title.length > 300) wrong(`the title has ${title.length} characters; at most 300 are kept`);
		if (text('description').length > 50_000) wrong('the description has more than 50,000 characters');
		const size = sizeOf(text('size'));
		if (size === undefined) wrong(`the size “${short(text('size'))}” is not a figure of 0 or more`);
		const type = text('type');
		if (type && !board.types.includes(type))
			wrong(
				`“${short(type)}” is no type of this board${board.types.length ? `: it has ${board.types.join(', ')}` : ''}`,
			);
		const named = text('class').toLowerCase();
		const known = (['expedite', 'fixed', 'standard', 'background'] as const).find(
			(one) => one === (named === 'fixed date' ? 'fixed' : named || 'standard'),
		);
		if (!known)
			wrong(`“${short(text('class'))}” is no class: there are Expedite, Fixed date, Standard and Background`);
		const labels = many('labels');
		if (labels.some((label) => label.length > 40)) wrong('a label has more than 40 characters');
		if (labels.length > 20) wrong('a card has at most 20 labels');
		const owners = many('owners').flatMap((name) => {
			const called = board.people.filter((one) => one.name.toLowerCase() === name.toLowerCase());
			if (!called.length) wrong(`“${short(name)}” is nobody who can own cards here`);
			if (called.length > 1) wrong(`there are ${called.length} people called “${short(name)}”`);
			return called.length === 1 ? [called[0]!.id] : [];
		});
		const [start, due] = (['start', 'due'] as const).map((field) => {
			const value = text(field);
			const day = value ? typedDay(value, board.today) : null;
			if (value && day === null)
				wrong(`the ${field} “${short(value)}” is not a day such as 2026-12-04 or 4.12.2026`);
			return day === null ? null : dayText(day);
		}) as [string | null, string | null];
		if (start && due && start > due) wrong('it starts after it is due');
		const initiative = text('initiative');
		if (initiative.length > 80) wrong('the initiative has more than 80 characters');
		const parent = text('parent') ? titles.get(text('parent').toLowerCase()) : null;
		if (parent === undefined) wrong(`no card on an earlier line is called “${short(text('parent'))}”`);
		else if (parent && parent.parent !== null)
			wrong(`“${short(parent.title)}” is a sub-card itself and can have none`);
		const held: Record<string, FieldValue> = {};
		for (const own of board.fields) {
			const at = mapping[own.id];
			const found = readValue(own, at === undefined ? '' : (fields[at] ?? ''), board.today);
			if (!found.ok) wrong(found.reason);
			else if (found.value !== null) held[own.id] = found.value;
		}
		const card: TableCard = {
			line,
			title,
			description: text('description'),
			size: size ?? null,
			type,
			class: known ?? 'standard',
			labels,
			owners,
			start,
			due,
			initiative,
			parent: parent?.line ?? null,
			fields: held,
		};
		cards.push(card);
		if (title) titles.set(title.toLowerCase(), card);
	}
	const bad = new Set(errors.map((error) => error.line));
	for (const card of cards)
		if (card.parent !== null && bad.has(card.parent) && !bad.has(card.line)) {
			errors.push({ line: card.line, reason: `it is part of line ${card.parent}, which cannot be read` });
			bad.add(card.line);
		}
	return {
		cards: cards.filter((card) => !bad.has(card.line)),
		errors: errors.sort((a, b) => a.line - b.line),
	};
}

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

/** A size such as `8`, `8h` or `1.5 pt`; null when empty, undefined when it cannot be read. */
function sizeOf(text: string): number | null | undefined {
	if (!text) return null;
	const found = /^(\d+(?:[.,]\d+)?)\s*(h|hours?|pt|pts|points?)?$/i.exec(text);
	const size = found && Math.round(Number(found[1]!.replace(',', '.')) * 100) / 100;
	return size === null || size > 9999 ? undefined : size;
}

const short = (text: string) => (text.length > 40 ? `${text.slice(0, 40)}…` : text);
