import { fsum } from 'd3-array';
import pg from 'pg';
import type { AccountPage, BehindAccount, NamedLine } from '../../../core/pages/account.ts';
import type { BehindCard } from '../../../core/pages/look-back.ts';
import {
	account,
	cardsBehind,
	GROUPINGS,
	placedWithin,
	useOf,
	type AccountLine,
	type CardHours,
	type Grouping,
	type Worked,
} from '../../../core/account/account.ts';
import { dayText, parseDay } from '../../../core/calendar/days.ts';
import { zoneOf, type Day } from '../../../core/calendar/zone.ts';
import { teamWorks } from '../../../core/calendar/team-days.ts';
import { hoursOn, type Rota } from '../../../core/capacity/hours.ts';
import { tidy } from '../../../core/sums.ts';
import { wholeNames } from '../../../core/words.ts';
import { dayAsked, rangeWithin } from '../asked.ts';
import { LEFT_ON, WORKED_ON } from './initiatives.ts';
import { TITLE_TO } from './titles.ts';
import { rows } from '../database.ts';
import { Problem } from '../problem.ts';
import type { Person } from '../sign-in.ts';
import { now } from '../time.ts';
import { rotaOf } from './rota.ts';
import { teamOf } from './team.ts';

/** What is asked for: days as texts, this month where they are left out, and what lines are told apart by. */
interface Asked {
	from: string | null;
	to: string | null;
	by: string | null;
}

/**
 * Hours and cost of a team over a range of days, this month unless it is given, beside the equal span before.
 * @throws Problem 422 when the range cannot be read or runs backwards
 */
export async function accountPage(person: Person, team: string, asked: Asked): Promise<AccountPage> {
	const about = await teamOf(person, team);
	const { by, today, from, to, until, before } = spansOf(asked, about.zone);
	const lead = about.role === 'lead';
	const rota = rotaOf(team);
	const [facts, placed, hours, [more]] = await Promise.all([
		worked(person, team, [before.from, from, until], by, lead),
		rota.then((known) => placedOn(person, about, known, from, to)),
		rota,
		rows<{
			budgets: AccountPage['budgets'];
			initiatives: Called[];
			named: { name: string; from: string; to: string }[];
		}>(
			`select
				(select coalesce(json_object_agg(i.id, json_build_object('name', i.name, 'budget', i.budget_hours, 'worked', ${WORKED_ON('i.id')},
					'left', ${LEFT_ON('i.id')})), '{}')
				from initiative i
				join board b on b.id = i.board_id and b.team_id = $1 and b.unit = 'hours'
				join board_right r on r.board_id = b.id and r.person_id = $2
				where i.budget_hours is not null) as budgets,
				(select coalesce(json_agg(json_build_object('id', i.id, 'name', i.name, 'title', b.name)), '[]')
				from initiative i
				join board b on b.id = i.board_id and b.team_id = $1
				join board_right r on r.board_id = b.id and r.person_id = $2) as initiatives,
				(select coalesce(json_agg(json_build_object('name', x.name, 'from', x.starts, 'to', x.ends)), '[]') from (
					select b.name || ', sprint ' || s.number as name, s.starts, s.ends
					from sprint s
					join board b on b.id = s.board_id and b.team_id = $1
					join board_right r on r.board_id = b.id and r.person_id = $2
					where s.started_at is not null and s.ends > $3::date - 60
					order by b.position, s.number desc
				) x) as named`,
			[team, person.id, dayText(from)],
			'account',
		),
	]);
	const { budgets, initiatives, named } = more!;
	const boards = about.boards.map(({ id, name, key }) => ({ id, name, title: key }));
	const found = account(facts, by);
	const each = account(facts, 'person').lines;
	const nameOf = wholeNames(about.people);
	return {
		team: about,
		role: about.role,
		today: dayText(today),
		from: dayText(from),
		to: dayText(to),
		until: dayText(until),
		before: { from: dayText(before.from), to: dayText(before.to) },
		by,
		account: {
			total: found.total,
			lines: called(found.lines, by, {
				person: about.people,
				board: boards,
				initiative: initiatives,
			}),
		},
		use: about.people.flatMap(({ id, gone }) => {
			const hoursTo = (last: Day) => {
				let sum = 0;
				for (let day = from; day <= last; day++) sum += hoursOn(hours, id, day);
				return tidy(sum);
			};
			const [available, plannedOf] = [hoursTo(until), hoursTo(to)];
			const done = each.find((known) => known.about === id)?.hours ?? 0;
			const held = tidy(fsum(placed.get(id) ?? [], (one) => one.hours));
			if (gone && !done) return [];
			return [
				{
					person: id,
					name: nameOf(id),
					available,
					worked: done,
					use: useOf(done, available),
					placed: held,
					plannedOf,
					planned: useOf(held, plannedOf),
				},
			];
		}),
		ranges: [...usualRanges(today), ...named],
		budgets,
	};
}

