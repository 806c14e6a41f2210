import type { PeoplePage, PersonHours } from '../../../core/pages/plan.ts';
import type { BoardHead } from '../../../core/pages/board.ts';
import { dayText, parseDay } from '../../../core/calendar/days.ts';
import { zoneOf } from '../../../core/calendar/zone.ts';
import { shareOn } from '../../../core/capacity/hours.ts';
import { personWeeks, type WeekBoard } from '../../../core/capacity/weeks.ts';
import { isId } from '../asked.ts';
import { TITLE_TO } from './titles.ts';
import { rows } from '../database.ts';
import { notFound } from '../problem.ts';
import type { Person } from '../sign-in.ts';
import { now } from '../time.ts';
import { boardHeads } from './board-head.ts';
import { boardPast } from './past.ts';
import { daysOf } from './promise.ts';
import { rotaOf } from './rota.ts';

const WEEKS = 8;

interface OpenCard {
	board: string;
	card: string;
	title: string;
	number: number;
	left: number;
	sprint: number | null;
	unplanned: boolean;
	column: boolean;
	owners: string[];
}

/**
 * The people of a team and their coming eight weeks over all of its boards.
 * @throws Problem 404 when there is no such team, or the person is not in it
 */
export async function peoplePage(person: Person, team: string): Promise<PeoplePage> {
	if (!isId(team)) throw notFound('team');
	const [found] = await rows<{
		id: string;
		name: string;
		zone: string;
		role: PeoplePage['role'];
		slugs: string[];
		people: Omit<PersonHours, 'shares'>[];
		holidays: { day: string; name: string }[];
		cards: OpenCard[];
		labels: string[];
	}>(
		`select t.id, t.name, t.time_zone as zone, me.role,
			array(select b.slug from board b join board_right r on r.board_id = b.id and r.person_id = $2
				where b.team_id = t.id and b.away_at is null order by b.position) as slugs,
			(select coalesce(json_agg(json_build_object('id', p.id, 'name', p.name, 'initials', p.initials, 'title', m.title, 'role', m.role,
				'skills', array(select k.name from skill k where k.team_id = t.id and k.person_id = p.id order by k.name),
				'working', (select coalesce(json_agg(json_build_object('from', w.from_day, 'hours', w.hours) order by w.from_day), '[]')
					from working_week w where w.team_id = t.id and w.person_id = p.id),
				'absences', (select coalesce(json_agg(json_build_object('id', a.id, 'from', a.from_day, 'to', a.to_day, 'hours', a.hours,
					'note', a.note, 'waits', a.waits) order by a.from_day), '[]')
					from absence a where a.person_id = p.id and a.withdrawn_at is null and a.to_day > $3::timestamptz - interval '60 days')
				, 'rate', case when me.role = 'lead' then (select h.rate from hourly_rate h where h.team_id = t.id and h.person_id = p.id
					and h.from_day <= $3::timestamptz order by h.from_day desc limit 1) end) order by p.name), '[]')
			from membership m
			join person p on p.id = m.person_id
			where m.team_id = t.id and m.left_at is null) as people,
			(select coalesce(json_agg(json_build_object('day', day, 'name', name) order by day), '[]')
			from holiday where team_id = t.id and withdrawn_at is null) as holidays,
			(select coalesce(json_agg(json_build_object('board', b.id, 'card', b.key || '-' || c.number, 'title', ${TITLE_TO('$2')}, 'number', c.number,
				'left', c."left", 'sprint', s.number, 'unplanned', c.unplanned, 'column', c.column_id is not null,
				'owners', array(select o.person_id::text from card_owner o where o.card_id = c.id)) order by b.position, c.rank), '[]')
			from card c
			join board b on b.id = c.board_id and b.team_id = t.id and b.away_at is null
			join board_right r on r.board_id = b.id and r.person_id = $2
			left join sprint s on s.id = c.sprint_id
			where c.archived_at is null and c.clock <> 'done' and (c.column_id is not null or s.closed_at is null and s.id is not null)
				and exists (select from card_owner o where o.card_id = c.id)) as cards
		from team t
		join membership me on me.team_id = t.id and me.person_id = $2 and me.left_at is null
		where t.id = $1`,
		[team, person.id, now()],
		'people-page',
	);
	if (!found) throw notFound('team');
	const today = zoneOf(found.zone).day(now().getTime());
	const [rota, heads] = await Promise.all([rotaOf(team), boardHeads(person, found.slugs)]);
	const pasts = await Promise.all(heads.map((head) => boardPast(head)));
	const boards = heads.map((head, i) => weekBoard(head, pasts[i]!, found.cards));
	const working = found.people.filter((one) => one.role !== 'viewer');
	const weeks = personWeeks(
		rota,
		boards,
		working.map((one) => one.id),
		today,
		WEEKS,
	);
	return {
		team: { id: found.id, name: found.name },
		today: dayText(today),
		role: found.role,
		me: person.id,
		boards: heads.map((head) => ({
			id: head.id,
			name: head.name,
			slug: head.slug,
			key: head.key,
			unit: head.unit,
			label: head.labels,
		})),
		people: working.map((one) => ({
			...one,
			// Boards that one may not see are not told of, not even by their ids.
			shares: Object.fromEntries(heads.map(({ id }) => [id, shareOn(rota, one.id, id, today)])),
		})),
		weeks: weeks.map((week) => ({ ...week, monday: dayText(week.monday) })),
		holidays: found.holidays,
		titles: Object.fromEntries(
			found.cards.map((card) => [
				card.card,
				{
					title: card.title,
					number: card.number,
					slug: heads.find((head) => head.id === card.board)!.slug,
				},
			]),
		),
	};
}

function weekBoard(
	head: BoardHead,
	{ learned }: Awaited<ReturnType<typeof boardPast>>,
	cards: readonly OpenCard[],
): WeekBoard {
	const own = cards.filter((card) => card.board === head.id);
	return {
		id: head.id,
		unit: head.unit,
		focus: learned.focus,
		keepBack: learned.keepBack,
		perDay: learned.perDay,
		sprints:
			head.sprintDays === null
				? []
				: head.sprints
						.filter((sprint) => !sprint.closedAt)
						.map((sprint) => {
							const days = daysOf(head, sprint.number)!;
							return {
								number: sprint.number,
								from: days.from,
								to: Math.max(days.to, parseDay(sprint.starts)!),
								focus: sprint.focus,
								keepBack: sprint.keepBack,
								cards: own.filter((card) => card.sprint === sprint.number),
							};
						}),
		inHand: head.sprintDays === null ? own.filter((card) => card.column) : [],
	};
}
