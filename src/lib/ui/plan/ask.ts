import type { CardView } from '$core/board/view';

/** What planning asks a person for in a dialog. */
export type PlanAsk =
	{ kind: 'give'; cards: readonly CardView[] } | { kind: 'share' } | { kind: 'odds' } | { kind: 'sprint' };
