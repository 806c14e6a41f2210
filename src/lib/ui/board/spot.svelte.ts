import type { CardView } from '$core/pages/board';
import type { GridBand, GridColumn } from './grid';
import type { CellAt } from './into-cell';
import { movedBy, nextBy, placeIn, type Goal } from './steps';

/** What is laid out and not folded away. */
interface Laid {
	columns: readonly GridColumn[];
	bands: readonly GridBand[];
}

/** Where somebody is on a board: the card and the cell that have the focus, and where keys lead from there. */
export class Spot {
	card = $state<string | null>(null);
	/** A card that has several values stands in several cells. */
	cell = $state.raw<CellAt | null>(null);
	/** The card to which the key Tab comes. */
	readonly tabbable = $derived.by(() => {
		const shown = this.laid().bands.flatMap(({ cells }) => cells.flat());
		return (shown.find(({ id }) => id === this.card) ?? shown[0])?.id ?? null;
	});

	/**
	 * @param cardOf a card of the board
	 * @param show draws a card in its cell and gives it the focus
	 */
	constructor(
		private readonly laid: () => Laid,
		private readonly cardOf: (id: string) => CardView | undefined,
		private readonly show: (id: string, cell: CellAt) => Promise<void>,
	) {}

	/** Where a card is shown, in the cell in which somebody is if it stands there. */
	private placeOf(card: CardView) {
		const { columns, bands } = this.laid();
		const { cell } = this;
		return placeIn(
			bands,
			card,
			cell && {
				band: bands.findIndex(({ key }) => key === cell.lane),
				column: columns.findIndex(({ key }) => key === cell.column),
			},
		);
	}

	private at({ band, column }: Pick<Goal, 'band' | 'column'>): CellAt {
		const { columns, bands } = this.laid();
		return { column: columns[column]!.key, lane: bands[band]!.key };
	}

	/** The cell in which a card is shown; null where it is not. */
	cellOf(card: CardView): CellAt | null {
		const place = this.placeOf(card);
		return place && this.at(place);
	}

	/** Gives a card the focus, wherever it is shown. */
	async focus(id: string): Promise<void> {
		const card = this.cardOf(id);
		const cell = card && this.cellOf(card);
		if (cell) await this.show(id, cell);
	}

	/** Goes from a card to the one to which a key leads. */
	go(card: CardView, key: string): void {
		const from = this.placeOf(card);
		const next = from && nextBy(this.laid().bands, from, key);
		if (!next) return;
		[this.card, this.cell] = [next.card.id, this.at(next)];
		void this.focus(next.card.id);
	}

	/** Where a key moves a card: from which cell into which, below which card; null where it moves it nowhere. */
	moved(card: CardView, key: string): { from: CellAt; to: CellAt; below: Goal['below'] } | null {
		const from = this.placeOf(card);
		const to = from && movedBy(this.laid().bands, from, key);
		return to ? { from: this.at(from), to: this.at(to), below: to.below } : null;
	}
}
