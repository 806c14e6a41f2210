import type { ArchivePage, ArchivedCard } from '../../../core/pages/archive.ts';
import type { BoardHead } from '../../../core/pages/board.ts';
import { rows } from '../database.ts';

const SHOWN = 100;

/**
 * What was put away of a board, the latest first.
 * @param text words that number, title, reason or who put it away have; all of them
 * @param before instant before which the cards were put away, from the page before
 */
export async function archivePage(
	head: BoardHead,
	text: string,
	before: string | null,
): Promise<ArchivePage> {
	const words = text
		.replace(/\0|\p{Surrogate}/gu, '')
		.split(/\s+/)
		.filter(Boolean)
		.slice(0, 10)
		.map((word) => `%${word.replace(/[\\%_]/g, '\\$&')}%`);
	const until = before && !Number.isNaN(Date.parse(before)) ? new Date(before) : 'infinity';
	const [found] = await rows<{ cards: ArchivedCard[]; all: number }>(
		`with away as materialized (
			select c.id, c.number, c.title, k.name as column, c.clock = 'done' as done, c.archived_at as archived,
				coalesce(c.archived_reason, '') as reason, p.name as by, c.version
			from card c
			left join board_column k on k.id = c.column_id
			left join lateral (select actor_id from event where card_id = c.id and kind = 'archived' order by seq desc limit 1) e on true
			left join person p on p.id = e.actor_id
			where c.board_id = $1 and c.archived_at is not null and may_see(c, $5)
				and concat_ws(' ', c.number, c.title, c.archived_reason, p.name) ilike all($2::text[])
		)
		select (select count(*) from away) as all,
			(select coalesce(json_agg(a order by a.archived desc, a.number desc), '[]') from (
				select * from away where archived < $3 order by archived desc, number desc limit $4) a) as cards`,
		[head.id, words, until, SHOWN + 1, head.me],
		'archive',
	);
	const { cards, all } = found!;
	const more = cards.length > SHOWN;
	const shown = cards.slice(0, SHOWN);
	return { cards: shown, all, next: more ? shown.at(-1)!.archived : null };
}
