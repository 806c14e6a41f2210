import type { BehindCard, FIGURES, LookBackPage } from '../../../core/pages/look-back.ts';
import type { BoardHead } from '../../../core/pages/board.ts';
import { learn, PERSON_DAY, type ClosedSprint } from '../../../core/capacity/promise.ts';
import { carryOver, type CarryOver, type Unfinished } from '../../../core/sprint/carry-over.ts';
import { type Reason } from '../../../core/events/reasons.ts';
import type { Ledger } from '../../../core/sprint/ledger.ts';
import { velocity } from '../../../core/sprint/velocity.ts';
import { rows } from '../database.ts';
import { notFound } from '../problem.ts';
import { inTurns } from '../turns.ts';
import { boardPast, ofThePast } from './past.ts';
import { titlesOf } from './titles.ts';

/** What settling said of the cards of a board, and the cards that splitting one at a close has made. */
async function saidAtTheEnd(head: BoardHead): Promise<{
	said: Unfinished[];
	rests: Set<string>;
}> {
	const [found] = await rows<{
		said: [number, number, Reason, string, number][];
		rests: number[];
	}>(
		`select
			(select coalesce(json_agg(json_build_array(e.after -> 'sprint', c.number, e.value, e.after ->> 'words', coalesce((e.after ->> 'left')::numeric, 0)) order by e.seq), '[]')
			from event e
			join card c on c.id = e.card_id
			where e.board_id = $1 and e.kind = 'unfinished'
				and not exists (select from event_void v where v.board_id = e.board_id and v.seq = e.seq)) as said,
			array(select c.number
			from event e
			join card c on c.id = e.card_id
			join sprint s on s.board_id = e.board_id and s.closed_at = e.at
			where e.board_id = $1 and e.kind = 'split-from') as rests`,
		[head.id],
		'look-back',
	);
	const { said, rests } = found!;
	const key = (number: number) => `${head.key}-${number}`;
	return {
		said: said.map(([sprint, card, reason, words, left]) => ({
			sprint,
			card: key(card),
			reason,
			words: words ?? '',
			left,
		})),
		rests: new Set(rests.map(key)),
	};
}

/** What a sprint could promise when it started, in the board's unit; null where nothing said so. */
function promiseAtStart(head: BoardHead, closed: readonly ClosedSprint[], number: number): number | null {
	const sprint = head.sprints.find((known) => known.number === number);
	if (!sprint?.startedAt || sprint.raw === null || head.unit === 'none') return null;
	if (head.unit === 'hours')
		return sprint.focus === null ? null : sprint.raw * sprint.focus * (1 - (sprint.keepBack ?? 0));
	const ended = new Map(head.sprints.map((known) => [known.number, known.closedAt]));
	const before = closed.filter((one) => (ended.get(one.number) ?? '') <= sprint.startedAt!);
	const { perDay } = learn(before);
	return perDay === null ? null : (perDay * sprint.raw) / PERSON_DAY;
}

/** The closed sprints of a board, in the order of their closing: how fast they went, and what carrying over cost them. */
const closedOf = ofThePast(async (head, { accounts }) => {
	const [{ said, rests }, { closed }] = await Promise.all([
		saidAtTheEnd(head),
		boardPast(head),
		inTurns(accounts.reach()),
	]);
	const byNumber = new Map(accounts.ledgers.map((ledger) => [ledger.number, ledger]));
	const ledgers = closed.map(({ number }) => byNumber.get(number)!);
	const promises = new Map(closed.map(({ number }) => [number, promiseAtStart(head, closed, number)]));
	return {
		closed,
		promises,
		ledgers,
		velocity: velocity(ledgers),
		over: carryOver(ledgers, said, promises, rests),
	};
});

/** How the closed sprints of a board went: velocity, reliability, carry-over and its reasons. */
export async function lookBack(head: BoardHead): Promise<LookBackPage> {
	const { closed, velocity: speed, promises, over } = await closedOf(head);
	const titles = await titlesOf(
		head,
		over.chronic.map((one) => one.card),
	);
	return {
		closed: closed.map((sprint) => ({ ...sprint, promise: promises.get(sprint.number) ?? null })),
		velocity: speed,
		carryOver: {
			sprints: over.sprints.map(({ cards: _cards, brought: _brought, ...figures }) => figures),
			reasons: over.reasons.map(({ cards: _cards, ...figures }) => figures),
			needed: over.needed.map(({ sprints, cards }) => ({ sprints, cards: cards.length })),
			chronic: over.chronic.map((one) => ({ ...one, title: titles[one.card] ?? '' })),
		},
		running: head.sprints.find((sprint) => sprint.startedAt && !sprint.closedAt)?.number ?? null,
	};
}

/**
 * The cards behind one figure of looking back.
 * @param which the number of the sprint, the code of the reason, or how many sprints were needed
 * @throws Problem 404 where there is no such figure
 */
export async function lookBackCards(
	head: BoardHead,
	of: (typeof FIGURES)[number],
	which: string,
): Promise<BehindCard[]> {
	const { ledgers, over } = await closedOf(head);
	const found = cardsOf(ledgers, over, of, which);
	if (!found) throw notFound('figure');
	const titles = await titlesOf(
		head,
		found.map(({ card }) => card),
	);
	return found.map(({ card, amount }) => ({ card, title: titles[card] ?? '', amount }));
}

function cardsOf(
	ledgers: readonly Ledger[],
	over: CarryOver,
	of: (typeof FIGURES)[number],
	which: string,
): { card: string; amount: number | null }[] | undefined {
	const stints = ledgers.find((ledger) => String(ledger.number) === which)?.stints;
	const sprint = over.sprints.find((one) => String(one.number) === which);
	switch (of) {
		case 'committed':
			return stints
				?.filter((stint) => stint.kind === 'committed')
				.map(({ card, entry }) => ({ card, amount: entry }));
		case 'delivered':
			return stints
				?.filter((stint) => stint.outcome === 'done')
				.map(({ card, burned }) => ({ card, amount: burned }));
		case 'kept':
		case 'later':
			return stints
				?.filter((stint) => stint.outcome === 'done' && (stint.kind === 'committed') === (of === 'kept'))
				.map(({ card, burned }) => ({ card, amount: burned }));
		case 'over':
			return sprint?.cards;
		case 'brought':
			return sprint?.brought;
		case 'reason':
			return over.reasons.find(({ reason }) => reason === which)?.cards;
		case 'needed':
			return over.needed
				.find(({ sprints }) => String(sprints) === which)
				?.cards.map((card) => ({ card, amount: null }));
	}
}
