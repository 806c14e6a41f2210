import { createHash, randomBytes } from 'node:crypto';
import { hash, verify } from '@node-rs/argon2';
import { rows } from './database.ts';
import { Problem } from './problem.ts';
import { now } from './time.ts';

export const SESSION_COOKIE = 'harrow_session';
export const SESSION_DAYS = 30;
const FAILURES_ALLOWED = 10;
const FAILURE_MINUTES = 15;

/** Someone signed in. Scope is narrower than write only for a token that was made so. */
export interface Person {
	id: string;
	name: string;
	initials: string;
	email: string;
	scope: 'read' | 'write';
}

/** Demo mode: everyone may sign in as any demo person with one click. */
export const demoMode = () => process.env.HARROW_DEMO === '1';

const sha256 = (text: string) => createHash('sha256').update(text).digest();

/** A password as it is stored (argon2id). */
export const hashPassword = (password: string) => hash(password);

/** A new secret and the hash under which it is stored. */
export function newSecret(prefix = ''): { secret: string; hash: Buffer } {
	const secret = prefix + randomBytes(32).toString('base64url');
	return { secret, hash: sha256(secret) };
}

let decoy: Promise<string> | undefined;

/**
 * Checks an e-mail address and a password.
 * @returns the person's id
 * @throws Problem 401 when they do not belong together, 429 after too many failures for that address
 */
export async function checkPassword(email: string, password: string): Promise<string> {
	const address = email.trim().toLowerCase().slice(0, 200);
	const since = new Date(now().getTime() - FAILURE_MINUTES * 60_000);
	const [found] = await rows<{ id: string | null; password_hash: string | null; failures: number }>(
		`select p.id, p.password_hash, (select count(*) from sign_in_failure where email = $1 and at > $2) as failures
		from (select 1) as one
		left join person p on lower(p.email) = $1`,
		[address, since],
	);
	if (found!.failures >= FAILURES_ALLOWED)
		throw new Problem(
			429,
			'sign_in.throttled',
			`Too many failed tries for this address. Wait ${FAILURE_MINUTES} minutes and try again.`,
		);
	// An unknown address takes as long as a wrong password.
	decoy ??= hash('nobody has this password');
	const right = await verify(found!.password_hash ?? (await decoy), password);
	if (found!.id && found!.password_hash && right) return found!.id;
	await rows('insert into sign_in_failure (email, at) values ($1, $2)', [address, now()]);
	throw new Problem(
		401,
		'sign_in.wrong',
		'This e-mail address and password do not belong together.',
		'password',
	);
}

/** Opens a session and gives the secret for its cookie. */
export async function openSession(personId: string): Promise<string> {
	const { secret, hash: tokenHash } = newSecret();
	const at = now();
	const until = new Date(at.getTime() + SESSION_DAYS * 86_400_000);
	await rows(
		`with old as (delete from session where expires_at < $3)
		insert into session (token_hash, person_id, created_at, expires_at) values ($1, $2, $3, $4)`,
		[tokenHash, personId, at, until],
	);
	return secret;
}

export async function closeSession(secret: string): Promise<void> {
	await rows('delete from session where token_hash = $1', [sha256(secret)]);
}

/** Who a session cookie belongs to; null when it has ended. */
async function personOfSession(secret: string): Promise<Person | null> {
	const [person] = await rows<Person>(
		`select p.id, p.name, p.initials, p.email, 'write' as scope
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
