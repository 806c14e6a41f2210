import { randomUUID } from 'node:crypto';
import pg from 'pg';
import { transaction, closeDatabase } from '../src/lib/server/database.ts';
import { obey } from '../src/lib/server/door/door.ts';
import { migrate } from '../src/lib/server/migrate.ts';
import { boardCards } from '../src/lib/server/questions/board-cards.ts';
import { boardHead } from '../src/lib/server/questions/board-head.ts';
import { flowPage } from '../src/lib/server/questions/flow.ts';
import { lookBack } from '../src/lib/server/questions/look-back.ts';
import { reportPage } from '../src/lib/server/questions/report.ts';
import { roundsPage } from '../src/lib/server/questions/rounds.ts';
import type { Person } from '../src/lib/server/sign-in.ts';
import { now } from '../src/lib/server/time.ts';
import { fillDemo } from '../demo/write.ts';
import { largeBoard } from '../tests/support/large-board.ts';

/** Measures what Harrow's own code costs over the bare SQL, in one run on one database of its own. */
const NAME = 'harrow_bench';
const server = new pg.Client({ connectionString: process.env.DATABASE_URL });
await server.connect();
await server.query(`drop database if exists ${NAME} with (force)`);
await server.query(`create database ${NAME}`);
const url = new URL(process.env.DATABASE_URL!);
url.pathname = `/${NAME}`;
process.env.DATABASE_URL = url.href;
await migrate(url.href);
await transaction((tx) => fillDemo(tx, now()));
const db = new pg.Pool({ connectionString: url.href });
// Connections that are being let go of may still hear that their database is dropped.
db.on('error', () => undefined);
await largeBoard(db);

const { rows } = await db.query(`select id, name, initials, email from person where name = 'Ines Okoro'`);
const lead: Person = { ...rows[0], scope: 'write' };

/** Median milliseconds of a piece of work, after it has been warmed. */
async function median(work: () => Promise<unknown>, times = 60): Promise<number> {
	const took: number[] = [];
	for (let i = 0; i < times + 10; i++) {
		const began = performance.now();
		await work();
		if (i >= 10) took.push(performance.now() - began);
	}
	return took.sort((a, b) => a - b)[Math.floor(times / 2)]!;
}

async function compare(
	what: string,
	baseline: () => Promise<unknown>,
	ours: () => Promise<unknown>,
): Promise<void> {
	const [bare, whole] = [await median(baseline), await median(ours)];
	console.log(
		`${what.padEnd(34)} ${whole.toFixed(2).padStart(8)} ms   bare SQL ${bare.toFixed(2).padStart(7)} ms   ratio ${(whole / bare).toFixed(2)}`,
	);
}

const open = (slug: string) => async () => {
	await Promise.all([boardHead(lead, slug), boardCards(lead, slug)]);
};
const bareCards = (slug: string) => () =>
	db.query(
		`select c.*, array(select person_id from card_owner o where o.card_id = c.id) as owners
		from card c join board b on b.id = c.board_id
		where b.slug = $1 and c.column_id is not null and c.archived_at is null and (c.clock <> 'done' or c.finished_at > now() - interval '14 days')`,
		[slug],
	);
await compare('opening the demo board', bareCards('tidewatch'), open('tidewatch'));
await compare('opening a board of 2,000 cards', bareCards('large'), open('large'));

const card = (
	await db.query(
		`select c.id, c.version, c.column_id from card c join board b on b.id = c.board_id where b.slug = 'large' and c.number = 900`,
	)
).rows[0];
let version = card.version as number;
let top = true;
await compare(
	'moving a card',
	async () => {
		const client = await db.connect();
		await client.query('begin');
		await client.query('select id from board where slug = $1 for update', ['large']);
		await client.query('update card set rank = rank where id = $1', [card.id]);
		await client.query('update board set last_seq = last_seq where slug = $1', ['large']);
		await client.query('commit');
		client.release();
	},
	async () => {
		await obey(lead, {
			id: randomUUID(),
			command: 'MoveCard',
			input: { card: card.id, version: version++, column: card.column_id, ...(top ? { below: null } : {}) },
		});
		top = !top;
	},
);

const head = await boardHead(lead, 'tidewatch');
await compare(
	'a flow page of half a year',
	() =>
		db.query('select card_id, kind, at, value from event where board_id = $1 order by at, seq', [head.id]),
	() => flowPage(head, { from: '2026-06-01', to: null, days: null }),
);

await compare(
	'the report of a sprint',
	() =>
		db.query(
			`select e.card_id, e.kind, e.at, e.value from event e join sprint s on s.board_id = e.board_id and s.number = 12
			where e.board_id = $1 and e.at between s.started_at and s.closed_at order by e.at, e.seq`,
			[head.id],
		),
	() => reportPage(head, 12),
);
await compare(
	'looking back over all sprints',
	() =>
		db.query('select card_id, kind, at, value from event where board_id = $1 order by at, seq', [head.id]),
	() => lookBack(head),
);
await compare(
	'the rounds',
	() => db.query('select * from card where board_id = $1 and archived_at is null', [head.id]),
	() => roundsPage(head, lead),
);

await db.end();
await closeDatabase();
await server.query(`drop database ${NAME} with (force)`);
await server.end();
