import { ArrayUnique, IsBoolean, IsString, MaxLength, ValidateIf, ValidateNested } from 'class-validator';
import { Type } from 'class-transformer';
import { ASK_FIELDS, type AskPage } from '../../../../core/ask/ask-page.ts';
import { boardCommand } from '../../door/command.ts';
import { Id, Lines, OrNull } from '../../door/fields.ts';
import { Problem } from '../../problem.ts';
import { fieldsOf } from '../board/fields.ts';

class AskedFor {
	/** What whoever asks is told first, in Markdown. */
	@MaxLength(3000, { message: 'The words may have at most 3,000 characters.' })
	@IsString({ message: 'The words must be text.' })
	words!: string;

	/** What is asked for beside the title: description, due, type, labels, initiative, and own fields by their ids. */
	@ArrayUnique({ message: 'Name each field once.' })
	@Lines('field', 40, 60)
	fields!: string[];

	/** The column in which it lands; null for the backlog. */
	@OrNull()
	@Id('column')
	column!: string | null;

	/** In the backlog: on top, or at its end. */
	@IsBoolean({ message: 'It lands on top or not: true or false.' })
	top!: boolean;
}

export class ChangeAskPage {
	@Id('board')
	board!: string;

	/** What it asks; null where there is to be no ask page. */
	@ValidateIf((_, value) => value !== null)
	@ValidateNested({ message: 'The page is an object with the fields it needs, or null.' })
	@Type(() => AskedFor)
	page!: AskedFor | null;
}

export const changeAskPage = boardCommand({
	name: 'ChangeAskPage',
	summary: 'Sets up the page on which anyone signed in asks a board for something, or takes it away.',
	role: 'lead',
	input: ChangeAskPage,
	async run(context, input) {
		const { tx, board } = context;
		const [row] = await context.keep('board', { id: board.id });
		const before = (row as { ask_page: AskPage | null }).ask_page;
		const { page } = input;
		if (page) {
			if (page.column) context.column(page.column);
			const known = new Set<string>([...ASK_FIELDS, ...(await fieldsOf(context)).map(({ id }) => id)]);
			if (!page.fields.every((field) => known.has(field)))
				throw new Problem(422, 'field.unknown', 'The board has no such field.', 'fields');
		}
		await tx.query('update board set ask_page = $2 where id = $1', [
			board.id,
			page &&
				JSON.stringify({ words: page.words.trim(), fields: page.fields, column: page.column, top: page.top }),
		]);
		context.note(null, 'ask-page', board.name, { on: before !== null }, { on: page !== null });
	},
});
