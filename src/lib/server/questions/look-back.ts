import type { LookBackPage } from '../../../core/board/look-back.ts';
import type { BoardHead } from '../../../core/board/view.ts';
import { closedSprints } from '../../../core/capacity/past.ts';
import { learn, PERSON_DAY } from '../../../core/capacity/promise.ts';
import { carryOver, type Reason, type Unfinished } from '../../../core/sprint/carry-over.ts';
import type { Ledger } from '../../../core/sprint/ledger.ts';
import { velocity } from '../../../core/sprint/velocity.ts';
import { rows } from '../database.ts';
import { now } from '../time.ts';
import { boardAccounts, boardFile } from './history.ts';

/** What settling said of the cards of a board, and the cards that splitting one at a close has made; titles of all cards. */
async function saidAtTheEnd(head: BoardHead): Promise<{
	said: Unfinished[];
	rests: Set<string>;
	titles: Record<string, string>;
}> {
	const [found] = await rows<{
		said: [number, number, Reason, string][];
		rests: number[];
		titles: Record<string, string>;
	}>(
		`select
			(select coalesce(json_agg(json_build_array(e.after -> 'sprint', c.number, e.value, e.after ->> 'words') order by e.seq), '[]')
			from event e
			join card c on c.id = e.card_id
			where e.board_id = $1 and e.kind = 'unfinished'
				and not exists (select from event_void v where v.board_id = e.board_id and v.seq = e.seq)) as said,
			array(select c.number
			from event e
			join card c on c.id = e.card_id
			join sprint s on s.board_id = e.board_id and s.closed_at = e.at
			where e.board_id = $1 and e.kind = 'split-from') as rests,
			(select coalesce(json_object_agg($2 || '-' || number, title), '{}') from card where board_id = $1) as titles`,
		[head.id, head.key],
		'look-back',
	);
	const { said, rests, titles } = found!;
	const key = (number: number) => `${head.key}-${number}`;
	return {
		said: said.map(([sprint, card, reason, words]) => ({
			sprint,
			card: key(card),
			reason,
			words: words ?? '',
		})),
		rests: new Set(rests.map(key)),
		titles,
	};
}

/** What a sprint could promise when it started, in the board's unit; null where nothing said so. */
export function promiseAtStart(
	head: BoardHead,
	closed: readonly ReturnType<typeof closedSprints>[number][],
	number: number,
): number | null {
	const sprint = head.sprints.find((known) => known.number === number);
	if (!sprint?.startedAt || sprint.raw === null || head.unit === 'none') return null;
	if (head.unit === 'hours')
		return sprint.focus === null ? null : sprint.raw * sprint.focus * (1 - (sprint.keepBack ?? 0));
	const ended = new Map(head.sprints.map((known) => [known.number, known.closedAt]));
	const before = closed.filter((one) => (ended.get(one.number) ?? '') <= sprint.startedAt!);
	const { perDay } = learn(before);
	return perDay === null ? null : (perDay * sprint.raw) / PERSON_DAY;
}

/** How the closed sprints of a board went: velocity, reliability, carry-over and its reasons. */
export async function lookBack(head: BoardHead): Promise<LookBackPage> {
	const file = boardFile(head);
	const at = now().getTime();
	const [{ ledgers }, { said, rests, titles }] = await Promise.all([boardAccounts(head), saidAtTheEnd(head)]);
	const raw = new Map(head.sprints.map((sprint) => [sprint.number, sprint.raw ?? 0]));
	const closed = closedSprints(file, ledgers, raw, at);
	const inOrder = closed.map(({ number }) => ledgers.find((ledger) => ledger.number === number)!);
	const promises = new Map(closed.map(({ number }) => [number, promiseAtStart(head, closed, number)]));
	const over = carryOver(inOrder, said, promises, rests);
	const running = ledgers.find((ledger) => !closed.some((one) => one.number === ledger.number));
	return {
		closed: closed.map((sprint) => ({ ...sprint, promise: promises.get(sprint.number) ?? null })),
		velocity: velocity(inOrder),
		carryOver: over,
		cards: Object.fromEntries(inOrder.map((ledger) => [ledger.number, cardsOf(ledger)])),
		running: running?.number ?? null,
		titles: named(titles, over, inOrder),
	};
}

const cardsOf = ({ stints }: Ledger): LookBackPage['cards'][number] => ({
	committed: stints
		.filter((stint) => stint.kind === 'committed')
		.map(({ card, entry }) => ({ card, amount: entry })),
	delivered: stints
		.filter((stint) => stint.outcome === 'done')
		.map(({ card, burned }) => ({ card, amount: burned })),
});

/** Titles of the cards that the page can open. */
function named(
	titles: Record<string, string>,
	over: LookBackPage['carryOver'],
	ledgers: readonly Ledger[],
): Record<string, string> {
	const cards = new Set([
		...ledgers.flatMap((ledger) => ledger.stints.map((stint) => stint.card)),
		...over.chronic.map((one) => one.card),
	]);
	return Object.fromEntries([...cards].map((card) => [card, titles[card] ?? '']));
}
