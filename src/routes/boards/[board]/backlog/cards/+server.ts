import { stringify } from 'csv-stringify/sync';
import { fieldsOf } from '$core/board/fields';
import { passing, readFilter } from '$core/board/filter';
import { zoneOf } from '$core/calendar/zone';
import { describedWith } from '$lib/server/questions/words';
import { now } from '$lib/server/time';
import { CARD_FIELDS } from '$core/exchange/card-file';
import { shownValue } from '$core/fields/own';
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
	const described = filter.text ? await describedWith(person, params.board, filter.text) : [];
	const passes = passing(
		filter,
		fieldsOf({ board: head, today, me: person.id }),
		undefined,
		new Set(described),
	);
	const people = new Map(head.people.map(({ id, name }) => [id, name]));
	const titles = new Map(cards.map((card) => [card.id, card.title]));
	const rows = cards
		// Of private cards that are not for whoever asks a table says nothing.
		.filter((card) => !card.hidden && passes(card))
		.map((card) => [
			`${head.key}-${card.number}`,
			card.title,
			card.size,
			card.type,
			card.class,
			card.labels.join('; '),
			card.owners.map((owner) => people.get(owner)).join('; '),
			card.start,
			card.due,
			card.initiative,
			card.parent ? titles.get(card.parent) : null,
			card.left,
			card.ready ? 'yes' : 'no',
			card.sprint,
			...head.fields.map((field) => shownValue(field, card.fields[field.id])),
		]);
	const header = [
		'key',
		...CARD_FIELDS.filter((field) => field !== 'description'),
		'left',
		'ready',
		'sprint',
		...head.fields.map(({ name }) => name),
	];
	return new Response(stringify([header, ...rows], { escape_formulas: true }), {
		headers: {
			'content-type': 'text/csv; charset=utf-8',
			'content-disposition': `attachment; filename="${params.board}-backlog.csv"`,
		},
	});
});
