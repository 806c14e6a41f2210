import { rows } from '../database.ts';
import { notFound } from '../problem.ts';
import type { Person } from '../sign-in.ts';

const MOST_WORDS = 10;

/** The ids of a board's open cards whose description has all of some words, whatever the case. */
export async function describedWith(person: Person, slug: string, text: string): Promise<string[]> {
	const words = text
		.replace(/\0|\p{Surrogate}/gu, '')
		.split(/\s+/)
		.filter(Boolean)
		.slice(0, MOST_WORDS);
	const [found] = await rows<{ ids: string[] }>(
		`select array(select c.id from card c
				where c.board_id = b.id and c.archived_at is null and c.description <> '' and cardinality($3::text[]) > 0
					and c.description ilike all($3::text[]) and may_see(c, $1)) as ids
		from board b
		join board_right r on r.board_id = b.id and r.person_id = $1
		where b.slug = $2`,
		[person.id, slug, words.map((word) => `%${word.replace(/[\\%_]/g, '\\$&')}%`)],
		'described-with',
	);
	if (!found) throw notFound('board');
	return found.ids;
}
