import { rows, transaction, type Tx } from './database.ts';
import { Problem } from './problem.ts';
import { checkNewPassword } from './password.ts';
import { resetLetter } from '../../core/mail/letter.ts';
import { postLetter } from './mail/post.ts';
import { mailOn, origin } from './mail/settings.ts';
import { countAsk, hashOf, hashPassword, newSecret, type Person } from './sign-in.ts';
import { now } from './time.ts';
import { isEmail } from 'class-validator';
import { isZone } from '../../core/calendar/zone.ts';
import { setUpAlready } from './first-run.ts';

/** So long a link to set a new password holds. */
export const RESET_HOURS = 24;

/** What somebody says of themselves to get an account. */
export interface NewAccount {
	name: string;
	email: string;
	password: string;
	timeZone: string;
}

/** Ines Okoro is IO, Mei is ME. */
export function initialsOf(name: string): string {
	const words = name.trim().split(/\s+/);
	const letters =
		words.length > 1 ? [...words[0]!][0]! + [...words.at(-1)!][0]! : [...name.trim()].slice(0, 2).join('');
	return letters.toUpperCase() || '?';
}

/**
 * Makes an account.
 * @param alone only while nobody has one: a fresh server is set up once
 * @throws Problem 422 or 409, in words for the form
 */
export async function makeAccount(given: NewAccount, alone = false): Promise<Person> {
	const [name, email] = [given.name.trim(), given.email.trim()];
	if (!name) throw new Problem(422, 'invalid.name', 'Say your name.', 'name');
	if (name.length > 80)
		throw new Problem(422, 'invalid.name', 'The name may have at most 80 characters.', 'name');
	if (!isEmail(email) || email.length > 200)
		throw new Problem(422, 'invalid.email', 'This is not an e-mail address.', 'email');
	await checkNewPassword(given.password, [name, email]);
	const password = await hashPassword(given.password);
	const zone = isZone(given.timeZone) ? given.timeZone : 'Europe/London';
	return transaction(async (tx) => {
		// One after the other: of two who set a fresh server up at once, one does.
		await tx.query('select pg_advisory_xact_lock(4710)');
		await refuse(tx, email, alone);
		const { rows } = await tx.query<{ id: string }>(
			`with codes as (delete from set_up_code)
			insert into person (name, initials, email, password_hash, time_zone, created_at)
			values ($1, $2, $3, $4, $5, $6) returning id`,
			[name, initialsOf(name), email, password, zone, now()],
		);
		return { id: rows[0]!.id, name, initials: initialsOf(name), email, scope: 'write' as const };
	});
}

async function refuse(tx: Tx, email: string, alone: boolean): Promise<void> {
	const { rows } = await tx.query<{ known: boolean; anybody: boolean }>(
		`select exists (select from person where lower(email) = lower($1)) as known, exists (select from person) as anybody`,
		[email],
	);
	if (alone && rows[0]!.anybody) throw setUpAlready();
	if (rows[0]!.known)
		throw new Problem(
			409,
			'address.taken',
			'Somebody has an account with this address already. If it is you, sign in first and open the link again.',
			'email',
		);
}

/**
 * Mails a link to a new password to whom an address belongs; whether it belongs to anybody is told to nobody.
 * @param machine where it is asked from
 * @throws Problem 429 when that is asked too often, 409 where there is no mail server
 */
export async function askReset(email: string, machine: string): Promise<void> {
	if (!mailOn())
		throw new Problem(409, 'mail.off', 'This Harrow has no mail server. Ask a lead of your team for a link.');
	if (!isEmail(email.trim()))
		throw new Problem(422, 'invalid.email', 'This is not an e-mail address.', 'email');
	await countAsk(email, machine);
	const { secret, hash } = newSecret();
	await transaction(async (tx) => {
		const { rows } = await tx.query<{ id: string }>(
			`insert into reset (person_id, secret_hash, made_by, made_at, until)
			select id, $2, id, $3, $4 from person where lower(email) = lower($1) and password_hash is not null
			returning person_id as id`,
			[email.trim(), hash, now(), new Date(now().getTime() + RESET_HOURS * 3_600_000)],
		);
		if (!rows[0]) return;
		const href = `${origin()}/reset/${secret}`;
		const words = resetLetter({ by: null, href, hours: RESET_HOURS });
		await postLetter(tx, { kind: 'reset', person: rows[0].id, team: null, words });
	});
}

/** Whose password a link sets, by their name; null when there is no such link, or it is over. */
export async function resetFor(secret: string): Promise<string | null> {
	const [found] = await rows<{ name: string }>(
		`select p.name from reset r join person p on p.id = r.person_id
		where r.secret_hash = $1 and r.used_at is null and r.until > $2`,
		[hashOf(secret), now()],
	);
	return found?.name ?? null;
}

/**
 * Sets the password that a link is for; the link is used up by it, and every session of theirs ends.
 * @throws Problem 410 when the link is over, 422 when the password is weak
 */
export async function setPassword(secret: string, password: string): Promise<string> {
	return transaction(async (tx) => {
		const { rows: links } = await tx.query<{
			id: string;
			person_id: string;
			name: string;
			email: string;
			over: boolean;
		}>(
			`select r.id, r.person_id, p.name, p.email, r.used_at is not null or r.until <= $2 as over
			from reset r join person p on p.id = r.person_id
			where r.secret_hash = $1
			for update of r`,
			[hashOf(secret), now()],
		);
		const found = links[0];
		if (!found || found.over) throw resetOver();
		await checkNewPassword(password, [found.name, found.email]);
		await tx.query('update person set password_hash = $2 where id = $1', [
			found.person_id,
			await hashPassword(password),
		]);
		await tx.query(
			`with used as (
				update reset set used_at = $2 where person_id = $1 and used_at is null
			)
			delete from session where person_id = $1`,
			[found.person_id, now()],
		);
		await tx.query(`select pg_notify('harrow', 'person ' || $1)`, [found.person_id]);
		return found.person_id;
	});
}

const resetOver = () =>
	new Problem(
		410,
		'reset.over',
		'This link was used already, or is older than a day. Ask a lead of your team for a new one.',
	);