/**
 * The cards behind a figure of an account, the most hours first.
 * @param of what was worked, or what is placed on somebody
 * @param which the line that is meant, as its account tells it apart, or whom; null: all that was worked
 * @throws Problem 422 when the range cannot be read or runs backwards
 */
export async function accountCards(
	person: Person,
	team: string,
	asked: Asked,
	of: BehindAccount,
	which: string | null,
): Promise<BehindCard[]> {
	const about = await teamOf(person, team);
	const { by, from, to, until } = spansOf(asked, about.zone);
	const found =
		of === 'placed'
			? ((await placedOn(person, about, await rotaOf(team), from, to)).get(which ?? '') ?? [])
			: cardsBehind(await workedOnCards(person, team, [from, from, until], by), by, which);
	const titles = await titlesOfKeys(person, team, found);
	return found.map(({ card, hours }) => ({ card, title: titles[card] ?? '', amount: hours }));
}

/** The days of an account: the range, the last of it that has been, and the equal span before. */
function spansOf(asked: Asked, zone: string) {
	const today = zoneOf(zone).day(now().getTime());
	const [from, to] = rangeOf(asked, today);
	// What has not been is not counted, nor set beside days that have.
	const until = Math.max(from, Math.min(to, today));
	const before = { from: from - (until - from + 1), to: from - 1 };
	return { by: groupingOf(asked.by), today, from, to, until, before };
}

interface Called {
	id: string;
	name: string;
	/** What tells it from another of that name. */
	title: string;
}

/** @throws Problem 422 when hours are not told apart by that */
function groupingOf(asked: string | null): Grouping {
	const by = asked ? GROUPINGS.find((known) => known === asked) : 'person';
	if (by) return by;
	throw new Problem(422, 'invalid.by', `Hours are told apart by ${GROUPINGS.join(', ')}.`, 'by');
}

/** Lines with their names; two of one name are each told from the other. */
function called(
	lines: readonly AccountLine[],
	by: Grouping,
	known: Record<'person' | 'board' | 'initiative', readonly Called[]>,
): NamedLine[] {
	if (by !== 'person' && by !== 'board' && by !== 'initiative' && by !== 'sprint')
		return lines.map((line) => ({ ...line, name: line.about }));
	const name = wholeNames(known[by === 'sprint' ? 'board' : by]);
	return lines.map((line) => {
		const [id, ...number] = line.about.split(' ');
		return { ...line, name: id ? [name(id), ...number].join(' ') : '' };
	});
}

function rangeOf(asked: { from: string | null; to: string | null }, today: Day): [Day, Day] {
	const month = monthOf(today);
	const from = dayAsked(asked.from, 'from') ?? month[0];
	const to = dayAsked(asked.to, 'to') ?? (asked.from ? Math.max(from, today) : month[1]);
	return rangeWithin(from, to);
}

/** The first and last day of the span of months that begins so many months after that of a day. */
function monthOf(day: Day, by = 0, months = 1): [Day, Day] {
	const [year, month] = dayText(day).split('-').map(Number) as [number, number];
	const first = (n: number) =>
		parseDay(new Date(Date.UTC(year, month - 1 + n, 1)).toISOString().slice(0, 10))!;
	return [first(by), first(by + months) - 1];
}

function usualRanges(today: Day): AccountPage['ranges'] {
	const month = Number(dayText(today).slice(5, 7)) - 1;
	const quarter = -(month % 3);
	const range = (name: string, [from, to]: [Day, Day]) => ({ name, from: dayText(from), to: dayText(to) });
	return [
		range('This month', monthOf(today)),
		range('Last month', monthOf(today, -1)),
		range('This quarter', monthOf(today, quarter, 3)),
		range('Last quarter', monthOf(today, quarter - 3, 3)),
	];
}

interface OpenSprint {
	from: string;
	to: string;
	cards: [card: string, left: number, owners: string[]][];
}

/** The cards of sprints that are not closed, placed on the people of a team, as far as they fall within a range of days. */
async function placedOn(
	person: Person,
	team: { id: string; people: readonly { id: string }[] },
	rota: Rota,
	from: Day,
	to: Day,
): Promise<Map<string, CardHours[]>> {
	const sprints = await rows<OpenSprint>(
		`select s.starts as "from", s.ends as "to", (
			select coalesce(json_agg(json_build_array(b.key || '-' || c.number, c."left",
				array(select o.person_id::text from card_owner o where o.card_id = c.id))), '[]')
			from card c where c.sprint_id = s.id and c.archived_at is null and c.clock <> 'done' and not c.unplanned
		) as cards
		from sprint s
		join board b on b.id = s.board_id and b.team_id = $1 and b.unit = 'hours'
		join board_right r on r.board_id = b.id and r.person_id = $2
		where s.closed_at is null and daterange(s.starts, s.ends, '[]') && daterange($3, $4, '[]')`,
		[team.id, person.id, dayText(from), dayText(to)],
		'account-placed',
	);
	const people = new Set(team.people.map(({ id }) => id));
	return placedWithin(
		sprints.map((sprint) => ({
			from: parseDay(sprint.from)!,
			to: parseDay(sprint.to)!,
			placed: shared(sprint.cards, people),
		})),
		(day) => teamWorks(rota, day),
		from,
		to,
	);
}

