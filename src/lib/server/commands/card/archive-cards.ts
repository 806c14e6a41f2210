import { boardCommand } from '../../door/command.ts';
import { Id, Line, SeenCard, SeenCards } from '../../door/fields.ts';
import { archiveOne } from './archive-card.ts';

export class ArchiveCards {
	@Id('board')
	board!: string;

	@SeenCards()
	cards!: SeenCard[];

	@Line('The reason', 300)
	reason!: string;
}

export const archiveCards = boardCommand({
	name: 'ArchiveCards',
	summary: 'Takes cards off the board in one step, with one reason; each stays findable and can be restored.',
	input: ArchiveCards,
	async run(context, input) {
		for (const card of await context.cards(input.cards)) await archiveOne(context, card, input.reason);
	},
});
