import { fsum } from 'd3-array';
import { fileLimits } from '../../body-limit.ts';
import type { BoardContext } from '../../door/contexts.ts';
import { Id, Line } from '../../door/fields.ts';
import { Problem } from '../../problem.ts';

export class SentFile {
	/** What `/api/uploads` answered for it. */
	@Id('upload')
	upload!: string;

	/** What it is called; of a path only its last part is kept. */
	@Line('The name of the file', 1000)
	name!: string;
}

/** A file that was sent, before it is put anywhere. */
export interface Sent {
	sha256: Buffer;
	name: string;
	bytes: number;
	media: string | null;
}

/**
 * Files that somebody has sent, as they are about to be put on a card or a page.
 * @param there the files that are there already
 * @throws Problem 422 where one was not sent by them, 413 where there would be too much
 */
export async function sentFiles(
	{ tx, person }: BoardContext,
	named: readonly SentFile[],
	there: readonly { bytes: number }[],
	on: 'card' | 'page',
): Promise<Sent[]> {
	const { rows: sent } = await tx.query<Omit<Sent, 'name'> & { id: string }>(
		`select u.id, u.sha256, b.bytes, b.media
		from upload u join blob b on b.sha256 = u.sha256
		where u.id = any($1::uuid[]) and u.person_id = $2`,
		[named.map(({ upload }) => upload), person.id],
	);
	const files = named.map(({ upload, name }) => {
		const found = sent.find(({ id }) => id === upload);
		if (!found)
			throw new Problem(
				422,
				'upload.unknown',
				`${nameOf(name)} was not sent, or too long ago: send it again.`,
				'files',
			);
		return { ...found, name: nameOf(name) };
	});
	const all = fsum([...there, ...files], ({ bytes }) => bytes);
	const most = fileLimits().card;
	if (all > most)
		throw new Problem(
			413,
			`${on}.files_full`,
			`The files of a ${on} may have ${most / 1_000_000} MB together; with these there would be ${Math.ceil(all / 100_000) / 10} MB.`,
			'files',
		);
	return files;
}

/** The last part of a path, without what no name has. */
function nameOf(name: string): string {
	const last = name
		.split(/[\\/]/)
		.at(-1)!
		.replace(/[\u0000-\u001f\u007f\u202a-\u202e\u2066-\u2069]/g, '')
		.trim();
	return (last || 'file').slice(-200);
}
