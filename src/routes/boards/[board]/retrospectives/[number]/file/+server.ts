import { retrospectiveMarkdown } from '$core/retrospective/file';
import { answers } from '$lib/server/answers';
import { boardHead } from '$lib/server/questions/board-head';
import { retrospectivePage } from '$lib/server/questions/retrospective';
import type { RequestEvent } from './$types';

/** A retrospective as Markdown. */
export const GET = answers(async ({ params }: RequestEvent, person) => {
	const head = await boardHead(person, params.board);
	const retro = await retrospectivePage(head, Number(params.number));
	return new Response(retrospectiveMarkdown(retro, head.name), {
		headers: {
			'content-type': 'text/markdown; charset=utf-8',
			'content-disposition': `attachment; filename="${head.slug}-retrospective-${retro.number}.md"`,
		},
	});
});
