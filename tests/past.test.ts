import assert from 'node:assert/strict';
import { randomUUID } from 'node:crypto';
import { test } from 'node:test';
import { fsum } from 'd3-array';
import { boardHead } from '../src/lib/server/questions/board-head.ts';
import { accountsOf } from '../src/lib/server/questions/fold.ts';
import { boardPast, turnedOut } from '../src/lib/server/questions/past.ts';
import type { Person } from '../src/lib/server/sign-in.ts';
import { useDatabase } from './support/database.ts';
import { signIn, startServer } from './support/server.ts';

const db = await useDatabase('demo');
/** Another process; what this one remembers it knows nothing of. */
const other = await startServer();
const cookie = await signIn(other.url, 'Ines Okoro');
const { rows: people } = await db.query<Person>(
	`select id, name, initials, email, 'read' as scope from person where name = 'Ines Okoro'`,
);
const head = () => boardHead(people[0]!, 'tidewatch');

/** Logs an hour on a card, by its key, over the other process. */
async function log(key: string, day: string): Promise<void> {
	const { rows } = await db.query(
		`select c.id from card c join board b on b.id = c.board_id and b.slug = 'tidewatch' where c.number = $1`,
		[Number(key.split('-')[1])],
	);
	const answer = await fetch(`${other.url}/api/commands`, {
		method: 'POST',
		headers: { cookie, origin: other.url, 'content-type': 'application/json' },
		body: JSON.stringify({
			id: randomUUID(),
			command: 'LogTime',
			input: { card: rows[0].id, day, hours: 1 },
		}),
	});
	assert.equal(answer.status, 200, await answer.text());
}

test('what closed sprints say is remembered, and never older than what another process did, many at once', async () => {
	const { ledgers, cards } = await accountsOf(await head());
	const known = await turnedOut(await head());
	assert.equal(await turnedOut(await head()), known, 'the same answer, not one like it');
	const closed = (await boardPast(await head())).closed.slice(-6).map(({ number }) => number);
	const done = ledgers
		.filter(({ number }) => closed.includes(number))
		.flatMap(({ stints }) => stints.flatMap(({ card, outcome }) => (outcome === 'done' ? card : [])))
		.filter((card) => cards.get(card)!.first && cards.get(card)!.worked > 0)
		.slice(0, 8);
	assert.equal(done.length, 8);
	const sum = async () => fsum((await turnedOut(await head())).ratios);
	const more = (some: string[]) => fsum(some, (card) => 1 / cards.get(card)!.first!);
	const before = await sum();
	for (const [i, card] of done.slice(0, 3).entries()) {
		await log(card, `2026-11-0${i + 2}`);
		assert.ok(Math.abs((await sum()) - before - more(done.slice(0, i + 1))) < 1e-9, 'at once');
	}
	await Promise.all(done.slice(3).flatMap((card, i) => [log(card, `2026-11-0${i + 2}`), sum(), sum()]));
	assert.ok(Math.abs((await sum()) - before - more(done)) < 1e-9, 'in the end all of it');
});
