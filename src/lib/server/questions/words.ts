import { rows } from '../database.ts';
import { notFound } from '../problem.ts';
import type { Person } from '../sign-in.ts';

const MOST_WORDS = 10;

/**
 * The ids of some boards' open cards whose description has all of some words, whatever the case.
 * @throws Problem 404 when the person may see none of the boards
 */
export async function describedWith(
	person: Person,
	slugs: readonly string[],
	text: string,
): Promise<string[]> {
	const words = text
		.replace(/\0|\p{Surrogate}/gu, '')
		.split(/\s+/)
		.filter(Boolean)
		.slice(0, MOST_WORDS);
	const found = await rows<{ ids: string[] }>(
		`select array(select c.id from card c
				where c.board_id = b.id and c.archived_at is null and c.description <> '' and cardinality($3::text[]) > 0
					and c.description ilike all($3::text[]) and may_see(c, $1)) as ids
		from board b
		join board_right r on r.board_id = b.id and r.person_id = $1
		where b.slug = any($2)`,
		[person.id, slugs, words.map((word) => `%${word.replace(/[\\%_]/g, '\\$&')}%`)],
		'described-with',
	);
	if (!found.length) throw notFound('board');
	return found.flatMap(({ ids }) => ids);
}
