import { IsInt, Min } from 'class-validator';
import { boardCommand } from '../../door/command.ts';
import { Line, Optional } from '../../door/fields.ts';
import { onPage, toChange, toSay, toWithdraw } from '../talk/said.ts';
import { OfPage, pageOf } from './page-of.ts';

const NAMED = 'A comment is named by the number of its event.';

export class CommentPage extends OfPage {
	/** Markdown. @ and a name tells somebody who may see the board; in a sentence that ends in ? it asks them. `@team` names all. */
	@Line('The comment', 10_000)
	text!: string;

	/** The number of the comment that it answers. */
	@Optional()
	@Min(1, { message: NAMED })
	@IsInt({ message: NAMED })
	replyTo?: number;
}

export class ChangePageComment extends OfPage {
	/** The number of the comment’s event. */
	@Min(1, { message: NAMED })
	@IsInt({ message: NAMED })
	comment!: number;

	@Line('The comment', 10_000)
	text!: string;
}

export class WithdrawPageComment extends OfPage {
	/** The number of the comment’s event. */
	@Min(1, { message: NAMED })
	@IsInt({ message: NAMED })
	comment!: number;
}

export const commentPage = boardCommand({
	name: 'CommentPage',
	summary:
		'Says something on the page of a board or an initiative, or answers what was said there. Its writer can change it or take it back.',
	role: 'viewer',
	undoable: false,
	input: CommentPage,
	async run(context, input) {
		const page = await pageOf(context, input);
		const { after, advice, answer } = await toSay(context, onPage(page), input);
		context.noteOnPage(page, 'comment', input.text, after);
		await answer();
		return { advice };
	},
});

export const changePageComment = boardCommand({
	name: 'ChangePageComment',
	summary: 'Changes what oneself has said on a page. Whom it names only now is told.',
	role: 'viewer',
	undoable: false,
	input: ChangePageComment,
	async run(context, input) {
		const page = await pageOf(context, input);
		const { after, advice } = await toChange(context, onPage(page), input);
		context.noteOnPage(page, 'comment-changed', input.text, after);
		return { advice };
	},
});

export const withdrawPageComment = boardCommand({
	name: 'WithdrawPageComment',
	summary: 'Takes back what oneself has said on a page: that something was said stays.',
	role: 'viewer',
	undoable: false,
	input: WithdrawPageComment,
	async run(context, input) {
		const page = await pageOf(context, input);
		await toWithdraw(context, onPage(page), input.comment);
		context.noteOnPage(page, 'comment-withdrawn', '', { of: input.comment });
	},
});
