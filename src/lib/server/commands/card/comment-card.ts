import { boardCommand } from '../../door/command.ts';
import { Id, Line } from '../../door/fields.ts';

export class CommentCard {
	@Id('card')
	card!: string;

	/** Markdown. */
	@Line('The comment', 10_000)
	text!: string;
}

export const commentCard = boardCommand({
	name: 'CommentCard',
	summary: 'Says something on a card. What was said stays; its writer can take it back.',
	role: 'viewer',
	input: CommentCard,
	async run(context, input) {
		// A comment is an event: it needs no version, since it changes nothing that somebody else wrote.
		const card = await context.card(input.card);
		await context.changedNow([card]);
		context.note(card.id, 'comment', input.text);
	},
});
