import type { PeoplePage, PersonHours } from '../../../core/pages/plan.ts';
import type { BoardHead, CardView } from '../../../core/pages/board.ts';
import { dayText, parseDay } from '../../../core/calendar/days.ts';
import { zoneOf } from '../../../core/calendar/zone.ts';
import { shareOn } from '../../../core/capacity/hours.ts';
import type { Learned } from '../../../core/capacity/promise.ts';
import { personWeeks, type WeekBoard } from '../../../core/capacity/weeks.ts';
import { isId } from '../asked.ts';
import { rows } from '../database.ts';
import { notFound } from '../problem.ts';
import type { Person } from '../sign-in.ts';
import { now } from '../time.ts';
import { boardHeads } from './board-head.ts';
import { openCardsOf } from './open-cards.ts';
import { boardPast } from './past.ts';
import { daysOf } from './promise.ts';
import { rotaOf } from './rota.ts';

const WEEKS = 8;

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
			from holiday where team_id = t.id and withdrawn_at is null) as holidays
		from team t
		join membership me on me.team_id = t.id and me.person_id = $2 and me.left_at is null
		where t.id = $1`,
		[team, person.id, now()],
		'people-page',
	);
	if (!found) throw notFound('team');
	const today = zoneOf(found.zone).day(now().getTime());
	const [rota, heads] = await Promise.all([rotaOf(team), boardHeads(person, found.slugs)]);
	const owned: Owned[] = await Promise.all(
		heads.map(async (head) => {
			const [{ learned }, { cards }] = await Promise.all([
				boardPast(head),
				openCardsOf(
					head,
					'owned',
					(card) => card.owners.length > 0 && (card.column !== null || card.sprint !== null),
				),
			]);
			return { head, learned, cards };
		}),
	);
	const boards = owned.map(weekBoard);
	const working = found.people.filter((one) => one.role !== 'viewer');
	const weeks = personWeeks(
		rota,
		boards,
		working.map((one) => one.id),
		today,
		WEEKS,
	);
	const named = new Set(weeks.flatMap((week) => week.cards.map(({ card }) => card)));
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
			owned.flatMap(({ head: { key, slug }, cards }) =>
				cards.flatMap(({ number, title }) => {
					const card = `${key}-${number}`;
					return named.has(card) ? [[card, { title, number, slug }]] : [];
				}),
			),
		),
	};
}

interface Owned {
	head: BoardHead;
	learned: Learned;
	/** Its unfinished cards that are somebody's and stand in a column or on a sprint's list. */
	cards: CardView[];
}

function weekBoard({ head, learned, cards }: Owned): WeekBoard {
	const planned = (of: (card: CardView) => boolean) =>
		cards.filter(of).map(({ number, left, owners, unplanned }) => ({
			card: `${head.key}-${number}`,
			left,
			owners,
			unplanned,
		}));
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
								cards: planned((card) => card.sprint === sprint.number),
							};
						}),
		inHand: head.sprintDays === null ? planned((card) => card.column !== null) : [],
	};
}
