import { Problem } from '../../problem.ts';
import { boardCommand } from '../../door/command.ts';
import { Id, Line, Version } from '../../door/fields.ts';
import { makeCards } from './make-cards.ts';
import { privateToo } from './private-too.ts';

export class LineToCard {
	@Id('card')
	card!: string;

	@Version()
	version!: number;

	/** The line's id. */
	@Line('The line', 60)
	line!: string;
}

export const lineToCard = boardCommand({
	name: 'LineToCard',
	summary: 'Makes a card in the backlog of a line of a checklist, linked to the card that it was on.',
	input: LineToCard,
	async run(context, input) {
		const { tx } = context;
		const card = context.unarchived(await context.card(input.card, input.version));
		const line = card.checklist.find(({ id }) => id === input.line);
		if (!line)
			throw new Problem(422, 'line.unknown', `Card ${card.number} has no such line any more.`, 'line');
		const [made] = await makeCards(
			context,
			[
				{
					title: line.quantity ? `${line.text}, ${line.quantity}` : line.text,
					description: line.link ?? '',
					owners: card.owners,
					asIs: true,
				},
			],
			card.column_id === null ? card.id : null,
		);
		await tx.query('update card set checklist = $2, version = version + 1 where id = $1', [
			card.id,
			JSON.stringify(card.checklist.filter((one) => one !== line)),
		]);
		await tx.query(`insert into card_link (from_id, to_id, kind) values ($1, $2, 'split')`, [
			card.id,
			made!.id,
		]);
		await privateToo(context, [{ from: card.id, to: made!.id }]);
		context.note(card.id, 'line-removed', line.text);
		context.note(card.id, 'split-to', String(made!.number));
		context.note(made!.id, 'split-from', String(card.number));
		return { result: { card: made!.id, number: made!.number } };
	},
});
