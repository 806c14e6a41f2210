import pg from 'pg';
import { placedWithin, type CardHours, type Grouping, type Worked } from '../../../core/account/account.ts';
import { dayText, parseDay } from '../../../core/calendar/days.ts';
import { teamWorks } from '../../../core/calendar/team-days.ts';
import type { Day } from '../../../core/calendar/zone.ts';
import type { Rota } from '../../../core/capacity/hours.ts';
import { rows } from '../database.ts';
import type { Person } from '../sign-in.ts';
import { TITLE_TO } from './titles.ts';

interface OpenSprint {
	from: string;
	to: string;
	cards: [card: string, left: number, owners: string[]][];
}

/** The cards of sprints that are not closed, placed on the people of a team, as far as they fall within a range of days. */
export async function placedOn(
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
export const worked = (person: Person, team: string, span: Span, by: Grouping, cost: boolean) =>
	rows<Worked>(workedBy(person, team, span, by, cost ? { cost } : {}));

/** The same of each card, without cost. */
export const workedOnCards = (person: Person, team: string, span: Span, by: Grouping) =>
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
export async function titlesOfKeys(
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
