import { IsInt, IsString, Length, Max, Min } from 'class-validator';
import { applyDecorators } from '../../door/decorate.ts';
import { boardCommand } from '../../door/command.ts';
import type { BoardContext } from '../../door/contexts.ts';
import { Id, Line, Optional, OrNull } from '../../door/fields.ts';
import { notFound, Problem } from '../../problem.ts';
import { hashOf } from '../../sign-in.ts';
import { retroOf, tellRetro, type RetroRow } from './retro-of.ts';

const MOST_NOTES = 300;
const MOST_CHARACTERS = 500;

class OfRetrospective {
	@Id('board')
	board!: string;

	@Id('retrospective')
	retrospective!: string;
}

/** The key by which alone whoever wrote a note without an author knows it again. */
const NoteKey = () =>
	applyDecorators(
		Optional(),
		Length(20, 100, { message: 'The key of a note has 20 to 100 characters.' }),
		IsString({ message: 'The key of a note must be text.' }),
	);

/** A note of one’s own: by its id, or, where nobody is stored with it, by the key that it was written with. */
class OwnNote extends OfRetrospective {
	@Optional()
	@Id('note')
	note?: string;

	@NoteKey()
	key?: string;
}

export class WriteNote extends OfRetrospective {
	/** The column, from 0 on. */
	@Min(0, { message: 'The column is named by its place, from 0 on.' })
	@IsInt({ message: 'The column is named by its place, from 0 on.' })
	place!: number;

	@Line('The note', MOST_CHARACTERS)
	words!: string;

	/** Where nobody is stored with notes: made by the sender, who alone knows by it, until they are turned over, which is theirs. */
	@NoteKey()
	key?: string;
}

export const writeNote = boardCommand({
	name: 'WriteNote',
	summary: 'Writes a note of a retrospective, face down until the notes are turned over.',
	role: 'viewer',
	undoable: false,
	input: WriteNote,
	secret: ['words', 'place', 'key'],
	async run(context, input) {
		const { tx, person } = context;
		const retro = await retroOf(context, input.retrospective, ['write', 'lay']);
		if (input.place >= retro.columns.length)
			throw new Problem(422, 'invalid.place', 'This retrospective has no such column.', 'place');
		if (retro.anonymous && !input.key && retro.phase === 'write')
			throw new Problem(422, 'invalid.key', 'A note without an author is written with a key.', 'key');
		const { rows } = await tx.query<{ n: number }>(
			'select count(*)::int as n from retro_note where retrospective_id = $1',
			[retro.id],
		);
		if (rows[0]!.n >= MOST_NOTES)
			throw new Problem(
				409,
				'retrospective.full',
				`There are ${MOST_NOTES} notes: that is enough to talk of.`,
			);
		await tx.query(
			`insert into retro_note (retrospective_id, place, words, author_id, own) values ($1, $2, $3, $4, $5)`,
			[
				retro.id,
				input.place,
				input.words,
				retro.anonymous ? null : person.id,
				retro.anonymous && retro.phase === 'write' ? hashOf(input.key!) : null,
			],
		);
		await tellRetro(context);
	},
});

export class ChangeNote extends OwnNote {
	@Line('The note', MOST_CHARACTERS)
	words!: string;
}

export const changeNote = boardCommand({
	name: 'ChangeNote',
	summary: 'Changes what a note of one’s own says.',
	role: 'viewer',
	undoable: false,
	input: ChangeNote,
	secret: ['words', 'key', 'note'],
	async run(context, input) {
		const retro = await retroOf(context, input.retrospective, ['write', 'lay']);
		const note = await ownNote(context, retro, input);
		await context.tx.query('update retro_note set words = $2 where id = $1', [note, input.words]);
		await tellRetro(context);
	},
});

export class WithdrawNote extends OwnNote {}

export const withdrawNote = boardCommand({
	name: 'WithdrawNote',
	summary: 'Takes a note of one’s own back, as long as the notes lie face down.',
	role: 'viewer',
	undoable: false,
	input: WithdrawNote,
	secret: ['key', 'note'],
	async run(context, input) {
		const retro = await retroOf(context, input.retrospective, ['write']);
		await context.tx.query('delete from retro_note where id = $1', [await ownNote(context, retro, input)]);
		await tellRetro(context);
	},
});

