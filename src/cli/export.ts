import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { writeBoardFile } from '../core/exchange/board-file.ts';
import { writeHistory } from '../core/exchange/history-file.ts';
import { closeDatabase } from '../lib/server/database.ts';
import { boardFile, boardHistory } from '../lib/server/questions/history.ts';
import { boardByKey } from '../lib/server/questions/board-head.ts';
import { useOwnDatabase } from './database.ts';
import { options, refuse } from './options.ts';

/** `export`: a board's file and its history from the database, as two open files that `measure` reads. */
export async function exportBoard(args: string[]): Promise<number> {
	const given = options(args, ['board'], ['out']);
	if (typeof given === 'string') return refuse(given);
	if (!useOwnDatabase())
		return refuse('Set DATABASE_URL, or start this checkout’s own database with npm start.');
	try {
		const head = await boardByKey(given.board!);
		if (!head) return refuse(`There is no board with the key "${given.board}".`);
		const out = given.out ?? '.';
		mkdirSync(out, { recursive: true });
		const [board, history] = [join(out, `${head.slug}.json`), join(out, `${head.slug}.csv`)];
		writeFileSync(board, writeBoardFile(boardFile(head)));
		writeFileSync(history, writeHistory(await boardHistory(head)));
		process.stdout.write(`${board}\n${history}\n`);
		return 0;
	} finally {
		await closeDatabase();
	}
}
