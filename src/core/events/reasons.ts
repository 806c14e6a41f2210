/** Why a card was not finished in a sprint, by its code, in the words that are shown. */
export const REASONS = {
	bigger: 'bigger than it looked',
	waiting: 'waiting on others',
	blocked: 'blocked',
	surprises: 'pushed out by surprises',
	'not-started': 'not started',
	scope: 'scope grew',
	away: 'person away',
	other: 'other',
} as const;

export type Reason = keyof typeof REASONS;
