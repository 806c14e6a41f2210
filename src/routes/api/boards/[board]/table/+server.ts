import { fieldsOf } from '$core/board/fields';
import {
	badLines,
	guessMapping,
	readCards,
	readTable,
	tableHeads,
	type Mapping,
} from '$core/exchange/card-file';
import { reads } from '$lib/server/answers';
import { Problem } from '$lib/server/problem';
import { boardHead } from '$lib/server/questions/board-head';
import { now } from '$lib/server/time';
import { zoneOf } from '$core/calendar/zone';
import type { RequestEvent } from './$types';

const MOST = 1_000_000;

/** Reads a table of cards (CSV) and says what would be made of it, and which lines cannot be read. Nothing is made. */
export const POST = reads('/api/boards/{board}/table', async ({ params, request }: RequestEvent, person) => {
	const head = await boardHead(person, params.board);
	const { file, mapping } = await body(request);
	const read = readTable(file);
	if (!read.ok)
		throw new Problem(
			422,
			'table.unreadable',
			`Line ${read.errors[0]!.line}: ${read.errors[0]!.reason}.`,
			'file',
		);
	const looking = { board: head, today: zoneOf(head.timeZone).day(now().getTime()), me: person.id };
	const heads = tableHeads(fieldsOf(looking));
	const map = mapping ?? guessMapping(read.table, heads);
	const found = readCards(read.table, map, looking);
	const bad = found.errors.length ? badLines(read.table, found.errors) : '';
	return { header: read.table.header, heads, mapping: map, ...found, bad };
});

async function body(request: Request): Promise<{ file: string; mapping: Mapping | null }> {
	let given: { file?: unknown; mapping?: unknown };
	try {
		given = (await request.json()) as typeof given;
	} catch (error) {
		const large = (error as { status?: number }).status === 413;
		throw large
			? new Problem(
					413,
					'body.too_large',
					'This file is too large: at most a million characters are read.',
					'file',
				)
			: new Problem(400, 'body.malformed', 'Send a JSON object with file and mapping.');
	}
	if (typeof given?.file !== 'string')
		throw new Problem(422, 'invalid.file', 'The file must be text.', 'file');
	if (given.file.length > MOST)
		throw new Problem(
			413,
			'body.too_large',
			'This file is too large: at most a million characters are read.',
			'file',
		);
	const mapping = given.mapping;
	if (mapping == null) return { file: given.file, mapping: null };
	const whole =
		typeof mapping === 'object' &&
		Object.values(mapping).every((place) => Number.isInteger(place) && (place as number) >= 0);
	if (!whole)
		throw new Problem(
			422,
			'invalid.mapping',
			'The mapping names a column, counted from 0, for each field.',
			'mapping',
		);
	return { file: given.file, mapping: mapping as Mapping };
}
