import { fsum } from 'd3-array';

/** How a retrospective goes, in its order. */
export const PHASES = ['write', 'lay', 'vote', 'agree', 'closed'] as const;
export type Phase = (typeof PHASES)[number];

/** What each phase is called, what is done in it, and what the button says that leads on. */
export const PHASE_WORDS: Record<Phase, { called: string; does: string; on: string }> = {
	write: {
		called: 'Writing',
		does: 'Notes lie face down: what you write only you can read.',
		on: 'Turn the notes over',
	},
	lay: {
		called: 'Reading',
		does: 'Read them, and lay like notes on one another.',
		on: 'Vote',
	},
	vote: {
		called: 'Voting',
		does: 'Give your votes to what you want to talk about. How they fall shows when they are counted.',
		on: 'Count the votes',
	},
	agree: {
		called: 'Agreeing',
		does: 'Talk, from the most votes down, and write what you agree on.',
		on: 'Close it',
	},
	closed: { called: 'Closed', does: 'What was agreed stands on top next time.', on: '' },
};

/** The phase after one; null after the last. */
export const phaseAfter = (phase: Phase): Phase | null => PHASES[PHASES.indexOf(phase) + 1] ?? null;

/** The columns that a team is first offered. */
export const USUAL_COLUMNS = ['Went well', 'Held us up', 'To try'];

/** A note as it lies somewhere. */
export interface Laid {
	id: string;
	/** The column, from 0 on. */
	place: number;
	words: string;
	on: string | null;
	votes: number;
}

/** Notes that were laid on one another: the one at the bottom first. */
export interface Pile<N extends Laid> {
	top: N;
	under: N[];
	votes: number;
}

/**
 * Notes of a column as piles, those with most votes first; among equals in the order of their words, which tells nothing of
 * when they were written.
 */
export function pilesOf<N extends Laid>(notes: readonly N[], place: number): Pile<N>[] {
	return notes
		.filter((note) => note.on === null && note.place === place)
		.map((top) => {
			const under = notes.filter((note) => note.on === top.id).sort(byWords);
			return { top, under, votes: fsum([top, ...under], (note) => note.votes) };
		})
		.sort((a, b) => b.votes - a.votes || byWords(a.top, b.top));
}

const byWords = (a: Laid, b: Laid) => (a.words < b.words ? -1 : a.words > b.words ? 1 : a.id < b.id ? -1 : 1);
