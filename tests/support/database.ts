import { randomBytes } from 'node:crypto';
import { after } from 'node:test';
import pg from 'pg';

export const TEMPLATES = { empty: 'harrow_template_empty', demo: 'harrow_template_demo' };

const serverUrl = process.env.DATABASE_URL!;

/** The address of a database of the test cluster. */
export function templateUrl(name: string): string {
	const url = new URL(serverUrl);
	url.pathname = `/${name}`;
	return url.href;
}

/** A database of its own for a test file, copied from a template and dropped at the end; DATABASE_URL names it from here on. */
export async function useDatabase(kind: keyof typeof TEMPLATES): Promise<pg.Pool> {
	const name = `harrow_${randomBytes(6).toString('hex')}`;
	await asServer((client) => client.query(`create database ${name} template ${TEMPLATES[kind]}`));
	process.env.DATABASE_URL = templateUrl(name);
	const pool = new pg.Pool({ connectionString: process.env.DATABASE_URL, max: 4 });
	pool.on('error', () => undefined);
	after(async () => {
		await pool.end();
		const { closeDatabase } = await import('../../src/lib/server/database.ts');
		await closeDatabase();
		await asServer((client) => client.query(`drop database ${name} with (force)`));
	});
	return pool;
}

async function asServer(work: (client: pg.Client) => Promise<unknown>): Promise<void> {
	const client = new pg.Client({ connectionString: serverUrl });
	await client.connect();
	// Two files may copy one template at once: PostgreSQL wants them one after the other.
	await client.query('select pg_advisory_lock(4711)');
	try {
		await work(client);
	} finally {
		await client.end();
	}
}
