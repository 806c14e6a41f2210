/** What rows say under one name: most say the same, with places where they do not; or each says something of its own. */
type Column = { usual: unknown; but: [place: number, said: unknown][] } | { all: unknown[] };

/** Rows as they travel: what is said under each name, once for all that say the same. */
export interface Columns {
	rows: number;
	columns: Record<string, Column>;
}

/**
 * Rows that go to a page column by column. Of thousands of cards most say the same under most names, and a page with all
 * of it written out takes several times as long to write, to send and to read.
 */
export class Columnwise<T extends object> extends Array<T> {
	/** What is made of them is a plain list. */
	static override get [Symbol.species]() {
		return Array;
	}
}

/** Below so many rows it is not worth it. */
const FEW = 40;

/** Marks rows to go to a page column by column; for everybody else they stay a list of rows. */
export const columnwise = <T extends object>(rows: readonly T[]): T[] =>
	rows.length < FEW ? [...rows] : Columnwise.from(rows);

/** Rows as they travel. What a row does not say, or says as `undefined`, it does not say afterwards. */
export function toColumns(rows: readonly object[]): Columns {
	const names = new Set<string>();
	for (const row of rows) for (const name in row) names.add(name);
	const columns: Columns['columns'] = {};
	for (const name of names)
		columns[name] = columnOf((rows as Record<string, unknown>[]).map((row) => row[name]));
	return { rows: rows.length, columns };
}

function columnOf(all: unknown[]): Column {
	const said = all.map((value) => (typeof value === 'object' && value ? JSON.stringify(value) : value));
	const times = new Map<unknown, number>();
	for (const one of said) times.set(one, (times.get(one) ?? 0) + 1);
	const [most, often] = [...times].reduce((a, b) => (b[1] > a[1] ? b : a));
	if (often <= all.length / 2) return { all };
	const but: [number, unknown][] = [];
	for (const [place, one] of said.entries()) if (one !== most) but.push([place, all[place]]);
	return { usual: all[said.indexOf(most)], but };
}

/** Rows as they were. What several say alike is one value: nobody changes it in place. */
export function fromColumns({ rows, columns }: Columns): object[] {
	const made = Array.from({ length: rows }, (): Record<string, unknown> => ({}));
	for (const [name, column] of Object.entries(columns)) {
		const put = (place: number, said: unknown) => said !== undefined && (made[place]![name] = said);
		if ('all' in column) column.all.forEach((said, place) => put(place, said));
		else {
			const others = new Map(column.but);
			for (let place = 0; place < rows; place++)
				put(place, others.has(place) ? others.get(place) : column.usual);
		}
	}
	return made;
}
