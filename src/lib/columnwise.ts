/** What rows say under one name: most the same, with places where they do not; or a few things; or each something of its own. */
type Column = (
	| { usual: unknown; but: [place: number, said: unknown][] }
	| { few: unknown[]; at: number[] }
	| { all: unknown[] }
) & {
	/** Where nothing is said under it. */
	not?: number[];
};

/** Rows as they travel: what is said under each name, once for all that say the same. */
interface Columns {
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

const written = new WeakMap<readonly object[], string>();

/** Rows as they travel, in JSON; of a list that goes out again it is written once. */
export function toText(rows: readonly object[]): string {
	let text = written.get(rows);
	if (text === undefined) written.set(rows, (text = JSON.stringify(toColumns(rows))));
	return text;
}

/** Rows as they were, from the text they travelled as. */
export const fromText = (text: string): object[] => fromColumns(JSON.parse(text) as Columns);

/** Rows column by column. What a row does not say, or says as `undefined`, it does not say afterwards. */
function toColumns(rows: readonly object[]): Columns {
	const said = new Map<string, unknown[]>();
	for (const [place, row] of rows.entries())
		for (const name in row) {
			let all = said.get(name);
			if (!all) said.set(name, (all = Array.from({ length: rows.length })));
			all[place] = (row as Record<string, unknown>)[name];
		}
	const columns: Columns['columns'] = {};
	for (const [name, all] of said) columns[name] = columnOf(all);
	return { rows: rows.length, columns };
}

function columnOf(all: unknown[]): Column {
	if (!all.includes(undefined)) return saidBy(all);
	const not = [...all.keys()].filter((place) => all[place] === undefined);
	return { ...saidBy(all.map((one) => one ?? null)), not };
}

function saidBy(all: readonly unknown[]): Column {
	const said = alike(all);
	const times = new Map<unknown, number>();
	// Most say what the one before them said: that is not looked up each time.
	for (let from = 0, to = 1; from < said.length; from = to++) {
		while (to < said.length && said[to] === said[from]) to++;
		times.set(said[from], (times.get(said[from]) ?? 0) + to - from);
	}
	const [usual, often] = [...times].reduce((a, b) => (b[1] > a[1] ? b : a));
	if (often > all.length / 2) {
		const but: [number, unknown][] = [];
		for (const [place, one] of said.entries()) if (one !== usual) but.push([place, one]);
		return { usual, but };
	}
	if (times.size > all.length / 3) return { all: said };
	const places = new Map([...times.keys()].map((one, i) => [one, i]));
	return { few: [...times.keys()], at: said.map((one) => places.get(one)!) };
}

/** Values of which those that are alike are the same, lists and objects too. */
function alike(all: readonly unknown[]): unknown[] {
	const known = new Map<string, unknown>();
	const empty: unknown[] = [];
	return all.map((value) => {
		if (typeof value !== 'object' || value === null) return value;
		if (Array.isArray(value) && !value.length) return empty;
		const text = JSON.stringify(value);
		if (!known.has(text)) known.set(text, value);
		return known.get(text);
	});
}

/** Rows as they were. What several say alike is one value: nobody changes it in place. */
function fromColumns({ rows, columns }: Columns): object[] {
	const all = Object.entries(columns).map(([name, column]) => ({ name, said: saidIn(column, rows) }));
	// Each begins with what all of them say: an object that grew name by name is slow to read.
	const whole = all.filter(({ said }) => !said.includes(undefined));
	const first = Object.fromEntries(whole.map(({ name }) => [name, null]));
	return Array.from({ length: rows }, (_, place) => {
		const row: Record<string, unknown> = { ...first };
		for (const { name, said } of all) if (said[place] !== undefined) row[name] = said[place];
		return row;
	});
}

function saidIn(column: Column, rows: number): unknown[] {
	const said = eachIn(column, rows);
	for (const place of column.not ?? []) said[place] = undefined;
	return said;
}

function eachIn(column: Column, rows: number): unknown[] {
	if ('all' in column) return column.all;
	if ('few' in column) return column.at.map((one) => column.few[one]);
	const said = new Array<unknown>(rows).fill(column.usual);
	for (const [place, one] of column.but) said[place] = one;
	return said;
}
