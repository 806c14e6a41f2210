import { readFileSync } from 'node:fs';
import { parseDay } from '../core/calendar/days.ts';
import { readBoardFile } from '../core/exchange/board-file.ts';
import { readHistory } from '../core/exchange/history-file.ts';
import { parseInstant } from '../core/calendar/instant.ts';
import { report } from '../core/exchange/report.ts';
import { options, refuse } from './options.ts';

/** `measure`: the flow report of a history file. Exit code 2 and reasons on standard error where it cannot be read. */
export function measure(args: string[]): number {
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
	const historyText = readText(given.history!);
	if (historyText === null) return refuse(`The history file ${given.history} cannot be opened.`);

	const board = readBoardFile(boardText);
	if (!board.ok) return refuse(...board.errors.map((reason) => `board file: ${reason}`));
	const history = readHistory(historyText, board.value);
	if (!history.ok) return refuse(...history.errors.map(({ line, reason }) => `line ${line}: ${reason}`));

	process.stdout.write(JSON.stringify(report(board.value, history.events, asOf, from, to), null, 1));
	process.stdout.write('\n');
	return 0;
}

function readText(path: string): string | null {
	try {
		return readFileSync(path, 'utf8');
	} catch {
		return null;
	}
}
