import type { AskPage } from '../../../core/ask/ask-page.ts';
import { ASK_FIELDS, ownAsked } from '../../../core/ask/ask-page.ts';
import type { AskedCard, AskedOne, AskedPage, AskForm } from '../../../core/pages/ask.ts';
import type { CardEvent } from '../../../core/pages/card.ts';
import type { OwnField } from '../../../core/fields/own.ts';
import { asSaid, talkOf } from '../../../core/talk/talk.ts';
import { rows } from '../database.ts';
import { notFound } from '../problem.ts';
import type { Person } from '../sign-in.ts';

/**
 * The page on which a board is asked for something: for anyone signed in.
 * @throws Problem 404 where a board has none
 */
export async function askForm(slug: string): Promise<AskForm> {
	const [found] = /^[a-z0-9-]+$/.test(slug)
		? await rows<
				{ board: AskForm['board']; page: AskPage; own: OwnField[] } & Pick<
					AskForm,
					'types' | 'labels' | 'initiatives'
				>
			>(
				`select json_build_object('id', b.id, 'name', b.name, 'slug', b.slug, 'team', t.name) as board, b.ask_page as page,
					(select coalesce(json_agg(json_build_object('id', f.id, 'name', f.name, 'kind', f.kind, 'choices', f.choices) order by f.position), '[]')
					from field f where f.board_id = b.id and f.retired_at is null) as own,
					array(select name from card_type where board_id = b.id and retired_at is null order by name) as types,
					array(select name from label where board_id = b.id and retired_at is null order by name) as labels,
					array(select i.name from initiative i join board o on o.id = i.board_id
						where i.retired_at is null and (o.id = b.id or i.wide and o.team_id = b.team_id) order by i.name) as initiatives
				from board b join team t on t.id = b.team_id
				where b.slug = $1 and b.ask_page is not null and b.away_at is null and t.away_at is null`,
				[slug],
				'ask-form',
			)
		: [];
	if (!found) throw notFound('ask page');
	const { board, page, own, types, labels, initiatives } = found;
	const fields = ASK_FIELDS.filter((field) => page.fields.includes(field));
	const of = (field: string, names: string[]) => (page.fields.includes(field) ? names : []);
	return {
		...{ board, words: page.words, fields, own: ownAsked(page, own) },
		types: of('type', types),
		labels: of('labels', labels),
		initiatives: of('initiative', initiatives),
	};
}

/** Cards `c` that person $1 asked for and may go on seeing: the last of those that were moved from board to board. */
const ASKED = `from card c
	join board b on b.id = c.board_id
	join team t on t.id = b.team_id
	left join board_column k on k.id = c.column_id
	where c.asker_id = $1 and not c.private and c.moved_to is null`;
const FIELDS = `b.key || '-' || c.number as key, c.title, json_build_object('name', b.name, 'slug', b.slug) as board, c.created_at as "askedAt",
	case when c.archived_at is not null then 'will not be done' else coalesce(k.name, 'not begun yet') end as stands,
	c.clock = 'done' as done, c.finished_at as "finishedAt"`;

/** What somebody has asked for, and where they can ask. */
export async function askedPage(person: Person): Promise<AskedPage> {
	const [cards, boards] = await Promise.all([
		rows<AskedCard>(
			`select ${FIELDS} ${ASKED} order by c.clock = 'done' or c.archived_at is not null, c.created_at desc, c.id limit 200`,
			[person.id],
			'asked',
		),
		rows<AskedPage['boards'][number]>(
			`select b.name, b.slug, t.name as team from board b join team t on t.id = b.team_id
			where b.ask_page is not null and b.away_at is null and t.away_at is null
			order by t.name, b.position, b.name`,
			[],
			'ask-pages',
		),
	]);
	return { cards, boards };
}

/**
 * One thing that somebody asked for: where it stands, its way so far, and what is said of it.
 * @throws Problem 404 for what they did not ask for, and for what is private now
 */
export async function askedOne(person: Person, key: string): Promise<AskedOne> {
	const parts = /^([A-Z][A-Z0-9]{1,9})-(\d{1,9})$/.exec(key.toUpperCase());
	if (!parts) throw notFound('card');
	const [found] = await rows<Omit<AskedOne, 'way' | 'talk'> & { history: CardEvent[] }>(
		`select c.id, ${FIELDS}, c.description, t.time_zone as "timeZone",
			(select coalesce(json_agg(json_build_object('seq', e.seq, 'at', e.at, 'kind', e.kind, 'value', e.value, 'who', p.name,
				'before', e.before, 'after', e.after, 'undone', v.seq is not null, 'by', e.actor_id) order by e.at, e.seq), '[]')
			from event e
			left join person p on p.id = e.actor_id
			left join event_void v on v.board_id = e.board_id and v.seq = e.seq
			where e.card_id = c.id and e.board_id = c.board_id
				and e.kind in ('created', 'column', 'archived', 'restored', 'comment', 'comment-changed', 'comment-withdrawn')) as history
		${ASKED} and c.number = $3 and b.id = (select board_id from board_key where key = $2)`,
		[person.id, parts[1], Number(parts[2])],
		'asked-one',
	);
	if (!found) throw notFound('card');
	const { history, ...card } = found;
	const said = asSaid(history);
	const way = said.flatMap(({ kind, at, value, undone, after }) => {
		if (undone) return [];
		if (kind === 'created') return [{ at, words: 'Asked for' }];
		if (kind === 'column') return [{ at, words: value || 'Back in the backlog' }];
		if (kind === 'archived')
			return [{ at, words: `Put away${after?.reason ? `: ${String(after.reason)}` : ''}` }];
		return kind === 'restored' ? [{ at, words: 'Taken up again' }] : [];
	});
	return { ...card, way, talk: talkOf(said) };
}
