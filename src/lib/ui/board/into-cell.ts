import type { Arrangement } from '$core/board/arrange';
import type { Change, Field } from '$core/board/field';
import type { CardView } from '$core/pages/board';
import { count } from '../words';
import type { BoardState } from './board-state.svelte';
import { NONE, type Grid } from './grid';

/** A cell of a board: a column and a lane, by their keys; the lane is empty where there are none. */
export interface CellAt {
	column: string;
	lane: string;
}

/**
 * Puts a card into another cell: into another column, or under another value of the field that cards are arranged by;
 * and into another lane, or under another value of the field that makes the lanes.
 * @param below the card that it is to stand below; null: on top; undefined: wherever it comes to stand
 * @returns what was begun by that, nothing where it stands there already; null where it cannot be put there, which is told
 */
export function intoCell(
	board: BoardState,
	arrangement: Arrangement,
	card: CardView,
	from: CellAt,
	to: CellAt,
	below: string | null | undefined,
): Promise<{ ok: boolean }>[] | null {
	const { by, lanes } = arrangement;
	const changes: Change[] = [];
	const put = (field: Field, key: string, before: string) => {
		if (key === before) return true;
		const change = field.values!.put?.(card, key, before);
		if (change) changes.push(change);
		else if (!field.values!.put)
			board.tell({
				tone: 'care',
				text: `Cards are not dragged from one ${field.name.toLowerCase()} to another: it is known from elsewhere.`,
			});
		return Boolean(change);
	};
	const value = (key: string) => key.replace(NONE, '');
	if (by && !put(by, value(to.column), value(from.column))) return null;
	if (lanes && (by || lanes.id !== 'lane') && !put(lanes, to.lane, from.lane)) return null;
	const placed = by ? null : intoColumn(board, arrangement, card, from, to, below);
	const works = placed ? [placed] : [];
	// One step to take back, whatever it changes.
	if (changes.length) works.push(board.putAll(changes.map((change) => ({ card, change }))));
	return works;
}

/** The same within the board's own columns, with its place among the others; null where it stands there already. */
function intoColumn(
	board: BoardState,
	{ lanes, sort }: Arrangement,
	card: CardView,
	from: CellAt,
	to: CellAt,
	below: string | null | undefined,
): Promise<{ ok: boolean }> | null {
	const target = board.head.columns.find(({ id }) => id === to.column)!;
	const stays = lanes?.id !== 'lane' || to.lane === from.lane;
	const there = board.columns.get(to.column) ?? [];
	if (stays && card.column === to.column) {
		if (target.kind === 'done' || sort.length) return null;
		const above = there.filter((other) => other.id !== card.id).findIndex((other) => other.id === below);
		if (there.findIndex((other) => other.id === card.id) === above + 1) return null;
	}
	const lane = board.head.lanes.find(({ id }) => id === to.lane) ?? null;
	return board.move(card, to.column, below, stays ? undefined : lane);
}

/** Where a card stands now, in words that are spoken. */
export function standsNow(
	board: BoardState,
	{ by, lanes }: Arrangement,
	{ columns, bands }: Grid,
	card: CardView,
	{ column, lane }: CellAt,
): string {
	const target = columns.find(({ key }) => key === column)!.view;
	if (by) return `Card ${card.number}: ${by.name.toLowerCase()} ${target.name}.`;
	if (target.kind === 'done') return `Card ${card.number} is finished.`;
	const there = board.columns.get(column) ?? [];
	const slots = target.limit === null ? count(there.length, 'card') : `${there.length} of ${target.limit}`;
	const band = lanes && bands.find(({ key }) => key === lane);
	const into = !band ? '' : band.lane ? `, lane ${band.name}` : `, ${band.name.toLowerCase()}`;
	const place = there.findIndex((other) => other.id === card.id) + 1;
	return `Card ${card.number} is in ${target.name}${into}, position ${place}; ${slots} there.`;
}
