import { boardCommand } from '../../door/command.ts';
import { Id, People, Version } from '../../door/fields.ts';
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
}

export const assignCard = boardCommand({
	name: 'AssignCard',
	summary: 'Says who owns a card: one person, several, or nobody.',
	input: AssignCard,
	async run(context, input) {
		const card = await context.card(input.card, input.version);
		const owners = checkOwners(await ableToOwn(context), input.owners, card.owners);
		await giveOut(context, [{ card, owners }]);
		await context.changedNow([card]);
	},
});
