import { setTimeout } from 'node:timers/promises';
import { rows } from './database.ts';
import { log } from './log.ts';
import { VERSION, WORTH } from './questions/fold-snapshot.ts';
import type { Person } from './sign-in.ts';

/** Answers a request as the server will once it listens. */
export type Respond = (
	request: Request,
	options: { platform: App.Platform; getClientAddress: () => string },
) => Promise<Response>;

/** So many boards are looked at, and so many of their last events for one that somebody did. */
const BOARDS = 5;
const LATE = 200;

/** No look begins later; and the server listens after so long at the latest. */
const ENOUGH_MS = 2000;
const LONGEST_MS = 5000;

/** The pages of a board that are asked for most: twice, as what runs a second time is quicker; then what takes longer. */
const OFTEN = ['', '/flow', '/backlog', '/plan'];
const PAGES = [...OFTEN, ...OFTEN, '/rounds', '/look-back'];

/**
 * Looks at the boards that were worked on last before anybody can: a process that has just begun runs everything for the
 * first time and has read nothing yet, and whoever came first would wait for that. Each is seen as by the one who did
 * something there last, and nothing is written but what is kept of long histories.
 * @returns what is still to be done while the server listens: boards whose long history has to be read whole
 */
export async function warmUp(respond: Respond): Promise<() => Promise<void>> {
	const began = performance.now();
	const looked = { pages: 0, left: [] as Look[] };
	const over = new AbortController();
	await Promise.race([
		lookAround(respond, began + ENOUGH_MS, looked).catch(couldNot),
		setTimeout(LONGEST_MS, undefined, over).catch(() => undefined),
	]);
	over.abort();
	log.info({ pages: looked.pages, took: Math.round(performance.now() - began) }, 'pages are warm');
	return async () => {
		for (const one of looked.left) await look(respond, one).catch(couldNot);
	};
}

async function lookAround(
	respond: Respond,
	until: number,
	looked: { pages: number; left: Look[] },
): Promise<void> {
	const boards = (await workedOn()).map((board) => ({ ...board, page: '' }));
	looked.left = boards.filter(({ known }) => !known);
	const [first, ...others] = boards.filter(({ known }) => known);
	if (!first) return;
	const [board, ...pages] = PAGES.map((page) => ({ ...first, page }));
	for (const one of [board!, ...others, ...pages]) {
		if (performance.now() > until) return;
		await look(respond, one);
		looked.pages++;
	}
}

async function look(respond: Respond, { slug, page, id, name, initials, email, scope }: Look): Promise<void> {
	const answer = await respond(new Request(`http://localhost/boards/${slug}${page}`), {
		platform: { visitor: { id, name, initials, email, scope } },
		getClientAddress: () => '127.0.0.1',
	});
	await answer.arrayBuffer();
}

const couldNot = (error: Error) => log.warn({ error: error.message }, 'a page could not be looked at');

interface Look extends Person {
	slug: string;
	page: string;
	/** Its history is short, or what it was folded to is kept. */
	known: boolean;
}

/** The boards on which something happened last, each with who did it. */
const workedOn = () =>
	rows<Omit<Look, 'page'>>(
		`select b.slug, p.id, p.name, p.initials, p.email, 'read' as scope,
			b.last_seq < $2 or exists (select from fold_snapshot k where k.board_id = b.id and k.version = $3) as known
		from board b
		cross join lateral (
			select late.actor_id, late.at
			from (select e.actor_id, e.at, e.seq from event e where e.board_id = b.id order by e.seq desc limit ${LATE}) late
			where late.actor_id is not null order by late.seq desc limit 1
		) last
		join person p on p.id = last.actor_id
		where b.away_at is null
		order by last.at desc
		limit $1`,
		[BOARDS, WORTH, VERSION],
	);
