import pg from 'pg';
import type { CardView } from '../../core/board/view.ts';
import { rows } from './database.ts';
import { log } from './log.ts';
import { CARD_VIEW } from './questions/card-view.ts';

/** What a page open on a board is told: the cards that changed, as they stand now, up to an event's number. */
export interface Change {
	seq: number;
	cards: CardView[];
	/** Something other than cards changed: read the board again. */
	board: boolean;
}

type Listener = (change: Change | 'end') => void;

const listeners = new Map<string, Set<Listener>>();
/** Up to which event each board's listeners have been told. */
const told = new Map<string, number>();
let connection: Promise<void> | undefined;
let stopping = false;

/** Changes of a board after an event: the cards that the later events touched, each once. */
export async function changesAfter(board: string, seq: number): Promise<Change> {
	const [found] = await rows<{ seq: number; board: boolean; cards: CardView[] }>(
		`with news as (
			select card_id, kind from event where board_id = $1 and seq > $2
		)
		select b.last_seq as seq,
			exists (select from news where card_id is null or kind in ('imported')) as board,
			(select coalesce(json_agg(v), '[]') from (
				select ${CARD_VIEW}
				from card c
				left join sprint s on s.id = c.sprint_id
				where c.id in (select card_id from news)
			) v) as cards
		from board b
		where b.id = $1`,
		[board, seq],
		'changes-after',
	);
	return found ?? { seq, cards: [], board: false };
}

/** Listens to a board; the answer stops listening. Each process has one connection that the database notifies. */
export async function listen(board: string, seq: number, listener: Listener): Promise<() => void> {
	connection ??= connect();
	await connection;
	const set = listeners.get(board) ?? new Set();
	listeners.set(board, set.add(listener));
	// Whoever joins reads up to the present by itself.
	told.set(board, told.get(board) ?? seq);
	return () => {
		set.delete(listener);
		if (set.size) return;
		listeners.delete(board);
		told.delete(board);
	};
}

async function connect(): Promise<void> {
	const client = new pg.Client({ connectionString: process.env.DATABASE_URL, options: '-c timezone=UTC' });
	client.on(
		'notification',
		({ payload = '' }) =>
			void spread(payload).catch((error: Error) =>
				log.error({ error: error.message }, 'a change could not be told'),
			),
	);
	client.on('error', () => client.end().catch(() => undefined));
	client.on('end', () => {
		connection = undefined;
		if (!stopping) retry();
	});
	await client.connect();
	await client.query('listen harrow');
	closers.add(() => client.end());
	// What happened while nobody listened is told now.
	for (const [board, seq] of told) void spread(`${board} ${seq + 1}`);
}

const closers = new Set<() => Promise<void>>();

function retry(): void {
	setTimeout(() => {
		if (stopping || connection) return;
		connection = connect();
		connection.catch(() => {
			connection = undefined;
			retry();
		});
	}, 1000).unref();
}

async function spread(payload: string): Promise<void> {
	const [board = '', seq = ''] = payload.split(' ');
	const set = listeners.get(board);
	const from = told.get(board);
	if (!set || from === undefined || Number(seq) <= from) return;
	told.set(board, Number(seq));
	const change = await changesAfter(board, from);
	for (const listener of set) listener(change);
}

/** Ends every stream and the connection, so that the process can stop. */
export async function stopLive(): Promise<void> {
	stopping = true;
	for (const set of listeners.values()) for (const listener of set) listener('end');
	listeners.clear();
	await Promise.all([...closers].map((close) => close().catch(() => undefined)));
}
