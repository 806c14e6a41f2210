import { AsyncLocalStorage } from 'node:async_hooks';
import pg from 'pg';
import { log } from './log.ts';
import { Problem } from './problem.ts';
import { refusalOf } from './refusals.ts';
import { hearClock } from './time.ts';

// Whole numbers of events are far below 2^53, and dates are dates: neither needs a type of its own.
pg.types.setTypeParser(pg.types.builtins.INT8, Number);
pg.types.setTypeParser(pg.types.builtins.NUMERIC, Number);
pg.types.setTypeParser(pg.types.builtins.DATE, (text) => text);

export type Tx = pg.PoolClient;

/**
 * No wait on the database is without an end: what takes longer is refused in words, and can be tried again. A statement
 * with a name is planned once a connection: to plan one of ours anew costs more than to run it.
 */
const SETTINGS =
	'-c timezone=UTC -c jit=off -c plan_cache_mode=force_generic_plan -c lock_timeout=8s -c statement_timeout=60s -c idle_in_transaction_session_timeout=30s';
const CONNECT_MS = 8000;

/** A read replica that is not reached or does not answer in so long is not waited for: the database itself is asked. */
const [FOLLOWER_MS, ANSWER_MS] = [1000, 10_000];

/**
 * Commands and reads have connections of their own, so that commands which wait for a board never hold up a page; so has
 * the read replica.
 */
const SIZES = { commands: 4, reads: 5, replica: 4 };
type Use = keyof typeof SIZES;

const pools = new Map<Use, pg.Pool>();
/** The transaction that the work at hand runs in, and what was asked in it last. */
const current = new AsyncLocalStorage<{ tx: Tx; last: Promise<unknown> }>();

/** This process is being stopped: what asks the database now would hold it up. */
let ended = false;

function pool(use: Use): pg.Pool {
	if (ended)
		throw new Problem(503, 'server.stopping', 'Harrow is being stopped here. Try again in a moment.');
	const known = pools.get(use);
	if (known) return known;
	if (!process.env.DATABASE_URL)
		throw new Error('DATABASE_URL is not set: it names the database, postgres://….');
	const follows = use === 'replica';
	const made = new pg.Pool({
		connectionString: follows ? process.env.DATABASE_READ_URL : process.env.DATABASE_URL,
		max: SIZES[use],
		options: SETTINGS,
		connectionTimeoutMillis: follows ? FOLLOWER_MS : CONNECT_MS,
		...(follows && { query_timeout: ANSWER_MS }),
		// Connections stay: to make one again costs more than to keep it.
		idleTimeoutMillis: 0,
		// Each new connection tells what time the database has.
		verify: (client, done) => {
			client
				.query<{ now: Date }>('select clock_timestamp() as now')
				.then(({ rows }) => follows || hearClock(rows[0]!.now))
				.then(() => done(), done);
		},
	});
	// A connection may die at any moment, also while it is made ready and while nothing is asked on it.
	made.on('connect', (client) => client.on('error', lost));
	// The pool says of one at rest the same again.
	made.on('error', () => undefined);
	pools.set(use, made);
	return made;
}

const lost = (error: Error) => log.warn({ error: error.message }, 'a database connection was lost');

/** The connections with which the database that DATABASE_URL names is read. */
export const database = () => pool('reads');

/** Opens the connections with which the database is read: who comes first does not wait for them. It may be away. */
export async function openAhead(): Promise<void> {
	if (!process.env.DATABASE_URL) return;
	const opened = await Promise.allSettled(Array.from({ length: SIZES.reads }, () => database().connect()));
	for (const one of opened) if (one.status === 'fulfilled') one.value.release();
}

/**
 * Asks one question; rows are typed by the caller. Statements with a name are prepared once a connection. Inside a
 * transaction it is asked there, one after the other, so that a command never waits for a second connection.
 * @throws Problem when the database cannot be reached or takes too long
 */
export async function rows<R extends pg.QueryResultRow>(
	text: string,
	values: unknown[] = [],
	name?: string,
): Promise<R[]> {
	const inside = current.getStore();
	if (!inside && following.getStore()) {
		const answer = await askReplica<R>({ text, values, name });
		if (answer) return answer;
	}
	if (!inside) return (await named(database().query<R>({ text, values, name }))).rows;
	const answer = inside.last.then(() => inside.tx.query<R>({ text, values, name }));
	inside.last = answer.catch(() => undefined);
	return (await answer).rows;
}

/** What is asked now may be answered by the read replica. */
const following = new AsyncLocalStorage<true>();
/** Until then the replica is not asked: it did not answer. */
let awayUntil = 0;
const AWAY_MS = 5000;

/** Asks the read replica; null where it does not answer, or cannot now: then the database itself is asked. */
async function askReplica<R extends pg.QueryResultRow>(question: pg.QueryConfig): Promise<R[] | null> {
	if (performance.now() < awayUntil) return null;
	try {
		return (await pool('replica').query<R>(question)).rows;
	} catch (error) {
		awayUntil = performance.now() + AWAY_MS;
		log.warn({ error: (error as Error).message }, 'the read replica did not answer');
		return null;
	}
}

/**
 * Reads of a board’s past that the replica which DATABASE_READ_URL names may answer, if there is one: only where it has all
 * events up to the one that is asked for, so that nobody is shown less than they know of. Otherwise, and whatever it
 * does not answer, the database itself is asked.
 * @param board its id, and the event up to which it is read; `work` must not ask for what is not told by events up to that one
 */
export async function byReplica<T>(board: { id: string; seq: number }, work: () => Promise<T>): Promise<T> {
	if (!process.env.DATABASE_READ_URL || current.getStore()) return work();
	const [found] =
		(await askReplica<{ has: boolean }>({
			text: 'select last_seq >= $2 as has from board where id = $1',
			values: [board.id, board.seq],
			name: 'replica-has',
		})) ?? [];
	return found?.has ? following.run(true, work) : work();
}

/**
 * Runs work in one transaction: all of it happens, or nothing.
 * @throws Problem when the database refuses what was done, cannot be reached, or takes too long
 */
export async function transaction<T>(work: (tx: Tx) => Promise<T>): Promise<T> {
	const tx = await named(pool('commands').connect());
	let broken = false;
	try {
		await tx.query('begin');
		const done = await current.run({ tx, last: Promise.resolve() }, () => work(tx));
		await tx.query('commit');
		return done;
	} catch (error) {
		await tx.query('rollback').catch(() => (broken = true));
		throw refusalOf(error) ?? error;
	} finally {
		tx.release(broken);
	}
}

async function named<T>(work: Promise<T>): Promise<T> {
	try {
		return await work;
	} catch (error) {
		throw refusalOf(error) ?? error;
	}
}

/**
 * Lets go of all connections; used at the end of commands and tests.
 * @param forGood nothing is asked after this
 */
export async function closeDatabase(forGood = false): Promise<void> {
	ended ||= forGood;
	const open = [...pools.values()];
	pools.clear();
	await Promise.all(open.map((each) => each.end()));
}
