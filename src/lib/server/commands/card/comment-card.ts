import { IsInt, Min } from 'class-validator';
import { mentionsIn } from '../../../../core/talk/mentions.ts';
import { count } from '../../../../core/words.ts';
import { boardCommand } from '../../door/command.ts';
import type { BoardContext, CardRow } from '../../door/contexts.ts';
import { Id, Line, Optional } from '../../door/fields.ts';
import { Problem } from '../../problem.ts';

export class CommentCard {
	@Id('card')
	card!: string;

	/** Markdown. @ and a name tells somebody who may see the card; in a sentence that ends in ? it asks them. `@team` names all. */
	@Line('The comment', 10_000)
	text!: string;

	/** The number of the comment that it answers. */
	@Optional()
	@Min(1, { message: 'A comment is named by the number of its event.' })
	@IsInt({ message: 'A comment is named by the number of its event.' })
	replyTo?: number;
}

export class ChangeComment {
	@Id('card')
	card!: string;

	/** The number of the comment’s event. */
	@Min(1, { message: 'A comment is named by the number of its event.' })
	@IsInt({ message: 'A comment is named by the number of its event.' })
	comment!: number;

	@Line('The comment', 10_000)
	text!: string;
}

export class WithdrawComment {
	@Id('card')
	card!: string;

	/** The number of the comment’s event. */
	@Min(1, { message: 'A comment is named by the number of its event.' })
	@IsInt({ message: 'A comment is named by the number of its event.' })
	comment!: number;
}

const MOST_NAMED = 50;

export const commentCard = boardCommand({
	name: 'CommentCard',
	summary:
		'Says something on a card, or answers what was said. What was said stays; its writer can change it or take it back.',
	role: 'viewer',
	input: CommentCard,
	async run(context, input) {
		// A comment is an event: it needs no version, since it changes nothing that somebody else wrote.
		const card = await context.card(input.card, undefined, true);
		const replyTo = input.replyTo === undefined ? null : await rootOf(context, card, input.replyTo);
		const { mentions, asks, advice } = await namedIn(context, card, input.text);
		const answered = await questionsAnswered(context, card, replyTo);
		await context.changedNow([card]);
		context.note(card.id, 'comment', input.text, null, {
			...(replyTo === null ? {} : { replyTo, thread: await writersOf(context, card, replyTo) }),
			...(mentions.length ? { mentions } : {}),
			...(asks.length ? { asks } : {}),
			...(answered.length ? { answers: [...new Set(answered.map(({ asker }) => asker))] } : {}),
		});
		if (answered.length)
			await context.tx.query(
				`update question set answered_seq = $3
				where board_id = $1 and (seq, person_id) in (select seq, person from jsonb_to_recordset($2) as q(seq bigint, person uuid))`,
				[context.board.id, JSON.stringify(answered), context.board.lastSeq + context.notes.length],
			);
		return { advice };
	},
});

export const changeComment = boardCommand({
	name: 'ChangeComment',
	summary: 'Changes what oneself has said on a card. Whom it names only now is told.',
	role: 'viewer',
	undoable: false,
	input: ChangeComment,
	async run(context, input) {
		const card = await context.card(input.card, undefined, true);
		const said = await ownComment(context, card, input.comment);
		const { mentions, asks, advice } = await namedIn(context, card, input.text);
		const before = new Set([...(said.after?.mentions ?? []), ...(said.after?.asks ?? [])]);
		const named = [...mentions, ...asks].filter((person) => !before.has(person));
		await context.changedNow([card]);
		context.note(card.id, 'comment-changed', input.text, null, {
			of: input.comment,
			...(named.length ? { mentions: named } : {}),
		});
		return { advice };
	},
});

export const withdrawComment = boardCommand({
	name: 'WithdrawComment',
	summary:
		'Takes back what oneself has said on a card: that something was said stays, its words do not show any more.',
	role: 'viewer',
	undoable: false,
	input: WithdrawComment,
	async run(context, input) {
		const card = await context.card(input.card, undefined, true);
		await ownComment(context, card, input.comment);
		await context.changedNow([card]);
		context.note(card.id, 'comment-withdrawn', '', null, { of: input.comment });
		// What it asked is not asked any more; what it answered is open again.
		await context.tx.query(
			`with asked as (
				delete from question where board_id = $1 and seq = $2
			)
			update question set answered_seq = null where board_id = $1 and answered_seq = $2`,
			[context.board.id, input.comment],
		);
	},
});

