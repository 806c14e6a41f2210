import { fsum } from 'd3-array';
import type {
	BEHIND_REPORT,
	ReportCard,
	ReportPage,
	ReportShown,
	ScopeChange,
} from '../../../core/pages/look-back.ts';
import type { BoardHead } from '../../../core/pages/board.ts';
import { sprintCards, sprintOdds, sprintParts } from '../../../core/board/odds.ts';
import { parseDay } from '../../../core/calendar/days.ts';
import type { Instant } from '../../../core/calendar/zone.ts';
import type { Reason } from '../../../core/events/reasons.ts';
import { follow } from '../../../core/sprint/follow.ts';
import type { CardAmount, Ledger, Move } from '../../../core/sprint/ledger.ts';
import type { Decision } from '../../../core/sprint/settle.ts';
import { wholeNames } from '../../../core/words.ts';
import { columnwise } from '../../columnwise.ts';
import { rows } from '../database.ts';
import { notFound } from '../problem.ts';
import { now } from '../time.ts';
import { agreedOf } from './agreed.ts';
import { accountsOf } from './fold.ts';
import { boardFile } from './history.ts';
import { LEFT_ON } from './initiatives.ts';
import { listsOf } from './ledger-lists.ts';
import { planPage } from './plan.ts';
import { dayHoursOf } from './promise.ts';
import { rotaOf } from './rota.ts';
import { titlesOf, TITLE_TO } from './titles.ts';

interface Found {
	goalMet: ReportPage['goalMet'];
	goalWords: string;
	raw: Record<string, number> | null;
	worked: Record<string, ReportPage['use'][number]['cards']>;
	said: [card: number, reason: Reason, words: string, decision: Decision, left: number][];
	doers: [card: number, at: number, who: string | null][];
	budgets: (Omit<ReportPage['budgets'][number], 'cards'> & {
		/** Those of other boards with their titles. */
		cards: (CardAmount & { title: string | null })[];
	})[];
}

/**
 * The report of a sprint that runs or is closed.
 * @throws Problem 404 when the board has no such sprint, or it has not started
 */
export async function reportPage(head: BoardHead, number: number): Promise<ReportPage> {
	const started = head.sprints.filter((sprint) => sprint.startedAt);
	const sprint = started.find((known) => known.number === number);
	if (!sprint) throw notFound('report');
	const running = !sprint.closedAt;
	const accounts = await accountsOf(head);
	const ledgerNow = () => accounts.ledgers.find((one) => one.number === number)!;
	const [titles, found, rota, plan, retrospective] = await Promise.all([
		titlesOf(
			head,
			ledgerNow().stints.map((stint) => stint.card),
		),
		ask(
			head,
			number,
			changesOf(ledgerNow()).map((change) => change.at),
		),
		rotaOf(head.teamId),
		running && head.unit === 'hours' ? planPage(head, number) : null,
		agreedOf(head, number),
	]);
	// The fold goes on meanwhile: its totals, stints and cards are read at one moment.
	const ledger = ledgerNow();
	const { stints, moves, done } = listsOf(ledger);
	const at = now().getTime();
	const file = boardFile(head);
	const { from, to, hours } = dayHoursOf(head, rota, number);
	const dates = { from, to, startedAt: Date.parse(sprint.startedAt!), closedAt: instant(sprint.closedAt) };
	const spent = found.budgets.flatMap(({ cards }) => cards);
	for (const { card, title } of spent) if (title !== null) titles[card] = title;
	// On cards that were never in it hours are spent too; and others may have come meanwhile.
	const others = [...ledger.stints, ...spent].flatMap(({ card }) => (card in titles ? [] : card));
	const place = started.indexOf(sprint);
	return {
		sprint,
		goalMet: found.goalMet,
		goalWords: found.goalWords,
		closed: !running,
		ledger: { ...ledger, stints, moves },
		finished: running
			? columnwise(
					ledger.stints.filter(
						({ card, outcome }) => outcome === 'done' || (outcome === null && accounts.cards.get(card)!.done),
					),
				)
			: done,
		following: follow(file.zone, dates, ledger, hours, at),
		scope: columnwise(scopeOf(head, changesOf(ledger), found.doers)),
		unfinished: columnwise(
			found.said.map(([card, reason, words, decision, left]) => ({
				sprint: number,
				card: `${head.key}-${card}`,
				reason,
				words,
				decision,
				left,
			})),
		),
		surprises: surprisesOf(sprint, ledger, head.unit),
		use: useOf(head, found),
		budgets: found.budgets.map((budget) => ({
			...budget,
			cards: columnwise(budget.cards.map(({ card, amount }) => ({ card, amount }))),
		})),
		odds:
			plan &&
			sprintOdds(head, plan, sprintParts(head, plan, sprintCards(head, plan.cards, number)), plan.cards),
		titles: Object.assign(titles, await titlesOf(head, others)),
		retrospective,
		before: started[place - 1]?.number ?? null,
		after: started[place + 1]?.number ?? null,
	};
}

