import { randomBytes } from 'node:crypto';
import { rows } from './database.ts';
import { Problem } from './problem.ts';
import { countGuess, hashOf, mayGuess } from './sign-in.ts';

/** A server that somebody has set up stays so. */
let claimed = false;

/** Whether there is nobody in the database yet: then Harrow shows the first page and nothing else. */
export async function unclaimed(): Promise<boolean> {
	if (claimed) return false;
	const [found] = await rows<{ people: boolean }>(
		'select exists (select from person) as people',
		[],
		'claimed',
	);
	claimed = found!.people;
	return !claimed;
}

/**
 * Says on the terminal how a fresh server is set up. Whoever has the code may: a stranger who finds the server has not.
 * HARROW_SETUP_CODE sets it; otherwise it is made anew at every start.
 */
export async function printSetUpCode(): Promise<void> {
	if (!(await unclaimed())) return;
	const code = process.env.HARROW_SETUP_CODE || randomBytes(12).toString('base64url');
	await rows('insert into set_up_code (code_hash) values ($1) on conflict do nothing', [hashOf(code)]);
	const origin = process.env.ORIGIN ?? 'its address';
	process.stdout.write(
		`\n  Nobody has set Harrow up yet. Whoever opens this address first does:\n  ${origin}/first?code=${encodeURIComponent(code)}\n\n`,
	);
}

/** What whoever was a moment too late is told. */
export const setUpAlready = (): Problem =>
	new Problem(409, 'first.over', 'Somebody has set this Harrow up already. Ask them for an invitation.');

/**
 * @param machine where it comes from
 * @throws Problem 403 when it is not the code that was printed, 409 when somebody was a moment sooner, 429 after too many tries
 */
export async function checkSetUpCode(code: string, machine: string): Promise<void> {
	await mayGuess(machine);
	const [found] = await rows('select from set_up_code where code_hash = $1', [hashOf(code)]);
	if (found) return;
	if (!(await unclaimed())) throw setUpAlready();
	await countGuess(machine);
	throw new Problem(
		403,
		'code.wrong',
		'This is not the code that the server printed when it was started. It stands in its log.',
		'code',
	);
}
