import { dayText, parseDay } from '../../../core/calendar/days.ts';
import { zoneOf } from '../../../core/calendar/zone.ts';
import { digestDay, USUAL_DIGEST } from '../../../core/notices/hours.ts';
import { wayOf, type NoticeChoices, type NoticeKind } from '../../../core/notices/kinds.ts';
import { rows } from '../database.ts';
import { now } from '../time.ts';
import { NEW_SECRET, queueLetter } from './post.ts';

interface Digestible {
	id: string;
	person: string;
	board: string;
	kinds: NoticeKind[];
}

/**
 * Makes the digests whose hour has come where their readers are: of what they chose to be told by digest, have not read, and
 * were not told by mail.
 * @returns how many were made
 */
export async function makeDigests(): Promise<number> {
	const at = now();
	const people = await rows<{ id: string; zone: string; choices: NoticeChoices; last: string | null }>(
		`select id, time_zone as zone, notices as choices, digest_day::text as last from person p
		where jsonb_path_exists(notices, '$.**?(@ == "digest")')`,
	);
	let made = 0;
	for (const one of people) {
		const last = one.last === null ? null : parseDay(one.last);
		const day = digestDay(one.choices.digest ?? USUAL_DIGEST, zoneOf(one.zone), at.getTime(), last);
		if (day === null) continue;
		const found = await rows<Digestible>(
			`select id, person_id as person, board_id as board, kinds from notice
			where person_id = $1 and read_at is null and away_at is null and (mailed_at is null or at > mailed_at)
				and at > $2::timestamptz - interval '8 days'
			order by at desc limit 200`,
			[one.id, at],
		);
		const notices = found.filter(({ board, kinds }) => wayOf(one.choices, kinds[0]!, board) === 'digest');
		const [done] = await rows<{ made: number }>(
			`with taken as (
				update person set digest_day = $2 where id = $1 and digest_day is distinct from $2 returning id
			), posted as (
				insert into mail (kind, person_id, notices, secret, made_at)
				select 'digest', id, $3, ${NEW_SECRET}, $4 from taken where cardinality($3::uuid[]) > 0
				returning id
			), queued as (select ${queueLetter('0')} from posted)
			select (select count(*) from posted) as made, (select count(*) from queued) as queued`,
			[one.id, dayText(day), notices.map(({ id }) => id), at],
		);
		made += done!.made;
	}
	return made;
}
