import assert from 'node:assert/strict';
import { once } from 'node:events';
import { mkdtemp, readdir, readFile, rm } from 'node:fs/promises';
import { createServer, type AddressInfo, type Socket } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { after, describe, test } from 'node:test';
import { simpleParser } from 'mailparser';
import nodemailer from 'nodemailer';
import { SMTPServer } from 'smtp-server';
import { makeDigests } from '../src/lib/server/mail/digest.ts';
import { resumeLetters, sendLetter } from '../src/lib/server/mail/send.ts';
import { lettersPage } from '../src/lib/server/questions/letters.ts';
import type { Person } from '../src/lib/server/sign-in.ts';
import { startMailServer } from '../src/stand-ins/mail-server.ts';
import { useDatabase } from './support/database.ts';
import { scene, type Scene } from './support/scene.ts';
import { startServer, stopServer } from './support/server.ts';
import { at } from './support/sprint.ts';
import { cardRow, command, refusal } from './support/small-board.ts';

const db = await useDatabase('empty');
const folder = await mkdtemp(join(tmpdir(), 'harrow-mail-'));
after(() => rm(folder, { recursive: true, force: true }));
const MAIL = {
	HARROW_MAIL_FROM: 'harrow@harrow.example',
	HARROW_MAIL_REPLY: 'answer@harrow.example',
	HARROW_MAIL_KEY: 'a key of both',
	HARROW_MAIL_GATHER: '0',
};
Object.assign(process.env, MAIL, { ORIGIN: 'https://harrow.example' });
const server = await startServer({ ...MAIL, HARROW_OUTBOX: folder, HARROW_SMTP: 'smtp://127.0.0.1:9' });
const inbox = { host: 'harrow.example', url: `${server.url}/api/mail`, key: MAIL.HARROW_MAIL_KEY };
const mail = await startMailServer({ port: 0, folder, inbox });
after(() => mail.stop());
const SMTP = `smtp://127.0.0.1:${mail.port}`;
process.env.HARROW_SMTP = SMTP;

/** Has somebody told of something by mail. */
const choose = (person: Person, kinds: object, more: object = {}) =>
	command(person, 'ChooseNotices', { kinds, boards: {}, ...more });
const say = (person: Person, card: string, text: string) => command(person, 'CommentCard', { card, text });

const waiting = async (): Promise<string[]> =>
	(
		await db.query(`select id from mail where sent_at is null and dropped_at is null order by made_at, id`)
	).rows.map(({ id }) => id);
/** Sends what waits. */
async function post(): Promise<void> {
	for (const id of await waiting()) await sendLetter(id);
}
/** All that the mail server took, in the order in which it came, for somebody. */
async function letters(to: Person | string) {
	const address = typeof to === 'string' ? to : to.email;
	const files = (await readdir(folder)).filter((name) => name.endsWith('.eml')).sort();
	const read = await Promise.all(
		files.map(async (name) => {
			const raw = await readFile(join(folder, name), 'utf8');
			return { raw, ...(await simpleParser(raw, { skipTextToHtml: true })) };
		}),
	);
	return read.filter(({ to: whom }) => [whom ?? []].flat()[0]?.value[0]?.address === address);
}
const stopOf = (letter: { text?: string }) => /https:\S+\/stop\/(\w+)/.exec(letter.text!)![1]!;
const replyOf = (letter: { replyTo?: { value: { address?: string }[] } }) =>
	letter.replyTo!.value[0]!.address!;

/** Sends a letter to the mail server as a mail program does; gives what it refuses, if it does. */
async function mailed(from: string, to: string, text: string, more: object = {}): Promise<string> {
	const sender = nodemailer.createTransport({ host: '127.0.0.1', port: mail.port });
	try {
		await sender.sendMail({ from, to, subject: 'Re: it', text, ...more });
		return '';
	} catch (error) {
		return (error as Error).message;
	} finally {
		sender.close();
	}
}
const commentsOf = async (
	card: string,
): Promise<{ value: string; actor: string; after: { replyTo?: number } | null }[]> =>
	(
		await db.query(
			`select value, actor_id as actor, after from event where card_id = $1 and kind = 'comment' order by seq`,
			[card],
		)
	).rows;

