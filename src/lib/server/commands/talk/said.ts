import { mentionsIn } from '../../../../core/talk/mentions.ts';
import { count } from '../../../../core/words.ts';
import type { BoardContext } from '../../door/contexts.ts';
import { Problem } from '../../problem.ts';

const MOST_NAMED = 50;

/** Where something is said: on a card, or on the page of a board or an initiative. */
export interface Place {
	column: 'card_id' | 'page_id';
	id: string;
}
export const onCard = (card: { id: string }): Place => ({ column: 'card_id', id: card.id });
export const onPage = (page: { id: string }): Place => ({ column: 'page_id', id: page.id });

/** A comment before it is noted. */
export interface ToSay {
	/** What it keeps: whom it names, whom it asks, and whom it answers. */
	after: Record<string, unknown>;
	advice?: string;
	/** To be called once the comment is noted: what it answers is not asked any more. */
	answer(): Promise<void>;
}

/** Gets ready to say something, or to answer what was said. */
export async function toSay(
	context: BoardContext,
	place: Place,
	{ text, replyTo: to }: { text: string; replyTo?: number },
): Promise<ToSay> {
	const replyTo = to === undefined ? null : await rootOf(context, place, to);
	const { mentions, asks, advice } = await namedIn(context, place, text);
	const answered = await questionsAnswered(context, place, replyTo);
	return {
		after: {
			...(replyTo === null ? {} : { replyTo, thread: await writersOf(context, place, replyTo) }),
			...(mentions.length ? { mentions } : {}),
			...(asks.length ? { asks } : {}),
			...(answered.length ? { answers: [...new Set(answered.map(({ asker }) => asker))] } : {}),
		},
		advice,
		answer: async () => {
			if (!answered.length) return;
			await context.tx.query(
				`update question set answered_seq = $3
				where board_id = $1 and (seq, person_id) in (select seq, person from jsonb_to_recordset($2) as q(seq bigint, person uuid))`,
				[context.board.id, JSON.stringify(answered), context.board.lastSeq + context.notes.length],
			);
		},
	};
}

/** Gets ready to change what oneself has said. Whom it names only now is told. */
export async function toChange(
	context: BoardContext,
	place: Place,
	{ text, comment }: { text: string; comment: number },
): Promise<Pick<ToSay, 'after' | 'advice'>> {
	const said = await ownComment(context, place, comment);
	const { mentions, asks, advice } = await namedIn(context, place, text);
	const before = new Set([...(said.after?.mentions ?? []), ...(said.after?.asks ?? [])]);
	const named = [...mentions, ...asks].filter((person) => !before.has(person));
	return { after: { of: comment, ...(named.length ? { mentions: named } : {}) }, advice };
}

/** Takes back what oneself has said: what it asked is not asked any more; what it answered is open again. */
export async function toWithdraw(context: BoardContext, place: Place, comment: number): Promise<void> {
	await ownComment(context, place, comment);
	await context.tx.query(
		`with asked as (
			delete from question where board_id = $1 and seq = $2
		)
		update question set answered_seq = null where board_id = $1 and answered_seq = $2`,
		[context.board.id, comment],
	);
}

interface Said {
	actor_id: string | null;
	after: { replyTo?: number; mentions?: string[]; asks?: string[] } | null;
}

/** A comment by its number, as long as it was not taken back. */
async function commentOf({ tx, board }: BoardContext, place: Place, seq: number): Promise<Said> {
	const { rows } = await tx.query<Said>(
		`select e.actor_id, e.after from event e
		where e.board_id = $1 and e.seq = $2 and e.${place.column} = $3 and e.kind = 'comment'
			and not exists (select from event_void v where v.board_id = e.board_id and v.seq = e.seq)
			and not exists (select from event w where w.${place.column} = $3 and w.board_id = e.board_id
				and w.kind = 'comment-withdrawn' and (w.after ->> 'of')::bigint = e.seq)`,
		[board.id, seq, place.id],
	);
	if (!rows[0])
		throw new Problem(409, 'comment.gone', 'This was taken back, or was never said here.', 'comment');
	return rows[0];
}

