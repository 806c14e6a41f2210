import { rows } from '../database.ts';
import { notFound } from '../problem.ts';
import type { Person } from '../sign-in.ts';

/**
 * Whether a person sees a board, and nothing more of it: what a stream asks now and then.
 * @throws Problem 404 when there is none of that name, or the person may not see it
 */
export async function boardSeen(person: Person, slug: string): Promise<{ id: string; seq: number }> {
	const [found] = /^[a-z0-9-]+$/.test(slug)
		? await rows<{ id: string; seq: number }>(
				`select b.id, b.last_seq as seq
				from board b
				join board_right r on r.board_id = b.id and r.person_id = $1
				where b.slug = $2`,
				[person.id, slug],
				'board-seen',
			)
		: [];
	if (!found) throw notFound('board');
	return found;
}
