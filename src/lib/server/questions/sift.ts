import { passing } from '../../../core/board/filter.ts';
import { fieldsOf } from '../../../core/board/fields.ts';
import { shownTo } from '../../../core/board/private.ts';
import type { BoardHead } from '../../../core/pages/board.ts';
import type { TeamConditions } from '../../../core/pages/panorama.ts';
import type { Day } from '../../../core/calendar/zone.ts';
import { zoneOf } from '../../../core/calendar/zone.ts';
import type { AskedFor } from '../../../core/panorama/asked.ts';
import { offeredTogether, onBoard, togetherWords } from '../../../core/panorama/conditions.ts';
import { rows } from '../database.ts';
import { notFound } from '../problem.ts';
import type { Person } from '../sign-in.ts';
import { now } from '../time.ts';
import { isId } from '../asked.ts';
import { boardHeads } from './board-head.ts';
import { openCards } from './open-cards.ts';
import { describedWith } from './words.ts';

/** What passes, over several boards, and what each condition says. */
export interface Sifted {
	ids: string[];
	words: string[];
}

/** A board’s fields as one looks at it on a day. */
const fieldsOn = (head: BoardHead, today: Day, works?: (day: Day) => boolean) =>
	fieldsOf({ board: head, today, me: head.me, works });

/**
 * Which cards of some boards have the words and fields that are asked for; null where none are.
 * @param slugs of boards that the person may see
 * @param since cards that were done since then are among them
 */
export async function siftOf(
	person: Person,
	slugs: readonly string[],
	{ q, where }: Pick<AskedFor, 'q' | 'where'>,
	since: Date,
	today: Day,
	works: (day: Day) => boolean,
): Promise<Sifted | null> {
	if (!q && !where.length) return null;
	const [heads, described] = await Promise.all([
		boardHeads(person, slugs),
		q && slugs.length ? describedWith(person, slugs, q) : [],
	]);
	const said = new Set(described);
	const boards = await Promise.all(
		heads.map(async (head) => {
			const fields = fieldsOn(head, today, works);
			const here = onBoard(fields, where);
			if (!here) return { fields, cards: [] };
			const { cards } = await openCards(head.id, head.seq, since);
			const filter = { text: q, where: here, outside: false };
			const passes = passing(filter, fields, undefined, said);
			return {
				fields,
				cards: [...cards.values()].map((card) => shownTo(card, person.id)).filter(passes),
			};
		}),
	);
	const offered = offeredTogether(boards.map(({ fields }) => fields));
	return {
		ids: boards.flatMap(({ cards }) => cards.map(({ id }) => id)),
		words: where.map((condition) => togetherWords(offered, condition)),
	};
}

/**
 * What cards of a team’s boards can be narrowed by.
 * @throws Problem 404 when there is no such team, or the person is not in it
 */
export async function teamConditions(person: Person, team: string): Promise<TeamConditions> {
	if (!isId(team)) throw notFound('team');
	const [found] = await rows<{ zone: string; slugs: string[] }>(
		`select t.time_zone as zone, array(select b.slug from board b join board_right r on r.board_id = b.id and r.person_id = $2
				where b.team_id = t.id and b.away_at is null order by b.position) as slugs
		from team t
		join membership me on me.team_id = t.id and me.person_id = $2 and me.left_at is null
		where t.id = $1`,
		[team, person.id],
		'team-conditions',
	);
	if (!found) throw notFound('team');
	const today = zoneOf(found.zone).day(now().getTime());
	const heads = await boardHeads(person, found.slugs);
	return { offered: offeredTogether(heads.map((head) => fieldsOn(head, today))) };
}
