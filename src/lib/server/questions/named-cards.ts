import type { NamedCard } from '../../../core/pages/card.ts';
import { keysIn } from '../../../core/talk/keys.ts';
import { rows } from '../database.ts';

/** Cards that a text names by their keys, as far as a person may see them. */
export async function namedIn(person: string, text: string): Promise<Record<string, NamedCard>> {
	const keys = keysIn(text).slice(0, 200);
	if (!keys.length) return {};
	const found = await rows<NamedCard & { key: string }>(
		`select k.key || '-' || c.number as key, c.title, c.clock = 'done' as done
		from unnest($2::text[]) n(key)
		join board_key k on k.key = split_part(n.key, '-', 1)
		join card c on c.board_id = k.board_id and c.number = split_part(n.key, '-', 2)::bigint
		join board_right r on r.board_id = c.board_id and r.person_id = $1
		where may_see(c, $1)`,
		[person, keys],
		'named-cards',
	);
	return Object.fromEntries(found.map(({ key, ...card }) => [key, card]));
}
