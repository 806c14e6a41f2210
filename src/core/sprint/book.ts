import { fsum } from 'd3-array';
import { inCardOrder } from '../flow/lifetime.ts';
import type { BoardSprint } from './board.ts';
import type { Ledger, Move, Stint } from './ledger.ts';

/** What is noted of a sprint as it goes. */
export interface Notes {
	stints: Stint[];
	moves: Move[];
}

/** A ledger without its lists. */
export type Sums = Omit<Ledger, keyof Notes>;

/** A sprint's book: what is noted of it as it goes, and the ledger that is made up of that. */
export class Book {
	sprint: BoardSprint;
	#notes: Notes | null;
	readonly #unpack: (() => Notes) | null;
	#ledger: Ledger | null;

	/**
	 * @param sums of a closed sprint that was kept: they are as they were, and what is noted stays packed until it is asked for
	 */
	constructor(sprint: BoardSprint, notes: Notes | (() => Notes), sums: Sums | null = null) {
		this.sprint = sprint;
		this.#unpack = typeof notes === 'function' ? notes : null;
		this.#notes = typeof notes === 'function' ? null : notes;
		this.#ledger = sums && this.#listed(sums);
	}

	get stints(): Stint[] {
		return this.#read().stints;
	}

	set stints(stints: Stint[]) {
		this.#read().stints = stints;
	}

	get moves(): Move[] {
		return this.#read().moves;
	}

	set moves(moves: Move[]) {
		this.#read().moves = moves;
	}

	/** Whether what is noted is packed still. */
	get rests(): boolean {
		return this.#notes === null;
	}

	/** The ledger, made up anew where something has changed since it was last. */
	get ledger(): Ledger {
		return (this.#ledger ??= totals(this));
	}

	/** The ledger without its lists: they stay packed. */
	get sums(): Sums {
		const { ledger } = this;
		const keys = (Object.keys(ledger) as (keyof Ledger)[]).filter(
			(key) => key !== 'stints' && key !== 'moves',
		);
		return Object.fromEntries(keys.map((key) => [key, ledger[key]])) as unknown as Sums;
	}

	/** What is noted has changed, or will. */
	touch(): void {
		this.#ledger = null;
	}

	#read(): Notes {
		return (this.#notes ??= this.#unpack!());
	}

	/** A ledger whose lists are read once they are asked for. */
	#listed(sums: Sums): Ledger {
		let lists: Notes | null = null;
		const read = () => (lists ??= { stints: inCardOrder(this.stints), moves: inTimeOrder(this.moves) });
		return {
			...sums,
			get stints() {
				return read().stints;
			},
			get moves() {
				return read().moves;
			},
		};
	}
}

/** By time; at one instant in code-unit order of the cards' keys, in whatever order they came to be known. */
function inTimeOrder(moves: readonly Move[]): Move[] {
	return [...moves].sort((a, b) => a.at - b.at || (a.card < b.card ? -1 : a.card > b.card ? 1 : 0));
}

/** What is left of an open stint: all that came in and was neither burned nor split off. */
function leftOf(stint: Stint): number {
	return stint.entry + stint.resized - stint.burned - stint.splitOff;
}

/** Makes up a sprint's account from its book. */
function totals({ sprint, stints, moves }: Book): Ledger {
	const flows = { committed: 0, added: 0, resized: 0, burned: 0, worked: 0, splitOff: 0 };
	const ends = { removed: 0, carried: 0, returned: 0, dropped: 0, open: 0, delivered: 0 };
	const unplanned = fsum(stints, (stint) => (stint.planned ? 0 : stint.worked));
	const ledger: Ledger = {
		...{ number: sprint.number, ...flows, ...ends, unplanned, count: stints.length },
		...{ stints: inCardOrder(stints), moves: inTimeOrder(moves) },
	};
	for (const stint of stints) {
		ledger[stint.kind] += stint.entry;
		for (const flow of ['resized', 'burned', 'worked', 'splitOff'] as const) ledger[flow] += stint[flow];
		if (stint.outcome === 'done') ledger.delivered += stint.burned;
		// Still running: what is left now. Frozen: as it was at the close.
		if (stint.outcome === null) stint.exit = leftOf(stint);
		if (stint.outcome === null) ledger.open += stint.exit;
		else if (stint.outcome !== 'done') ledger[stint.outcome] += stint.exit;
	}
	return ledger;
}
