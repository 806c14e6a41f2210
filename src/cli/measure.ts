import { closeSync, fstatSync, openSync, readFileSync, readSync } from 'node:fs';
import { pipeline } from 'node:stream/promises';
import { StringDecoder } from 'node:string_decoder';
import { parseDay } from '../core/calendar/days.ts';
import { readBoardFile } from '../core/exchange/board-file.ts';
import { readHistory } from '../core/exchange/history-file.ts';
import { parseInstant } from '../core/calendar/instant.ts';
import { report, type Report } from '../core/exchange/report.ts';
import { options, refuse } from './options.ts';

/** `measure`: the flow report of a history file. Exit code 2 and reasons on standard error where it cannot be read. */
export async function measure(args: string[]): Promise<number> {
	const given = options(args, ['board', 'history', 'as-of'], ['from', 'to']);
	if (typeof given === 'string') return refuse(given);
	const asOf = parseInstant(given['as-of']!);
	if (asOf === null)
		return refuse(`--as-of "${given['as-of']}" is not an instant such as 2026-11-23T12:00:00Z.`);
	const from = given.from === undefined ? undefined : parseDay(given.from);
	const to = given.to === undefined ? undefined : parseDay(given.to);
	if (from === null) return refuse(`--from "${given.from}" is not a day such as 2026-11-23.`);
	if (to === null) return refuse(`--to "${given.to}" is not a day such as 2026-11-23.`);
	if (from !== undefined && to !== undefined && to < from) return refuse('--to is before --from.');

	const boardText = readText(given.board!);
	if (boardText === null) return refuse(`The board file ${given.board} cannot be opened.`);
	const file = opened(given.history!);
	if (file === null) return refuse(`The history file ${given.history} cannot be opened.`);

	const board = readBoardFile(boardText);
	if (!board.ok) return refuse(...board.errors.map((reason) => `board file: ${reason}`));
	const history = readHistory(piecesOf(file), board.value);
	if (!history.ok) return refuse(...history.errors.map(({ line, reason }) => `line ${line}: ${reason}`));

	const found = report(board.value, history.events, asOf, from, to);
	try {
		await pipeline(written(found), process.stdout, { end: false });
	} catch (error) {
		// Who reads it has read enough.
		if ((error as NodeJS.ErrnoException).code !== 'EPIPE') throw error;
	}
	return 0;
}

function readText(path: string): string | null {
	try {
		return readFileSync(path, 'utf8');
	} catch {
		return null;
	}
}

function opened(path: string): number | null {
	try {
		const file = openSync(path, 'r');
		return fstatSync(file).isDirectory() ? null : file;
	} catch {
		return null;
	}
}

/** So many bytes of a file are read at once. */
const PIECE = 1 << 20;

function* piecesOf(file: number): Generator<string> {
	const bytes = Buffer.alloc(PIECE);
	const decoder = new StringDecoder('utf8');
	for (let n; (n = readSync(file, bytes)) > 0;) yield decoder.write(bytes.subarray(0, n));
	yield decoder.end();
	closeSync(file);
}

/** So many entries of a list are written at once. */
const ENTRIES = 100;

/** A report as JSON in indented lines, piece by piece: that of a long history is large. */
function* written(found: Report): Generator<string> {
	let before = '{\n';
	for (const [name, value] of Object.entries(found) as [string, unknown][]) {
		yield `${before} ${JSON.stringify(name)}: `;
		before = ',\n';
		if (!Array.isArray(value) || !value.length) {
			yield JSON.stringify([value], null, 1).slice('[\n '.length, -'\n]'.length);
			continue;
		}
		for (let from = 0; from < value.length; from += ENTRIES) {
			const lines = JSON.stringify([value.slice(from, from + ENTRIES)], null, 1);
			yield (from ? ',\n' : '[\n') + lines.slice('[\n [\n'.length, -'\n ]\n]'.length);
		}
		yield '\n ]';
	}
	yield '\n}\n';
}
