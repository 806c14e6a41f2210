import { sized } from '../../../../core/sprint/left.ts';
import { boardCommand } from '../../door/command.ts';
import { withoutChildren } from './family.ts';
import { Amount, Id, Version } from '../../door/fields.ts';

export class SizeCard {
	@Id('card')
	card!: string;

	@Version()
	version!: number;

	/** In the board's unit: hours or points. */
	@Amount('The size')
	size!: number;
}

export const sizeCard = boardCommand({
	name: 'SizeCard',
	summary: 'Sizes a card; what is left moves by the same difference.',
	input: SizeCard,
	async run(context, input) {
		const card = await context.card(input.card, input.version);
		withoutChildren(card);
		const { size, left } = sized(card, input.size, card.clock === 'done');
		await context.tx.query('update card set size = $2, "left" = $3, version = version + 1 where id = $1', [
			card.id,
			size,
			left,
		]);
		context.note(card.id, 'sized', String(size), { size: card.size, left: card.left });
	},
});
