import { stringify } from 'csv-stringify/sync';
import { answers } from '$lib/server/answers';
import { Problem } from '$lib/server/problem';
import type { BoardHead } from '$core/pages/board';
import { boardHead } from '$lib/server/questions/board-head';
import type { FlowPage } from '$core/pages/flow';
import { finishedCards, flowPage } from '$lib/server/questions/flow';
import { titlesOf } from '$lib/server/questions/titles';
import type { RequestEvent } from './$types';

/** The figures of the flow page as CSV: of its finished cards, its days, or its weeks. */
export const GET = answers(async ({ params, url }: RequestEvent, person) => {
	const asked = (name: string) => url.searchParams.get(name);
	const of = asked('of') ?? 'cards';
	const rows = FIGURES.get(of);
	if (!rows) throw new Problem(422, 'invalid.of', 'There are figures of cards, days and weeks.', 'of');
	const head = await boardHead(person, params.board);
	const flow = await flowPage(head, { from: asked('from'), to: asked('to'), days: asked('days') });
	return new Response(stringify(await rows(flow, head), { escape_formulas: true }), {
		headers: {
			'content-type': 'text/csv; charset=utf-8',
			'content-disposition': `attachment; filename="${params.board}-${of}-${flow.from}-${flow.to}.csv"`,
		},
	});
});

const FIGURES = new Map<string, (flow: FlowPage, head: BoardHead) => unknown[][] | Promise<unknown[][]>>(
	Object.entries({
		cards: async (flow: FlowPage, head: BoardHead) => {
			const cards = await finishedCards(head, flow);
			const titles = await titlesOf(
				head,
				cards.map(({ card }) => card),
			);
			const { state: _state, ...fields } = cards[0] ?? { state: null };
			return [
				['title', ...Object.keys(fields)],
				...cards.map(({ state: _, ...card }) => [titles[card.card], ...Object.values(card)]),
			];
		},
		days: (flow: FlowPage) => [
			['day', 'finished', 'arrived', 'wip', ...flow.columns.map((column) => column.name)],
			...flow.report.days.map((day) => [
				day.day,
				day.finished,
				day.arrived,
				day.wip,
				...flow.columns.map((column) => day.columns[column.name]),
			]),
		],
		weeks: (flow: FlowPage) => [
			['week', 'finished'],
			...flow.report.weeks.map((week) => [week.week, week.finished]),
		],
	}),
);