/** What is left of cards, each shared equally by its owners who are in the team. */
function shared(cards: OpenSprint['cards'], team: ReadonlySet<string>): Map<string, CardHours[]> {
	const placed = new Map<string, CardHours[]>();
	for (const [card, left, all] of cards) {
		const owners = all.filter((owner) => team.has(owner));
		for (const owner of owners) {
			const list = placed.get(owner) ?? [];
			list.push({ card, hours: left / owners.length });
			placed.set(owner, list);
		}
	}
	return placed;
}

/** The first day of the span before, the first of the range, and its last. */
type Span = [before: Day, from: Day, to: Day];

/** The facts of an account, summed in the database over all that is not asked apart. Cost is for leads only. */
const worked = (person: Person, team: string, span: Span, by: Grouping, cost: boolean) =>
	rows<Worked>(workedBy(person, team, span, by, cost ? { cost } : {}));

/** The same of each card, without cost. */
const workedOnCards = (person: Person, team: string, span: Span, by: Grouping) =>
	rows<Worked & { card: string }>(workedBy(person, team, span, by, { card: true }));

/** What tells hours apart, in SQL over a time entry `t`, its card `c`, its sprint `s` and the card's labels `l`. */
const APART: Record<Grouping, Partial<Record<keyof Worked, string>>> = {
	person: {},
	board: { board: 'c.board_id' },
	initiative: { initiative: 'c.initiative_id' },
	label: { labels: 'l.names' },
	type: { type: 'c.type' },
	sprint: { board: 'c.board_id', sprint: 's.number' },
	month: { month: `to_char(t.day, 'YYYY-MM')` },
	quarter: { month: `to_char(t.day, 'YYYY-MM')` },
};
const LABELS = `left join lateral (
			select array_agg(l.name) as names from card_label k join label l on l.id = k.label_id where k.card_id = c.id
		) l on true`;

/** All of it stands in the statement itself: how many days are asked for decides how it is best read. */
function workedBy(
	person: Person,
	team: string,
	span: Span,
	by: Grouping,
	told: { card?: true; cost?: true },
) {
	const [of, who] = [pg.escapeLiteral(team), pg.escapeLiteral(person.id)];
	const [before, from, to] = span.map((day) => pg.escapeLiteral(dayText(day)));
	const apart = Object.entries({
		span: `case when t.day < ${from} then 'before' else 'now' end`,
		person: 't.person_id',
		...APART[by],
		...(told.card && { card: `b.key || '-' || c.number` }),
	});
	return `select ${apart.map(([name, sql]) => `${sql} as ${name}`).join(', ')},
			sum(t.hours) as hours, coalesce(sum(t.hours) filter (where t.billable), 0) as billable,
			${told.cost ? 'coalesce(sum(t.hours * h.rate), 0)' : 'null'} as cost,
			${told.cost ? 'coalesce(sum(t.hours) filter (where h.rate is null), 0)' : '0'} as unrated
		from time_entry t
		join card c on c.id = t.card_id
		join board b on b.id = c.board_id and b.id = any(array(
			select o.id from board o join board_right r on r.board_id = o.id and r.person_id = ${who} where o.team_id = ${of}))
		left join sprint s on ${by === 'sprint'} and s.id = t.sprint_id
		${by === 'label' ? LABELS : ''}
		left join lateral (
			select rate from hourly_rate where team_id = ${of} and person_id = t.person_id and from_day <= t.day
			order by from_day desc limit 1
		) h on ${Boolean(told.cost)}
		where t.withdrawn_at is null and t.day between ${before} and ${to}
		group by ${apart.map((_, i) => i + 1).join(', ')}`;
}

/** Titles of cards of a team's boards by their keys. */
async function titlesOfKeys(
	person: Person,
	team: string,
	cards: readonly CardHours[],
): Promise<Record<string, string>> {
	const found = await rows<{ card: string; title: string }>(
		`select n.card, ${TITLE_TO('$2')} as title
		from unnest($3::text[]) n(card)
		join board b on b.team_id = $1 and b.key = split_part(n.card, '-', 1)
		join board_right r on r.board_id = b.id and r.person_id = $2
		join card c on c.board_id = b.id and c.number = split_part(n.card, '-', 2)::bigint`,
		[team, person.id, cards.map(({ card }) => card)],
		'account-titles',
	);
	return Object.fromEntries(found.map(({ card, title }) => [card, title]));
}
