import { boardCommand } from '../../door/command.ts';
import { nest } from './family.ts';
import { Id, OrNull, Version } from '../../door/fields.ts';

export class NestCard {
	@Id('card')
	card!: string;

	@Version()
	version!: number;

	/** The card that it becomes part of; null for none. */
	@OrNull()
	@Id('parent')
	parent!: string | null;
}

export const nestCard = boardCommand({
	name: 'NestCard',
	summary: 'Makes a card a sub-card of another one, or lets it stand by itself again.',
	input: NestCard,
	async run(context, input) {
		const [card, parent] = await context.cards([
			{ card: input.card, version: input.version },
			...(input.parent ? [{ card: input.parent }] : []),
		]);
		for (const one of parent ? [card!, parent] : [card!]) context.unarchived(one);
		const advice = await nest(context, card!, parent ?? null);
		await context.changedNow(parent ? [card!, parent] : [card!]);
		return { advice };
	},
});
