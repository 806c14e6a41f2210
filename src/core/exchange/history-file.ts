import { parse } from 'csv-parse/sync';
import { stringify } from 'csv-stringify/sync';
import { FILED_EVENTS, type FiledEvent } from '../events/kinds.ts';
import { History, type HistoryEvent } from '../flow/history.ts';
import type { BoardFile } from '../sprint/board.ts';
import { instantText, parseInstant } from '../calendar/instant.ts';

const HEADER = ['card', 'at', 'event', 'value'];
const FIGURE = /^(\d+\.?\d*|\.\d+)(e[+-]?\d+)?$/i;
const FIGURES: readonly FiledEvent[] = ['sized', 'left', 'worked', 'split'];

/** A line of a history file that cannot be read; line is where its record starts, counted from 1. */
export interface LineError {
	line: number;
	reason: string;
}

type ReadHistory = { ok: true; events: History } | { ok: false; errors: LineError[] };

/**
 * Reads a history file (CSV, RFC 4180, UTF-8) against its board. Either every line can be read, and the events come
 * back in time order, or all lines that cannot be read are named and there are no events.
 * @param text the whole, or piece by piece: a very long one need not be held as a whole
 */
export function readHistory(text: string | Iterable<string>, board: BoardFile): ReadHistory {
	const errors: LineError[] = [];
	const events = new History();
	const check = checker(board);
	let header = false;
	const end = eachRecord(typeof text === 'string' ? [text] : text, (record, line) => {
		if (!header && line === 1) header = record.join() === HEADER.join();
		else if (header && (record.length > 1 || record[0]!.trim())) {
			const event = check(record);
			if (typeof event === 'string') errors.push({ line, reason: event });
			else events.add(event);
		}
	});
	if (!header) return { ok: false, errors: [{ line: 1, reason: `the header must be ${HEADER.join(',')}` }] };
	if (end.open !== null) errors.push({ line: end.open, reason: 'a quote is opened and never closed' });
	if (errors.length) return { ok: false, errors };
	return { ok: true, events };
}

/** Characters that are parsed at once: a long history is never held as records as a whole. */
const PIECE = 1 << 16;

/** A text cut after ends of lines into pieces that can be parsed; lines end alike in all of them. */
function* wholeLines(text: Iterable<string>): Generator<{ piece: string; last: boolean }> {
	const alike = (piece: string) => piece.replace(/\r\n?/g, '\n');
	let rest = '';
	for (const more of text) {
		rest += more;
		for (let cut; (cut = rest.indexOf('\n', PIECE)) >= 0; rest = rest.slice(cut + 1))
			yield { piece: alike(rest.slice(0, cut + 1)), last: false };
	}
	yield { piece: alike(rest), last: true };
}

/**
 * Gives each record of a CSV text with the line on which it starts, in their order; an empty line is a record of one
 * empty field.
 * @returns open is the line of the record whose quote is never closed; null when there is none
 */
function eachRecord(
	text: Iterable<string>,
	take: (record: string[], line: number) => void,
): { open: number | null } {
	let line = 1;
	let bom = true;
	/** What ended inside quotes, and how much of it was tried: it is read again once there is twice as much. */
	let [begun, tried] = ['', 0];
	for (const { piece, last } of wholeLines(text)) {
		begun += piece;
		if (begun.length < 2 * tried && !last) continue;
		let open = false;
		const records: string[][] = parse(begun, {
			bom,
			relax_column_count: true,
			relax_quotes: true,
			skip_records_with_error: true,
			on_skip: () => void (open = true),
		});
		if (open && !last) {
			tried = begun.length;
			continue;
		}
		for (const record of records) {
			take(record, line);
			line++;
			for (const field of record) if (field.includes('\n')) line += field.split('\n').length - 1;
		}
		if (open) return { open: line };
		[begun, tried, bom] = ['', 0, false];
	}
	return { open: null };
}

/** Writes events as a history file. */
export function writeHistory(events: readonly HistoryEvent[]): string {
	return stringify([HEADER, ...events.map((e) => [e.card, instantText(e.at), e.event, e.value])]);
}

/** Checks one record against the board: the event, or the reason why it cannot be read. */
function checker(board: BoardFile): (record: string[]) => HistoryEvent | string {
	const columns = new Set(board.columns.flatMap(({ name, was = [] }) => [name, ...was]));
	// One text each for what many records say: a long history would hold it many times over.
	const texts = new Map<string, string>();
	const one = (text: string) => {
		const known = texts.get(text);
		if (known === undefined) texts.set(text, text);
		return known ?? text;
	};
	const sprints = new Map(board.sprints.map((sprint) => [String(sprint.number), sprint]));
	const kinds = new Map<string, FiledEvent>(FILED_EVENTS.map((kind) => [kind, kind]));
	return (record) => {
		if (record.length !== 4) return `${record.length} fields where there must be four`;
		const [card, when, kind, value] = record as [string, string, string, string];
		if (!card.trim()) return 'the card is empty';
		const at = parseInstant(when);
		if (at === null) return `"${when}" is not an instant with a date, hours, minutes and an offset`;
		const event = kinds.get(kind);
		if (!event) return `unknown event "${kind}"`;
		if (event === 'column' && value && !columns.has(value)) return `unknown column "${value}"`;
		if (FIGURES.includes(event) && !isFigure(value))
			return `${event} "${value}" is not a figure of 0 or more`;
		if (event === 'planned' && value !== 'yes' && value !== 'no')
			return `planned must be yes or no, not "${value}"`;
		if (event === 'sprint' && value) {
			const sprint = sprints.get(value);
			if (!sprint) return `unknown sprint "${value}"`;
			if (sprint.closedAt !== null && sprint.closedAt < at)
				return `sprint ${value} was already closed by then`;
		}
		return { card: one(card), at, event, value: event === 'created' ? value : one(value) };
	};
}

function isFigure(value: string): boolean {
	return FIGURE.test(value) && Number.isFinite(Number(value));
}
