import { restore } from '../../../../core/flow/clock.ts';
import { Problem } from '../../problem.ts';
import { boardCommand } from '../../door/command.ts';
import { Id, Line, Optional, Version } from '../../door/fields.ts';
import type { BoardContext, CardRow } from '../../door/contexts.ts';
import { checkLanes } from './lanes.ts';
import { checkLimit, together } from './limits.ts';
import { clockOf, freeRanks, moveTo, rankIn } from './place.ts';

export class RestoreCard {
	@Id('card')
	card!: string;

	@Version()
	version!: number;

	/** Why it is let through over a limit. */
	@Optional()
	@Line('The reason', 300)
	reason?: string;
}

export const restoreCard = boardCommand({
	name: 'RestoreCard',
	summary: 'Brings an archived card back to where it stood, with its sprint while that is not closed.',
	input: RestoreCard,
	async run(context, input) {
		const { tx, board } = context;
		const card = await context.card(input.card, input.version);
		if (!card.archived_at)
			throw new Problem(409, 'card.not_archived', `Card ${card.number} is not archived.`, 'card');
		if (card.moved_to)
			throw new Problem(
				409,
				'card.moved',
				`Card ${card.number} was moved to another board and goes on there. Move it back from there.`,
				'card',
			);
		const { rows } = await tx.query<{
			standing: number;
			sprint: { id: string; number: number; planned: boolean; running: boolean } | null;
		}>(
			`select (select count(*) from card k where k.column_id = $2 and k.archived_at is null) as standing,
				(select json_build_object('id', s.id, 'number', s.number, 'running', s.started_at is not null,
					'planned', not coalesce((e.before ->> 'unplanned')::boolean, false))
				from (select before from event where card_id = $1 and kind = 'archived' order by seq desc limit 1) e
				join sprint s on s.id = (e.before ->> 'sprint')::uuid and s.closed_at is null) as sprint`,
			[card.id, card.column_id],
		);
		const { standing, sprint } = rows[0]!;
		const column = board.columns.find(({ id }) => id === card.column_id) ?? null;
		const { through, advice } = column
			? together(
					checkLimit(column, standing, 1, input.reason),
					await checkLanes(context, [{ before: card, after: { archived_at: null } }], input.reason),
				)
			: { through: null };
		const [rank] = await freeRanks(context, [{ ...card, archived_at: null }]);
		const clock = restore(clockOf(context, card));
		await tx.query(
			`update card
			set archived_at = null, archived_reason = null, clock = $2, rank = $3, let_through = coalesce($4, let_through), version = version + 1
			where id = $1`,
			[card.id, clock.state, rank, through],
		);
		context.note(card.id, 'restored', '', null, through ? { letThrough: through } : null);
		if (!column && card.column_id !== null) await elsewhere(context, card);
		// What was dropped from a sprint comes back into it as any card comes into one; a parent is in none.
		if (!sprint || clock.state === 'done' || card.sprint_id || card.children) return { advice };
		if (sprint.running && sprint.id !== board.runningSprint?.id) return { advice };
		await tx.query('update card set sprint_id = $2, unplanned = $3 where id = $1', [
			card.id,
			sprint.id,
			sprint.running && !sprint.planned,
		]);
		context.note(card.id, 'sprint', String(sprint.number));
		if (sprint.running && sprint.planned) context.note(card.id, 'planned', 'yes');
		return { advice };
	},
});

/** Where it stood was taken away meanwhile: a done card goes to where cards are done, another one to the backlog. */
async function elsewhere(context: BoardContext, card: CardRow): Promise<void> {
	const [row] = await context.cards([{ card: card.id }]);
	const to = row!.clock === 'done' ? context.board.columns.find(({ kind }) => kind === 'done')!.id : null;
	const { rank } = await rankIn(context, to, undefined);
	await moveTo(context, row!, to, rank, null);
}
