import { IsBoolean } from 'class-validator';
import { Problem } from '../../problem.ts';
import { boardCommand } from '../../door/command.ts';
import type { BoardContext, CardRow, SprintRow } from '../../door/contexts.ts';
import { childrenOf } from '../card/family.ts';
import { Id, Line, Optional, OrNull, People, SeenCard, SeenCards, SprintNumber } from '../../door/fields.ts';
import { ableToOwn, checkOwners } from '../board/names.ts';
import { giveOut } from '../card/owners.ts';
import { bringIn } from '../card/place.ts';

export class PlanCards {
	@Id('board')
	board!: string;

	@SeenCards()
	cards!: SeenCard[];

	/** The sprint whose list they are put on, by its number; null takes them off. */
	@OrNull()
	@SprintNumber()
	sprint!: number | null;

	/** Who owns them from now on; left out to keep their owners. */
	@Optional()
	@People('owner')
	owners?: string[];

	/** Whether a card added to a running sprint was planned; it is not, unless said so. */
	@Optional()
	@IsBoolean({ message: 'A card is planned or not: true or false.' })
	planned?: boolean;

	/** Why what comes onto the board is let through over the limit of its first column. */
	@Optional()
	@Line('The reason', 300)
	reason?: string;
}

export const planCards = boardCommand({
	name: 'PlanCards',
	summary: 'Puts cards on a sprint’s list, with an owner, or takes them off it.',
	input: PlanCards,
	async run(context, input) {
		const picked = await context.cards(input.cards);
		const sprint = input.sprint === null ? null : await planned(context, input.sprint);
		// Only cards without sub-cards are planned: a parent stands for its unfinished parts.
		const cards: CardRow[] = [];
		for (const card of picked) {
			const parts = card.children ? await childrenOf(context, context.unarchived(card)) : [card];
			for (const part of parts)
				if (!cards.some((known) => known.id === part.id) && (part === card || part.clock !== 'done'))
					cards.push(part);
		}
		const able = input.owners && (await ableToOwn(context));
		const arriving: CardRow[] = [];
		const listed: { id: string; unplanned: boolean }[] = [];
		for (const card of cards) {
			context.unarchived(card);
			if (card.clock === 'done')
				throw new Problem(409, 'card.done', `Card ${card.number} is done already.`, 'cards');
		}
		if (able)
			await giveOut(
				context,
				cards.map((card) => ({ card, owners: checkOwners(able, input.owners!, card.owners) })),
			);
		const marked: string[] = [];
		for (const card of cards) {
			if (card.sprint_id === (sprint?.id ?? null)) {
				if (!sprint?.started_at || input.planned === undefined || card.unplanned === !input.planned) continue;
				// It is in the running sprint already: only whether it was planned is said.
				marked.push(card.id);
				context.note(card.id, 'planned', input.planned ? 'yes' : 'no');
				continue;
			}
			const running = sprint?.started_at != null;
			if (running && card.column_id === null) arriving.push(card);
			const unplanned = running && input.planned !== true;
			listed.push({ id: card.id, unplanned });
			context.note(card.id, 'sprint', sprint ? String(sprint.number) : '');
			if (running && !unplanned) context.note(card.id, 'planned', 'yes');
		}
		await context.tx.query(
			`update card c set sprint_id = $2, unplanned = n.unplanned
			from jsonb_to_recordset($1) n(id uuid, unplanned boolean)
			where c.id = n.id`,
			[JSON.stringify(listed), sprint?.id ?? null],
		);
		if (marked.length)
			await context.tx.query('update card set unplanned = $2 where id = any($1::uuid[])', [
				marked,
				!input.planned,
			]);
		// What comes into a running sprint is seen on its board: it begins in the first column.
		const { advice } = await bringIn(context, arriving, input.reason);
		const placed = new Set(arriving);
		// A parent that only stood for its parts is changed too: it was named.
		await context.changedNow([...new Set([...picked, ...cards])].filter((card) => !placed.has(card)));
		return { advice };
	},
});

/** A sprint that can still take cards. */
async function planned(context: BoardContext, number: number): Promise<SprintRow> {
	const sprint = (await context.sprintRows()).find((known) => known.number === number);
	if (!sprint) throw new Problem(422, 'sprint.unknown', `This board has no sprint ${number}.`, 'sprint');
	if (sprint.closed_at)
		throw new Problem(
			409,
			'sprint.closed',
			`Sprint ${number} is closed: nothing can be put into it any more.`,
			'sprint',
		);
	return sprint;
}
