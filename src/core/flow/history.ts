import type { FiledEvent } from '../events/kinds.ts';
import type { Instant } from '../calendar/zone.ts';

/** One thing that happened to one card. The value is the text of the history file: a column's name, a figure, a reason. */
export interface HistoryEvent {
	card: string;
	at: Instant;
	event: FiledEvent;
	value: string;
}

/**
 * Very many events in time order; those of one instant keep the order in which they were added. They are kept column by
 * column: a million of them as objects would take several times the memory.
 */
export class History implements Iterable<HistoryEvent> {
	readonly #card: string[] = [];
	readonly #at: Instant[] = [];
	readonly #event: FiledEvent[] = [];
	readonly #value: string[] = [];
	/** Each was added after all that happened before it. */
	#ordered = true;

	get length(): number {
		return this.#at.length;
	}

	add({ card, at, event, value }: HistoryEvent): void {
		if (at < this.#at.at(-1)!) this.#ordered = false;
		this.#card.push(card);
		this.#at.push(at);
		this.#event.push(event);
		this.#value.push(value);
	}

	*[Symbol.iterator](): Generator<HistoryEvent> {
		const at = this.#at;
		const places = this.#ordered
			? null
			: Uint32Array.from(at, (_, place) => place).sort((a, b) => at[a]! - at[b]! || a - b);
		for (let i = 0; i < at.length; i++) {
			const place = places ? places[i]! : i;
			const [card, event, value] = [this.#card[place]!, this.#event[place]!, this.#value[place]!];
			yield { card, at: at[place]!, event, value };
		}
	}
}

/** The events in time order; those of one instant keep the order in which they were given. */
export function inOrder<T extends { at: Instant }>(events: readonly T[]): T[] {
	return [...events].sort((a, b) => a.at - b.at);
}

/** What moves a card's clock. */
export const CLOCK_EVENTS = ['column', 'archived', 'restored'] as const satisfies readonly FiledEvent[];
