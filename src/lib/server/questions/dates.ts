import { dayText, parseDay } from '../../../core/calendar/days.ts';
import { teamWorks } from '../../../core/calendar/team-days.ts';
import type { Day } from '../../../core/calendar/zone.ts';
import {
	follow,
	shifted,
	spanOf,
	type Blocks,
	type DatedCard,
	type Dates,
} from '../../../core/dates/follow.ts';
import type { BoardHead } from '../../../core/pages/board.ts';
import {
	MOST_DATED,
	SHIFTED,
	type DatesPage,
	type DateTexts,
	type ShiftOf,
	type ShiftPage,
} from '../../../core/pages/dates.ts';
import { dayAsked, isId } from '../asked.ts';
import { rows } from '../database.ts';
import { notFound, Problem } from '../problem.ts';
import type { Person } from '../sign-in.ts';
import { rotaOf } from './rota.ts';
import { TITLE_TO } from './titles.ts';

/** Dates that are given to a card. */
export interface DatesGiven extends DateTexts {
	card: string;
}

interface Row extends DateTexts {
	id: string;
	key: string;
	title: string;
	version: number;
	team: string;
	board: string;
	state: DatedCard['state'];
	sees: boolean;
	mine: boolean;
	/** The sprint on whose list it is, as long as that is not settled. */
	sprint: { id: string; board: string; name: string; ends: string } | null;
}

const day = (text: string | null): Day | null => (text === null ? null : parseDay(text));
const text = (at: Day | null): string | null => (at === null ? null : dayText(at));
const dates = ({ start, due }: DateTexts): Dates => ({ start: day(start), due: day(due) });
const texts = ({ start, due }: Dates): DateTexts => ({ start: text(start), due: text(due) });

/**
 * What follows from giving cards other dates: what moves along, what stays in the way, and which sprints it passes. Others
 * are moved as far as the person works on their boards, all of one team.
 * @throws Problem 404 where there is no such card
 */
export async function whatFollows(
	person: Person,
	team: string,
	given: readonly DatesGiven[],
): Promise<DatesPage & { boards: ReadonlyMap<string, string> }> {
	const { cards: found, links } = await around(
		person,
		team,
		given.map(({ card }) => card),
	);
	const seen = new Set(found.flatMap(({ id, sees }) => (sees ? [id] : [])));
	if (given.some(({ card }) => !seen.has(card))) throw notFound('card');
	const works = new Map<string, (at: Day) => boolean>();
	for (const one of new Set(found.map((card) => card.team))) works.set(one, worksOf(await rotaOf(one)));
	const known = new Map(found.map((card) => [card.id, card]));
	const changed = new Map(given.map(({ card, ...to }) => [card, dates(to)]));
	const { moved, conflicts } = follow(
		new Map(found.map((card) => [card.id, { ...card, ...dates(card), works: works.get(card.team)! }])),
		links,
		changed,
	);
	const keyOf = (id: string) => (known.get(id)!.sees ? known.get(id)!.key : 'something you may not see');
	const passed = new Map<string, DatesPage['sprints'][number]>();
	for (const [id, to] of [
		...changed,
		...moved.map(({ card, ...to }): [string, Dates] => [card, { start: to.start, due: to.due }]),
	]) {
		const { sprint, key, ...card } = known.get(id)!;
		const [before, after] = [spanOf(dates(card)), spanOf(to)];
		const ends = sprint && parseDay(sprint.ends)!;
		if (!sprint || !after || after.end <= ends! || (before && before.end > ends!)) continue;
		const { id: of, ...said } = sprint;
		passed.set(of, { ...said, keys: [...(passed.get(of)?.keys ?? []), key] });
	}
	const ends = new Map(
		[...changed, ...moved.map(({ card, ...to }): [string, Dates] => [card, to])].flatMap(([id, to]) => {
			const span = spanOf(to);
			return span ? [[id, span.end] as const] : [];
		}),
	);
	const milestones = ends.size ? await milestonesBefore(person, [...ends.keys()]) : [];
	return {
		milestones: milestones.map(({ name, day: on, cards }) => ({
			name,
			day: on,
			missed: cards.filter((id) => ends.get(id)! > parseDay(on)!).map(keyOf),
		})),
		boards: new Map(found.map(({ id, board }) => [id, board])),
		moved: moved.map(({ card: id, after, ...to }) => {
			const { version, key, title, start, due } = known.get(id)!;
			return { card: id, version, key, title, from: { start, due }, to: texts(to), after: keyOf(after) };
		}),
		conflicts: conflicts.map(({ card: id, after, why }) => {
			const { sees, key, title } = known.get(id)!;
			return {
				key: sees ? key : null,
				title: sees ? title : 'Something you may not see',
				after: keyOf(after),
				why,
			};
		}),
		sprints: [...passed.values()],
	};
}

