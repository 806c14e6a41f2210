import { Problem } from '../../problem.ts';
import type { BoardContext, CardRow } from '../../door/contexts.ts';

/** What a limit says to cards that come: why they are let through, or what the person is told. */
export interface Let {
	through: string | null;
	advice?: string;
}

/** What several limits say at once: one reason lets through all of them. */
export const together = (...all: Let[]): Let => ({
	through: all.find(({ through }) => through)?.through ?? null,
	advice: all.flatMap(({ advice }) => advice ?? []).join(' ') || undefined,
});

/** Keeps with cards that stay in their column why they are let through over another limit. */
export async function letThrough(
	context: BoardContext,
	cards: readonly CardRow[],
	through: string,
): Promise<void> {
	await context.tx.query('update card set let_through = $2 where id = any($1::uuid[])', [
		cards.map(({ id }) => id),
		through,
	]);
}

/** What has a limit: a column, or a lane. */
interface Limited {
	id: string;
	name: string;
	limit: number | null;
	mode: 'advise' | 'hold';
}

/**
 * What a column's limit, or a lane's, says to cards that come into it. Over a limit that holds, a reason is asked for; over one that
 * advises, the person is told. Every way into a column asks here: moving, adding, pulling, starting a sprint, planning into
 * a running one, restoring and taking back.
 * @param standing the cards that stand there without those that come
 */
export function checkLimit(
	{ id, name, limit, mode }: Limited,
	standing: number,
	coming: number,
	reason: string | undefined,
	kind: 'column' | 'lane' = 'column',
): Let {
	if (limit === null || !coming || standing + coming <= limit) return { through: null };
	const full =
		standing >= limit
			? `${name} is full (${standing} of ${limit}).`
			: `${name} has room for ${limit - standing} more (${standing} of ${limit}), and ${coming} would come.`;
	if (reason) return { through: reason };
	if (mode === 'hold')
		throw new Problem(
			409,
			'limit.held',
			`${full} Finish or move a card first, or let this one through with a reason.`,
			'reason',
			{ [kind]: id, limit, standing },
		);
	return { through: null, advice: `${name} is now over its limit (${standing + coming} of ${limit}).` };
}
