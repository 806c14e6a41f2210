import { stringify } from 'csv-stringify/sync';
import { cellOf } from '$core/board/field';
import { fieldsOf } from '$core/board/fields';
import { passing, readFilter } from '$core/board/filter';
import { typeable } from '$core/board/typed';
import { zoneOf } from '$core/calendar/zone';
import { describedWith } from '$lib/server/questions/words';
import { now } from '$lib/server/time';
import { answers } from '$lib/server/answers';
import { backlogPage } from '$lib/server/questions/backlog';
import { boardHead } from '$lib/server/questions/board-head';
import type { RequestEvent } from './$types';

/** The cards of the backlog that are shown, as a table that can be read again. */
export const GET = answers(async ({ params, url }: RequestEvent, person) => {
	const head = await boardHead(person, params.board);
	const { cards } = await backlogPage(head);
	const filter = readFilter(url.searchParams);
	const today = zoneOf(head.timeZone).day(now().getTime());
	const described = filter.text ? await describedWith(person, [params.board], filter.text) : [];
	const fields = fieldsOf({ board: head, today, me: person.id });
	const passes = passing(filter, fields, undefined, new Set(described));
	const titles = new Map(cards.map((card) => [card.id, card.title]));
	const columns = fields.filter(typeable);
	const rows = cards
		// Of private cards that are not for whoever asks a table says nothing.
		.filter((card) => !card.hidden && passes(card))
		.map((card) => [
			`${head.key}-${card.number}`,
			...columns.map((field) => cellOf(field, card)),
			titles.get(card.parent ?? ''),
		]);
	const header = ['key', ...columns.map(({ name }) => name.toLowerCase()), 'part of'];
	return new Response(stringify([header, ...rows], { escape_formulas: true }), {
		headers: {
			'content-type': 'text/csv; charset=utf-8',
			'content-disposition': `attachment; filename="${params.board}-backlog.csv"`,
		},
	});
});