/** Milestones before which some of these cards must be done, by themselves or with their initiative. */
function milestonesBefore(
	person: Person,
	cards: readonly string[],
): Promise<{ name: string; day: string; cards: string[] }[]> {
	return rows(
		`select m.name, m.day::text, array_agg(distinct n.card::text) as cards
		from (
			select f.milestone_id, f.card_id as card from milestone_before f where f.card_id = any($2::uuid[])
			union all
			select f.milestone_id, c.id from card c join milestone_before f on f.initiative_id = c.initiative_id
			where c.id = any($2::uuid[])
		) n
		join milestone m on m.id = n.milestone_id and m.withdrawn_at is null
		where m.board_id is null or exists (select from board_right r where r.board_id = m.board_id and r.person_id = $1)
		group by m.id
		order by m.day, m.name`,
		[person.id, cards],
		'milestones-before',
	);
}

/** Team days are asked for again and again while a chain is followed. */
function worksOf(rota: Awaited<ReturnType<typeof rotaOf>>): (at: Day) => boolean {
	const known = new Map<Day, boolean>();
	return (at) => {
		const so = known.get(at);
		if (so !== undefined) return so;
		const is = teamWorks(rota, at);
		known.set(at, is);
		return is;
	};
}

/** Cards, all that hang on them over any boards, and all that these wait for; with what leads from which to which. */
async function around(
	person: Person,
	team: string,
	ids: readonly string[],
): Promise<{ cards: Row[]; links: Blocks[] }> {
	const [found] = await rows<{ cards: Row[]; links: Blocks[] }>(
		`with recursive hang(id) as (
			select unnest($3::uuid[])
			union
			select l.to_id from hang h
			-- Step by step along the index: "offset 0" keeps it from going over all links at each step.
			cross join lateral (select to_id from card_link where from_id = h.id and kind = 'blocks' offset 0) l
		), link as materialized (
			select l.from_id, l.to_id from hang h join card_link l on l.to_id = h.id and l.kind = 'blocks'
		), mine as materialized (
			select board_id, role from board_right where person_id = $1
		)
		select (
			select coalesce(json_agg(json_build_object('id', c.id, 'key', b.key || '-' || c.number, 'title', ${TITLE_TO('$1', 'c')},
				'version', c.version, 'team', b.team_id, 'board', b.id, 'start', c.start, 'due', c.due,
				'state', case when c.clock = 'done' or c.archived_at is not null then 'over' when c.clock = 'none' then 'waits' else 'begun' end,
				'sees', r.board_id is not null and see.it,
				'mine', b.team_id = $2 and b.away_at is null and see.it and coalesce(r.role in ('lead', 'member'), false),
				'sprint', case when s.id is not null and r.board_id is not null then json_build_object('id', s.id, 'board', b.name,
					'name', b.sprint_name || ' ' || s.number, 'ends', s.ends) end)), '[]')
			from card c
			join board b on b.id = c.board_id
			left join mine r on r.board_id = b.id
			left join sprint s on s.id = c.sprint_id and s.closed_at is null
			cross join lateral (select not c.private or may_see(c, $1) as it) see
			where c.id = any(array(select id from hang union select from_id from link))
		) as cards,
		(select coalesce(json_agg(json_build_object('from', from_id, 'to', to_id)), '[]') from link) as links`,
		[person.id, team, ids],
		'dates-around',
	);
	return found!;
}

/**
 * What would follow from giving a card other dates.
 * @param key such as TIDE-214
 * @param asks what the address says: `start` and `due`, empty for none, left out to keep them
 * @throws Problem 404 where the person may not see it, 422 for what is no day
 */
export async function datesPage(
	person: Person,
	key: string,
	asks: (name: string) => string | null,
): Promise<DatesPage> {
	const [, board, number] = /^([A-Z][A-Z0-9]{1,9})-(\d{1,9})$/.exec(key.toUpperCase()) ?? [];
	const [card] = board
		? await rows<DateTexts & { id: string; team: string }>(
				`select c.id, b.team_id as team, c.start::text, c.due::text
				from board_key k
				join card c on c.board_id = k.board_id and c.number = $3
				join board b on b.id = c.board_id
				join board_right r on r.board_id = b.id and r.person_id = $1
				where k.key = $2 and may_see(c, $1)`,
				[person.id, board, number],
				'card-dates',
			)
		: [];
	if (!card) throw notFound('card');
	const asked = (name: 'start' | 'due') => {
		const said = asks(name);
		return said === null ? card[name] : said === '' ? null : dayText(dayAsked(said, name)!);
	};
	const to = { card: card.id, start: asked('start'), due: asked('due') };
	if (to.start && to.due && to.start > to.due)
		throw new Problem(422, 'invalid.due', 'A card cannot be due before it starts.', 'due');
	const { boards: _boards, ...page } = await whatFollows(person, card.team, [to]);
	return page;
}

