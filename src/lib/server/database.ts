import { AsyncLocalStorage } from 'node:async_hooks';
import pg from 'pg';
import { log } from './log.ts';

// Whole numbers of events are far below 2^53, and dates are dates: neither needs a type of its own.
pg.types.setTypeParser(pg.types.builtins.INT8, Number);
pg.types.setTypeParser(pg.types.builtins.NUMERIC, Number);
pg.types.setTypeParser(pg.types.builtins.DATE, (text) => text);

export type Tx = pg.PoolClient;

let pool: pg.Pool | undefined;
/** The transaction that the work at hand runs in. */
const current = new AsyncLocalStorage<Tx>();

/** The connections to the database that DATABASE_URL names. */
export function database(): pg.Pool {
	if (pool) return pool;
	if (!process.env.DATABASE_URL)
		throw new Error('DATABASE_URL is not set: it names the database, postgres://….');
	pool = new pg.Pool({ connectionString: process.env.DATABASE_URL, max: 10, options: '-c timezone=UTC' });
	pool.on('error', (error) => log.warn({ error: error.message }, 'a database connection was lost'));
	return pool;
}

/**
 * Asks one question; rows are typed by the caller. Statements with a name are prepared once a connection. Inside a
 * transaction it is asked there, so that a command never waits for a second connection.
 */
export async function rows<R extends pg.QueryResultRow>(
	text: string,
	values: unknown[] = [],
	name?: string,
): Promise<R[]> {
	return (await (current.getStore() ?? database()).query<R>({ text, values, name })).rows;
}

/** Runs work in one transaction: all of it happens, or nothing. */
export async function transaction<T>(work: (tx: Tx) => Promise<T>): Promise<T> {
	const tx = await database().connect();
	try {
		await tx.query('begin');
		const done = await current.run(tx, () => work(tx));
		await tx.query('commit');
		return done;
	} catch (error) {
		await tx.query('rollback').catch(() => undefined);
		throw error;
	} finally {
		tx.release();
	}
}

/** Lets go of all connections; used at the end of commands and tests. */
export async function closeDatabase(): Promise<void> {
	await pool?.end();
	pool = undefined;
}
