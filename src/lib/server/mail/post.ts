import type { Tx } from '../database.ts';
import { now } from '../time.ts';
import { randomBytes } from 'node:crypto';
import { MAIL_TRIES, mailOn } from './settings.ts';

/** Until a letter that tells of something at once is sent, what else happens to the same card can join it, for so many seconds. */
export const gatherSeconds = () => {
	const set = Number(process.env.HARROW_MAIL_GATHER ?? NaN);
	return set >= 0 ? set : 30;
};

/** SQL that has a letter `id` of some rows sent by the next process that is free, after so many seconds. */
export const queueLetter = (seconds: string) =>
	`graphile_worker.add_job('send-mail', json_build_object('mail', id), job_key => 'mail-' || id,
		run_at => clock_timestamp() + ${seconds} * interval '1 second', max_attempts => ${MAIL_TRIES})`;

/** SQL of a new secret of a letter. */
export const NEW_SECRET = `replace(gen_random_uuid()::text || gen_random_uuid()::text, '-', '')`;

/** A letter with words of its own. */
export interface Given {
	kind: 'invitation' | 'reset';
	/** To an account, or to an address. */
	person?: string;
	address?: string;
	/** Whose leads may see whether it was sent. */
	team: string | null;
	words: object;
}

/**
 * Has a letter sent once the transaction is through; nothing where no mail server is set.
 * @returns whether it will be sent
 */
export async function postLetter(tx: Tx, given: Given): Promise<boolean> {
	if (!mailOn()) return false;
	await tx.query(
		`with made as (
			insert into mail (kind, person_id, to_address, team_id, words, secret, made_at)
			values ($1, $2, $3, $4, $5, $6, $7) returning id
		)
		select ${queueLetter('0')} from made`,
		[
			given.kind,
			given.person ?? null,
			given.address ?? null,
			given.team,
			JSON.stringify(given.words),
			randomBytes(24).toString('hex'),
			now(),
		],
	);
	return true;
}
