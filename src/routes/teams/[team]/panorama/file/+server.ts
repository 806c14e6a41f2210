import { stringify } from 'csv-stringify/sync';
import { readAsked, readAskedFor } from '../../../../../core/panorama/asked';
import { keyOf, meantCards } from '../../../../../core/panorama/rows';
import { answers } from '$lib/server/answers';
import { panoramaPage } from '$lib/server/questions/panorama';
import type { RequestEvent } from './$types';

/** The cards with dates that are looked at, as CSV. */
export const GET = answers(async ({ params, url }: RequestEvent, person) => {
	const asked = readAsked(url.searchParams);
	const page = await panoramaPage(person, params.team, readAskedFor(url.searchParams));
	const boards = new Map(page.boards.map((board) => [board.id, board.name]));
	const people = new Map(page.people.map((one) => [one.id, one.name]));
	const initiatives = new Map(page.initiatives.map((one) => [one.id, one.name]));
	const waits = new Map<number, string[]>();
	for (const [from, to] of page.links)
		waits.set(to, [...(waits.get(to) ?? []), keyOf(page, page.cards[from]!)]);
	const rows = [
		['card', 'title', 'board', 'initiative', 'start', 'due', 'state', 'owners', 'waits for'],
		...meantCards(page, asked).map((at) => {
			const card = page.cards[at]!;
			return [
				...[
					keyOf(page, card),
					card.title,
					boards.get(card.board) ?? '',
					initiatives.get(card.initiative ?? '') ?? '',
				],
				...[
					card.start ?? '',
					card.due ?? '',
					card.clock === 'none' ? 'waits' : card.clock === 'running' ? 'in hand' : 'done',
				],
				...[card.owners.map((id) => people.get(id) ?? '').join(', '), (waits.get(at) ?? []).join(' ')],
			];
		}),
	];
	return new Response(stringify(rows, { escape_formulas: true }), {
		headers: {
			'content-type': 'text/csv; charset=utf-8',
			'content-disposition': `attachment; filename="panorama-${page.today}.csv"`,
		},
	});
});
