import { CARD_EVENTS } from '../events/card-events.ts';
import type { CardEventKind, CardThen } from '../events/event.ts';
import type { CardEventName } from '../events/kinds.ts';
import type { CardEvent } from '../pages/card.ts';

export interface Sentence {
	at: string;
	seq: number;
	text: string;
	undone: boolean;
}

const UNIT = { hours: ' h', points: ' points', none: '' };

/**
 * The history of a card in plain sentences.
 * @param events oldest first
 * @param unit of the card's board
 */
export function historySentences(events: readonly CardEvent[], unit: keyof typeof UNIT): Sentence[] {
	let place = '';
	let size: string | null = null;
	return events.flatMap((event) => {
		const say = sentence(event, { place, size, unit: UNIT[unit] });
		if (!event.undone && event.kind === 'column') place = event.value;
		if (!event.undone && event.kind === 'sized') size = event.value;
		return say
			? [{ at: event.at, seq: event.seq, undone: event.undone, text: `${event.who ?? 'Someone'} ${say}` }]
			: [];
	});
}

/** What an event of a card says; nothing of a kind that is not known here. */
function sentence(event: CardEvent, then: CardThen): string | null {
	const kind = Object.hasOwn(CARD_EVENTS, event.kind) ? (event.kind as CardEventName) : null;
	return kind && (CARD_EVENTS[kind] as CardEventKind).says(event, then);
}