/** A report as its page is told it: what is behind a day, somebody's hours or a budget is asked for when it is opened. */
export function shown({ ledger, use, budgets, titles, ...report }: ReportPage): ReportShown {
	const counted = <T extends { cards: readonly CardAmount[] }>(figures: readonly T[]) =>
		figures.map((figure) => ({ ...figure, cards: figure.cards.length }));
	const { moves: _, ...sums } = ledger;
	const named = [ledger.stints, report.scope, report.unfinished].flatMap((list) =>
		list.map(({ card }) => card),
	);
	return {
		...report,
		ledger: sums,
		use: counted(use),
		budgets: counted(budgets),
		titles: Object.fromEntries(named.flatMap((card) => (card in titles ? [[card, titles[card]!]] : []))),
	};
}

/**
 * The cards behind one figure of a report.
 * @param which the day, the id of the person, or the name of the initiative
 * @throws Problem 404 where there is no such report or figure
 */
export async function reportCards(
	head: BoardHead,
	number: number,
	of: (typeof BEHIND_REPORT)[number],
	which: string,
): Promise<ReportCard[]> {
	const report = await reportPage(head, number);
	const found = behind(head, report, of, which);
	if (!found) throw notFound('figure');
	return found.map(({ card, amount, kind }) => ({
		card,
		title: report.titles[card] ?? '',
		amount,
		...(kind && { kind }),
	}));
}

function behind(
	head: BoardHead,
	{ ledger, use, budgets }: ReportPage,
	of: (typeof BEHIND_REPORT)[number],
	which: string,
): readonly (CardAmount & { kind?: Move['kind'] })[] | undefined {
	if (of === 'hours') return use.find(({ person }) => person === which)?.cards;
	if (of === 'budget') return budgets.find(({ initiative }) => initiative === which)?.cards;
	const { zone } = boardFile(head);
	const day = parseDay(which);
	return day === null
		? undefined
		: ledger.moves.filter((move) => move.amount !== 0 && zone.day(move.at) === day);
}

const instant = (text: string | null) => (text === null ? null : Date.parse(text));

