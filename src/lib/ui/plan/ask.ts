import type { CardView } from '$core/pages/board';

/** What planning asks a person for in a dialog. */
export type PlanAsk =
	{ kind: 'give'; cards: readonly CardView[] } | { kind: 'share' } | { kind: 'odds' } | { kind: 'sprint' };
