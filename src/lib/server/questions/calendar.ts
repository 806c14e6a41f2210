import { parseDay } from '../../../core/calendar/days.ts';
import { calendarText, type CalendarEntry } from '../../../core/exchange/calendar-out.ts';
import { rows } from '../database.ts';
import { hashOf } from '../sign-in.ts';
import { now } from '../time.ts';

/** What ended so long ago is no longer in a calendar. */
const BACK_DAYS = 92;

interface Found {
	name: string;
	entries: {
		uid: string;
		from: string;
		to: string;
		summary: string;
		description: string;
		path: string | null;
		place: string;
		free: boolean;
	}[];
}

/**
 * The calendar behind a private address: somebody’s own days and due dates, or the sprints and milestones of a board. Rights
 * are asked again each time, for whoever the address belongs to.
 * @param origin under which Harrow is reached, for links
 * @returns the file; null where the address was never made, has been ended, or may show nothing any more
 */
export async function calendarOf(secret: string, origin: string): Promise<string | null> {
	const [address] = await rows<{ person: string; board: string | null; sees: boolean }>(
		`select a.person_id as person, a.board_id as board, case when a.board_id is null
				then exists (select from membership m where m.person_id = a.person_id and m.left_at is null)
				else exists (select from board_right r where r.board_id = a.board_id and r.person_id = a.person_id) end as sees
		from calendar_address a
		where a.secret_hash = $1 and a.revoked_at is null`,
		[hashOf(secret)],
		'calendar-address',
	);
	if (!address?.sees) return null;
	const [found] = address.board
		? await rows<Found>(OF_BOARD, [address.board, now()], 'calendar-of-board')
		: await rows<Found>(OF_PERSON, [address.person, now()], 'calendar-of-person');
	const entries = found!.entries.map(({ from, to, path, description, place, ...entry }): CalendarEntry => ({
		...entry,
		from: parseDay(from)!,
		to: parseDay(to)!,
		...(description ? { description } : {}),
		...(place ? { place } : {}),
		...(path ? { url: `${origin}${path}` } : {}),
	}));
	return calendarText(found!.name, entries, now().getTime());
}

const OF_PERSON = `select 'Harrow: ' || p.name as name, (
		select coalesce(json_agg(e order by e."from", e.uid), '[]') from (
			select 'card-' || c.id || '@harrow' as uid, c.due as "from", c.due as "to", b.key || '-' || c.number || ' is due: ' || c.title as summary,
				b.name as description, '/boards/' || b.slug || '?card=' || c.number as path, '' as place, true as free
			from card_owner o
			join card c on c.id = o.card_id and c.due is not null and c.archived_at is null and c.clock <> 'done'
			join board b on b.id = c.board_id and b.away_at is null
			join board_right r on r.board_id = b.id and r.person_id = p.id
			where o.person_id = p.id and c.due > $2::timestamptz - interval '${BACK_DAYS} days'
			union all
			select 'review-' || c.id || '@harrow', c.review_by, c.review_by, b.key || '-' || c.number || ' is to be looked over: ' || c.title,
				b.name, '/boards/' || b.slug || '?card=' || c.number, '', true
			from card c
			join board b on b.id = c.board_id and b.away_at is null
			join board_right r on r.board_id = b.id and r.person_id = p.id
			where c.reviewer_id = p.id and c.review_by is not null and c.archived_at is null and c.clock <> 'done'
				and c.review_by > $2::timestamptz - interval '${BACK_DAYS} days'
			union all
			select 'booking-' || k.id || '@harrow', k.day, k.day, case when k.site <> '' then k.site when r.person_id is not null then coalesce(i.name, b.name) else 'Put down' end
					|| case k.halves::text when '[0,1)' then ', morning' when '[1,2)' then ', afternoon' else '' end,
				k.note, '/teams/' || k.team_id || '/people/days', k.site, false
			from booking k
			join membership m on m.team_id = k.team_id and m.person_id = k.person_id and m.left_at is null
			left join initiative i on i.id = k.initiative_id
			left join board b on b.id = coalesce(k.board_id, i.board_id)
			left join board_right r on r.board_id = b.id and r.person_id = p.id
			where k.person_id = p.id and k.withdrawn_at is null and k.day > $2::timestamptz - interval '${BACK_DAYS} days'
			union all
			select 'absence-' || a.id || '@harrow', a.from_day, a.to_day, 'Away' || case when a.hours is null then '' else ', ' || trim_scale(a.hours) || ' h a day' end,
				a.note, null, '', false
			from absence a
			where a.person_id = p.id and a.withdrawn_at is null and not a.waits and a.to_day > $2::timestamptz - interval '${BACK_DAYS} days'
		) e) as entries
	from person p where p.id = $1`;

const OF_BOARD = `select b.name, (
		select coalesce(json_agg(e order by e."from", e.uid), '[]') from (
			select 'sprint-' || s.id || '@harrow' as uid, s.starts as "from", s.ends as "to", b.sprint_name || ' ' || s.number || ' of ' || b.name as summary,
				s.goal as description, '/boards/' || b.slug || '/plan' as path, '' as place, true as free
			from sprint s where s.board_id = b.id and s.ends > $2::timestamptz - interval '${BACK_DAYS} days'
			union all
			select 'milestone-' || m.id || '@harrow', m.day, m.day, m.name, '', '/teams/' || b.team_id || '/panorama', '', true
			from milestone m
			where m.team_id = b.team_id and (m.board_id is null or m.board_id = b.id) and m.withdrawn_at is null
				and m.day > $2::timestamptz - interval '${BACK_DAYS} days'
		) e) as entries
	from board b where b.id = $1`;

export interface CalendarAddressView {
	id: string;
	/** The board that it is of; null: one’s own days. */
	board: string | null;
	name: string | null;
	made: Date;
}

/** The private addresses of somebody that still answer, and the boards for which one can be made. */
export async function calendarAddresses(
	person: string,
): Promise<{ addresses: CalendarAddressView[]; boards: { id: string; name: string }[] }> {
	const [addresses, boards] = await Promise.all([
		rows<CalendarAddressView>(
			`select a.id, a.board_id as board, b.name, a.made_at as made
			from calendar_address a left join board b on b.id = a.board_id
			where a.person_id = $1 and a.revoked_at is null
			order by b.name nulls first`,
			[person],
			'calendar-addresses',
		),
		rows<{ id: string; name: string }>(
			`select b.id, b.name from board b join board_right r on r.board_id = b.id and r.person_id = $1
			where b.away_at is null order by b.name`,
			[person],
			'calendar-boards',
		),
	]);
	return { addresses, boards };
}