/** @param changed when its scope changed: who did that is asked */
async function ask(head: BoardHead, number: number, changed: readonly Instant[]): Promise<Found> {
	const [found] = await rows<Found>(
		`select s.goal_met as "goalMet", s.goal_words as "goalWords", s.raw_hours as raw,
			(select coalesce(json_object_agg(person_id, cards), '{}') from (
				select person_id, json_agg(json_build_object('card', $3 || '-' || number, 'amount', hours) order by hours desc, number) as cards
				from (
					select person_id, hours, (select number from card where id = card_id) as number
					from (
						select person_id, card_id, sum(hours) as hours
						from time_entry
						where sprint_id = s.id and withdrawn_at is null
						group by 1, 2
					) sums
				) each
				group by 1
			) t) as worked,
			(select coalesce(json_agg(json_build_array(c.number, e.value, coalesce(e.after ->> 'words', ''), e.after ->> 'decision',
				(e.after ->> 'left')::numeric) order by e.seq), '[]')
			from event e
			join card c on c.id = e.card_id
			where e.board_id = s.board_id and e.kind = 'unfinished' and e.at = s.closed_at and (e.after ->> 'sprint')::int = s.number
				and not exists (select from event_void v where v.board_id = e.board_id and v.seq = e.seq)) as said,
			(select coalesce(json_agg(json_build_array((select number from card where id = e.card_id), extract(epoch from e.at) * 1000,
				(select name from person where id = e.actor_id))), '[]')
			from event e
			where e.board_id = s.board_id and e.at = any($4) and e.card_id is not null
				and e.kind in ('sprint', 'column', 'archived', 'sized', 'left', 'split')) as doers,
			(select coalesce(json_agg(json_build_object('initiative', i.name, 'budget', i.budget_hours,
				'worked', coalesce(w.hours, 0), 'here', coalesce(w.here, 0), 'left', ${LEFT_ON('i.id')}, 'cards', coalesce(w.cards, '[]')) order by i.name), '[]')
			from initiative i
			left join lateral (
				select sum(hours) as hours, sum(here) as here,
					json_agg(json_build_object('card', key || '-' || number, 'amount', hours, 'title', title) order by hours desc, key, number)
						filter (where key is not null) as cards
				from (
					select hours, here, b.key, c.number, case when c.board_id <> i.board_id then ${TITLE_TO('$5')} end as title
					from (
						select card_id, sum(hours) as hours, sum(hours) filter (where sprint_id = s.id) as here
						from time_entry
						where card_id = any(array(select id from card where initiative_id = i.id)) and withdrawn_at is null
						group by 1
					) sums
					join card c on c.id = sums.card_id
					left join board_right r on r.board_id = c.board_id and r.person_id = $5
					left join board b on b.id = r.board_id
				) each
			) w on true
			where i.board_id = s.board_id and i.budget_hours is not null) as budgets
		from sprint s
		where s.board_id = $1 and s.number = $2`,
		[head.id, number, head.key, [...new Set(changed)].map((at) => new Date(at)), head.me],
		'report',
	);
	return found!;
}

const changesOf = (ledger: Ledger) =>
	ledger.moves.filter(({ kind, amount }) => kind !== 'burned' && amount !== 0);

function scopeOf(head: BoardHead, changes: readonly Move[], doers: Found['doers']): ScopeChange[] {
	const who = new Map(doers.map(([card, at, name]) => [`${head.key}-${card} ${at}`, name]));
	return changes.flatMap(({ at, card, kind, amount }) =>
		kind === 'burned'
			? []
			: [{ at: new Date(at).toISOString(), card, kind, amount, who: who.get(`${card} ${at}`) ?? null }],
	);
}

function surprisesOf(
	sprint: BoardHead['sprints'][number],
	ledger: Ledger,
	unit: BoardHead['unit'],
): ReportPage['surprises'] {
	if (unit !== 'hours' || sprint.raw === null || sprint.focus === null) return null;
	const unplanned = ledger.stints.filter((stint) => !stint.planned);
	return {
		kept: sprint.raw * sprint.focus * (sprint.keepBack ?? 0),
		worked: fsum(unplanned, (stint) => stint.worked),
		left: fsum(unplanned, (stint) => (stint.outcome === null ? stint.exit : 0)),
		cards: [...new Set(unplanned.map((stint) => stint.card))],
	};
}

function useOf(head: BoardHead, { raw, worked }: Found): ReportPage['use'] {
	const name = wholeNames(head.people);
	return head.people
		.map(({ id }) => {
			const cards = worked[id] ?? [];
			const hours = fsum(cards, ({ amount }) => amount);
			return { person: id, name: name(id), raw: raw?.[id] ?? 0, worked: hours, cards: columnwise(cards) };
		})
		.filter((one) => one.raw > 0 || one.worked > 0);
}