/**
 * What would follow from giving some cards other dates.
 * @param cards as they came: each with its id and both of its dates, null for none
 * @throws Problem 404 where there is no such team or card that the person may see, 422 for what is no day, or no list of cards
 */
export async function teamDates(person: Person, team: string, cards: unknown): Promise<DatesPage> {
	if (!isId(team)) throw notFound('team');
	const wrong = (sentence: string) => new Problem(422, 'invalid.cards', sentence, 'cards');
	if (!Array.isArray(cards) || !cards.length || cards.length > MOST_DATED)
		throw wrong(`Name 1 to ${MOST_DATED} cards.`);
	const given = cards.map((one: Record<string, unknown> | null): DatesGiven => {
		if (typeof one?.card !== 'string' || !isId(one.card)) throw wrong('Each card is named by its id.');
		const [start, due] = (['start', 'due'] as const).map((name) => {
			const said = one[name];
			if (said === null || said === '') return null;
			if (typeof said !== 'string')
				throw new Problem(422, `invalid.${name}`, 'A date is a text such as 2026-12-04, or null.', name);
			return text(dayAsked(said, name));
		}) as [string | null, string | null];
		if (start && due && start > due)
			throw new Problem(422, 'invalid.due', 'A card cannot be due before it starts.', 'due');
		return { card: one.card, start, due };
	});
	if (new Set(given.map(({ card }) => card)).size < given.length)
		throw wrong('Each card is given its dates once.');
	const [found] = await rows<{ is: boolean }>(
		`select exists (select from membership where team_id = $1 and person_id = $2 and left_at is null) as is`,
		[team, person.id],
		'dates-team',
	);
	if (!found!.is) throw notFound('team');
	const { boards: _boards, ...page } = await whatFollows(person, team, given);
	return page;
}

/** As far as cards can be shifted, in working days. */
const FARTHEST = 1000;

/**
 * What shifting all cards of a board, a sprint or an initiative would do that begin on a day or after it.
 * @param asks what the address says: `of` and `which`, `from` which day on, and by how many working `days`, before it where that is below 0
 * @throws Problem 422 for what is none of these
 */
export async function shiftPage(
	head: BoardHead,
	person: Person,
	asks: (name: string) => string | null,
): Promise<ShiftPage> {
	const of = asks('of') as ShiftOf;
	if (!SHIFTED.includes(of))
		throw new Problem(422, 'invalid.of', `What is shifted is one of: ${SHIFTED.join(', ')}.`, 'of');
	const from = dayAsked(asks('from'), 'from');
	if (from === null) throw new Problem(422, 'invalid.from', 'Say from which day on.', 'from');
	const days = Number(asks('days') || NaN);
	if (!Number.isInteger(days) || !days || Math.abs(days) > FARTHEST)
		throw new Problem(
			422,
			'invalid.days',
			`Cards are shifted by 1 to ${FARTHEST} working days, on or back.`,
			'days',
		);
	const found = await rows<
		DateTexts & { id: string; version: number; key: string; title: string; state: DatedCard['state'] }
	>(
		`select c.id, c.version, $5 || '-' || c.number as key, c.title, c.start::text, c.due::text,
			case when c.clock = 'done' then 'over' when c.clock = 'none' then 'waits' else 'begun' end as state
		from card c
		where c.board_id = $1 and c.archived_at is null and coalesce(c.start, c.due) >= $2 and may_see(c, $3)
			and case $4 when 'board' then true
				when 'sprint' then c.sprint_id = (select id from sprint where board_id = $1 and number::text = $6)
				else c.initiative_id = initiative_named($1, $6) end
		order by coalesce(c.start, c.due), c.number
		limit ${MOST_DATED + 1}`,
		[head.id, dayText(from), person.id, of, head.key, asks('which') ?? ''],
		'cards-to-shift',
	);
	if (found.length > MOST_DATED)
		throw new Problem(
			422,
			'shift.too_many',
			`At most ${MOST_DATED} cards are shifted at once; begin with those of one initiative or sprint.`,
		);
	const works = worksOf(await rotaOf(head.teamId));
	const mine = head.role !== 'viewer' && !head.away;
	const to = shifted(
		found.map((card) => ({ ...card, ...dates(card), works, mine })),
		from,
		days,
	);
	const given = [...to].map(([card, at]) => ({ card, ...texts(at) }));
	const { boards: _boards, ...page } = await whatFollows(person, head.teamId, given);
	return {
		...page,
		shifted: found.flatMap(({ id, version, key, title, start, due }) => {
			const at = to.get(id);
			return at ? [{ card: id, version, key, title, from: { start, due }, to: texts(at), after: '' }] : [];
		}),
		stay: found.filter(({ id, state }) => !to.has(id) && state !== 'over').length,
	};
}
