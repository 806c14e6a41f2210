import { generateNKeysBetween } from 'fractional-indexing';
import { IsBoolean } from 'class-validator';
import { Problem } from '../../problem.ts';
import { boardCommand } from '../../door/command.ts';
import type { BoardContext, CardRow, SprintRow } from '../../door/contexts.ts';
import { childrenOf } from '../card/family.ts';
import { Id, Line, Optional, OrNull, People, SeenCard, SeenCards, SprintNumber } from '../../door/fields.ts';
import { ableToOwn, checkOwners } from '../board/names.ts';
import { giveTo } from '../card/owners.ts';
import { checkLimit, placeBounds, writePlace, clockIn } from '../card/place.ts';

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
		for (const card of cards) {
			context.unarchived(card);
			if (card.clock === 'done')
				throw new Problem(409, 'card.done', `Card ${card.number} is done already.`, 'cards');
			if (able) await giveTo(context, card, checkOwners(able, input.owners!, card.owners));
			if (card.sprint_id === (sprint?.id ?? null)) {
				await mark(context, card, sprint, input.planned);
				continue;
			}
			const running = sprint?.started_at != null;
			if (running && card.column_id === null) arriving.push(card);
			const unplanned = running && input.planned !== true;
			await context.tx.query('update card set sprint_id = $2, unplanned = $3 where id = $1', [
				card.id,
				sprint?.id ?? null,
				unplanned,
			]);
			context.note(card.id, 'sprint', sprint ? String(sprint.number) : '');
			if (running && !unplanned) context.note(card.id, 'planned', 'yes');
		}
		// What comes into a running sprint is seen on its board: it begins in the first column.
		const first = context.board.columns[0]!;
		const { above, under, standing } = await placeBounds(context, first.id, undefined);
		const { through, advice } = checkLimit(first, standing, arriving.length, input.reason);
		const ranks = generateNKeysBetween(above, under, arriving.length);
		for (const [i, card] of arriving.entries()) {
			await writePlace(context, card, first.id, ranks[i]!, clockIn(context, card, first.id), through);
			context.note(card.id, 'column', first.name, { column: '' }, through ? { letThrough: through } : null);
		}
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

/** Says of a card that is in the running sprint already whether it was planned. */
async function mark(
	context: BoardContext,
	card: CardRow,
	sprint: SprintRow | null,
	planned: boolean | undefined,
): Promise<void> {
	if (!sprint?.started_at || planned === undefined || card.unplanned === !planned) return;
	await context.tx.query('update card set unplanned = $2 where id = $1', [card.id, !planned]);
	context.note(card.id, 'planned', planned ? 'yes' : 'no');
}
