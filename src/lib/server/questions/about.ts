import type { AboutPage } from '../../../core/pages/about.ts';
import type { BoardHead } from '../../../core/pages/board.ts';
import { rows } from '../database.ts';
import { INITIATIVES } from './settings.ts';

/** What a board says of itself. */
export async function aboutPage(head: BoardHead): Promise<AboutPage> {
	const [found] = await rows<AboutPage>(
		`select b.purpose, b.visible_to as "visibleTo", b.changed_by as "changedBy", ${INITIATIVES} as initiatives
		from board b
		where b.id = $1`,
		[head.id],
		'about',
	);
	return found!;
}
