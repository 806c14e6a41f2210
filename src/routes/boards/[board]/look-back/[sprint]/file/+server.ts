import { stringify } from 'csv-stringify/sync';
import { reportMarkdown, reportRows } from '$core/exchange/sprint-file';
import { answers } from '$lib/server/answers';
import { Problem } from '$lib/server/problem';
import { boardHead } from '$lib/server/questions/board-head';
import { reportPage } from '$lib/server/questions/report';
import type { RequestEvent } from './$types';

/** The report of a sprint as a file: Markdown, or its stints as CSV. */
export const GET = answers(async ({ params, url }: RequestEvent, person) => {
	const as = url.searchParams.get('as') ?? 'md';
	if (as !== 'md' && as !== 'csv')
		throw new Problem(422, 'invalid.as', 'A report is written as md or as csv.', 'as');
	const head = await boardHead(person, params.board);
	const report = await reportPage(head, Number(params.sprint));
	const text =
		as === 'md' ? reportMarkdown(report, head) : stringify(reportRows(report), { escape_formulas: true });
	return new Response(text, {
		headers: {
			'content-type': `text/${as === 'md' ? 'markdown' : 'csv'}; charset=utf-8`,
			'content-disposition': `attachment; filename="${head.slug}-sprint-${report.sprint.number}.${as}"`,
		},
	});
});
