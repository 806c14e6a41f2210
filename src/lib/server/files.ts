import { createHash } from 'node:crypto';
import { fileTypeFromBuffer } from 'file-type';
import { rows, transaction } from './database.ts';
import { log } from './log.ts';
import { notFound, Problem } from './problem.ts';
import type { Person } from './sign-in.ts';
import { isId } from './asked.ts';
import { now } from './time.ts';

/** Pictures that browsers show and nothing in which runs. */
const PICTURES = ['image/png', 'image/jpeg', 'image/gif', 'image/webp', 'image/avif'];
export const isPicture = (media: string | null): boolean => media !== null && PICTURES.includes(media);

/** What was sent waits so long for the card that it is meant for. */
const WAITS = '1 day';

export interface Uploaded {
	upload: string;
	/** What it is by its first bytes; null where they say nothing. */
	media: string | null;
	bytes: number;
}

/** Keeps a file that somebody sent, until it is put on a card. What it is its own first bytes say, not its name. */
export async function keepUpload(person: Person, data: Buffer): Promise<Uploaded> {
	const sha256 = createHash('sha256').update(data).digest();
	const media = (await fileTypeFromBuffer(data))?.mime ?? null;
	try {
		const upload = await transaction(async (tx) => {
			await tx.query(
				`insert into blob (sha256, bytes, media, data) values ($1, $2, $3, $4)
				on conflict (sha256) do update set bytes = excluded.bytes`,
				[sha256, data.length, media, data],
			);
			const { rows: made } = await tx.query<{ id: string }>(
				'insert into upload (person_id, sha256, at) values ($1, $2, $3) returning id',
				[person.id, sha256, now()],
			);
			return made[0]!.id;
		});
		await forgetOld().catch((error: Error) => log.warn({ error: error.message }, 'old uploads stay for now'));
		return { upload, media, bytes: data.length };
	} catch (thrown) {
		if (['53100', '53200'].includes((thrown as { code?: string }).code ?? ''))
			throw new Problem(
				507,
				'storage.full',
				'There is no room left where Harrow keeps files. Nothing was kept; tell whoever runs it.',
				'file',
			);
		throw thrown;
	}
}

/** What was sent and never put on a card goes, with what nothing else holds. */
async function forgetOld(): Promise<void> {
	await rows(
		`with old as (
			delete from upload where at < $1::timestamptz - interval '${WAITS}' returning id, sha256
		)
		delete from blob b
		where b.sha256 in (select sha256 from old)
			and not exists (select from attachment a where a.sha256 = b.sha256)
			and not exists (select from upload u where u.sha256 = b.sha256 and u.id not in (select id from old))`,
		[now()],
		'uploads-forget',
	);
}

export interface StoredFile {
	name: string;
	media: string | null;
	sha256: string;
	data: Buffer;
}

/**
 * A file on a card, or on a page, that a person may see.
 * @throws Problem 404 where there is none, it was taken off, or the card is not for them
 */
export async function fileNamed(person: Person, id: string): Promise<StoredFile> {
	if (!isId(id)) throw notFound('file');
	const [found] = await rows<StoredFile>(
		`select a.name, b.media, encode(b.sha256, 'hex') as sha256, b.data
		from attachment a
		left join card c on c.id = a.card_id
		left join page g on g.id = a.page_id
		join board_right r on r.board_id = coalesce(c.board_id, g.board_id) and r.person_id = $1
		join blob b on b.sha256 = a.sha256
		where a.id = $2 and a.removed_at is null and (c.id is null or may_see(c, $1))`,
		[person.id, id],
		'file',
	);
	if (!found) throw notFound('file');
	return found;
}
