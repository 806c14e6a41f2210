import type { CardView } from '$core/pages/board';
import type { GridBand } from './grid';

/** A cell of a grid, by its band and column, and a card's place among those there. */
export interface Place {
	band: number;
	column: number;
	cards: readonly CardView[];
	index: number;
}

/** Where a card goes: into a cell, below another card, on top (null) or at the end (undefined). */
export interface Goal {
	band: number;
	column: number;
	below: string | null | undefined;
}

type Bands = readonly Pick<GridBand, 'cells'>[];

/**
 * Where a card is shown.
 * @param first the cell that is looked at first: a card that has several values stands in several
 */
export function placeIn(
	bands: Bands,
	card: Pick<CardView, 'id'>,
	first: Pick<Place, 'band' | 'column'> | null = null,
): Place | null {
	const here = (band: number, column: number): Place | null => {
		const cards = bands[band]?.cells[column] ?? [];
		const index = cards.findIndex(({ id }) => id === card.id);
		return index < 0 ? null : { band, column, cards, index };
	};
	const known = first && here(first.band, first.column);
	if (known) return known;
	for (const [band, { cells }] of bands.entries())
		for (const column of cells.keys()) {
			const found = here(band, column);
			if (found) return found;
		}
	return null;
}

/** Where a key moves a card; null where it moves it nowhere. */
export function movedBy(bands: Bands, { band, column, cards, index }: Place, key: string): Goal | null {
	const last = cards.length - 1;
	const to = (b: number, c: number, below: Goal['below']): Goal | null =>
		bands[b]?.cells[c] ? { band: b, column: c, below } : null;
	switch (key) {
		case 'ArrowLeft':
			return to(band, column - 1, undefined);
		case 'ArrowRight':
			return to(band, column + 1, undefined);
		case 'Home':
			return index > 0 ? to(band, column, null) : null;
		case 'End':
			return index < last ? to(band, column, cards[last]!.id) : null;
		case 'ArrowUp':
			return index > 0 ? to(band, column, cards[index - 2]?.id ?? null) : to(band - 1, column, undefined);
		case 'ArrowDown':
			return index < last ? to(band, column, cards[index + 1]!.id) : to(band + 1, column, null);
		default:
			return null;
	}
}

/** The card to which a key leads from another one, and its cell; null where there is none. */
export function nextBy(
	bands: Bands,
	{ band, column, cards, index }: Place,
	key: string,
): (Pick<Place, 'band' | 'column'> & { card: CardView }) | null {
	const found = (card: CardView | undefined, b = band, c = column) =>
		card ? { card, band: b, column: c } : null;
	const step = key === 'ArrowLeft' || key === 'ArrowUp' ? -1 : 1;
	if (key === 'Home') return found(cards[0]);
	if (key === 'End') return found(cards.at(-1));
	if (key === 'ArrowLeft' || key === 'ArrowRight') {
		const row = bands[band]!.cells;
		for (let c = column + step; row[c]; c += step)
			if (row[c]!.length) return found(row[c]![Math.min(index, row[c]!.length - 1)], band, c);
		return null;
	}
	if (cards[index + step]) return found(cards[index + step]);
	// On to the next lane that has cards in this column.
	for (let b = band + step; bands[b]; b += step) {
		const there = bands[b]!.cells[column]!;
		if (there.length) return found(there.at(step < 0 ? -1 : 0), b);
	}
	return null;
}
