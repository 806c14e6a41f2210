import { closeDatabase, rows } from '../lib/server/database.ts';
import { newSecret } from '../lib/server/sign-in.ts';
import { now } from '../lib/server/time.ts';
import { useOwnDatabase } from './database.ts';
import { refuse } from './options.ts';

/** `reset ADDRESS`: prints a link with which somebody sets a new password, once and within a day. */
export async function reset(args: string[]): Promise<number> {
	const [address] = args;
	if (args.length !== 1 || !address) return refuse('Name the e-mail address of one person.');
	if (!useOwnDatabase())
		return refuse('Set DATABASE_URL, or start this checkout’s own database with npm start.');
	try {
		const { secret, hash } = newSecret();
		const at = now();
		const [made] = await rows<{ name: string }>(
			`with who as (
				select id, name from person where lower(email) = lower($1)
			), made as (
				insert into reset (person_id, secret_hash, made_at, until) select id, $2, $3, $4 from who
			)
			select name from who`,
			[address, hash, at, new Date(at.getTime() + 86_400_000)],
		);
		if (!made) return refuse(`Nobody has an account with the address ${address}.`);
		const origin = process.env.ORIGIN ?? 'http://127.0.0.1:4600';
		process.stdout.write(
			`${made.name} sets a new password at this address, once and within a day:\n${origin}/reset/${secret}\n`,
		);
		return 0;
	} finally {
		await closeDatabase();
	}
}
