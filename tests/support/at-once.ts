import { spawn } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { createInterface } from 'node:readline';
import { after } from 'node:test';
import { setImmediate } from 'node:timers/promises';
import type pg from 'pg';
import { obey } from '../../src/lib/server/door/door.ts';
import { Problem } from '../../src/lib/server/problem.ts';
import type { Person } from '../../src/lib/server/sign-in.ts';

/** A command, with who sends it. */
export type Sent = [person: Person, name: string, input: object];

export interface Outcome {
	result?: Record<string, unknown>;
	refused?: { status: number; code: string; sentence: string };
	/** Not a refusal in words: a fault. */
	failed?: string;
}

/** Starts another process of the application against the same database; gives a way to send it commands. */
export async function otherProcess(): Promise<(sent: Sent) => Promise<Outcome>> {
	const child = spawn(process.execPath, [`${process.env.HARROW_BUILD}/other-process.js`], {
		stdio: ['pipe', 'pipe', 'inherit'],
	});
	after(() => child.kill('SIGKILL'));
	const lines = createInterface({ input: child.stdout })[Symbol.asyncIterator]();
	await lines.next();
	return async ([person, command, input]) => {
		child.stdin.write(`${JSON.stringify({ person, body: { id: randomUUID(), command, input } })}\n`);
		return JSON.parse((await lines.next()).value);
	};
}

/** Sends a command through this process. */
export async function here([person, command, input]: Sent): Promise<Outcome> {
	try {
		const { result } = await obey(person, { id: randomUUID(), command, input });
		return { result };
	} catch (error) {
		if (error instanceof Problem)
			return { refused: { status: error.status, code: error.code, sentence: error.message } };
		return { failed: (error as Error).stack };
	}
}

/**
 * Holds the lock of boards while commands queue behind it, each sent once the one before it waits; then lets go, and gives
 * their outcomes in the order in which they were sent.
 */
export async function queued(
	db: pg.Pool,
	boards: string[],
	sending: readonly (() => Promise<Outcome>)[],
): Promise<Outcome[]> {
	const holder = await db.connect();
	try {
		await holder.query('begin');
		await holder.query('select from board where id = any($1) order by id for update', [boards]);
		const outcomes: Promise<Outcome>[] = [];
		for (const [i, send] of sending.entries()) {
			let over = false;
			outcomes.push(send().finally(() => (over = true)));
			// What is refused before it asks for the lock does not wait.
			while (!over && (await waiting(db)) < i + 1 - (await ended(outcomes))) await setImmediate();
		}
		await holder.query('commit');
		return await Promise.all(outcomes);
	} finally {
		holder.release();
	}
}

/** How many have been answered already. */
async function ended(outcomes: readonly Promise<Outcome>[]): Promise<number> {
	const open = Symbol('open');
	const states = await Promise.all(outcomes.map((outcome) => Promise.race([outcome, open])));
	return states.filter((state) => state !== open).length;
}

async function waiting(db: pg.Pool): Promise<number> {
	const { rows } = await db.query<{ n: number }>(
		`select count(*) as n from pg_stat_activity where datname = current_database() and wait_event_type = 'Lock'`,
	);
	return Number(rows[0]!.n);
}