async function ownComment(context: BoardContext, place: Place, seq: number): Promise<Said> {
	const said = await commentOf(context, place, seq);
	if (said.actor_id !== context.person.id)
		throw new Problem(403, 'comment.not_yours', 'Only whoever said it may change it or take it back.');
	return said;
}

/** The comment at the top of the talk that one belongs to: answers stand one level deep. */
async function rootOf(context: BoardContext, place: Place, seq: number): Promise<number> {
	return (await commentOf(context, place, seq)).after?.replyTo ?? seq;
}

/** Who has written a comment or an answer to it. */
async function writersOf({ tx, board }: BoardContext, place: Place, root: number): Promise<string[]> {
	const { rows } = await tx.query<{ id: string }>(
		`select distinct actor_id as id from event
		where ${place.column} = $1 and board_id = $2 and kind = 'comment' and actor_id is not null
			and (seq = $3 or (after ->> 'replyTo')::bigint = $3)`,
		[place.id, board.id, root],
	);
	return rows.map(({ id }) => id);
}

/** Open questions that a comment answers: those to whoever says it, and those of others in the talk that it belongs to. */
async function questionsAnswered(
	{ tx, board, person }: BoardContext,
	place: Place,
	root: number | null,
): Promise<{ seq: number; person: string; asker: string }[]> {
	const { rows } = await tx.query<{ seq: number; person: string; asker: string }>(
		`select q.seq, q.person_id as person, e.actor_id as asker
		from question q
		join event e on e.board_id = q.board_id and e.seq = q.seq
		where q.${place.column} = $1 and q.board_id = $2 and e.actor_id <> $3
			and (q.answered_seq is null or exists (select from event_void v where v.board_id = q.board_id and v.seq = q.answered_seq))
			and (q.person_id = $3 or q.seq = $4 or (e.after ->> 'replyTo')::bigint = $4)`,
		[place.id, board.id, person.id, root],
	);
	return rows;
}

/** Whom a text names of those who may see where it is said. */
async function namedIn(
	{ tx, board, person }: BoardContext,
	place: Place,
	text: string,
): Promise<{ mentions: string[]; asks: string[]; advice?: string }> {
	if (!text.includes('@')) return { mentions: [], asks: [] };
	const { rows } = await tx.query<{ id: string; name: string; title: string | null; team: boolean }>(
		`select p.id, p.name, m.title, m.person_id is not null as team
		from person p
		join board_right r on r.board_id = $1 and r.person_id = p.id
		left join card c on c.id = $2
		left join membership m on m.team_id = $3 and m.person_id = p.id and m.left_at is null
		where (c.id is null or may_see(c, p.id)) and p.id <> $5
			and (($6 and m.person_id is not null) or position('@' || lower(p.name) in lower($4)) > 0)`,
		[
			board.id,
			place.column === 'card_id' ? place.id : null,
			board.team,
			text,
			person.id,
			/@team/i.test(text),
		],
	);
	const found = mentionsIn(text, rows);
	const team = found.team ? rows.filter((one) => one.team).map(({ id }) => id) : [];
	const asks = [...new Set([...found.asks, ...(found.teamAsked ? team : [])])];
	const mentions = [...new Set([...found.mentions, ...team])].filter((id) => !asks.includes(id));
	if (found.mentions.length + found.asks.length > MOST_NAMED)
		throw new Problem(
			422,
			'mentions.too_many',
			`At most ${MOST_NAMED} people can be named at once; @team names everyone.`,
			'text',
		);
	const nobody = found.nobody.filter((word) => !person.name.toLowerCase().startsWith(word.toLowerCase()));
	return {
		mentions,
		asks,
		...(nobody.length
			? {
					advice: `Nobody was told of ${nobody
						.slice(0, 3)
						.map((word) => `@${word}`)
						.join(
							', ',
						)}: ${count(nobody.length, 'name')} of nobody who may see ${place.column === 'card_id' ? 'this card' : 'this board'}.`,
				}
			: {}),
	};
}
