import { IsBoolean, IsString, MaxLength } from 'class-validator';
import { lensQuery } from '../../../../core/board/lens.ts';
import { boardCommand } from '../../door/command.ts';
import { Id, Line } from '../../door/fields.ts';
import { dropLensOf, keepLensOf } from './keep-lens.ts';

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
	async run(context, { name, query: said, shared }) {
		const query = lensQuery(new URLSearchParams(said));
		const lens = await keepLensOf(bound(context), { board_id: context.board.id }, { name, query, shared });
		context.note(null, 'lens-kept', shared ? name : '');
		return { result: { lens } };
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
		const name = await dropLensOf(bound(context), { board_id: context.board.id }, input.lens);
		context.note(null, 'lens-dropped', name);
	},
});

/** What is asked of a board's context is asked of it, whoever asks. */
const bound = (context: Parameters<typeof keepLens.run>[0]) => ({
	...{ tx: context.tx, person: context.person, at: context.at, role: context.role },
	keep: context.keep.bind(context),
});
