import { fsum } from 'd3-array';
import type { Change, Field, Looking } from '$core/board/field';
import { readTyped } from '$core/board/typed';
import type { CardView } from '$core/pages/board';
import { isCard, type Row } from './list-rows';

/** At most so many cells are pasted at once. */
const MOST_CELLS = 500;

interface Into {
	rows: readonly Row[];
	columns: readonly Field[];
	/** The cell that the first one goes into. */
	row: number;
	column: number;
	looking: Looking;
	latest: (card: CardView) => CardView;
	/** A card as it is after a change. */
	after: (card: CardView, change: Change) => CardView;
}

/**
 * Reads what was copied from a spreadsheet into the cells of a list from one on: all of it, or what is wrong with it.
 * Names of groups are passed over, what reaches beyond the list is left out, and a cell is read with those before it.
 */
export function readPasted(
	text: string,
	{ rows, columns, row, column, looking, latest, after }: Into,
): { changes: { card: CardView; change: Change }[]; problem?: undefined } | { problem: string } {
	const cells = text
		.replace(/\r?\n$/, '')
		.split(/\r?\n/)
		.map((line) => line.split('\t'));
	const wide = fsum(cells, (line) => line.length);
	if (wide > MOST_CELLS)
		return {
			problem: `${wide.toLocaleString('en-GB')} cells were copied; at most ${MOST_CELLS} are pasted at once.`,
		};
	const changes: { card: CardView; change: Change }[] = [];
	const then = new Map<string, CardView>();
	const below = rows.slice(row).filter(isCard);
	for (const [i, line] of cells.entries()) {
		const there = below[i];
		if (!there) break;
		for (const [k, typed] of line.entries()) {
			const field = columns[column + k];
			if (!field) break;
			const card = then.get(there.card.id) ?? latest(there.card);
			const read = readTyped(field, card, typed, looking);
			if (!read.ok)
				return { problem: `Nothing was pasted. ${field.name} of ${there.card.number}: ${read.reason}.` };
			if (!read.change) continue;
			changes.push({ card: there.card, change: read.change });
			then.set(card.id, after(card, read.change));
		}
	}
	return { changes };
}
