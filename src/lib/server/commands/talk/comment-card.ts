import { IsInt, Min } from 'class-validator';
import { boardCommand } from '../../door/command.ts';
import { Id, Line, Optional } from '../../door/fields.ts';
import { onCard, toChange, toSay, toWithdraw } from './said.ts';

export class CommentCard {
	@Id('card')
	card!: string;

	/** Markdown. @ and a name tells somebody who may see the card; in a sentence that ends in ? it asks them. `@team` names all. */
	@Line('The comment', 10_000)
	text!: string;

	/** The number of the comment that it answers. */
	@Optional()
	@Min(1, { message: 'A comment is named by the number of its event.' })
	@IsInt({ message: 'A comment is named by the number of its event.' })
	replyTo?: number;
}

export class ChangeComment {
	@Id('card')
	card!: string;

	/** The number of the comment’s event. */
	@Min(1, { message: 'A comment is named by the number of its event.' })
	@IsInt({ message: 'A comment is named by the number of its event.' })
	comment!: number;

	@Line('The comment', 10_000)
	text!: string;
}

export class WithdrawComment {
	@Id('card')
	card!: string;

	/** The number of the comment’s event. */
	@Min(1, { message: 'A comment is named by the number of its event.' })
	@IsInt({ message: 'A comment is named by the number of its event.' })
	comment!: number;
}

export const commentCard = boardCommand({
	name: 'CommentCard',
	summary:
		'Says something on a card, or answers what was said. What was said stays; its writer can change it or take it back.',
	role: 'viewer',
	input: CommentCard,
	async run(context, input) {
		// A comment is an event: it needs no version, since it changes nothing that somebody else wrote.
		const card = await context.card(input.card, undefined, true);
		const { after, advice, answer } = await toSay(context, onCard(card), input);
		await context.changedNow([card]);
		context.note(card.id, 'comment', input.text, null, after);
		await answer();
		return { advice };
	},
});

export const changeComment = boardCommand({
	name: 'ChangeComment',
	summary: 'Changes what oneself has said on a card. Whom it names only now is told.',
	role: 'viewer',
	undoable: false,
	input: ChangeComment,
	async run(context, input) {
		const card = await context.card(input.card, undefined, true);
		const { after, advice } = await toChange(context, onCard(card), input);
		await context.changedNow([card]);
		context.note(card.id, 'comment-changed', input.text, null, after);
		return { advice };
	},
});

export const withdrawComment = boardCommand({
	name: 'WithdrawComment',
	summary:
		'Takes back what oneself has said on a card: that something was said stays, its words do not show any more.',
	role: 'viewer',
	undoable: false,
	input: WithdrawComment,
	async run(context, input) {
		const card = await context.card(input.card, undefined, true);
		await toWithdraw(context, onCard(card), input.comment);
		await context.changedNow([card]);
		context.note(card.id, 'comment-withdrawn', '', null, { of: input.comment });
	},
});
