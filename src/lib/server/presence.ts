import type { Present } from '../../core/pages/presence.ts';
import { rows } from './database.ts';
import type { Person } from './sign-in.ts';

/** A page that has not been heard of for so long is not open any more, though it never said so. */
const GONE_SECONDS = 50;

const told = (from: string) =>
	`, told as (select pg_notify('harrow', 'here ' || board_id) from (select distinct board_id from ${from}) b)`;

/** A page of a board was opened, or is heard of again. Pages that were not for long are let go. */
export async function arrive(page: string, person: Person, board: string): Promise<void> {
	await rows(
		`with gone as (
			delete from presence where seen_at < clock_timestamp() - interval '${GONE_SECONDS} seconds' and page <> $1 returning board_id
		), here as (
			insert into presence (page, person_id, board_id, seen_at) values ($1, $2, $3, clock_timestamp())
			on conflict (page) do update set seen_at = excluded.seen_at, board_id = excluded.board_id
				where presence.person_id = excluded.person_id
			returning board_id
		), moved as (select board_id from gone union all select board_id from here)
		${told('moved')}
		select count(*) from told`,
		[page, person.id, board],
		'presence-arrive',
	);
}

/** A page is open still. */
export async function stay(page: string): Promise<void> {
	await rows('update presence set seen_at = clock_timestamp() where page = $1', [page], 'presence-stay');
}

/** A page was closed. */
export async function leave(page: string): Promise<void> {
	await rows(
		`with gone as (delete from presence where page = $1 returning board_id)
		${told('gone')}
		select count(*) from told`,
		[page],
		'presence-leave',
	);
}

/** What somebody looks at on a page of theirs: a card by its id, and the field that they write in. */
export async function lookAt(
	person: Person,
	page: string,
	card: string | null,
	field: string | null,
): Promise<void> {
	await rows(
		`with looks as (
			update presence set card_id = $3, field = $4, seen_at = clock_timestamp()
			where page = $1 and person_id = $2 and (card_id is distinct from $3 or field is distinct from $4)
			returning board_id
		)
		${told('looks')}
		select count(*) from told`,
		[page, person.id, card, field],
		'presence-look',
	);
}

/** Who looks at a board now; each page of theirs by itself. */
export const presentOn = (board: string): Promise<Present[]> =>
	rows<Present>(
		`select p.person_id as person, case when not c.private then p.card_id end as card, case when not c.private then p.field end as field
		from presence p
		left join card c on c.id = p.card_id and c.board_id = p.board_id
		where p.board_id = $1 and p.seen_at > clock_timestamp() - interval '${GONE_SECONDS} seconds'
			and exists (select from board_right r where r.board_id = p.board_id and r.person_id = p.person_id)
		order by p.person_id, p.seen_at desc
		limit 500`,
		[board],
		'presence',
	);
