import { parse } from 'csv-parse/sync';
import { stringify } from 'csv-stringify/sync';
import { FILED_EVENTS, type FiledEvent } from '../events/kinds.ts';
import { inOrder, type HistoryEvent } from '../flow/history.ts';
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

type ReadHistory = { ok: true; events: HistoryEvent[] } | { ok: false; errors: LineError[] };

/**
 * Reads a history file (CSV, RFC 4180, UTF-8) against its board. Either every line can be read, and the events come
 * back in time order, or all lines that cannot be read are named and there are no events.
 */
export function readHistory(text: string, board: BoardFile): ReadHistory {
	const errors: LineError[] = [];
	const events: HistoryEvent[] = [];
	const check = checker(board);
	let header = false;
	let read = 0;
	const whole = text.replace(/\r\n?/g, '\n');
	// Each record is read as it comes and not kept, so that a long history takes little memory.
	parse(whole, {
		bom: true,
		relax_column_count: true,
		relax_quotes: true,
		skip_empty_lines: true,
		skip_records_with_error: true,
		on_record: (record: string[], { lines }) => {
			const line = firstLine(lines, record);
			read = lines;
			if (!header && errors.length === 0 && events.length === 0) {
				header = line === 1 && record.join() === HEADER.join();
				if (!header) errors.push({ line: 1, reason: `the header must be ${HEADER.join(',')}` });
			} else if (record.length > 1 || record[0]!.trim()) {
				const event = check(record);
				if (typeof event === 'string') errors.push({ line, reason: event });
				else events.push(event);
			}
			return null;
		},
		on_skip: () => {
			// Such a record runs to the end of the text; it starts at the first line after the last one that has anything in it.
			const rest = whole.split('\n').slice(read);
			errors.push({
				line: read + 1 + Math.max(0, rest.findIndex(Boolean)),
				reason: 'a quote is opened and never closed',
			});
			return undefined;
		},
	});
	if (!header) return { ok: false, errors: [{ line: 1, reason: `the header must be ${HEADER.join(',')}` }] };
	if (errors.length) return { ok: false, errors: errors.sort((a, b) => a.line - b.line) };
	return { ok: true, events: inOrder(events) };
}

/** Writes events as a history file. */
export function writeHistory(events: readonly HistoryEvent[]): string {
	return stringify([HEADER, ...events.map((e) => [e.card, instantText(e.at), e.event, e.value])]);
}

/** The line where a record starts: the parser says where it ends, and only its quoted fields can hold line breaks. */
function firstLine(lastLine: number, record: string[]): number {
	let line = lastLine;
	for (const field of record) if (field.includes('\n')) line -= field.split('\n').length - 1;
	return line;
}

/** Checks one record against the board: the event, or the reason why it cannot be read. */
function checker(board: BoardFile): (record: string[]) => HistoryEvent | string {
	const columns = new Set(board.columns.map((column) => column.name));
	const sprints = new Map(board.sprints.map((sprint) => [String(sprint.number), sprint]));
	const kinds = new Set<string>(FILED_EVENTS);
	return (record) => {
		if (record.length !== 4) return `${record.length} fields where there must be four`;
		const [card, when, kind, value] = record as [string, string, string, string];
		if (!card.trim()) return 'the card is empty';
		const at = parseInstant(when);
		if (at === null) return `"${when}" is not an instant with a date, hours, minutes and an offset`;
		if (!kinds.has(kind)) return `unknown event "${kind}"`;
		const event = kind as FiledEvent;
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
		return { card, at, event, value };
	};
}

function isFigure(value: string): boolean {
	return FIGURE.test(value) && Number.isFinite(Number(value));
}