async function ownNote({ tx, person }: BoardContext, retro: RetroRow, input: OwnNote): Promise<string> {
	const { rows } = await tx.query<{ id: string }>(
		`select id from retro_note
		where retrospective_id = $1 and case when $4 then own = $3 else id = $2 and author_id = $5 end`,
		[retro.id, input.note ?? null, hashOf(input.key ?? ''), retro.anonymous, person.id],
	);
	if (!rows[0]) throw notFound('note');
	return rows[0].id;
}

export class LayNote extends OfRetrospective {
	@Id('note')
	note!: string;

	/** The note that it is laid on; null: it lies by itself. */
	@OrNull()
	@Id('note')
	on!: string | null;

	/** The column in which it then lies by itself. */
	@Optional()
	@Min(0, { message: 'The column is named by its place, from 0 on.' })
	@IsInt({ message: 'The column is named by its place, from 0 on.' })
	place?: number;
}

export const layNote = boardCommand({
	name: 'LayNote',
	summary: 'Lays a note on another one that says the like, or by itself again; what lay on it comes along.',
	role: 'viewer',
	undoable: false,
	input: LayNote,
	async run(context, input) {
		const { tx } = context;
		const retro = await retroOf(context, input.retrospective, ['lay']);
		if (input.place !== undefined && input.place >= retro.columns.length)
			throw new Problem(422, 'invalid.place', 'This retrospective has no such column.', 'place');
		if (input.on === input.note) throw new Problem(422, 'note.itself', 'A note cannot lie on itself.', 'on');
		const { rows } = await tx.query<{ id: string; on: string | null; place: number }>(
			'select id, on_id as on, place from retro_note where retrospective_id = $1 and id = any($2)',
			[retro.id, [input.note, input.on].filter(Boolean)],
		);
		const note = rows.find(({ id }) => id === input.note);
		const on = rows.find(({ id }) => id === input.on);
		if (!note || (input.on && !on)) throw notFound('note');
		// A pile is one deep: what is laid on a note of a pile lies on its bottom one.
		const bottom = on ? (on.on ?? on.id) : null;
		if (bottom === note.id) return;
		const place = on ? on.place : (input.place ?? note.place);
		await tx.query(
			`update retro_note set on_id = $2, place = $3 where id = $1 or (on_id = $1 and $2::uuid is not null)`,
			[note.id, bottom, place],
		);
		await tx.query('update retro_note set place = $2 where on_id = $1', [note.id, place]);
		await tellRetro(context);
	},
});

export class VoteNote extends OfRetrospective {
	@Id('note')
	note!: string;

	/** How many of one’s own votes it has then. */
	@Max(10, { message: 'A note has at most 10 votes of one person.' })
	@Min(0, { message: 'A note has 0 votes or more.' })
	@IsInt({ message: 'Votes are a whole number.' })
	votes!: number;
}

export const voteNote = boardCommand({
	name: 'VoteNote',
	summary: 'Gives a note so many of one’s own votes.',
	role: 'viewer',
	undoable: false,
	input: VoteNote,
	secret: ['note', 'votes'],
	async run(context, input) {
		const { tx, person } = context;
		const retro = await retroOf(context, input.retrospective, ['vote']);
		const { rows } = await tx.query<{ found: boolean; others: number }>(
			`select exists (select from retro_note where id = $2 and retrospective_id = $1 and on_id is null) as found, (
				select coalesce(sum(v.votes), 0)::int from retro_vote v join retro_note n on n.id = v.note_id
				where n.retrospective_id = $1 and v.person_id = $3 and v.note_id <> $2
			) as others`,
			[retro.id, input.note, person.id],
		);
		if (!rows[0]!.found) throw notFound('note');
		if (rows[0]!.others + input.votes > retro.votes)
			throw new Problem(
				409,
				'votes.spent',
				`Each person has ${retro.votes} votes: take one back to give it to another note.`,
				'votes',
			);
		await tx.query(
			input.votes
				? `insert into retro_vote (note_id, person_id, votes) values ($1, $2, $3)
					on conflict (note_id, person_id) do update set votes = excluded.votes`
				: `delete from retro_vote where note_id = $1 and person_id = $2 and $3::int is not null`,
			[input.note, person.id, input.votes],
		);
		await tellRetro(context);
	},
});
