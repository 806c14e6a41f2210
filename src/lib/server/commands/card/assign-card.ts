import { boardCommand } from '../../door/command.ts';
import { Id, Line, Optional, People, Version } from '../../door/fields.ts';
import { ableToOwn, checkOwners } from '../board/names.ts';
import { giveOut } from './owners.ts';

export class AssignCard {
	@Id('card')
	card!: string;

	@Version()
	version!: number;

	/** Everyone who owns it from now on. */
	@People('owner')
	owners!: string[];

	/** Why it is let through over the limit of a person. */
	@Optional()
	@Line('The reason', 300)
	reason?: string;
}

export const assignCard = boardCommand({
	name: 'AssignCard',
	summary: 'Says who owns a card: one person, several, or nobody.',
	input: AssignCard,
	async run(context, input) {
		const card = await context.card(input.card, input.version);
		const owners = checkOwners(await ableToOwn(context), input.owners, card.owners);
		const { advice } = await giveOut(context, [{ card, owners }], input.reason);
		await context.changedNow([card]);
		return { advice };
	},
});
