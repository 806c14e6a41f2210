import { LRUCache } from 'lru-cache';
import { turn } from './turns.ts';

/** So many boards, and cards on all of them, are remembered at most. */
const [BOARDS, CARDS] = [60, 400_000];

/**
 * What this process remembers of boards: read once, and then followed by what is new. One reading of a board at a time;
 * whoever asks meanwhile waits for it. Any process can read it again: it only saves the reading.
 */
export class Followed<T extends { seq: number }> {
	readonly #kept: LRUCache<string, T>;
	readonly #reading = new Map<string, Promise<T>>();

	/** @param cards how many cards a thing holds: those asked for the longest ago are let go when all hold very many */
	constructor(cards: (thing: T) => number) {
		this.#kept = new LRUCache({
			max: BOARDS,
			maxSize: CARDS,
			sizeCalculation: (thing) => Math.min(CARDS, 1 + cards(thing)),
		});
	}

	/**
	 * What is known of a board, at least up to an event of it.
	 * @param read reads it, or reads on from what is known; gives the same or another thing
	 */
	async get(board: string, seq: number, read: (known: T | undefined) => Promise<T>): Promise<T> {
		const before = this.#reading.get(board);
		const known = this.#kept.get(board);
		if (!before && known && known.seq >= seq) return known;
		const work = (before ?? Promise.resolve(undefined))
			.catch(() => undefined)
			.then(async () => {
				const now = this.#kept.get(board);
				if (now && now.seq >= seq) return now;
				const next = await read(now);
				this.#kept.set(board, next);
				return next;
			});
		this.#reading.set(board, work);
		try {
			const read = await work;
			// Whoever waited for it has much to compute of it now.
			await turn();
			return read;
		} finally {
			if (this.#reading.get(board) === work) this.#reading.delete(board);
		}
	}

	/** Puts another thing that says the same in the place of one, unless that has gone on since. */
	replace(board: string, thing: T, same: T): void {
		if (this.#kept.peek(board) === thing && thing.seq === same.seq) this.#kept.set(board, same);
	}

	/**
	 * Forgets a board: it is read anew.
	 * @param which whether what is known of it by now is meant, as another may have read it meanwhile; all unless given
	 */
	forget(board: string, which: (thing: T) => boolean = () => true): void {
		const known = this.#kept.peek(board);
		if (known && which(known)) this.#kept.delete(board);
	}
}
