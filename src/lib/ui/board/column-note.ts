import type { Arrangement } from '$core/board/arrange';
import type { BoardHead } from '$core/pages/board';
import { leftOf } from '$core/board/left';
import { amount, count } from '../words';
import type { GridColumn } from './grid';

/**
 * What stands in words under the name of a column.
 * @param unit the board's
 * @param by the field whose values are the columns; null: they are the board's own
 * @param running the number of the sprint that runs
 */
export function noteOf(
	{ view, all, shown }: Pick<GridColumn, 'view' | 'all' | 'shown'>,
	unit: BoardHead['unit'],
	by: Arrangement['by'],
	running: number | undefined,
): string {
	const hidden = all.length - shown.length;
	if (hidden) return `${shown.length} of ${all.length} shown`;
	if (by) {
		if (!all.length) return 'no cards';
		return unit === 'none'
			? count(all.length, 'card')
			: `${count(all.length, 'card')}, ${amount(leftOf(all), unit)}`;
	}
	if (view.kind === 'done') {
		if (running === undefined) return `${all.length} in two weeks`;
		const here = all.filter((card) => card.sprint === running).length;
		const before = all.length - here;
		return `${here} this sprint${before ? `, ${before} outside it` : ''}`;
	}
	if (view.limit === null) return view.kind === 'queue' ? `${all.length} wait` : `${all.length} in hand`;
	return all.length > view.limit ? `${all.length} of ${view.limit}` : '';
}
