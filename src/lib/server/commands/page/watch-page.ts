import { IsBoolean } from 'class-validator';
import { boardCommand } from '../../door/command.ts';
import { OfPage, pageOf } from './page-of.ts';

export class WatchPage extends OfPage {
	/** Whether one wants to be told of what happens there from now on: of an initiative, to its cards too. */
	@IsBoolean({ message: 'A page is watched or not: true or false.' })
	watch!: boolean;
}

export const watchPage = boardCommand({
	name: 'WatchPage',
	summary:
		'Watches an initiative with its cards, or what is said on the page of a board, or stops: whoever leads it or talked there is told unless they stop.',
	role: 'viewer',
	undoable: false,
	input: WatchPage,
	async run(context, input) {
		const page = await pageOf(context, input);
		await context.tx.query(
			`insert into page_watch (page_id, person_id, how) values ($1, $2, $3)
			on conflict (page_id, person_id) do update set how = excluded.how`,
			[page.id, context.person.id, input.watch ? 'chosen' : 'stopped'],
		);
	},
});
