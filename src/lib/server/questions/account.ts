import { fsum } from 'd3-array';
import type { AccountPage, NamedLine } from '../../../core/pages/account.ts';
import {
	account,
	GROUPINGS,
	placedWithin,
	useOf,
	type AccountLine,
	type Grouping,
	type Worked,
} from '../../../core/account/account.ts';
import { dayText, parseDay } from '../../../core/calendar/days.ts';
import { zoneOf, type Day } from '../../../core/calendar/zone.ts';
import { teamWorks } from '../../../core/calendar/team-days.ts';
import { hoursOn } from '../../../core/capacity/hours.ts';
import { tidy } from '../../../core/sums.ts';
import { wholeNames } from '../../../core/words.ts';
import { dayAsked, rangeWithin } from '../asked.ts';
import { LEFT_ON, WORKED_ON } from './initiatives.ts';
import { TITLE_TO } from './titles.ts';
import { columnwise } from '../../columnwise.ts';
import { rows } from '../database.ts';
import { Problem } from '../problem.ts';
import type { Person } from '../sign-in.ts';
import { now } from '../time.ts';
import { rotaOf } from './rota.ts';
import { teamOf } from './team.ts';

interface OpenSprint {
	board: string;
	number: number;
	from: string;
	to: string;
	cards: { card: string; left: number; owners: string[] }[];
}

/**
 * Hours and cost of a team over a range of days, this month unless it is given, beside the equal span before.
 * @throws Problem 422 when the range cannot be read or runs backwards
 */
