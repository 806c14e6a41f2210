import type { ColumnView, Face } from '$core/pages/board';

const CHOSEN = { narrow: 'minmax(140px, 190px)', wide: 'minmax(330px, 1.5fr)' };
const BY_KIND: Record<ColumnView['kind'], string> = {
	queue: 'minmax(160px, 0.8fr)',
	work: 'minmax(250px, 1.5fr)',
	done: 'minmax(170px, 0.85fr)',
};
/** A value of a field, drawn as a column. */
const VALUE = 'minmax(190px, 1fr)';

/** How wide columns are, as tracks of a grid: as chosen for what cards show, else by their kind. */
export const widthsOf = (
	columns: readonly Pick<ColumnView, 'kind'>[],
	width: Face['width'],
	values: boolean,
): string =>
	columns.map(({ kind }) => (width !== 'usual' ? CHOSEN[width] : values ? VALUE : BY_KIND[kind])).join(' ');
