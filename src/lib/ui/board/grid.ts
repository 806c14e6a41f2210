import { byValue, sorted, valuesAmong, type Arrangement } from '$core/board/arrange';
import type { Field } from '$core/board/field';
import type { BoardHead, CardView, ColumnView, LaneView } from '$core/pages/board';

/** A column as it is laid out: one of the board's, or one value of the field that cards are arranged by. */
export interface GridColumn {
	/** The column's id, or the key of the value. */
	key: string;
	view: ColumnView;
	all: CardView[];
	shown: CardView[];
}

/** A lane as it is laid out: one of the board's, or one value of a field. */
export interface GridBand {
	key: string;
	name: string;
	/** A lane of the board, with its limit. */
	lane: LaneView | null;
	/** Unfinished cards that stand in it, shown or not. */
	standing: CardView[];
	/** Its cards as they are shown, by the columns. */
	cells: CardView[][];
}

export interface Grid {
	columns: GridColumn[];
	/** One without a name where there are no lanes; never none. */
	bands: GridBand[];
}

/** A value of a field, drawn as a column. */
const asColumn = (key: string, name: string, position: number): ColumnView => ({
	id: key || NONE,
	name,
	kind: 'work',
	limit: null,
	mode: 'advise',
	policy: '',
	commitment: false,
	hidden: false,
	was: [],
	position,
	version: 0,
});

/** What stands for no value where a name is needed. */
export const NONE = '~none';

/**
 * The cards of a board laid out. Arranged by a field, its unfinished cards stand under its values; else in its columns.
 * @param columns the board's cards by its columns, in their order
 */
export function gridOf(
	head: Pick<BoardHead, 'columns' | 'lanes'>,
	columns: ReadonlyMap<string, CardView[]>,
	{ by, lanes, sort }: Arrangement,
	fields: readonly Field[],
	passes: (card: CardView) => boolean,
): Grid {
	const inOrder = (cards: CardView[]) => (sort.length ? sorted(cards, sort, fields) : cards);
	const laid = by ? valueColumns(head, columns, by) : ownColumns(head, columns);
	const whole = laid.map((column) => ({ ...column, shown: inOrder(column.all.filter(passes)) }));
	const all = [...new Set(whole.flatMap((column) => column.all))];
	// A field may have no value at all, as initiatives of an empty board.
	const values = lanes ? valuesAmong(lanes, all) : [];
	if (!lanes || !values.length)
		return {
			columns: whole,
			bands: [{ key: '', name: '', lane: null, standing: [], cells: whole.map(({ shown }) => shown) }],
		};
	const inLane = byValue(lanes, all);
	return {
		columns: whole,
		bands: values.map(({ key, name }) => {
			const there = new Set(inLane.get(key));
			return {
				key,
				name,
				lane: (lanes.id === 'lane' && head.lanes.find(({ id }) => id === key)) || null,
				standing: [...there].filter(({ clock }) => clock !== 'done'),
				cells: whole.map(({ shown }) => shown.filter((card) => there.has(card))),
			};
		}),
	};
}

type Laid = Omit<GridColumn, 'shown'>;

const ownColumns = (
	{ columns }: Pick<BoardHead, 'columns'>,
	cards: ReadonlyMap<string, CardView[]>,
): Laid[] =>
	columns
		.filter((column) => !column.hidden)
		.map((view) => ({ key: view.id, view, all: cards.get(view.id) ?? [] }));

function valueColumns(
	{ columns }: Pick<BoardHead, 'columns'>,
	cards: ReadonlyMap<string, CardView[]>,
	by: Field,
): Laid[] {
	const open = columns.flatMap((column) =>
		column.kind === 'done' || column.hidden ? [] : (cards.get(column.id) ?? []),
	);
	const under = byValue(by, open);
	return valuesAmong(by, open).map(({ key, name }, i) => ({
		key: key || NONE,
		view: asColumn(key, name, i),
		all: under.get(key) ?? [],
	}));
}