/** The lead asks the member something, who is told by mail; gives that letter. */
async function asked(s: Scene) {
	await choose(s.board.member, { asked: 'mail', mentioned: 'mail' });
	await say(s.board.lead, s.loose, `@${s.board.member.name} is the crane free?`);
	await post();
	return (await letters(s.board.member)).at(-1)!;
}

describe('a letter at once', () => {
	test('tells what happened in plain words and in HTML, with one link, and how to be sent no more', async () => {
		const s = await scene(db);
		const letter = await asked(s);
		const { rows } = await db.query(`select id, secret from mail where person_id = $1`, [s.board.member.id]);
		assert.equal(rows.length, 1);
		assert.equal(letter.messageId, `<${rows[0].id}@harrow.example>`);
		assert.equal(letter.subject, `${s.board.key}-3 Loose`);
		assert.match(letter.raw, /multipart\/alternative/);
		assert.ok(letter.raw.indexOf('text/plain') < letter.raw.indexOf('text/html'));
		assert.match(letter.text!, /Lead \d+ asks you: “@Member \d+ is the crane free\?”/);
		const links = [...new Set(letter.text!.match(/https:\S+/g))];
		assert.deepEqual(links, [
			`https://harrow.example/cards/${s.board.key}-3`,
			`https://harrow.example/stop/${rows[0].secret}`,
		]);
		assert.deepEqual(
			[...new Set(String(letter.html).match(/href="[^"]+"/g))],
			links.map((link) => `href="${link}"`),
		);
		assert.equal(replyOf(letter), `answer+${rows[0].secret}@harrow.example`);
		assert.match(letter.raw, /List-Unsubscribe-Post: List-Unsubscribe=One-Click/);
		await post();
		assert.equal((await letters(s.board.member)).length, 1, 'and it is sent once');
	});

	test('what happens to one card before it is sent is in one letter; a burst on many cards tells of each once', async () => {
		const s = await scene(db);
		await choose(s.board.viewer, { said: 'mail' });
		await command(s.board.viewer, 'WatchBoard', { board: s.board.id, watch: true });
		for (let n = 0; n < 25; n++)
			for (const card of [s.loose, s.lined]) await say(s.board.lead, card, `Word ${n}.`);
		assert.equal((await waiting()).length, 2);
		await post();
		const got = await letters(s.board.viewer);
		assert.deepEqual(got.map(({ subject }) => subject).sort(), [
			`${s.board.key}-2 Lined up, renamed`,
			`${s.board.key}-3 Loose`,
		]);
		assert.match(got[0]!.text!, /Word 24[\s\S]+Word 23[\s\S]+And 22 things more happened to it/);
	});

	test('what was read, put away, or may not be seen any more by then is not sent', async () => {
		const s = await scene(db);
		const { lead, viewer } = s.board;
		await choose(viewer, { said: 'mail', mentioned: 'mail' });
		const version = async () => (await cardRow(db, s.loose)).version;
		const told = async (between: () => Promise<unknown>) => {
			await say(lead, s.loose, `Look, @${viewer.name}.`);
			assert.equal((await waiting()).length, 1);
			await between();
			await post();
			return (await letters(viewer)).length;
		};
		assert.equal(await told(() => command(viewer, 'MarkNotices', { as: 'read' })), 0);
		assert.equal(await told(() => command(viewer, 'MarkNotices', { as: 'away' })), 0);
		const hidden = async () =>
			command(lead, 'PrivateCard', { card: s.loose, version: await version(), private: true });
		assert.equal(await told(hidden), 0);
		await command(lead, 'PrivateCard', { card: s.loose, version: await version(), private: false });
		assert.equal(
			await told(() => command(lead, 'RemoveMember', { team: s.board.team, person: viewer.id })),
			0,
		);
		const { rows } = await db.query(`select trouble from mail where person_id = $1`, [viewer.id]);
		assert.deepEqual(
			new Set(rows.map(({ trouble }) => trouble)),
			new Set(['Everything it would have said was read, or put away, or is over.']),
		);
	});

	test('a name breaks no line of the head, and a title no mark of the HTML', async () => {
		const s = await scene(db);
		await db.query(`update person set name = $2 where id = $1`, [
			s.board.viewer.id,
			'Eve\r\nBcc: all@small.example\r\n\r\nBody',
		]);
		await command(s.board.lead, 'RenameCard', {
			card: s.loose,
			version: (await cardRow(db, s.loose)).version,
			title: '<img src=x onerror=alert(1)> & "quotes"',
		});
		await choose(s.board.viewer, { watch: 'mail' });
		await command(s.board.lead, 'AskToWatch', { card: s.loose, people: [s.board.viewer.id] });
		await post();
		const [letter] = await letters(s.board.viewer);
		assert.equal(letter!.bcc, undefined);
		assert.doesNotMatch(letter!.raw.split('\r\n\r\n')[0]!, /^Bcc:/im);
		assert.match(letter!.subject!, /<img src=x/);
		assert.doesNotMatch(String(letter!.html), /<img/);
	});

	test('in quiet hours it waits until they are over', async () => {
		const s = await scene(db);
		await choose(s.board.member, { asked: 'mail' }, { quiet: [13, 16] });
		await say(s.board.lead, s.loose, `@${s.board.member.name} is the crane free?`);
		const [id] = await waiting();
		await post();
		assert.equal((await letters(s.board.member)).length, 0);
		const { rows } = await db.query(
			`select round(extract(epoch from j.run_at - clock_timestamp()) / 60)::int as minutes
			from graphile_worker.jobs j where j.key = $1`,
			[`mail-${id}`],
		);
		// It is 14:20 where they are, and they are left in peace until 16:00.
		assert.deepEqual(rows, [{ minutes: 100 }]);
		await at('2026-11-23T16:00:00Z', post);
		assert.equal((await letters(s.board.member)).length, 1);
	});
});

describe('an answer by mail', () => {
	test('is said on the card by whom the letter went to, answers the question, and the same letter says it once', async () => {
		const s = await scene(db);
		const letter = await asked(s);
		const answer = () =>
			mailed(
				s.board.member.email,
				replyOf(letter),
				`From noon on.\n\nOn Monday Harrow wrote:\n${letter.text!.replace(/^/gm, '> ')}`,
				{ messageId: '<one@small.example>' },
			);
		assert.equal(await answer(), '');
		assert.equal(await answer(), '');
		const said = await commentsOf(s.loose);
		assert.deepEqual(
			said.map(({ value, actor }) => [value, actor]),
			[
				[`@${s.board.member.name} is the crane free?`, s.board.lead.id],
				['From noon on.', s.board.member.id],
			],
		);
		assert.ok(said[1]!.after?.replyTo);
		const { rows } = await db.query(
			`select answered_seq is not null as answered from question where card_id = $1`,
			[s.loose],
		);
		assert.deepEqual(rows, [{ answered: true }]);
	});

	test('is refused in words where the sender is another, the address none, or nothing is said; nothing changes then', async () => {
		const s = await scene(db);
		const letter = await asked(s);
		const before = await commentsOf(s.loose);
		const [own, to] = [s.board.member.email, replyOf(letter)];
		assert.match(
			await mailed(s.board.lead.email, to, 'Me too.'),
			/550.*Only whom a letter was sent to can answer it/,
		);
		assert.match(
			await mailed(own, `answer+${'0'.repeat(48)}@harrow.example`, 'Hello'),
			/550.*No letter of Harrow has this address/,
		);
		assert.match(await mailed(own, 'answer@harrow.example', 'Hello'), /550.*No letter of Harrow/);
		assert.match(await mailed(own, to, '> Only what they said\n> and nothing else'), /550.*says nothing/);
		assert.match(await mailed(own, to, 'long '.repeat(2100)), /550.*at most 10,000 characters/);
		assert.match(
			await mailed(own, to, 'A film.', {
				attachments: [{ filename: 'f.bin', content: Buffer.alloc(30_000_000) }],
			}),
			/552/,
		);
		assert.equal(await mailed(own, to, 'I am away.', { headers: { 'Auto-Submitted': 'auto-replied' } }), '');
		assert.deepEqual(await commentsOf(s.loose), before);
		const open = await fetch(inbox.url, {
			method: 'POST',
			body: 'From: x',
			headers: { 'x-harrow-mail-key': 'guessed' },
		});
		assert.deepEqual([open.status, (await open.json()).code], [401, 'mail.key_wrong']);
		const broken = await fetch(inbox.url, {
			method: 'POST',
			body: '\0\0',
			headers: { 'x-harrow-mail-key': inbox.key },
		});
		assert.deepEqual([broken.status, (await broken.json()).code], [422, 'mail.malformed']);
		// Whoever may not see the card any more says nothing on it.
		await command(s.board.lead, 'RemoveMember', { team: s.board.team, person: s.board.member.id });
		assert.match(await mailed(own, to, 'Still here.'), /550/);
		assert.deepEqual(await commentsOf(s.loose), before);
	});
});

describe('the daily digest', () => {
	test('comes once a day from the hour on that was chosen, where its reader is, with what is not read', async () => {
		const s = await scene(db);
		const { lead, member } = s.board;
		await choose(member, { said: 'digest', mentioned: 'digest' }, { digest: 9 });
		await db.query(`update person set time_zone = 'America/New_York' where id = $1`, [member.id]);
		await say(lead, s.loose, `Tomorrow, @${member.name}.`);
		await say(lead, s.lined, `After that, @${member.name}.`);
		assert.deepEqual(await waiting(), []);
		// 14:20 in London is 09:20 there, and 13:50 is before the hour.
		assert.equal(await at('2026-11-23T13:50:00Z', makeDigests), 0);
		const made = await Promise.all(Array.from({ length: 5 }, () => makeDigests()));
		assert.equal(
			made.reduce((sum, n) => sum + n, 0),
			1,
		);
		await db.query(`update notice set read_at = now() where card_id = $1`, [s.lined]);
		await post();
		const [digest, ...more] = await letters(member);
		assert.equal(more.length, 0);
		assert.equal(digest!.subject, `1 thing to know of Small ${s.board.slug.split('-')[1]}`);
		assert.match(digest!.text!, /Loose[\s\S]+names you: “Tomorrow/);
		assert.doesNotMatch(digest!.text!, /renamed/);
		assert.equal(digest!.replyTo, undefined);
		// The next day there is nothing new to say of it; once something happens to it there is.
		await at('2026-11-24T15:00:00Z', async () => {
			await makeDigests();
			assert.deepEqual(await waiting(), []);
		});
		await at('2026-11-25T10:00:00Z', () => say(lead, s.loose, `Still, @${member.name}.`));
		await at('2026-11-25T15:00:00Z', async () => {
			assert.equal(await makeDigests(), 1);
			await post();
		});
		assert.match((await letters(member))[1]!.text!, /names you: “Still/);
	});
});

describe('no more letters', () => {
	test('a link stops those of one kind, asked first or by the button of a mail program, and all else stays', async () => {
		const s = await scene(db);
		const letter = await asked(s);
		const link = `${server.url}/stop/${stopOf(letter)}`;
		const page = await (await fetch(link)).text();
		assert.match(page, /letters at once of “Somebody asks you”/);
		const choices = async () =>
			(await db.query(`select notices from person where id = $1`, [s.board.member.id])).rows[0].notices;
		assert.equal((await choices()).kinds.asked, 'mail', 'to look at it changes nothing');
		const answer = await fetch(link, {
			method: 'POST',
			headers: { 'content-type': 'application/x-www-form-urlencoded' },
			body: 'List-Unsubscribe=One-Click',
		});
		assert.equal(answer.status, 200);
		assert.deepEqual((await choices()).kinds, { asked: 'harrow', mentioned: 'mail' });
		const guessed = await fetch(`${server.url}/stop/${'0'.repeat(48)}`, {
			method: 'POST',
			headers: { 'content-type': 'application/x-www-form-urlencoded', accept: 'text/html' },
			body: '',
		});
		assert.equal(guessed.status, 404);
	});
});

describe('links by mail', () => {
	test('an invitation goes to an address and lets its reader in; its secret is kept nowhere once it is sent', async () => {
		const s = await scene(db);
		const to = 'new.hand@small.example';
		const input = { team: s.board.team, role: 'member', title: '', several: false, email: to };
		await command(s.board.lead, 'Invite', input);
		await post();
		const [letter] = await letters(to);
		assert.match(letter!.subject!, /^Lead \d+ invites you to Team \d+$/);
		const link = /https:\/\/harrow\.example(\/join\/\S+)/.exec(letter!.text!)![1]!;
		assert.match(await (await fetch(server.url + link)).text(), /Team \d+/);
		const { rows } = await db.query(`select words from mail where to_address = $1`, [to]);
		assert.deepEqual(rows, [{ words: null }]);
		const two = await refusal(command(s.board.lead, 'Invite', { ...input, several: true }));
		assert.equal(two.code, 'invalid.several');
		const wrong = await refusal(
			command(s.board.lead, 'Invite', { ...input, email: 'a@b\r\nBcc: c@d.example' }),
		);
		assert.equal(wrong.field, 'email');
	});

	test('whoever has forgotten their password is mailed a link; of an address that nobody has nothing is said', async () => {
		const s = await scene(db);
		await db.query(`update person set password_hash = 'none' where id = $1`, [s.board.member.id]);
		const running = await startServer({ ...MAIL, HARROW_SMTP: SMTP });
		const ask = async (email: string) =>
			(
				await fetch(`${running.url}/forgotten`, {
					method: 'POST',
					headers: {
						origin: running.url,
						'content-type': 'application/x-www-form-urlencoded',
						accept: 'text/html',
					},
					body: new URLSearchParams({ email }),
				})
			).text();
		const said = (page: string) => /Look into your mail/.test(page);
		assert.ok(said(await ask(s.board.member.email.toUpperCase())));
		assert.ok(said(await ask('nobody@small.example')));
		assert.equal((await waiting()).length, 1);
		await post();
		const [letter] = await letters(s.board.member);
		const link = /http:\S+?(\/reset\/\S+)/.exec(letter!.text!)![1]!;
		assert.match(
			await (await fetch(running.url + link)).text(),
			new RegExp(`A new password for ${s.board.member.name}`),
		);
		for (let n = 0; n < 5; n++) await ask(s.board.member.email);
		assert.match(await ask(s.board.member.email), /Too many/);
		assert.ok((await waiting()).length <= 5);
		await db.query(`update mail set dropped_at = now() where sent_at is null`);
	});
});

describe('a mail server that fails', () => {
	/** A mail server that does something odd with whoever comes. */
	async function odd(meet: (socket: Socket) => void): Promise<string> {
		const open = new Set<Socket>();
		const strange = createServer((socket) => {
			open.add(socket);
			socket.on('error', () => undefined);
			meet(socket);
		}).listen(0, '127.0.0.1');
		await once(strange, 'listening');
		after(() => {
			for (const socket of open) socket.destroy();
			strange.close();
		});
		return `smtp://127.0.0.1:${(strange.address() as AddressInfo).port}`;
	}
	const stateOf = async (id: string) =>
		(
			await db.query(
				`select sent_at is not null as sent, refused, trouble, claimed_at is not null as claimed from mail where id = $1`,
				[id],
			)
		).rows[0];

	test('gone, hanging or busy: the letter waits and says why, and commands go on', async () => {
		const s = await scene(db);
		await choose(s.board.member, { asked: 'mail' });
		await say(s.board.lead, s.loose, `@${s.board.member.name} is the crane free?`);
		const [id] = await waiting();
		const servers = {
			gone: 'smtp://127.0.0.1:9',
			hanging: await odd(() => undefined),
			busy: await odd((socket) => socket.end('421 too busy just now\r\n')),
		};
		for (const [name, url] of Object.entries(servers)) {
			process.env.HARROW_SMTP = url;
			await assert.rejects(sendLetter(id!), Error, name);
			const state = await stateOf(id!);
			assert.deepEqual([state.sent, state.refused, state.claimed], [false, false, false], name);
			assert.ok(state.trouble, name);
			await say(s.board.lead, s.loose, 'It goes on.');
		}
		process.env.HARROW_SMTP = SMTP;
		const page = await lettersPage(s.board.lead, s.board.team);
		assert.deepEqual([page.waiting, page.letters[0]!.state, page.letters[0]!.tries], [1, 'waits', 3]);
		assert.match(page.letters[0]!.trouble!, /421/);
		assert.doesNotMatch(JSON.stringify(page.letters), /Loose|crane/);
		await command(s.board.lead, 'RetryLetter', { team: s.board.team, letter: id });
		await post();
		assert.equal((await letters(s.board.member)).length, 1);
		const again = await refusal(command(s.board.lead, 'RetryLetter', { team: s.board.team, letter: id }));
		assert.equal(again.code, 'letter.sent');
		assert.equal((await refusal(lettersPage(s.board.member, s.board.team))).status, 403);
		assert.equal((await refusal(lettersPage(s.board.outsider, s.board.team))).status, 404);
	});

	test('one that refuses an address for good is not asked again, until a lead says so', async () => {
		const s = await scene(db);
		await choose(s.board.member, { asked: 'mail' });
		await say(s.board.lead, s.loose, `@${s.board.member.name} is the crane free?`);
		const [id] = await waiting();
		process.env.HARROW_SMTP = await odd((socket) => {
			socket.write('220 here\r\n');
			socket.on('data', (line) =>
				socket.write(/^(EHLO|HELO|MAIL)/.test(String(line)) ? '250 yes\r\n' : '550 nobody of that name\r\n'),
			);
		});
		await sendLetter(id!);
		process.env.HARROW_SMTP = SMTP;
		const state = await stateOf(id!);
		assert.ok(state.refused);
		assert.match(state.trouble, /nobody of that name/);
		await post();
		assert.equal((await letters(s.board.member)).length, 0);
		await command(s.board.lead, 'RetryLetter', { team: s.board.team, letter: id });
		await post();
		assert.equal((await letters(s.board.member)).length, 1);
	});

	test('a process that is killed in the middle of sending: another one sends the letter, under the same Message-ID', async () => {
		const s = await scene(db);
		await choose(s.board.member, { asked: 'mail' });
		const ids: string[] = [];
		let release: () => void = () => undefined;
		const met = new Promise<void>((resolve) => (release = resolve));
		let meetings = 0;
		// It takes the first letter and never says that it did.
		const slow = new SMTPServer({
			authOptional: true,
			disabledCommands: ['STARTTLS', 'AUTH'],
			onData(stream, _session, done) {
				void simpleParser(stream).then(({ messageId }) => {
					ids.push(messageId!);
					if (meetings++) done();
					else release();
				});
			},
		});
		slow.on('error', () => undefined);
		slow.listen(0, '127.0.0.1');
		await once(slow.server, 'listening');
		after(() => slow.close(() => undefined));
		const url = `smtp://127.0.0.1:${(slow.server.address() as AddressInfo).port}`;
		const settings = { ...MAIL, HARROW_SMTP: url, HARROW_JOBS: '' };
		const first = await startServer(settings);
		await say(s.board.lead, s.loose, `@${s.board.member.name} is the crane free?`);
		const [id] = await waiting();
		await met;
		await stopServer(first.process, 'SIGKILL');
		// So long after it was taken up, nobody is at it any more.
		await db.query(`update mail set claimed_at = claimed_at - interval '3 minutes' where id = $1`, [id]);
		await resumeLetters();
		await startServer(settings);
		for (let tries = 0; !(await stateOf(id!)).sent; tries++) {
			assert.ok(tries < 300, 'it is not sent');
			await new Promise((resolve) => setTimeout(resolve, 50));
		}
		assert.deepEqual(ids, [`<${id}@harrow.example>`, `<${id}@harrow.example>`]);
	});

	test('sent by many at once, each letter goes once', async () => {
		const s = await scene(db);
		await choose(s.board.viewer, { said: 'mail' });
		await command(s.board.viewer, 'WatchBoard', { board: s.board.id, watch: true });
		for (const card of [s.loose, s.lined, s.working]) await say(s.board.lead, card, 'So it is.');
		const ids = await waiting();
		assert.equal(ids.length, 3);
		await Promise.all([...ids, ...ids, ...ids, ...ids].map((id) => sendLetter(id)));
		assert.equal((await letters(s.board.viewer)).length, 3);
	});
});
