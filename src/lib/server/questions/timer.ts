import type { RunningTimer } from '../../../core/pages/time.ts';
import { leftOn, timerHours } from '../../../core/capacity/timer.ts';
import { zoneOf } from '../../../core/calendar/zone.ts';
import { TITLE_TO } from './titles.ts';
import { rows } from '../database.ts';
import type { Person } from '../sign-in.ts';
import { now } from '../time.ts';

/** A person's running timer; null where none runs. */
export async function timerOf(person: Person): Promise<RunningTimer | null> {
	const [found] = await rows<{
		card: string;
		key: string;
		title: string;
		slug: string;
		zone: string;
		started: Date;
	}>(
		`select c.id as card, b.key || '-' || c.number as key, ${TITLE_TO('r.person_id')} as title, b.slug, t.time_zone as zone, r.started_at as started
		from timer r
		join card c on c.id = r.card_id
		join board b on b.id = c.board_id
		join board_right a on a.board_id = b.id and a.person_id = r.person_id
		join team t on t.id = b.team_id
		where r.person_id = $1`,
		[person.id],
		'timer',
	);
	if (!found) return null;
	const { zone, started, ...card } = found;
	const at = now().getTime();
	return {
		...card,
		started: started.toISOString(),
		hours: timerHours(started.getTime(), at),
		leftOn: leftOn(zoneOf(zone), started.getTime(), at),
	};
}
