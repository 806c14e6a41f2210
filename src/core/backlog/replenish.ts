/** How urgently a card is treated, the most urgent first. */
type ServiceClass = 'expedite' | 'fixed' | 'standard' | 'background';

const ORDER: Record<ServiceClass, number> = { expedite: 0, fixed: 1, standard: 2, background: 3 };

/** How many cards the first column can still take; all of them without a limit. */
export function replenishment(limit: number | null, standing: number): number {
	return limit === null ? Infinity : Math.max(0, limit - standing);
}

/** The backlog in the order in which it is pulled: by class of service, then as it stands. */
export function pullOrder<C extends { class: ServiceClass; rank: string }>(cards: readonly C[]): C[] {
	return [...cards].sort(
		(a, b) => ORDER[a.class] - ORDER[b.class] || (a.rank < b.rank ? -1 : a.rank > b.rank ? 1 : 0),
	);
}
