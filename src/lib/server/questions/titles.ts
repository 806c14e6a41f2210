import { PRIVATE_TITLE } from '../../../core/board/private.ts';
import type { BoardHead } from '../../../core/pages/board.ts';
import { rows } from '../database.ts';

/** A card's title in SQL, over `c` or another name of the table, as a person sees it. */
export const TITLE_TO = (person: string, card = 'c') =>
	`case when not ${card}.private or may_see(${card}, ${person}) then ${card}.title else '${PRIVATE_TITLE}' end`;

/** The titles of those cards that a page names, by their keys, as whoever looks sees them. */
export async function titlesOf(
	head: Pick<BoardHead, 'id' | 'key' | 'me'>,
	cards: Iterable<string>,
): Promise<Record<string, string>> {
	const numbers = [...new Set(cards)].map((card) => Number(card.slice(head.key.length + 1)));
	if (!numbers.length) return {};
	const found = await rows<{ number: number; title: string }>(
		`select c.number, ${TITLE_TO('$3')} as title from card c where c.board_id = $1 and c.number = any($2)`,
		[head.id, numbers, head.me],
		'titles',
	);
	return Object.fromEntries(found.map(({ number, title }) => [`${head.key}-${number}`, title]));
}
