import { wayOf, type NoticeChoices } from '../../core/notices/kinds.ts';
import { rows } from './database.ts';
import { NEW_SECRET, queueLetter } from './mail/post.ts';
import { mailOn } from './mail/settings.ts';
import { now } from './time.ts';

interface Due {
	reminder: string;
	moment: Date;
	person: string;
	board: string;
	card: string;
	notices: NoticeChoices;
}

/** What came due while nobody was there to tell it is told late, but not after so long. */
const LATE_DAYS = 7;

/**
 * Tells people of reminders whose moment has come: once each, however often this is done and by how many at once. Of a card
 * that is finished or put away nobody is reminded.
 * @returns how many notices were written
 */
export async function remind(): Promise<number> {
	const at = now();
	const due = await rows<Due>(
		`with due as (
			select r.*, b.id as board_id, m.moment
			from reminder r
			join card c on c.id = r.card_id and c.clock <> 'done' and c.archived_at is null
			join board b on b.id = c.board_id and b.away_at is null
			join team t on t.id = b.team_id and t.away_at is null
			cross join lateral (select reminder_moment(r, c, t.time_zone) as moment) m
			where r.dropped_at is null and m.moment <= $1 and m.moment > $1::timestamptz - interval '${LATE_DAYS} days'
				and (r.told is null or r.told < m.moment) and m.moment > r.made_at
		)
		select d.id as reminder, d.moment, w.id as person, d.board_id as board, d.card_id as card, p.notices
		from due d
		cross join lateral (
			select d.person_id as id where not d.owners
			union select o.person_id from card_owner o where d.owners and o.card_id = d.card_id
		) w
		join person p on p.id = w.id
		join board_right r on r.board_id = d.board_id and r.person_id = w.id
		join card c on c.id = d.card_id and may_see(c, w.id)`,
		[at],
		'reminders-due',
	);
	if (!due.length) return 0;
	const told = due.map(({ notices, ...one }) => {
		const way = wayOf(notices, 'reminder', one.board);
		return { ...one, way };
	});
	const [written] = await rows<{ n: number }>(
		`with meant as materialized (
			select * from jsonb_to_recordset($1) n(reminder uuid, moment timestamptz, person uuid, board uuid, card uuid, way text)
		), taken as (
			update reminder r set told = m.moment
			from (select distinct reminder, moment from meant) m
			where r.id = m.reminder and (r.told is null or r.told < m.moment)
			returning r.id
		), told as (
			insert into notice (person_id, board_id, card_id, seqs, kinds, day, reminder_id, at)
			select m.person, m.board, m.card, '{}', array['reminder'], (m.moment at time zone 'UTC')::date, m.reminder, $2
			from meant m join taken k on k.id = m.reminder
			where m.way <> 'none'
			on conflict do nothing
			returning id, person_id, reminder_id
		), posted as (
			insert into mail (kind, person_id, notices, secret, made_at)
			select 'notice', t.person_id, array[t.id], ${NEW_SECRET}, $2
			from told t join meant m on m.reminder = t.reminder_id and m.person = t.person_id and m.way = 'mail'
			where $3
			returning id
		), queued as (select ${queueLetter('0')} from posted), heard as (
			select pg_notify('harrow', 'notice ' || person_id) from (select distinct person_id from told) p
		)
		select (select count(*) from told) as n, (select count(*) from heard) as heard, (select count(*) from queued) as queued`,
		[JSON.stringify(told), at, mailOn()],
		'reminders-told',
	);
	return written!.n;
}
