import { IsString, MaxLength } from 'class-validator';
import { boardCommand } from '../../door/command.ts';
import { Id, Version } from '../../door/fields.ts';

export class DescribeCard {
	@Id('card')
	card!: string;

	@Version()
	version!: number;

	@MaxLength(50_000, { message: 'The description may have at most 50,000 characters.' })
	@IsString({ message: 'The description must be text.' })
	description!: string;
}

export const describeCard = boardCommand({
	name: 'DescribeCard',
	summary: 'Gives a card another description.',
	input: DescribeCard,
	async run(context, input) {
		const card = await context.card(input.card, input.version);
		await context.tx.query('update card set description = $2, version = version + 1 where id = $1', [
			card.id,
			input.description,
		]);
		context.note(
			card.id,
			'described',
			'',
			{ description: card.description },
			{ description: input.description },
		);
	},
});
