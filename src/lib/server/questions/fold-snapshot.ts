import { buffer } from 'node:stream/consumers';
import { pipeline } from 'node:stream/promises';
import { setImmediate as rest } from 'node:timers/promises';
import { createGunzip, createGzip } from 'node:zlib';
import { BoardFold } from '../../../core/board/fold.ts';
import { rows } from '../database.ts';
import { log } from '../log.ts';
import { now } from '../time.ts';
import { inTurns } from '../turns.ts';
import type { FoldHead } from './board-head.ts';
import { boardFile } from './history.ts';

/** What the core is made of, as the build found it; where there is no build nothing is kept. */
declare const HARROW_CORE: string;
const VERSION = typeof HARROW_CORE === 'string' ? `${HARROW_CORE} ${process.versions.tz}` : null;

/** A board folded up to one of its events, over its columns. */
export interface Folded {
	seq: number;
	columns: string;
	fold: BoardFold;
	/** How many events were read since it was last kept. */
	news: number;
}

/** So many bytes of it are read, and unpacked, at once. */
const PART = 262_144;

/** So many events are worth keeping what they were folded to. */
const WORTH = 5000;

/**
 * A board as this version of the application has folded it before, in this process or another.
 * @returns undefined where there is none, or none that can be gone on from
 */
export async function keptFold(head: FoldHead, columns: string): Promise<Folded | undefined> {
	if (!VERSION) return undefined;
	const [found] = await rows<{ seq: number; bytes: number }>(
		'select seq, length(lines) as bytes from fold_snapshot where board_id = $1 and version = $2 and columns = $3 and seq <= $4',
		[head.id, VERSION, columns, head.seq],
		'fold-snapshot',
	);
	if (!found) return undefined;
	try {
		let fold: BoardFold | null = null;
		await pipeline(partsOf(head, found), createGunzip({ chunkSize: PART }), async (text) => {
			fold = await BoardFold.from(boardFile(head), linesOf(text), inTurns);
		});
		return fold ? { seq: found.seq, columns, fold, news: 0 } : undefined;
	} catch (error) {
		log.warn({ board: head.key, error: (error as Error).message }, 'a fold that was kept cannot be read');
		return undefined;
	}
}

/** What was kept, part by part: what is large is not taken in at once. */
async function* partsOf(
	head: FoldHead,
	{ seq, bytes }: { seq: number; bytes: number },
): AsyncGenerator<Buffer> {
	for (let from = 1; from <= bytes; from += PART) {
		const [found] = await rows<{ part: Buffer }>(
			`select substring(lines from $3 for $4) as part from fold_snapshot where board_id = $1 and seq = $2 and version = $5`,
			[head.id, seq, from, PART, VERSION],
			'fold-snapshot-part',
		);
		if (!found) throw new Error('it was kept anew meanwhile');
		yield found.part;
	}
}

async function* linesOf(text: AsyncIterable<Buffer>): AsyncGenerator<string> {
	let begun: Buffer[] = [];
	for await (const chunk of text) {
		let from = 0;
		for (let end; (end = chunk.indexOf('\n', from)) >= 0; from = end + 1) {
			yield Buffer.concat([...begun, chunk.subarray(from, end)]).toString('utf8');
			begun = [];
			await rest();
		}
		begun.push(chunk.subarray(from));
	}
}

/**
 * Keeps a board as it is folded, for processes that start later, once much was read for it; line by line, so that others
 * have their turn. Where it goes on meanwhile, it is kept another time.
 */
export async function keepFold(board: string, folded: Folded): Promise<void> {
	if (!VERSION || folded.news < WORTH) return;
	const { seq, columns, fold, news } = folded;
	folded.news = 0;
	try {
		let text: Buffer | undefined;
		await pipeline(
			async function* () {
				for (const line of fold.kept()) {
					yield `${line}\n`;
					await rest();
					if (folded.seq !== seq) throw new Error('it went on');
				}
			},
			createGzip({ level: 1 }),
			async (packed) => void (text = await buffer(packed)),
		);
		await rows(
			`insert into fold_snapshot (board_id, seq, version, columns, lines, made_at) values ($1, $2, $3, $4, $5, $6)
			on conflict (board_id) do update
			set seq = excluded.seq, version = excluded.version, columns = excluded.columns, lines = excluded.lines, made_at = excluded.made_at`,
			[board, seq, VERSION, columns, text, now()],
		);
	} catch (error) {
		folded.news += news;
		if (folded.seq === seq) log.warn({ error: (error as Error).message }, 'a fold was not kept');
	}
}
