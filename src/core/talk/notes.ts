import { diffLines } from 'diff';

/** A change of notes: who made it, when, and which lines came and went. */
export interface NotesChange {
	seq: number;
	at: string;
	who: string | null;
	/** It was taken back. */
	undone: boolean;
	lines: { text: string; came: boolean }[];
}

/** Of one change so many lines are told. */
const MOST_LINES = 60;

/**
 * What a change of notes did, line by line, without what stayed as it was.
 * @returns at most sixty lines, in the order of the text; a line that was changed went and came
 */
export function changedLines(before: string, after: string): NotesChange['lines'] {
	const ended = (text: string) => (text === '' || text.endsWith('\n') ? text : `${text}\n`);
	return diffLines(ended(before), ended(after))
		.filter(({ added, removed }) => added || removed)
		.flatMap(({ value, added }) =>
			value
				.split('\n')
				.filter((text) => text.trim())
				.map((text) => ({ text, came: Boolean(added) })),
		)
		.slice(0, MOST_LINES);
}
