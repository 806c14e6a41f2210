import { fsum } from 'd3-array';
import type { MilestoneView } from '../../../core/pages/panorama.ts';
import type { RoundsPage } from '../../../core/pages/rounds.ts';
import { asUsed } from '../../../core/board/used.ts';
import { laneOf } from '../../../core/board/lanes.ts';
import type { BoardHead, CardView } from '../../../core/pages/board.ts';
import { dayText, parseDay } from '../../../core/calendar/days.ts';
import { teamWorks } from '../../../core/calendar/team-days.ts';
import { hoursOn, shareOn } from '../../../core/capacity/hours.ts';
import { leftOn, timerHours } from '../../../core/capacity/timer.ts';
import { percentile } from '../../../core/flow/percentile.ts';
import { findings } from '../../../core/rounds/findings.ts';
import type { RoundsCard, RoundsState } from '../../../core/rounds/state.ts';
import { rows } from '../database.ts';
import type { Person } from '../sign-in.ts';
import { now } from '../time.ts';
import { columnwise } from '../../columnwise.ts';
import { boardCards } from './board-cards.ts';
import { boardFold, lastingOn } from './fold.ts';
import { boardFile, placesInFile } from './history.ts';
import { initiativesOf } from './initiatives.ts';
import { milestonesOf, withLate } from './milestones.ts';
import { listOf, openCards } from './open-cards.ts';
import { planPage } from './plan.ts';
import { promiseOf, rawOf, workersOf } from './promise.ts';
import { boardTime } from './ribbon.ts';
import { rotaOf } from './rota.ts';
import { oddsOf } from './sprint-odds.ts';
import { sprintParts } from './sprint-parts.ts';

/** A queue's usual fullness is read from so many days. */
const USUAL_DAYS = 90;

/** What needs somebody on a board today, worst first. */
export async function roundsPage(head: BoardHead, person: Person): Promise<RoundsPage> {
	const at = now().getTime();
	const file = boardFile(head);
	const { zone } = file;
	const today = zone.day(at);
	const running = head.sprints.find((sprint) => sprint.startedAt && !sprint.closedAt) ?? null;
	const coming = head.sprints.find((sprint) => !sprint.startedAt) ?? null;
	const [board, plan, last, rota, { carried }, milestones, [more]] = await Promise.all([
		boardCards(person, head.slug),
		planPage(head, running?.number ?? null),
		lastingOn(head),
		rotaOf(head.teamId),
		boardTime(head).then(({ ribbon }) => ribbon),
		milestonesAhead(head, person, today),
		rows<{
			aside: { finding: string; reason: string; by: string }[];
			timers: { person: string; card: string; number: number; started: string }[];
			touched: Record<number, number>;
			questions: { person: string; name: string; card: number; asker: string; comment: number; at: string }[];
		}>(
			`select
				(select coalesce(json_agg(json_build_object('finding', d.finding, 'reason', d.reason, 'by', p.name)), '[]')
				from dismissal d
				join person p on p.id = d.person_id
				where d.board_id = $1 and d.day = $2 and d.withdrawn_at is null) as aside,
				(select coalesce(json_agg(json_build_object('person', t.person_id, 'card', c.id, 'number', c.number, 'started', t.started_at)), '[]')
				from timer t
				join card c on c.id = t.card_id
				where c.board_id = $1) as timers,
				(select coalesce(json_object_agg(c.number, extract(epoch from e.at) * 1000), '{}')
				from card c
				cross join lateral (select at from event where card_id = c.id order by seq desc limit 1) e
				where c.board_id = $1 and c.clock = 'running' and c.archived_at is null) as touched,
				(select coalesce(json_agg(json_build_object('person', q.person_id, 'name', p.name, 'card', c.number,
					'asker', coalesce(a.name, 'Somebody'), 'comment', e.seq, 'at', e.at)), '[]')
				from question q
				join card c on c.id = q.card_id and c.archived_at is null
				join event e on e.board_id = q.board_id and e.seq = q.seq
				join person p on p.id = q.person_id
				left join person a on a.id = e.actor_id
				where q.board_id = $1 and may_see(c, $3)
					and (q.answered_seq is null or exists (
						select from event_void v where v.board_id = q.board_id and v.seq = q.answered_seq))
					and not exists (select from event_void v where v.board_id = q.board_id and v.seq = q.seq)) as questions`,
			[head.id, dayText(today), head.me],
			'rounds',
		),
	]);
	const [fold, known] = await Promise.all([boardFold(head), openCards(head.id, head.seq, now())]);
	const cards = listOf(
		known,
		head.me,
		// As that head has it: another may have been read since the board was set otherwise.
		`rounds ${JSON.stringify([head.off, head.lanes])}`,
		(card) => card.clock !== 'done' && (card.column !== null || card.sprint !== null || card.due !== null),
		(card) => asUsed(head, card),
	);
	const { ledgers } = fold.accounts;
	const day = (instant: number | null) => (instant === null ? null : zone.day(instant));
	const first = fold.flow.first === null ? today : zone.day(fold.flow.first);
	const places = placesInFile(head);
	const past = fold.flow.days.between(Math.max(first, today - USUAL_DAYS), today - 1);
	const timers = more!.timers.map((timer) => ({
		...timer,
		hours: timerHours(Date.parse(timer.started), at),
		forgotten: leftOn(zone, Date.parse(timer.started), at),
	}));
	/** Who has a card in hand. */
	const busy = new Set(cards.flatMap((card) => (card.clock === 'running' ? card.owners : [])));
	const people = workersOf(head).map((one) => ({
		id: one.id,
		name: one.name,
		hours: hoursOn(rota, one.id, today) * shareOn(rota, one.id, head.id, today),
		idleSince: busy.has(one.id) ? null : zone.day(last.idle.get(one.id) ?? first),
	}));
	const ledger = running && ledgers.find((one) => one.number === running.number);
	const parts = running ? sprintParts(head, plan, running, cards) : [];
	const nextRaw = coming && rawOf(head, rota, coming.number, today);
	const state: RoundsState = {
		today,
		works: (on) => teamWorks(rota, on),
		unit: head.unit,
		personLimit: head.personLimit,
		columns: head.columns.map((column, i) => ({
			id: column.id,
			name: column.name,
			kind: column.kind,
			limit: column.limit,
			starvedSince: day(last.starved[places[i]!] ?? null),
			usual:
				past.length < 30
					? null
					: percentile(
							past.map((one) => one.columns[places[i]!]!).sort((a, b) => a - b),
							85,
						),
		})),
		lanes: head.lanes,
		cards: cards.map((card) => roundsCard(head, card, today, zone, more!.touched, carried)),
		people,
		parts,
		expectation: board.expectation,
		sprint: running && {
			number: running.number,
			starts: parseDay(running.starts)!,
			ends: parseDay(running.ends)!,
		},
		next: coming && {
			number: coming.number,
			starts: parseDay(coming.starts)!,
			placed: fsum(
				cards.filter((card) => card.sprint === coming.number),
				(card) => card.left,
			),
			promise:
				nextRaw === null || head.unit === 'none'
					? null
					: promiseOf(head, coming.number, plan.learned, nextRaw),
		},
		odds: running && head.unit === 'hours' ? await oddsOf(head, plan, parts) : null,
		surprises:
			running && ledger && head.unit === 'hours' && running.raw !== null && running.focus !== null
				? {
						worked: fsum(ledger.stints, (stint) => (stint.planned ? 0 : stint.worked)),
						left: fsum(ledger.stints, (stint) => (stint.planned || stint.outcome ? 0 : stint.exit)),
						kept: running.raw * running.focus * (running.keepBack ?? 0),
						cards: ledger.stints
							.filter((stint) => !stint.planned)
							.map((stint) => Number(stint.card.slice(head.key.length + 1))),
					}
				: null,
		timers: timers
			.filter((timer) => timer.forgotten)
			.map(({ person: whose, number, hours }) => ({ person: whose, card: number, hours })),
		milestones: milestones.map(({ id, name, day: on, late }) => ({
			id,
			name,
			day: parseDay(on)!,
			late: late.flatMap(({ what, days }) => {
				const own = what.startsWith(`${head.key}-`) ? Number(what.slice(head.key.length + 1)) : null;
				return [
					{ what, days, card: own !== null && cards.some(({ number }) => number === own) ? own : null },
				];
			}),
		})),
		questions: more!.questions.map(({ at: asked, ...question }) => ({
			...question,
			since: zone.day(Date.parse(asked)),
		})),
	};
	const all = findings(state);
	const aside = new Map(more!.aside.map((one) => [one.finding, one]));
	return {
		seq: Math.min(board.seq, plan.seq),
		findings: columnwise(all.filter((one) => !aside.has(one.key))),
		aside: all.flatMap((one) => {
			const said = aside.get(one.key);
			return said ? [{ ...one, reason: said.reason, by: said.by }] : [];
		}),
		cards,
		expectation: board.expectation,
		doneSince: board.doneSince,
		people: people.filter((one) => one.hours > 0).map(({ id, hours }) => ({ id, hours })),
		timers: timers.map(({ person: whose, card, number, hours }) => ({ person: whose, card, number, hours })),
		questions: state.questions.map(({ person: whose, card, comment }) => ({ person: whose, card, comment })),
		carried,
	};
}

