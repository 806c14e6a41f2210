/** A card with its place: a column counted from the first, or null for the backlog, and its rank there. */
export interface Placed {
	column: number | null;
	rank: string;
}

/**
 * The order of a sprint's cards, the same wherever they are listed: furthest along the board first, then as they stand in
 * their column, then the backlog's order.
 */
export function sprintOrder(a: Placed, b: Placed): number {
	return (b.column ?? -1) - (a.column ?? -1) || (a.rank < b.rank ? -1 : a.rank > b.rank ? 1 : 0);
}
