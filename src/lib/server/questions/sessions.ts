import type { SessionView } from '../../../core/pages/people.ts';
import { rows } from '../database.ts';
import type { Person } from '../sign-in.ts';
import { now } from '../time.ts';

/** One's own sessions that still hold, last used first. */
export function sessionsOf(person: Person): Promise<SessionView[]> {
	return rows<SessionView>(
		`select id, device, created_at as since, seen_at as seen, id = $2::uuid as here
		from session
		where person_id = $1 and expires_at > $3
		order by here desc nulls last, seen_at desc`,
		[person.id, person.session ?? null, now()],
	);
}

/** What one's own page shows of oneself. */
export async function youOf(person: Person): Promise<{ email: string; timeZone: string }> {
	const [found] = await rows<{ email: string; timeZone: string }>(
		'select email, time_zone as "timeZone" from person where id = $1',
		[person.id],
	);
	return found!;
}
