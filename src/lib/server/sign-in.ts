import { createHash, randomBytes } from 'node:crypto';
import { hash, verify } from '@node-rs/argon2';
import { RateLimiterPostgres, RateLimiterRes } from 'rate-limiter-flexible';
import { database, rows } from './database.ts';
import { Problem } from './problem.ts';
import { now } from './time.ts';

export const SESSION_COOKIE = 'harrow_session';
export const SESSION_DAYS = 30;
const MINUTES = 15;

/** Someone signed in. Scope is narrower than write only for a token that was made so. */
export interface Person {
	id: string;
	name: string;
	initials: string;
	email: string;
	scope: 'read' | 'write';
	/** The session by which they are signed in; of a token none. */
	session?: string;
}

/** Demo mode: everyone may sign in as any demo person with one click. */
export const demoMode = () => process.env.HARROW_DEMO === '1';

const sha256 = (text: string) => createHash('sha256').update(text).digest();

/** A password as it is stored (argon2id). */
export const hashPassword = (password: string) => hash(password);

/** The hash under which a secret is stored. */
export const hashOf = (secret: string) => sha256(secret);

/** A new secret and the hash under which it is stored. */
export function newSecret(prefix = ''): { secret: string; hash: Buffer } {
	const secret = prefix + randomBytes(32).toString('base64url');
	return { secret, hash: sha256(secret) };
}

let decoy: Promise<string> | undefined;

/** Tries to sign in, counted and written in one step, so that many at once get no further than as many in a row. */
const limiter = (keyPrefix: string, points: number, duration: number) =>
	new RateLimiterPostgres({
		storeClient: { query: (query: { text: string; values: unknown[] }) => database().query(query) },
		storeType: 'client',
		tableName: 'sign_in_failure',
		tableCreated: true,
		clearExpiredByTimeout: false,
		keyPrefix,
		points,
		duration,
	});
/** For one address from one machine; whoever tries from elsewhere does not use these up. */
const fromHere = limiter('here', 10, MINUTES * 60);
/** For one address from wherever: many machines that guess hold its owner up for a minute at most. */
const fromAnywhere = limiter('anywhere', 30, 60);
/** From one machine for whichever address. */
const fromMachine = limiter('machine', 100, MINUTES * 60);

async function countTry(address: string, machine: string): Promise<void> {
	await counted(async () => {
		await fromHere.consume(`${address} ${machine}`);
		await fromAnywhere.consume(address);
		await fromMachine.consume(machine);
	});
}

async function counted(work: () => Promise<unknown>): Promise<void> {
	try {
		await work();
	} catch (refused) {
		throw refused instanceof RateLimiterRes ? throttled(refused) : refused;
	}
}

function throttled({ msBeforeNext }: RateLimiterRes): Problem {
	const minutes = Math.max(1, Math.ceil(msBeforeNext / 60_000));
	return new Problem(
		429,
		'sign_in.throttled',
		`Too many failed tries. Wait ${minutes === 1 ? 'a minute' : `${minutes} minutes`} and try again.`,
		undefined,
		{ retryAfter: minutes * 60 },
	);
}

/** A right password shows that the tries before it were its owner's. */
async function forgetTries(address: string, machine: string): Promise<void> {
	await Promise.all([
		fromHere.delete(`${address} ${machine}`),
		fromAnywhere.reward(address),
		fromMachine.reward(machine),
	]);
	await rows('delete from sign_in_failure where expire < $1', [Date.now()]);
}

/**
 * Checks an e-mail address and a password.
 * @param machine where the try comes from
 * @returns the person's id
 * @throws Problem 401 when they do not belong together, 429 after too many failures
 */
export async function checkPassword(email: string, password: string, machine: string): Promise<string> {
	const address = email.trim().toLowerCase().slice(0, 200);
	await countTry(address, machine);
	const [found] = await rows<{ id: string; password_hash: string | null }>(
		'select id, password_hash from person where lower(email) = $1',
		[address],
	);
	// An unknown address takes as long as a wrong password.
	decoy ??= hash('nobody has this password');
	const right = await verify(found?.password_hash ?? (await decoy), password);
	if (found?.password_hash && right) {
		await forgetTries(address, machine);
		return found.id;
	}
	throw new Problem(
		401,
		'sign_in.wrong',
		'This e-mail address and password do not belong together.',
		'password',
	);
}

