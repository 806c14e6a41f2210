import { stringify } from 'csv-stringify/browser/esm/sync';
import { cellOf, type Field } from '$core/board/field';
import type { CardView } from '$core/pages/board';
import { handOver } from '../hand-over';

/** Saves cards as a file that any spreadsheet opens, with these fields. */
export function saveCards(
	board: { key: string; slug: string },
	cards: readonly CardView[],
	columns: readonly Field[],
	today: string,
): void {
	const file = stringify(
		[
			['key', ...columns.map(({ name }) => name.toLowerCase())],
			...cards.map((card) => [`${board.key}-${card.number}`, ...columns.map((field) => cellOf(field, card))]),
		],
		{ escape_formulas: true },
	);
	handOver(`${board.slug}-${today}.csv`, 'text/csv', file);
}
