import { BOARD_EVENTS } from '../events/board-events.ts';
import { CARD_EVENTS } from '../events/card-events.ts';
import type { CardEventKind, Happened } from '../events/event.ts';
import type { BoardEventName, CardEventName } from '../events/kinds.ts';
import { plainWords } from '../notices/sentence.ts';

/** Something that was done, as an overview tells it. */
export interface Done extends Happened {
	kind: string;
	/** It was done to a card, not to a board as a whole. */
	card: boolean;
	/** What a comment says now; empty where it was taken back. */
	said: string | null;
	/** The size before, where it is about that. */
	size: string | null;
	unit: string;
}

/** What was done, in a sentence that goes on after a name: `moved it from Making to Check.`; null for what is not known. */
export function doneSentence(event: Done): string | null {
	if (!event.card) {
		if (!Object.hasOwn(BOARD_EVENTS, event.kind)) return null;
		return BOARD_EVENTS[event.kind as BoardEventName].says(event);
	}
	if (!Object.hasOwn(CARD_EVENTS, event.kind)) return null;
	// What somebody has taken back, or how what they changed read before, is told to nobody.
	const words = event.said ? `“${plainWords(event.said)}”` : null;
	if (event.kind === 'comment') return words ? `said: ${words}` : 'said something that was taken back.';
	if (event.kind === 'comment-changed') return `changed what they had said${words ? `: ${words}` : ''}.`;
	if (event.kind === 'comment-withdrawn') return 'took back what they had said.';
	const place = typeof event.before?.column === 'string' ? event.before.column : '';
	return (CARD_EVENTS[event.kind as CardEventName] as CardEventKind).says(event, {
		...{ place, size: event.size, unit: event.unit },
	});
}
