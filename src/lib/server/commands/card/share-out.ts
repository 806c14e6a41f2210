import { boardCommand } from '../../door/command.ts';
import { Entries, Id, SeenCard } from '../../door/fields.ts';
import { ableToOwn, checkOwners } from '../board/names.ts';
import { giveOut } from './owners.ts';

export class Gift extends SeenCard {
	@Id('owner')
	owner!: string;
}

export class ShareOut {
	@Id('board')
	board!: string;

	/** Who gets which card, as it was proposed and agreed to. */
	@Entries('cards', Gift, 500)
	cards!: Gift[];
}

export const shareOut = boardCommand({
	name: 'ShareOut',
	summary: 'Gives unowned cards to the people that were proposed for them, in one step.',
	input: ShareOut,
	async run(context, input) {
		const able = await ableToOwn(context);
		const cards = await context.cards(input.cards);
		const gifts = cards.map((card, i) => ({
			card,
			owners: checkOwners(able, [...card.owners, input.cards[i]!.owner], card.owners),
		}));
		await giveOut(context, gifts);
		await context.changedNow(cards);
	},
});