/** Whether this is the password that somebody has now. */
export async function isPasswordOf(personId: string, password: string): Promise<boolean> {
	const [found] = await rows<{ password_hash: string | null }>(
		'select password_hash from person where id = $1',
		[personId],
	);
	return found?.password_hash ? verify(found.password_hash, password) : false;
}

/** For links that let somebody in: tries with secrets that are none. */
const links = limiter('links', 30, MINUTES * 60);

/** For letters with a link to a new password: how often they can be asked for. */
const asked = limiter('asked', 5, MINUTES * 60);

/**
 * Counts that somebody asks for a new password for an address.
 * @throws Problem 429 after too many
 */
export async function countAsk(email: string, machine: string): Promise<void> {
	await counted(async () => {
		await asked.consume(email.trim().toLowerCase().slice(0, 200));
		await asked.consume(machine);
	});
}

/**
 * Counts a try with a secret that was none, by the machine it came from.
 * @throws Problem 429 after too many
 */
export async function countGuess(machine: string): Promise<void> {
	await counted(() => links.consume(machine));
}

/**
 * Refuses a machine that has guessed too often.
 * @throws Problem 429
 */
export async function mayGuess(machine: string): Promise<void> {
	const known = await links.get(machine);
	if (known && known.remainingPoints <= 0) throw throttled(known);
}

/**
 * Opens a session and gives the secret for its cookie.
 * @param device what the browser says it is
 */
export async function openSession(personId: string, device = ''): Promise<string> {
	const { secret, hash: tokenHash } = newSecret();
	const at = now();
	const until = new Date(at.getTime() + SESSION_DAYS * 86_400_000);
	await rows(
		`with old as (delete from session where expires_at < $3)
		insert into session (token_hash, person_id, created_at, expires_at, seen_at, device) values ($1, $2, $3, $4, $3, $5)`,
		[tokenHash, personId, at, until, device.slice(0, 300)],
	);
	return secret;
}

export async function closeSession(secret: string): Promise<void> {
	// Streams that are open by it hear of it.
	await rows(
		`with gone as (delete from session where token_hash = $1 returning person_id)
		select pg_notify('harrow', 'person ' || person_id) from gone`,
		[sha256(secret)],
	);
}

/** Who a session cookie belongs to; null when it has ended. */
async function personOfSession(secret: string): Promise<Person | null> {
	const [person] = await rows<Person>(
		`with seen as (
			update session set seen_at = $2 where token_hash = $1 and seen_at < $2::timestamptz - interval '5 minutes'
		)
		select p.id, p.name, p.initials, p.email, 'write' as scope, s.id as session
		from session s
		join person p on p.id = s.person_id
		where s.token_hash = $1 and s.expires_at > $2`,
		[sha256(secret), now()],
		'session',
	);
	return person ?? null;
}

/** Who a bearer token belongs to; null when there is no such token or it was revoked. */
async function personOfToken(secret: string): Promise<Person | null> {
	const [person] = await rows<Person>(
		`select p.id, p.name, p.initials, p.email, t.scope
		from access_token t
		join person p on p.id = t.person_id
		where t.token_hash = $1 and t.revoked_at is null`,
		[sha256(secret)],
		'token',
	);
	return person ?? null;
}

/** Who a request comes from: by its bearer token where it has one, else by its session. */
export async function personOfRequest(
	bearer: string | undefined,
	session: string | undefined,
): Promise<Person | null> {
	if (bearer) return personOfToken(bearer);
	return session ? personOfSession(session) : null;
}

/** The bearer token that a request carries. */
export function bearerOf(request: Request): string | undefined {
	return /^Bearer (\S+)$/.exec(request.headers.get('authorization') ?? '')?.[1];
}
