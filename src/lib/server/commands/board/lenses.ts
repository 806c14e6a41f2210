import { IsBoolean, IsString, MaxLength } from 'class-validator';
import { lensQuery } from '../../../../core/board/lens.ts';
import { Problem } from '../../problem.ts';
import { boardCommand } from '../../door/command.ts';
import { Id, Line } from '../../door/fields.ts';

/** So many lenses of a board one person keeps, and so many are shared, at most. */
const MOST = 60;

export class KeepLens {
	@Id('board')
	board!: string;

	@Line('The name of the lens', 60)
	name!: string;

	/** What the address of the board says, such as `by=owners&where=due:~late`. */
	@MaxLength(4000, { message: 'A lens may have at most 4,000 characters.' })
	@IsString({ message: 'What a lens looks at must be text.' })
	query!: string;

	/** Whether all who see the board have it; else it is one’s own. */
	@IsBoolean({ message: 'A lens is shared or not: true or false.' })
	shared!: boolean;
}

export const keepLens = boardCommand({
	name: 'KeepLens',
	summary: 'Keeps a way of looking at a board under a name; one’s own of the same name is replaced.',
	role: 'viewer',
	input: KeepLens,
	async run(context, input) {
		const { tx, board, person, role, at } = context;
		if (input.shared && role === 'viewer')
			throw new Problem(403, 'right.missing', 'Sharing a lens needs the role of a member or lead.');
		const query = lensQuery(new URLSearchParams(input.query));
		if (!query)
			throw new Problem(
				422,
				'lens.empty',
				'The board is looked at as it is: narrow or arrange it first.',
				'query',
			);
		await context.keep('lens', { board_id: board.id, person_id: person.id });
		const { rows } = await tx.query<{ n: number }>(
			'select count(*) as n from lens where board_id = $1 and person_id = $2 and retired_at is null',
			[board.id, person.id],
		);
		if (rows[0]!.n >= MOST)
			throw new Problem(
				409,
				'lens.too_many',
				`At most ${MOST} lenses of a board are kept: let one go.`,
				'name',
			);
		await tx.query(
			`update lens set retired_at = $4
			where board_id = $1 and person_id = $2 and lower(name) = lower($3) and retired_at is null`,
			[board.id, person.id, input.name, at],
		);
		const made = await tx.query<{ id: string }>(
			`insert into lens (board_id, person_id, name, query, shared, made_at) values ($1, $2, $3, $4, $5, $6) returning id`,
			[board.id, person.id, input.name, query, input.shared, at],
		);
		context.note(null, 'lens-kept', input.shared ? input.name : '');
		return { result: { lens: made.rows[0]!.id } };
	},
});

export class DropLens {
	@Id('board')
	board!: string;

	@Id('lens')
	lens!: string;
}

export const dropLens = boardCommand({
	name: 'DropLens',
	summary: 'Lets a lens go: one’s own, or as a lead any that is shared.',
	role: 'viewer',
	input: DropLens,
	async run(context, input) {
		const { tx, board, person, role, at } = context;
		const [lens] = await context.keep('lens', { board_id: board.id, id: input.lens });
		const may = lens && (lens.person_id === person.id || (lens.shared && role === 'lead'));
		if (!lens || lens.retired_at || !(may || lens.shared))
			throw new Problem(422, 'lens.unknown', 'There is no such lens of this board.', 'lens');
		if (!may)
			throw new Problem(403, 'right.missing', 'A shared lens is let go by who made it, or by a lead.');
		await tx.query('update lens set retired_at = $2 where id = $1', [lens.id, at]);
		context.note(null, 'lens-dropped', lens.shared ? String(lens.name) : '');
	},
});
