import { IsObject, IsString, MaxLength } from 'class-validator';
import type { AskPage } from '../../../../core/ask/ask-page.ts';
import { boardCommand } from '../../door/command.ts';
import { dayField } from '../../door/day-field.ts';
import { DayText, Id, Line, Lines, Optional } from '../../door/fields.ts';
import { notFound, Problem } from '../../problem.ts';
import { makeCards } from '../card/make-cards.ts';
import { moveCard, MoveCard } from '../card/move-card.ts';

export class AskForCard {
	@Id('board')
	board!: string;

	@Line('What you ask for', 300)
	title!: string;

	@Optional()
	@MaxLength(20_000, { message: 'The description may have at most 20,000 characters.' })
	@IsString({ message: 'The description must be text.' })
	description?: string;

	@Optional()
	@DayText('The day')
	due?: string;

	@Optional()
	@MaxLength(60, { message: 'The kind may have at most 60 characters.' })
	@IsString({ message: 'The kind must be text.' })
	type?: string;

	@Optional()
	@Lines('label', 20, 60)
	labels?: string[];

	@Optional()
	@Line('The initiative', 100)
	initiative?: string;

	/** Values of the board’s own fields, by their ids. */
	@Optional()
	@IsObject({ message: 'The fields are an object of ids and values.' })
	fields?: Record<string, unknown>;
}

export const askForCard = boardCommand({
	name: 'AskForCard',
	summary:
		'Asks a board for something on its ask page: a card is made where its lead wants it, and whoever asked watches it.',
	role: 'anyone',
	undoable: false,
	input: AskForCard,
	async run(context, input) {
		const { tx, board, person } = context;
		const { rows } = await tx.query<{ page: AskPage | null; names: string[] }>(
			`select b.ask_page as page,
				array(select 'label ' || lower(name) from label where board_id = $1 and retired_at is null
					union all select 'initiative ' || lower(i.name) from board b join board o on o.team_id = b.team_id
						join initiative i on i.board_id = o.id and i.retired_at is null and (o.id = b.id or i.wide) where b.id = $1) as names
			from board b where b.id = $1`,
			[board.id],
		);
		const { page, names } = rows[0]!;
		if (!page) throw notFound('board');
		const asks = (field: string) => page.fields.includes(field);
		for (const field of ['description', 'due', 'type', 'labels', 'initiative'] as const)
			if (input[field]?.length && !asks(field))
				throw new Problem(422, 'ask.not_asked', 'This board does not ask for that.', field);
		for (const id of Object.keys(input.fields ?? {}))
			if (!asks(id)) throw new Problem(422, 'ask.not_asked', 'This board does not ask for that.', 'fields');
		// Whoever asks chooses from what there is, and names nothing new.
		for (const label of input.labels ?? [])
			if (!names.includes(`label ${label.toLowerCase()}`))
				throw new Problem(422, 'label.unknown', `There is no label “${label}” here.`, 'labels');
		if (input.initiative && !names.includes(`initiative ${input.initiative.toLowerCase()}`))
			throw new Problem(
				422,
				'initiative.unknown',
				`There is no initiative “${input.initiative}” here.`,
				'initiative',
			);
		if (input.due) dayField(input.due, 'due', 'The day');
		const [made] = await makeCards(
			context,
			[
				{
					title: input.title,
					description: input.description?.trim() ?? '',
					due: input.due ?? null,
					labels: input.labels ?? [],
					...(input.type ? { type: input.type } : {}),
					...(input.initiative ? { initiative: input.initiative } : {}),
					...(input.fields ? { fields: input.fields } : {}),
				},
			],
			page.top ? null : undefined,
		);
		const card = made!;
		await tx.query('update card set asker_id = $2 where id = $1', [card.id, person.id]);
		const column = board.columns.find(({ id }) => id === page.column);
		if (column)
			await moveCard.run(
				context,
				Object.assign(new MoveCard(), {
					...{ card: card.id, version: 1, column: column.id },
					// What is asked for is let in over any limit, and it shows why.
					reason: `Asked for by ${person.name}`,
				}),
				undefined,
			);
		return { result: { key: `${board.key}-${card.number}` } };
	},
});

export class SayOnAsked {
	@Id('card')
	card!: string;

	@Line('What you say', 10_000)
	text!: string;
}

export const sayOnAsked = boardCommand({
	name: 'SayOnAsked',
	summary: 'Says something on a card that oneself has asked for, without seeing its board.',
	role: 'anyone',
	undoable: false,
	input: SayOnAsked,
	async run(context, input) {
		const card = await context.card(input.card, undefined, true);
		if (card.asker_id !== context.person.id) throw notFound('card');
		await context.changedNow([card]);
		context.note(card.id, 'comment', input.text);
	},
});
