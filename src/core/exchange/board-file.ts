import { dayText, parseDay } from '../calendar/days.ts';
import { isZone, zoneOf } from '../calendar/zone.ts';
import { COLUMN_KINDS } from '../flow/layout.ts';
import type { BoardFile, BoardSprint } from '../sprint/board.ts';
import { instantText, parseInstant } from '../calendar/instant.ts';

type Read<T> = { ok: true; value: T } | { ok: false; errors: string[] };

/** Reads a board file (JSON). All that is wrong with it is said, in plain sentences. */
export function readBoardFile(text: string): Read<BoardFile> {
	let raw: unknown;
	try {
		raw = JSON.parse(text.replace(/^\uFEFF/, ''));
	} catch (error) {
		return { ok: false, errors: [`not JSON (${(error as Error).message})`] };
	}
	const errors: string[] = [];
	const say = (sentence: string) => void errors.push(sentence);
	if (!isObject(raw)) return { ok: false, errors: ['not a JSON object'] };

	const name = typeof raw.name === 'string' ? raw.name : '';
	if (!name) say('"name" is missing');
	const zoneName = typeof raw.timeZone === 'string' ? raw.timeZone : '';
	if (!isZone(zoneName)) say(`unknown time zone "${String(raw.timeZone ?? '')}"`);
	if (raw.unit !== 'hours' && raw.unit !== 'points')
		say(`"unit" must be hours or points, not "${String(raw.unit ?? '')}"`);

	const columns = readColumns(raw.columns, say);
	const commitment = columns.findIndex((column) => column.name === raw.commitment);
	if (commitment < 0) say(`no column "${String(raw.commitment ?? '')}" to be the commitment column`);
	const sprints = readSprints(raw.sprints ?? [], say);
	if (errors.length) return { ok: false, errors };
	const unit = raw.unit as 'hours' | 'points';
	return { ok: true, value: { name, zone: zoneOf(zoneName), unit, columns, commitment, sprints } };
}

type Say = (sentence: string) => void;

function readColumns(raw: unknown, say: Say): BoardFile['columns'] {
	if (!Array.isArray(raw) || !raw.length) {
		say('"columns" must be a list of at least one column');
		return [];
	}
	const columns: BoardFile['columns'] = [];
	const names = new Set<string>();
	raw.forEach((entry: unknown, i) => {
		const column = isObject(entry) ? entry : {};
		const name = typeof column.name === 'string' ? column.name : '';
		if (!name) say(`column ${i + 1} has no name`);
		const was = column.was ?? [];
		const texts = Array.isArray(was) && was.every((one) => typeof one === 'string' && one);
		if (!texts) say(`"was" of column "${name}" must be a list of its earlier names`);
		const earlier = texts ? (was as string[]) : [];
		for (const one of name ? [name, ...earlier] : []) {
			if (names.has(one)) say(`two columns are named "${one}"`);
			names.add(one);
		}
		if (column.retired !== undefined && typeof column.retired !== 'boolean')
			say(`"retired" of column "${name}" must be true or false`);
		const kind = COLUMN_KINDS.find((known) => known === column.kind);
		if (!kind) say(`column "${name}" has the unknown kind "${String(column.kind ?? '')}"`);
		const limit = column.limit ?? null;
		if (limit !== null && !(Number.isInteger(limit) && (limit as number) > 0))
			say(`the limit of column "${name}" must be a whole number above 0`);
		columns.push({
			name,
			kind: kind ?? 'queue',
			limit: limit as number | null,
			...(earlier.length && { was: earlier }),
			...(column.retired === true && { retired: true }),
		});
	});
	return columns;
}

function readSprints(raw: unknown, say: Say): BoardSprint[] {
	if (!Array.isArray(raw)) {
		say('"sprints" must be a list');
		return [];
	}
	const seen = new Set<number>();
	return raw.flatMap((entry: unknown) => {
		const sprint = isObject(entry) ? entry : {};
		const number = Number.isInteger(sprint.number) ? (sprint.number as number) : NaN;
		if (Number.isNaN(number)) say('a sprint has no whole number');
		if (seen.has(number)) say(`two sprints have the number ${number}`);
		seen.add(number);
		const date = (key: string) => {
			const day = typeof sprint[key] === 'string' ? parseDay(sprint[key]) : null;
			if (day === null) say(`"${key}" of sprint ${number} is not a date`);
			return day ?? 0;
		};
		const instant = (key: string) => {
			if (sprint[key] === undefined || sprint[key] === null) return null;
			const at = typeof sprint[key] === 'string' ? parseInstant(sprint[key]) : null;
			if (at === null) say(`"${key}" of sprint ${number} is not an instant`);
			return at;
		};
		const read = {
			number,
			starts: date('starts'),
			ends: date('ends'),
			startedAt: instant('startedAt'),
			closedAt: instant('closedAt'),
		};
		if (read.ends < read.starts) say(`sprint ${number} ends before it starts`);
		if (read.closedAt !== null && read.startedAt === null)
			say(`sprint ${number} is closed but was never started`);
		if (read.closedAt !== null && read.startedAt !== null && read.closedAt < read.startedAt)
			say(`sprint ${number} closes before its start`);
		return [read];
	});
}

function isObject(value: unknown): value is Record<string, unknown> {
	return typeof value === 'object' && value !== null && !Array.isArray(value);
}

/** Writes a board file. */
export function writeBoardFile(board: BoardFile): string {
	const given = <K extends string, V>(key: K, value: V | null) => (value === null ? {} : { [key]: value });
	const file = {
		name: board.name,
		timeZone: board.zone.name,
		columns: board.columns.map(({ name, kind, limit, was, retired }) => ({
			name,
			kind,
			...given('limit', limit),
			...given('was', was?.length ? was : null),
			...given('retired', retired || null),
		})),
		commitment: board.columns[board.commitment]!.name,
		unit: board.unit,
		sprints: board.sprints.map(({ number, starts, ends, startedAt, closedAt }) => ({
			number,
			starts: dayText(starts),
			ends: dayText(ends),
			...given('startedAt', startedAt === null ? null : instantText(startedAt)),
			...given('closedAt', closedAt === null ? null : instantText(closedAt)),
		})),
	};
	return `${JSON.stringify(file, null, 1)}\n`;
}
