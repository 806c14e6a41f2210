import { IsString, MaxLength } from 'class-validator';
import { boardCommand } from '../../door/command.ts';
import { Version } from '../../door/fields.ts';
import { Problem } from '../../problem.ts';
import { OfPage, pageOf } from './page-of.ts';

export class WriteNotes extends OfPage {
	/** The version of the page that its writer saw. */
	@Version()
	version!: number;

	/** Markdown. */
	@MaxLength(50_000, { message: 'Notes may have at most 50,000 characters.' })
	@IsString({ message: 'Notes must be text.' })
	text!: string;
}

export const writeNotes = boardCommand({
	name: 'WriteNotes',
	summary: 'Writes the notes of the page of a board or an initiative. What they said before stays readable.',
	input: WriteNotes,
	async run(context, input) {
		const page = await pageOf(context, input);
		if (page.version !== input.version)
			throw new Problem(
				409,
				'page.changed',
				'Somebody else wrote here after you last saw it. Look at both and keep what is right.',
				'version',
			);
		await context.keep('page', { id: page.id });
		await context.tx.query('update page set notes = $2, version = version + 1 where id = $1', [
			page.id,
			input.text,
		]);
		if (page.notes !== input.text)
			context.noteOnPage(page, 'notes-changed', '', { text: input.text }, { text: page.notes });
	},
});
