import { lensQuery } from '../../../../core/board/lens.ts';
import { boardCommand } from '../../door/command.ts';
import { Id } from '../../door/fields.ts';
import { dropLensOf, keepLensOf, LensSaid } from './keep-lens.ts';

/** Its query is what the address of the board says, such as `by=owners&where=due:~late`. */
export class KeepLens extends LensSaid {
	@Id('board')
	board!: string;
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