function roundsCard(
	head: BoardHead,
	card: CardView,
	today: number,
	zone: ReturnType<typeof boardFile>['zone'],
	touched: Record<number, number>,
	carried: Record<number, number>,
): RoundsCard {
	const column = head.columns.findIndex((known) => known.id === card.column);
	return {
		id: card.id,
		number: card.number,
		title: card.title,
		column: column < 0 ? null : column,
		lane: laneOf(head.lanes, card)?.id ?? null,
		rank: card.rank,
		class: card.class,
		clock: card.clock,
		size: card.size,
		left: card.left,
		owners: card.owners,
		sprint: card.sprint,
		unplanned: card.unplanned,
		hasParts: card.parts !== null,
		started: card.started === null ? null : zone.day(new Date(card.started).getTime()),
		due: card.due === null ? null : parseDay(card.due),
		blocked: card.blocked && {
			since: zone.day(new Date(card.blocked.since).getTime()),
			reason: card.blocked.reason,
			waitingFor: card.blocked.waitingFor,
		},
		touched: touched[card.number] === undefined ? today : zone.day(touched[card.number]!),
		carried: carried[card.number] ?? 0,
	};
}

/** Milestones from today on that say something to this board: its own, and those for which cards of it, or initiatives with some, must be done. */
async function milestonesAhead(head: BoardHead, person: Person, today: number): Promise<MilestoneView[]> {
	const found = await milestonesOf(person.id, head.teamId, today, head.id);
	const ids = found.flatMap(({ initiatives }) => initiatives);
	const zone = head.timeZone;
	const initiatives = ids.length ? await initiativesOf(person, head.teamId, today, zone, ids) : [];
	const here = (one: MilestoneView) =>
		one.board === head.id ||
		one.cards.some(({ key }) => key.startsWith(`${head.key}-`)) ||
		one.initiatives.some((id) =>
			initiatives.some((known) => known.id === id && known.parts.some(({ board }) => board === head.id)),
		);
	return withLate(found, initiatives, today).filter(here);
}