interface Said {
	actor_id: string | null;
	after: { replyTo?: number; mentions?: string[]; asks?: string[] } | null;
}

/** A comment of a card by its number, as long as it was not taken back. */
async function commentOf({ tx, board }: BoardContext, card: CardRow, seq: number): Promise<Said> {
	const { rows } = await tx.query<Said>(
		`select e.actor_id, e.after from event e
		where e.board_id = $1 and e.seq = $2 and e.card_id = $3 and e.kind = 'comment'
			and not exists (select from event_void v where v.board_id = e.board_id and v.seq = e.seq)
			and not exists (select from event w where w.card_id = e.card_id and w.board_id = e.board_id
				and w.kind = 'comment-withdrawn' and (w.after ->> 'of')::bigint = e.seq)`,
		[board.id, seq, card.id],
	);
	if (!rows[0])
		throw new Problem(409, 'comment.gone', 'This was taken back, or was never said here.', 'comment');
	return rows[0];
}

async function ownComment(context: BoardContext, card: CardRow, seq: number): Promise<Said> {
	const said = await commentOf(context, card, seq);
	if (said.actor_id !== context.person.id)
		throw new Problem(403, 'comment.not_yours', 'Only whoever said it may change it or take it back.');
	return said;
}

/** The comment at the top of the talk that one belongs to: answers stand one level deep. */
async function rootOf(context: BoardContext, card: CardRow, seq: number): Promise<number> {
	return (await commentOf(context, card, seq)).after?.replyTo ?? seq;
}

/** Who has written a comment or an answer to it. */
async function writersOf({ tx, board }: BoardContext, card: CardRow, root: number): Promise<string[]> {
	const { rows } = await tx.query<{ id: string }>(
		`select distinct actor_id as id from event
		where card_id = $1 and board_id = $2 and kind = 'comment' and actor_id is not null
			and (seq = $3 or (after ->> 'replyTo')::bigint = $3)`,
		[card.id, board.id, root],
	);
	return rows.map(({ id }) => id);
}

/** Open questions that a comment answers: those to whoever says it, and those of others in the talk that it belongs to. */
async function questionsAnswered(
	{ tx, board, person }: BoardContext,
	card: CardRow,
	root: number | null,
): Promise<{ seq: number; person: string; asker: string }[]> {
	const { rows } = await tx.query<{ seq: number; person: string; asker: string }>(
		`select q.seq, q.person_id as person, e.actor_id as asker
		from question q
		join event e on e.board_id = q.board_id and e.seq = q.seq
		where q.card_id = $1 and q.board_id = $2 and e.actor_id <> $3
			and (q.answered_seq is null or exists (select from event_void v where v.board_id = q.board_id and v.seq = q.answered_seq))
			and (q.person_id = $3 or q.seq = $4 or (e.after ->> 'replyTo')::bigint = $4)`,
		[card.id, board.id, person.id, root],
	);
	return rows;
}

/** Whom a text names of those who may see the card. */
async function namedIn(
	{ tx, board, person }: BoardContext,
	card: CardRow,
	text: string,
): Promise<{ mentions: string[]; asks: string[]; advice?: string }> {
	if (!text.includes('@')) return { mentions: [], asks: [] };
	const { rows } = await tx.query<{ id: string; name: string; team: boolean }>(
		`select p.id, p.name, m.person_id is not null as team
		from person p
		join board_right r on r.board_id = $1 and r.person_id = p.id
		join card c on c.id = $2
		left join membership m on m.team_id = $3 and m.person_id = p.id and m.left_at is null
		where may_see(c, p.id) and p.id <> $5
			and (($6 and m.person_id is not null) or position('@' || lower(p.name) in lower($4)) > 0)`,
		[board.id, card.id, board.team, text, person.id, /@team/i.test(text)],
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
						.join(', ')}: ${count(nobody.length, 'name')} of nobody who may see this card.`,
				}
			: {}),
	};
}
