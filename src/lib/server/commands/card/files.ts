import { Problem } from '../../problem.ts';
import { isPicture } from '../../files.ts';
import { boardCommand } from '../../door/command.ts';
import type { BoardContext, CardRow } from '../../door/contexts.ts';
import { Entries, Id, OrNull, Version } from '../../door/fields.ts';
import { SentFile, sentFiles } from '../talk/sent-files.ts';

export class AttachFiles {
	@Id('card')
	card!: string;

	@Entries('files', SentFile, 30)
	files!: SentFile[];
}

export const attachFiles = boardCommand({
	name: 'AttachFiles',
	summary: 'Puts files on a card that were sent before.',
	input: AttachFiles,
	async run(context, input) {
		const { tx, person, at } = context;
		// What is added changes nothing that somebody else wrote: it needs no version.
		const card = context.unarchived(await context.card(input.card));
		await context.keep('attachment', { card_id: card.id });
		const { rows: there } = await tx.query<{ bytes: number; front: boolean }>(
			`select b.bytes, a.front from attachment a join blob b on b.sha256 = a.sha256
			where a.card_id = $1 and a.removed_at is null`,
			[card.id],
		);
		const files = await sentFiles(context, input.files, there, 'card');
		// The first picture that comes to a card without one is what it shows.
		const front = there.some((file) => file.front) ? -1 : files.findIndex(({ media }) => isPicture(media));
		const ids: string[] = [];
		for (const [i, { name, sha256 }] of files.entries()) {
			const { rows } = await tx.query<{ id: string }>(
				`insert into attachment (card_id, name, sha256, person_id, at, front) values ($1, $2, $3, $4, $5, $6) returning id`,
				[card.id, name, sha256, person.id, at, i === front],
			);
			ids.push(rows[0]!.id);
			context.note(card.id, 'attached', name, null, { file: rows[0]!.id });
		}
		await context.changedNow([card]);
		return { result: { files: ids } };
	},
});

export class RemoveFile {
	@Id('card')
	card!: string;

	@Id('file')
	file!: string;
}

export const removeFile = boardCommand({
	name: 'RemoveFile',
	summary: 'Takes a file off a card.',
	input: RemoveFile,
	async run(context, input) {
		const card = await context.card(input.card);
		const { name } = await fileOn(context, card, input.file);
		await context.tx.query(
			'update attachment set removed_at = $2, front = false, version = version + 1 where id = $1',
			[input.file, context.at],
		);
		await context.changedNow([card]);
		context.note(card.id, 'detached', name, null, { file: input.file });
	},
});

export class PictureCard {
	@Id('card')
	card!: string;

	@Version()
	version!: number;

	/** The picture among its files that it shows; null for none. */
	@OrNull()
	@Id('file')
	file!: string | null;
}

export const pictureCard = boardCommand({
	name: 'PictureCard',
	summary: 'Says which of its pictures a card shows.',
	input: PictureCard,
	async run(context, input) {
		const { tx } = context;
		const card = await context.card(input.card, input.version);
		const file = input.file === null ? null : await fileOn(context, card, input.file);
		if (file && !isPicture(file.media))
			throw new Problem(422, 'file.no_picture', `${file.name} is no picture that can be shown.`, 'file');
		await context.keep('attachment', { card_id: card.id });
		await tx.query(
			'update attachment set front = false, version = version + 1 where card_id = $1 and front',
			[card.id],
		);
		if (input.file)
			await tx.query('update attachment set front = true, version = version + 1 where id = $1', [input.file]);
		await context.changedNow([card]);
		context.note(card.id, 'picture', file?.name ?? '');
	},
});

async function fileOn(
	context: BoardContext,
	card: CardRow,
	id: string,
): Promise<{ name: string; media: string | null }> {
	await context.keep('attachment', { card_id: card.id });
	const { rows } = await context.tx.query<{ name: string; media: string | null }>(
		`select a.name, b.media from attachment a join blob b on b.sha256 = a.sha256
		where a.id = $1 and a.card_id = $2 and a.removed_at is null`,
		[id, card.id],
	);
	if (!rows[0]) throw new Problem(422, 'file.unknown', `Card ${card.number} has no such file.`, 'file');
	return rows[0];
}
