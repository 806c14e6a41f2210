import { promisify } from 'node:util';
import { deflate, inflateSync } from 'node:zlib';
import { BoardFold } from '../../../core/board/fold.ts';
import type { Packed } from '../../../core/shelf.ts';
import { rows } from '../database.ts';
import { log } from '../log.ts';
import { now } from '../time.ts';
import { inTurns, turn, TURN_MS } from '../turns.ts';
import type { FoldHead } from './board-head.ts';
import { boardFile } from './history.ts';

/** What the core is made of, as the build found it; where there is no build nothing is kept. */
declare const HARROW_CORE: string;
export const VERSION = typeof HARROW_CORE === 'string' ? `${HARROW_CORE} ${process.versions.tz}` : null;

/** A board folded up to one of its events, over its columns. */
export interface Folded {
	seq: number;
	columns: string;
	fold: BoardFold;
	/** How many events were read since it was last kept. */
	news: number;
}

/** So many bytes of it are read at once. */
const PART = 262_144;

/** So many events are worth keeping what they were folded to. */
export const WORTH = 5000;

/**
 * A board as this version of the application has folded it before, in this process or another.
 * @returns undefined where there is none, or none that can be gone on from
 */
export async function keptFold(head: FoldHead, columns: string): Promise<Folded | undefined> {
	if (!VERSION) return undefined;
	const [found] = await rows<Kept>(
		'select seq, length(lines) as bytes, xmin::text as written from fold_snapshot where board_id = $1 and version = $2 and columns = $3 and seq <= $4',
		[head.id, VERSION, columns, head.seq],
		'fold-snapshot',
	);
	if (!found) return undefined;
	try {
		const fold = await BoardFold.from(boardFile(head), textsOf(partsOf(head, found)), inTurns);
		return fold ? { seq: found.seq, columns, fold, news: 0 } : undefined;
	} catch (error) {
		log.warn({ board: head.key, error: (error as Error).message }, 'a fold that was kept cannot be read');
		return undefined;
	}
}

/** What is kept of a board: up to which event, how much it is, and which transaction has written it. */
interface Kept {
	seq: number;
	bytes: number;
	written: string;
}

/** What was kept, part by part: what is large is not taken in at once. */
async function* partsOf(head: FoldHead, { bytes, written }: Kept): AsyncGenerator<Buffer> {
	for (let from = 1; from <= bytes; from += PART) {
		const [found] = await rows<{ part: Buffer }>(
			`select substring(lines from $3 for $4) as part from fold_snapshot where board_id = $1 and xmin::text = $2`,
			[head.id, written, from, PART],
			'fold-snapshot-part',
		);
		if (!found) throw new Error('it was kept anew meanwhile');
		yield found.part;
	}
}

/** A text as it is kept: small, and made out anew whenever it is read. */
class Deflated implements Packed {
	readonly bytes: Buffer;

	constructor(bytes: Buffer) {
		this.bytes = bytes;
	}

	get text(): string {
		return inflateSync(this.bytes).toString('utf8');
	}
}

/** Before each text stands how many bytes it takes. */
const LENGTH = 4;

async function* textsOf(parts: AsyncIterable<Buffer>): AsyncGenerator<Packed> {
	let left: Buffer = Buffer.alloc(0);
	let began = performance.now();
	for await (const part of parts) {
		left = Buffer.concat([left, part]);
		for (let end; left.length >= LENGTH && (end = LENGTH + left.readUInt32BE()) <= left.length;) {
			yield new Deflated(left.subarray(LENGTH, end));
			left = left.subarray(end);
			if (performance.now() - began < TURN_MS) continue;
			await turn();
			began = performance.now();
		}
	}
	if (left.length) throw new Error('it is not whole');
}

const deflated = promisify(deflate);

function lengthOf(bytes: Buffer): Buffer {
	const length = Buffer.alloc(LENGTH);
	length.writeUInt32BE(bytes.length);
	return length;
}

/**
 * Keeps a board as it is folded, for processes that start later, once much was read for it; text by text, so that others
 * have their turn. Where it goes on meanwhile, it is kept another time.
 * @returns the same, made out of what was kept; null where it was not
 */
export async function keepFold(head: FoldHead, folded: Folded): Promise<Folded | null> {
	if (!VERSION || folded.news < WORTH) return null;
	const { seq, columns, fold, news } = folded;
	folded.news = 0;
	try {
		await inTurns(fold.tidy());
		const texts: Deflated[] = [];
		for (const packed of fold.kept()) {
			texts.push(
				packed instanceof Deflated ? packed : new Deflated(await deflated(packed.text, { level: 1 })),
			);
			await turn();
			if (folded.seq !== seq) throw new Error('it went on');
		}
		await rows(
			`insert into fold_snapshot (board_id, seq, version, columns, lines, made_at) values ($1, $2, $3, $4, $5, $6)
			on conflict (board_id) do update
			set seq = excluded.seq, version = excluded.version, columns = excluded.columns, lines = excluded.lines, made_at = excluded.made_at`,
			[
				head.id,
				seq,
				VERSION,
				columns,
				Buffer.concat(texts.flatMap(({ bytes }) => [lengthOf(bytes), bytes])),
				now(),
			],
		);
		const same = await BoardFold.from(boardFile(head), texts, inTurns);
		return same && { seq, columns, fold: same, news: 0 };
	} catch (error) {
		folded.news += news;
		if (folded.seq === seq) log.warn({ error: (error as Error).message }, 'a fold was not kept');
		return null;
	}
}
