import { atOnce } from './steps.ts';

/** A text that is kept packed, and is unpacked whenever it is read. */
export interface Packed {
	readonly text: string;
}

/** Things of one kind, written as columns: what they are called stands there once. */
export type Columns<T> = { [K in keyof T]?: T[K][] };

export function columnsOf<T extends object>(rows: readonly T[]): Columns<T> {
	const columns: Columns<T> = {};
	for (const key of Object.keys(rows[0] ?? {}) as (keyof T)[]) columns[key] = rows.map((row) => row[key]);
	return columns;
}

export function rowsOf<T>(columns: Columns<T> = {}): T[] {
	const known = Object.entries(columns) as [keyof T, T[keyof T][]][];
	return Array.from({ length: known[0]?.[1].length ?? 0 }, (_, i) => {
		const row = {} as T;
		for (const [key, values] of known) row[key] = values[i]!;
		return row;
	});
}

/** Which card lies in which bundle of cards at rest. It is read once it is asked for the first time. */
export class Places {
	readonly #bundles: Packed[] = [];
	readonly #of = new Map<string, number>();
	#read = 0;

	/**
	 * Adds a bundle; gives its number.
	 * @param cards the keys of its cards, as a JSON list
	 */
	add(cards: Packed): number {
		return this.#bundles.push(cards) - 1;
	}

	/** The number of the bundle in which a card was put to rest; undefined where it was in none. */
	of(card: string): number | undefined {
		atOnce(this.read());
		return this.#of.get(card);
	}

	/** Reads which cards lie where, bundle by bundle, for whoever must not keep others waiting. */
	*read(): Generator<void> {
		while (this.#read < this.#bundles.length) {
			const bundle = this.#read++;
			for (const card of JSON.parse(this.#bundles[bundle]!.text) as string[]) this.#of.set(card, bundle);
			yield;
		}
	}
}

/**
 * What is known of each card. Of cards at rest it is packed, in bundles: whoever asks for one of them has its bundle
 * unpacked and does not notice, but for the time that it takes.
 */
export class Shelf<T extends { card: string }> {
	readonly #out = new Map<string, T>();
	readonly #bundles = new Map<number, { count: number; unpack: () => Iterable<T> }>();
	#places = new Places();
	#resting = 0;

	/** Of how many cards something is known. */
	get size(): number {
		return this.#out.size + this.#resting;
	}

	get(card: string): T | undefined {
		return this.#out.get(card) ?? (this.#bundles.size ? this.#fetch(card) : undefined);
	}

	/** Puts in what is known of a card that is in no bundle: of one that was asked for, or of a new one. */
	set(card: string, thing: T): void {
		this.#out.set(card, thing);
	}

	delete(card: string): void {
		if (this.#bundles.size) this.#fetch(card);
		this.#out.delete(card);
	}

	/** All of it, unpacked. */
	values(): Iterable<T> {
		for (const bundle of this.#bundles.keys()) this.unpack(bundle);
		return this.#out.values();
	}

	/** What is not packed. */
	out(): Iterable<T> {
		return this.#out.values();
	}

	/**
	 * Takes in a bundle of cards at rest of which nothing is known yet.
	 * @param places which cards lie where; the same for all bundles of a shelf
	 * @param unpack reads what is known of each of them
	 */
	rest(places: Places, bundle: number, count: number, unpack: () => Iterable<T>): void {
		this.#places = places;
		this.#bundles.set(bundle, { count, unpack });
		this.#resting += count;
	}

	/** Whether a bundle is as it was put in. */
	rests(bundle: number): boolean {
		return this.#bundles.has(bundle);
	}

	/** Unpacks a bundle, unless it is already. */
	unpack(bundle: number): void {
		const known = this.#bundles.get(bundle);
		if (!known) return;
		this.#bundles.delete(bundle);
		this.#resting -= known.count;
		for (const thing of known.unpack()) this.#out.set(thing.card, thing);
	}

	/** Unpacks what is known of some cards, bundle by bundle, for whoever must not keep others waiting. */
	*reach(cards: Iterable<string>): Generator<void> {
		for (const card of cards) {
			if (!this.#bundles.size) return;
			if (this.#out.has(card)) continue;
			yield* this.#places.read();
			this.#fetch(card);
			yield;
		}
	}

	#fetch(card: string): T | undefined {
		const bundle = this.#places.of(card);
		if (bundle !== undefined) this.unpack(bundle);
		return this.#out.get(card);
	}
}
