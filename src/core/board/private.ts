import type { CardView } from '../pages/board.ts';

/** What a private card is called for whoever may not see it. */
export const PRIVATE_TITLE = 'Private card';

/** Whether somebody may see what a card is about: it is not private, or they own it, review it or watch it. */
export function maySee(card: CardView, person: string): boolean {
	return (
		!card.private ||
		card.owners.includes(person) ||
		card.review?.by === person ||
		(card.watchers?.includes(person) ?? false)
	);
}

/**
 * A card as somebody sees it. Of a private one that is not for them there stays what counts on the board: where it stands,
 * how large it is and who has it; nothing says what it is about.
 */
export function shownTo(card: CardView, person: string): CardView {
	if (maySee(card, person)) return card;
	return {
		...card,
		title: PRIVATE_TITLE,
		type: '',
		labels: [],
		initiative: null,
		fields: {},
		start: null,
		due: null,
		checks: null,
		percent: null,
		review: null,
		waits: [],
		files: 0,
		picture: null,
		blocked: card.blocked && { since: card.blocked.since, reason: 'private' },
		letThrough: null,
		watchers: undefined,
		hidden: true,
	};
}
