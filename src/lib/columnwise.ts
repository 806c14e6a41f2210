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
	const names: string[] = [];
	const said: unknown[][] = [];
	const known = new Map<string, number>();
	for (let place = 0; place < rows.length; place++) {
		const row = rows[place] as Record<string, unknown>;
		// Most rows say under the same names in the same order as the one before them: those are not looked up each time.
		let at = 0;
		for (const name in row) {
			if (names[at] !== name) {
				at = known.get(name) ?? names.length;
				if (at === names.length) {
					known.set(name, at);
					names.push(name);
					said.push([]);
				}
			}
			const column = said[at++]!;
			while (column.length < place) column.push(undefined);
			column.push(row[name]);
		}
	}
	for (const column of said) while (column.length < rows.length) column.push(undefined);
	return {
		rows: rows.length,
		columns: Object.fromEntries(names.map((name, i) => [name, columnOf(said[i]!)])),
	};
}

/** What the rows say under one name; `undefined` where they do not. */
function columnOf(all: readonly unknown[]): Column {
	/** The things that are said, each once; how often; and which of them each row says. */
	const [things, times, at]: [unknown[], number[], number[]] = [[], [], []];
	const known = { things: new Map<unknown, number>(), texts: new Map<string, number>() };
	const not: number[] = [];
	let which = -1;
	for (let place = 0; place < all.length; place++) {
		if (all[place] === undefined) not.push(place);
		const one = all[place] ?? null;
		// Most say what the one before them says.
		if (which < 0 || one !== things[which]) {
			// Lists and objects are alike when they are written alike.
			const text = typeof one === 'object' && one !== null ? textOf(one) : null;
			const found = text === null ? known.things.get(one) : known.texts.get(text);
			which = found ?? things.length;
			if (found === undefined) {
				if (text === null) known.things.set(one, which);
				else known.texts.set(text, which);
				things.push(one);
				times.push(0);
			}
		}
		times[which]!++;
		at.push(which);
	}
	return { ...writtenAs(things, times, at), ...(not.length && { not }) };
}

const textOf = (thing: object) => (Array.isArray(thing) && !thing.length ? '[]' : JSON.stringify(thing));

function writtenAs(things: unknown[], times: readonly number[], at: number[]): Column {
	const usual = times.reduce((most, n, i) => (n > times[most]! ? i : most), 0);
	if (times[usual]! > at.length / 2) {
		const but: [number, unknown][] = [];
		for (let place = 0; place < at.length; place++)
			if (at[place] !== usual) but.push([place, things[at[place]!]]);
		return { usual: things[usual], but };
	}
	return things.length > at.length / 3 ? { all: at.map((which) => things[which]) } : { few: things, at };
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
