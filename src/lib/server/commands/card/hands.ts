import type { Let } from './limits.ts';
import { Problem } from '../../problem.ts';
import type { BoardContext } from '../../door/contexts.ts';

/**
 * What the limit per person says when cards come into people's hands: when one that they own starts, or when one that has
 * started is given to them. Over a limit that holds, a reason is asked for; over one that advises, the person is told.
 * @param coming how many come to each person, by id
 * @param but cards that do not count, as they are the ones that come
 */
export async function checkHands(
	context: BoardContext,
	coming: ReadonlyMap<string, number>,
	but: readonly string[],
	reason: string | undefined,
): Promise<Let> {
	const { personLimit: limit, personMode: mode } = context.board;
	if (limit === null || !coming.size) return { through: null };
	const { rows } = await context.tx.query<{ id: string; name: string; hand: number }>(
		`select p.id, p.name, (select count(*) from card_owner o
			join card c on c.id = o.card_id and c.board_id = $1 and c.clock = 'running' and c.archived_at is null
				and c.id <> all($3::uuid[])
			where o.person_id = p.id) as hand
		from person p
		where p.id = any($2::uuid[])
		order by p.name`,
		[context.board.id, [...coming.keys()], but],
	);
	const over = rows.filter(({ id, hand }) => hand + coming.get(id)! > limit);
	if (!over.length) return { through: null };
	if (reason) return { through: reason };
	const who = over.map(({ name, hand }) => `${name} has ${hand} of ${limit} cards in hand`).join(', ');
	if (mode === 'hold')
		throw new Problem(
			409,
			'limit.held',
			`${who}. Finish one or hand one on first, or let this one through with a reason.`,
			'reason',
			{ people: over.map(({ id }) => id), limit },
		);
	return { through: null, advice: `${who}: this is one over the limit of a person.` };
}
