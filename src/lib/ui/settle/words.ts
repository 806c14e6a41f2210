import type { CardView, Unit } from '$core/pages/board';
import { REASONS } from '$core/events/reasons';
import type { Entry } from '$core/sprint/settle';
import { amount } from '../words';
import type { Draft } from './settle-state.svelte';

/** What each part of a ledger is called. */
export const ENTRIES: Record<Entry['kind'], string> = {
	committed: 'committed',
	added: 'added',
	grown: 'grew',
	burned: 'burned',
	splitOff: 'split off',
	shrunk: 'shrank',
	removed: 'removed',
	carried: 'carried',
	returned: 'back',
	dropped: 'dropped',
	open: 'open',
};

/** The same as a heading over the cards behind it. */
export const ENTRY_TITLES: Record<Entry['kind'], string> = {
	committed: 'Committed at the start',
	added: 'Added since the start',
	grown: 'Grew while the sprint ran',
	burned: 'Burned',
	splitOff: 'Split off to other cards',
	shrunk: 'Shrank while the sprint ran',
	removed: 'Taken out while the sprint ran',
	carried: 'Carried over',
	returned: 'Back to the backlog',
	dropped: 'Dropped',
	open: 'Still open',
};

/** What was decided of a card, in words; empty while nothing was. */
export function decisionWords(card: CardView, draft: Draft, unit: Unit): string {
	const left = card.size === null ? '' : `, ${amount(card.left, unit)}`;
	switch (draft.decision) {
		case 'carry':
			return `Carried${left}`;
		case 'split':
			return `Split${left} ${draft.to === 'next' ? 'to the next sprint' : 'to the backlog'}`;
		case 'backlog':
			return `Back to the backlog${left}`;
		case 'drop':
			return `Dropped${left}`;
		default:
			return '';
	}
}

/** Why it was not finished, in words. */
export function reasonWords(draft: Draft): string {
	if (!draft.reason) return '';
	return draft.reason === 'other' ? draft.words || 'other' : REASONS[draft.reason];
}
