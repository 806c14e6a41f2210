import { answers } from '$lib/server/answers';
import { log } from '$lib/server/log';
import { Problem } from '$lib/server/problem';

const MOST = 6000;

/** What failed in somebody's browser, written into the log beside what fails on the server. */
export const POST = answers(async ({ request }, person) => {
	const text = await request.text().catch(() => '');
	if (!text || text.length > MOST)
		throw new Problem(422, 'invalid.fault', `A fault is told in at most ${MOST} characters.`, 'error');
	log.warn({ person: person.id, fault: text }, 'a part of a page failed');
	return { noted: true };
});
