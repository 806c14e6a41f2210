import { spawnSync } from 'node:child_process';
import { existsSync, readdirSync, renameSync, rmSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { closeDatabase, rows } from '../lib/server/database.ts';
import { migrate } from '../lib/server/migrate.ts';
import { checkLedgers } from '../lib/server/questions/check.ts';
import { useOwnDatabase } from './database.ts';
import { refuse } from './options.ts';

const NO_DATABASE = 'Set DATABASE_URL, or start this checkout’s own database with npm start.';

interface Counts {
	people: number;
	cards: number;
	events: number;
	entries: number;
}
const COUNTS = `(select count(*)::integer from person) as people, (select count(*)::integer from card) as cards,
	(select count(*)::integer from event) as events, (select count(*)::integer from time_entry) as entries`;
const words = ({ people, cards, events, entries }: Counts) =>
	`${people} people, ${cards} cards, ${events} events, ${entries} time entries`;

/** One of PostgreSQL's programs, the newest that Debian's packages brought; else the one on the path. */
function program(name: string): string {
	const home = '/usr/lib/postgresql';
	const versions = existsSync(home) ? readdirSync(home).sort((a, b) => Number(b) - Number(a)) : [];
	return versions.map((version) => join(home, version, 'bin', name)).find(existsSync) ?? name;
}

/** Runs a program; gives what it said when it failed, and nothing when it did not. */
function run(name: string, args: string[]): string {
	const { status, stderr, error } = spawnSync(program(name), args, {
		encoding: 'utf8',
		stdio: ['ignore', 'ignore', 'pipe'],
	});
	if (error) return `${name} cannot be run (${error.message}). Install PostgreSQL's client programs.`;
	return status === 0 ? '' : stderr.trim().split('\n').slice(-3).join(' ') || `${name} ended with ${status}.`;
}

/** The one file that is named; a sentence where it is not. */
const fileOf = (args: string[]) => (args.length === 1 && !args[0]!.startsWith('-') ? args[0]! : null);

/** `backup FILE`: everything in one file, in pg_dump's own format, read back once to see that it is whole. */
export async function backup(args: string[]): Promise<number> {
	const file = fileOf(args);
	if (!file) return refuse('Name one file to write, such as harrow.backup.');
	if (existsSync(file)) return refuse(`${file} is there already. Name another file, or move it away.`);
	if (!useOwnDatabase()) return refuse(NO_DATABASE);
	try {
		// Kept before the dump begins: what only grows cannot be less in it.
		const [counts] = await rows<Counts>(
			`insert into backup (at, people, cards, events, entries) select clock_timestamp(), * from (select ${COUNTS}) now
			returning people, cards, events, entries`,
		);
		const part = `${file}.part`;
		const failed =
			run('pg_dump', [
				'--format=custom',
				'--no-owner',
				// What can be read again from the events.
				'--exclude-table-data=fold_snapshot',
				'--no-privileges',
				`--file=${part}`,
				process.env.DATABASE_URL!,
			]) || run('pg_restore', ['--file=/dev/null', part]);
		if (failed) {
			rmSync(part, { force: true });
			return refuse(`The backup could not be written: ${failed}`);
		}
		renameSync(part, file);
		process.stdout.write(`${file}: ${words(counts!)}, ${Math.ceil(statSync(file).size / 1024)} kB\n`);
		return 0;
	} finally {
		await closeDatabase();
	}
}

/** `restore FILE`: fills an empty database, brings it up to date, checks it, and says what came back. */
export async function restore(args: string[]): Promise<number> {
	const file = fileOf(args);
	if (!file) return refuse('Name the file of a backup.');
	if (!existsSync(file)) return refuse(`There is no file ${file}.`);
	if (!process.env.DATABASE_URL)
		return refuse(
			'Set DATABASE_URL to an empty database: a restore fills it, and never touches another one.',
		);
	try {
		const [known] = await rows<{ tables: number }>(
			`select count(*)::integer as tables from pg_class where relnamespace = 'public'::regnamespace and relkind = 'r'`,
		);
		if (known!.tables)
			return refuse(`This database is not empty: it has ${known!.tables} tables. Nothing was changed.`);
		const failed = run('pg_restore', [
			'--no-owner',
			'--no-privileges',
			'--exit-on-error',
			'--single-transaction',
			`--dbname=${process.env.DATABASE_URL}`,
			file,
		]);
		if (failed) return refuse(`${file} could not be restored, and nothing was kept of it: ${failed}`);
		const migrations = await migrate(process.env.DATABASE_URL);
		const [now] = await rows<Counts & { less: boolean }>(
			`select ${COUNTS}, exists (select from backup b where b.people > (select count(*) from person)
				or b.cards > (select count(*) from card) or b.events > (select count(*) from event)
				or b.entries > (select count(*) from time_entry)) as less`,
		);
		const { boards, wrong } = await checkLedgers();
		for (const sentence of wrong) process.stderr.write(`${sentence}\n`);
		if (now!.less) process.stderr.write('Less came back than was there when the backup was made.\n');
		process.stdout.write(
			`${boards} boards, ${words(now!)}${migrations.length ? `, ${migrations.length} migrations applied` : ''}: ${
				wrong.length || now!.less ? 'it does not agree' : 'all ledgers add up'
			}\n`,
		);
		return wrong.length || now!.less ? 1 : 0;
	} finally {
		await closeDatabase();
	}
}
