import { Problem } from '../../problem.ts';
import type { BoardContext, CardRow } from '../../door/contexts.ts';

/** The unarchived sub-cards of a card, in order, locked. */
export async function childrenOf(context: BoardContext, card: CardRow): Promise<CardRow[]> {
	if (!card.children) return [];
	const { rows } = await context.tx.query<{ id: string }>(
		'select id from card where parent_id = $1 and archived_at is null order by rank, number',
		[card.id],
	);
	return context.cards(rows.map(({ id }) => ({ card: id })));
}

/** Only cards without sub-cards have a size and something left. */
export function withoutChildren(card: CardRow, instead = 'Size those.'): void {
	if (card.children)
		throw new Problem(
			409,
			'card.has_parts',
			`Card ${card.number} has sub-cards: its figures are the sums of theirs. ${instead}`,
			'size',
		);
}

/**
 * Puts a card under another one. The first sub-card takes over the parent's size, what is left of it and its place on a
 * sprint's list. Both cards are touched by the caller, who also writes their versions.
 * @returns what should be heard: that a size of the parent gave way
 */
export async function nest(
	context: BoardContext,
	child: CardRow,
	parent: CardRow | null,
): Promise<string | undefined> {
	const { tx } = context;
	if (parent) {
		if (parent.id === child.id)
			throw new Problem(422, 'parent.itself', `Card ${child.number} cannot be part of itself.`, 'parent');
		if (parent.parent_id)
			throw new Problem(
				409,
				'parent.is_part',
				`Card ${parent.number} is a sub-card itself and can have none.`,
				'parent',
			);
		if (child.children)
			throw new Problem(
				409,
				'parent.has_parts',
				`Card ${child.number} has sub-cards of its own, so it cannot become one.`,
				'parent',
			);
	}
	await tx.query('update card set parent_id = $2 where id = $1', [child.id, parent?.id ?? null]);
	context.note(child.id, 'part-of', parent ? String(parent.number) : '', { parent: child.parent_id });
	if (!parent || parent.children || parent.size === null) {
		if (parent) await leaveList(context, parent, child);
		return undefined;
	}
	// What the parent weighed goes over; the child's own size, where it had one, gives way to it.
	const inherits = child.size === null;
	if (inherits) {
		await tx.query('update card set size = $2, "left" = $3 where id = $1', [
			child.id,
			parent.size,
			parent.left,
		]);
		context.note(child.id, 'sized', String(parent.size), { size: child.size, left: child.left });
		if (parent.left !== parent.size)
			context.note(child.id, 'left', String(parent.left), { left: parent.size });
	}
	await tx.query('update card set size = 0, "left" = 0 where id = $1', [parent.id]);
	context.note(parent.id, 'sized', '0', { size: parent.size, left: parent.left });
	const rest = Math.max(0, parent.left - parent.size);
	if (rest) context.note(parent.id, 'left', '0', { left: rest });
	await leaveList(context, parent, child);
	return inherits || !parent.size
		? undefined
		: gaveWay(`Card ${parent.number}`, parent.size, context.board.unit);
}

/** A parent's size is not dropped without a word. */
export function gaveWay(what: string, size: number, unit: 'hours' | 'points' | 'none'): string {
	const amount = `${size} ${unit === 'points' ? 'pt' : 'h'}`;
	return `${what} was sized at ${amount}; that gave way to the sizes of its sub-cards.`;
}

/** A parent is on no sprint's list: its first sub-card takes its place there. */
async function leaveList(context: BoardContext, parent: CardRow, child: CardRow): Promise<void> {
	if (!parent.sprint_id) return;
	const { rows } = await context.tx.query<{ number: number }>('select number from sprint where id = $1', [
		parent.sprint_id,
	]);
	await context.tx.query('update card set sprint_id = null, unplanned = false where id = $1', [parent.id]);
	context.note(parent.id, 'sprint', '');
	if (child.sprint_id) return;
	await context.tx.query('update card set sprint_id = $2, unplanned = $3 where id = $1', [
		child.id,
		parent.sprint_id,
		parent.unplanned,
	]);
	context.note(child.id, 'sprint', String(rows[0]!.number));
	if (!parent.unplanned) context.note(child.id, 'planned', 'yes');
}
