import { IsBoolean } from 'class-validator';
import { boardCommand } from '../../door/command.ts';
import type { BoardContext } from '../../door/contexts.ts';
import { dayField } from '../../door/day-field.ts';
import { DayText, Id, Line, Optional, OrNull, Version } from '../../door/fields.ts';
import { notFound, Problem } from '../../problem.ts';
import { ableToOwn, checkOwners } from '../board/names.ts';
import { makeCards } from '../card/make-cards.ts';
import { retroOf, tellRetro } from './retro-of.ts';

export class AgreeAction {
	@Id('board')
	board!: string;

	@Id('retrospective')
	retrospective!: string;

	@Line('What is agreed', 300)
	words!: string;

	/** Who sees to it. */
	@OrNull()
	@Id('owner')
	owner!: string | null;

	/** By when. */
	@OrNull()
	@DayText('The day')
	due!: string | null;

	/** Whether it becomes a card, on top of the backlog. */
	@IsBoolean({ message: 'It becomes a card or not: true or false.' })
	asCard!: boolean;
}

export const agreeAction = boardCommand({
	name: 'AgreeAction',
	summary: 'Writes what a retrospective has agreed, with who sees to it and by when; it can become a card.',
	undoable: false,
	input: AgreeAction,
	async run(context, input) {
		const { tx, at } = context;
		const retro = await retroOf(context, input.retrospective, ['lay', 'vote', 'agree']);
		const { due } = input;
		if (due !== null) dayField(due, 'due', 'The day');
		if (input.owner) checkOwners(await ableToOwn(context), [input.owner]);
		const [card] = input.asCard
			? await makeCards(
					context,
					[
						{
							title: input.words,
							description: `Agreed in retrospective ${retro.number}.`,
							owners: input.owner ? [input.owner] : [],
							due,
						},
					],
					null,
				)
			: [];
		const { rows } = await tx.query<{ id: string }>(
			`insert into retro_action (retrospective_id, position, words, owner_id, due, card_id, agreed_at)
			select $1, coalesce(max(position), 0) + 1, $2, $3, $4, $5, $6 from retro_action where retrospective_id = $1
			returning id`,
			[retro.id, input.words, input.owner, due, card?.id ?? null, at],
		);
		context.note(null, 'action-agreed', input.words, null, {
			retrospective: retro.number,
			...(due ? { due } : {}),
		});
		await tellRetro(context);
		return { result: { action: rows[0]!.id, ...(card ? { card: card.id, number: card.number } : {}) } };
	},
});

export class ChangeAction {
	@Id('board')
	board!: string;

	@Id('action')
	action!: string;

	@Version()
	version!: number;

	@Optional()
	@Line('What is agreed', 300)
	words?: string;

	@Optional()
	@OrNull()
	@Id('owner')
	owner?: string | null;

	@Optional()
	@OrNull()
	@DayText('The day')
	due?: string | null;

	/** Whether it is done; of one that became a card the card says so. */
	@Optional()
	@IsBoolean({ message: 'It is done or not: true or false.' })
	done?: boolean;

	/** Takes it back: nothing was agreed. */
	@Optional()
	@IsBoolean({ message: 'It is taken back or not: true or false.' })
	withdrawn?: boolean;
}

export const changeAction = boardCommand({
	name: 'ChangeAction',
	summary: 'Changes what was agreed in a retrospective, or says that it is done, or takes it back.',
	undoable: false,
	input: ChangeAction,
	async run(context, input) {
		const { tx, at } = context;
		const action = await actionOf(context, input.action);
		if (action.version !== input.version)
			throw new Problem(409, 'action.changed', 'Somebody has changed this meanwhile: look at it again.');
		if (action.card && input.done !== undefined)
			throw new Problem(409, 'action.card', 'This became a card: it is done when the card is.', 'done');
		if (input.owner) checkOwners(await ableToOwn(context), [input.owner], action.owner ? [action.owner] : []);
		const { due } = input;
		if (due) dayField(due, 'due', 'The day');
		await tx.query(
			`update retro_action set words = coalesce($2, words), owner_id = case when $3 then $4 else owner_id end,
				due = case when $5 then $6::date else due end,
				done_at = case when $7::boolean is null then done_at when $7 then coalesce(done_at, $9) end,
				withdrawn_at = case when $8 then $9 else withdrawn_at end, version = version + 1
			where id = $1`,
			[
				action.id,
				input.words ?? null,
				input.owner !== undefined,
				input.owner ?? null,
				due !== undefined,
				due ?? null,
				input.done ?? null,
				input.withdrawn ?? false,
				at,
			],
		);
		if (input.done) context.note(null, 'action-done', input.words ?? action.words);
		await tellRetro(context);
	},
});

async function actionOf({ tx, board }: BoardContext, id: string) {
	const { rows } = await tx.query<{
		id: string;
		words: string;
		card: string | null;
		owner: string | null;
		version: number;
	}>(
		`select a.id, a.words, a.card_id as card, a.owner_id as owner, a.version
		from retro_action a join retrospective r on r.id = a.retrospective_id
		where a.id = $1 and r.board_id = $2 and a.withdrawn_at is null`,
		[id, board.id],
	);
	if (!rows[0]) throw notFound('action');
	return rows[0];
}