export async function accountPage(
	person: Person,
	team: string,
	asked: { from: string | null; to: string | null; by: string | null },
): Promise<AccountPage> {
	const about = await teamOf(person, team);
	const today = zoneOf(about.zone).day(now().getTime());
	const [from, to] = rangeOf(asked, today);
	// What has not been is not counted, nor set beside days that have.
	const until = Math.max(from, Math.min(to, today));
	const before = { from: from - (until - from + 1), to: from - 1 };
	const by = groupingOf(asked.by);
	const [facts, rota, [more]] = await Promise.all([
		worked(person, team, before.from, from, until, about.role === 'lead'),
		rotaOf(team),
		rows<{
			sprints: OpenSprint[];
			titles: Record<string, string>;
			budgets: AccountPage['budgets'];
			initiatives: Called[];
			named: { name: string; from: string; to: string }[];
		}>(
			`select
				(select coalesce(json_agg(json_build_object('board', b.id, 'number', s.number, 'from', s.starts, 'to', s.ends, 'cards', (
					select coalesce(json_agg(json_build_object('card', b.key || '-' || c.number, 'left', c."left",
						'owners', array(select o.person_id::text from card_owner o where o.card_id = c.id))), '[]')
					from card c where c.sprint_id = s.id and c.archived_at is null and c.clock <> 'done' and not c.unplanned))), '[]')
				from sprint s
				join board b on b.id = s.board_id and b.team_id = $1 and b.unit = 'hours'
				join board_right r on r.board_id = b.id and r.person_id = $2
				where s.closed_at is null and daterange(s.starts, s.ends, '[]') && daterange($3, $4, '[]')) as sprints,
				(select coalesce(json_object_agg(b.key || '-' || c.number, ${TITLE_TO('$2')}), '{}')
				from card c
				join board b on b.id = c.board_id and b.team_id = $1
				join board_right r on r.board_id = b.id and r.person_id = $2
				where c.id = any(array(
					select card_id from time_entry where day between $3 and $4 and withdrawn_at is null
					union
					select k.id from sprint s join card k on k.sprint_id = s.id where s.closed_at is null))) as titles,
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
			[team, person.id, dayText(from), dayText(to)],
			'account',
		),
	]);
	const { sprints, titles, budgets, initiatives, named } = more!;
	const boards = about.boards.map(({ id, name, key }) => ({ id, name, title: key }));
	const placed = placedWithin(
		sprints.map((sprint) => ({
			from: parseDay(sprint.from)!,
			to: parseDay(sprint.to)!,
			placed: shared(sprint.cards, new Set(about.people.map(({ id }) => id))),
		})),
		(day) => teamWorks(rota, day),
		from,
		to,
	);
	const found = account(facts, by);
	const each = account(facts, 'person').lines;
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
			total: behind(found.total),
			lines: called(found.lines.map(behind), by, {
				person: about.people,
				board: boards,
				initiative: initiatives,
			}),
		},
		use: about.people.flatMap(({ id, name, gone }) => {
			const hoursTo = (last: Day) => {
				let sum = 0;
				for (let day = from; day <= last; day++) sum += hoursOn(rota, id, day);
				return tidy(sum);
			};
			const [available, plannedOf] = [hoursTo(until), hoursTo(to)];
			const line = each.find((known) => known.about === id);
			const hours = line?.hours ?? 0;
			const placedCards = placed.get(id) ?? [];
			const held = tidy(fsum(placedCards, (one) => one.hours));
			if (gone && !hours) return [];
			return [
				{
					person: id,
					name,
					available,
					worked: hours,
					use: useOf(hours, available),
					placed: held,
					plannedOf,
					planned: useOf(held, plannedOf),
					workedCards: columnwise(line?.cards ?? []),
					placedCards: columnwise(placedCards),
				},
			];
		}),
		ranges: [...usualRanges(today), ...named],
		titles,
		budgets,
	};
}

/** A line with the cards behind it as they travel. */
const behind = <L extends AccountLine>(line: L): L => ({ ...line, cards: columnwise(line.cards) });

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

/** What is left of cards, each shared equally by its owners who are in the team. */
function shared(
	cards: OpenSprint['cards'],
	team: ReadonlySet<string>,
): Map<string, { card: string; hours: number }[]> {
	const placed = new Map<string, { card: string; hours: number }[]>();
	for (const { card, left, owners: all } of cards) {
		const owners = all.filter((owner) => team.has(owner));
		for (const owner of owners) {
			const list = placed.get(owner) ?? [];
			list.push({ card, hours: left / owners.length });
			placed.set(owner, list);
		}
	}
	return placed;
}

interface Sums {
	sums: [
		span: Worked['span'],
		person: string,
		card: string,
		sprint: string | null,
		month: string,
		hours: number,
		billable: number,
		cost: number | null,
		unrated: number,
	][];
	/** By their ids, those that may be seen. */
	cards: Record<string, [board: string, key: string, initiative: string | null, type: string]>;
	labels: Record<string, string[]>;
	sprints: Record<string, number>;
}

/**
 * The facts of an account, summed in the database over all that nobody asks apart. Cost is for leads only.
 * What is said of the cards comes beside the sums, once a card.
 */
async function worked(
	person: Person,
	team: string,
	before: Day,
	from: Day,
	to: Day,
	withCost: boolean,
): Promise<Worked[]> {
	const [found] = await rows<Sums>(
		`with sums as materialized (
			select case when t.day < $4 then 'before' else 'now' end as span, t.person_id, t.card_id, t.sprint_id,
				to_char(t.day, 'YYYY-MM') as month, sum(t.hours) as hours, coalesce(sum(t.hours) filter (where t.billable), 0) as billable,
				case when $6 then coalesce(sum(t.hours * h.rate), 0) end as cost,
				case when $6 then coalesce(sum(t.hours) filter (where h.rate is null), 0) else 0 end as unrated
			from time_entry t
			left join lateral (
				select rate from hourly_rate where team_id = $1 and person_id = t.person_id and from_day <= t.day
				order by from_day desc limit 1
			) h on $6
			where t.withdrawn_at is null and t.day between $3 and $5
			group by 1, 2, 3, 4, 5
		)
		select
			(select coalesce(json_agg(json_build_array(span, person_id, card_id, sprint_id, month, hours, billable, cost, unrated)), '[]')
			from sums) as sums,
			(select coalesce(json_object_agg(c.id, json_build_array(b.id, b.key || '-' || c.number, c.initiative_id, c.type)), '{}')
			from card c
			join board b on b.id = c.board_id and b.team_id = $1
			join board_right r on r.board_id = b.id and r.person_id = $2
			where c.id = any(array(select card_id from sums))) as cards,
			(select coalesce(json_object_agg(card_id, names), '{}') from (
				select k.card_id, json_agg(l.name) as names
				from card_label k
				join label l on l.id = k.label_id
				where k.card_id = any(array(select card_id from sums))
				group by 1
			) n) as labels,
			(select coalesce(json_object_agg(id, number), '{}')
			from sprint where id = any(array(select sprint_id from sums))) as sprints`,
		[team, person.id, dayText(before), dayText(from), dayText(to), withCost],
		'account-worked',
	);
	const { sums, cards, labels, sprints } = found!;
	return sums.flatMap(([span, who, id, sprint, month, hours, billable, cost, unrated]): Worked[] => {
		const about = cards[id];
		if (!about) return [];
		const [board, card, initiative, type] = about;
		const figures = { hours, billable, cost, unrated };
		return [
			{
				...{ span, person: who, board, card, month, initiative, type, ...figures },
				sprint: sprint === null ? null : sprints[sprint]!,
				labels: labels[id] ?? [],
			},
		];
	});
}
