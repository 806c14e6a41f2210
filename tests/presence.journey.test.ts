import assert from 'node:assert/strict';
import { randomUUID } from 'node:crypto';
import { describe, test } from 'node:test';
import type { Present } from '../src/core/pages/presence.ts';
import { openSession, SESSION_COOKIE, type Person } from '../src/lib/server/sign-in.ts';
import { accessible, visit } from './support/browser.ts';
import { useDatabase } from './support/database.ts';
import { listenTo } from './support/live.ts';
import { scene } from './support/scene.ts';
import { startServer, stopServer } from './support/server.ts';
import { command } from './support/small-board.ts';

const db = await useDatabase('demo');
const [server, other] = await Promise.all([startServer(), startServer()]);

const cookieOf = async (person: Person) => `${SESSION_COOKIE}=${await openSession(person.id)}`;
const listen = (url: string, slug: string, cookie: string, page = randomUUID()) =>
	listenTo(`${url}/api/boards/${slug}/live?page=${page}`, { cookie }, 'here').then((stream) => ({
		page,
		stop: stream.stop,
		until: async (so: (people: Present[]) => boolean) =>
			(
				(await stream.until((told) => so((told as unknown as { people: Present[] }).people))) as unknown as {
					people: Present[];
				}
			).people,
	}));
const look = async (url: string, slug: string, cookie: string, body: object) =>
	(
		await fetch(`${url}/api/boards/${slug}/here`, {
			method: 'POST',
			headers: { cookie, origin: url, 'content-type': 'application/json' },
			body: JSON.stringify(body),
		})
	).status;

describe('who is here', () => {
	test('is told across processes: who came, at which card, in which field, and who left or was cut off', async () => {
		const s = await scene(db);
		const { lead, member, outsider, viewer } = s.board;
		const [own, theirs] = await Promise.all([cookieOf(lead), cookieOf(member)]);
		const mine = await listen(server.url, s.board.slug, own);
		await mine.until((people) => people.length === 1);
		const hers = await listen(other.url, s.board.slug, theirs);
		await mine.until((people) => people.some(({ person }) => person === member.id));
		assert.equal(
			await look(other.url, s.board.slug, theirs, { page: hers.page, card: s.loose, field: 'Description' }),
			200,
		);
		const at = await mine.until((people) => people.some(({ card }) => card !== null));
		assert.deepEqual(
			at.filter(({ person }) => person === member.id),
			[{ person: member.id, card: s.loose, field: 'Description' }],
		);
		// Nobody says it for another, nobody from outside is told or says anything, and what is odd is refused.
		await look(server.url, s.board.slug, own, { page: hers.page, card: s.lined });
		const { rows } = await db.query('select card_id from presence where page = $1', [hers.page]);
		assert.deepEqual(rows, [{ card_id: s.loose }]);
		const out = await cookieOf(outsider);
		assert.equal(await look(server.url, s.board.slug, out, { page: randomUUID() }), 404);
		for (const body of [
			{},
			{ page: 'x' },
			{ page: randomUUID(), card: 'x' },
			{ page: randomUUID(), field: 1 },
		])
			assert.equal(await look(server.url, s.board.slug, own, body), 422);

		// A private card is told to nobody.
		const { rows: cards } = await db.query('select version from card where id = $1', [s.loose]);
		await command(lead, 'PrivateCard', { card: s.loose, version: cards[0].version, private: true });
		await look(server.url, s.board.slug, own, { page: mine.page, card: s.loose, field: 'Title' });
		assert.equal(
			await look(other.url, s.board.slug, theirs, { page: hers.page, card: s.lined, field: null }),
			200,
		);
		const told = await mine.until((people) => people.some(({ card }) => card === s.lined));
		assert.deepEqual(
			told.find(({ person }) => person === lead.id),
			{ person: lead.id, card: null, field: null },
		);
		hers.stop();
		await mine.until((people) => people.every(({ person }) => person !== member.id));

		// A process that is killed says nothing: its pages are let go after a while, when the next one comes.
		const dying = await startServer();
		const cut = await listen(dying.url, s.board.slug, theirs);
		await mine.until((people) => people.some(({ person }) => person === member.id));
		await stopServer(dying.process, 'SIGKILL');
		await db.query(`update presence set seen_at = seen_at - interval '1 minute' where page = $1`, [cut.page]);
		const late = await listen(other.url, s.board.slug, await cookieOf(viewer));
		const left = await mine.until((people) => people.some(({ person }) => person === viewer.id));
		assert.deepEqual(left.map(({ person }) => person).sort(), [lead.id, viewer.id].sort());
		mine.stop();
		late.stop();
	});

	test('two see one another on the board and at a card, and where the other one writes', async () => {
		const [ines, bram] = await Promise.all([
			visit(server.url, 'Ines Okoro', '/boards/tidewatch'),
			visit(other.url, 'Bram Tolver', '/boards/tidewatch?card=TIDE-148'),
		]);
		const bar = ines.page.getByRole('banner');
		await bar.getByTitle('Bram Tolver looks at this board too').waitFor();
		await accessible(ines.page);
		await ines.page.goto(`${server.url}/boards/tidewatch?card=TIDE-148`);
		const panel = ines.page.getByRole('complementary', { name: 'Card TIDE-148' });
		await panel.getByTitle('Bram Tolver looks at this card too').waitFor();
		await bram.page
			.getByRole('complementary', { name: 'Card TIDE-148' })
			.getByLabel('Talk', { exact: true })
			.focus();
		await panel.getByText('Bram Tolver is writing: ').waitFor();
		await accessible(ines.page);
		await bram.page.keyboard.press('Escape');
		await panel.getByText('Bram Tolver is writing: ').waitFor({ state: 'detached' });
		await bram.context.close();
		await bar.getByTitle('Bram Tolver looks at this board too').waitFor({ state: 'detached' });
		ines.quiet();
		await ines.context.close();
	});
});
