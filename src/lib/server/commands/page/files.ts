import { boardCommand } from '../../door/command.ts';
import { Entries, Id } from '../../door/fields.ts';
import { Problem } from '../../problem.ts';
import { SentFile, sentFiles } from '../talk/sent-files.ts';
import { OfPage, pageOf } from './page-of.ts';

export class AttachToPage extends OfPage {
	@Entries('files', SentFile, 30)
	files!: SentFile[];
}

export const attachToPage = boardCommand({
	name: 'AttachToPage',
	summary: 'Puts files on the page of a board or an initiative that were sent before.',
	input: AttachToPage,
	async run(context, input) {
		const page = await pageOf(context, input);
		await context.keep('attachment', { page_id: page.id });
		const { rows: there } = await context.tx.query<{ bytes: number }>(
			`select b.bytes from attachment a join blob b on b.sha256 = a.sha256
			where a.page_id = $1 and a.removed_at is null`,
			[page.id],
		);
		const files = await sentFiles(context, input.files, there, 'page');
		const { rows } = await context.tx.query<{ id: string; name: string }>(
			`insert into attachment (page_id, name, sha256, person_id, at)
			select $1, f.name, decode(f.sha256, 'hex'), $3, $4
			from jsonb_to_recordset($2) f(name text, sha256 text)
			returning id, name`,
			[
				page.id,
				JSON.stringify(files.map(({ name, sha256 }) => ({ name, sha256: sha256.toString('hex') }))),
				context.person.id,
				context.at,
			],
		);
		for (const { id, name } of rows) context.noteOnPage(page, 'attached', name, { file: id });
		return { result: { files: rows.map(({ id }) => id) } };
	},
});

export class RemovePageFile extends OfPage {
	@Id('file')
	file!: string;
}

export const removePageFile = boardCommand({
	name: 'RemovePageFile',
	summary: 'Takes a file off the page of a board or an initiative.',
	input: RemovePageFile,
	async run(context, input) {
		const page = await pageOf(context, input);
		await context.keep('attachment', { page_id: page.id });
		const { rows } = await context.tx.query<{ name: string }>(
			`update attachment set removed_at = $3, version = version + 1
			where id = $2 and page_id = $1 and removed_at is null
			returning name`,
			[page.id, input.file, context.at],
		);
		if (!rows[0]) throw new Problem(422, 'file.unknown', 'There is no such file on this page.', 'file');
		context.noteOnPage(page, 'detached', rows[0].name, { file: input.file });
	},
});
