import type { BoardHead } from '../../../core/pages/board.ts';
import { rows } from '../database.ts';

/** The titles of those cards that a page names, by their keys. */
export async function titlesOf(
	head: Pick<BoardHead, 'id' | 'key'>,
	cards: Iterable<string>,
): Promise<Record<string, string>> {
	const numbers = [...new Set(cards)].map((card) => Number(card.slice(head.key.length + 1)));
	if (!numbers.length) return {};
	const found = await rows<{ number: number; title: string }>(
		'select number, title from card where board_id = $1 and number = any($2)',
		[head.id, numbers],
		'titles',
	);
	return Object.fromEntries(found.map(({ number, title }) => [`${head.key}-${number}`, title]));
}
