import { Problem } from '../../problem.ts';
import { boardCommand } from '../../door/command.ts';
import { Amount, Id, Line, Lines, Optional, Version } from '../../door/fields.ts';
import { withoutChildren } from './family.ts';
import { splitOffParts } from './split-off.ts';

export class SplitCard {
	@Id('card')
	card!: string;

	@Version()
	version!: number;

	/** What the new card is called. */
	@Line('The title', 300)
	title!: string;

	/** How much of what is left goes to the new card; left out where the card is not sized. */
	@Optional()
	@Amount('The part')
	part?: number;

	/** The checklist lines that go along, by their ids. */
	@Optional()
	@Lines('checklist line', 200, 60)
	lines?: string[];
}

export const splitCard = boardCommand({
	name: 'SplitCard',
	summary: 'Moves a part of a card’s work to a new card that is linked to it.',
	input: SplitCard,
	async run(context, input) {
		const { tx } = context;
		const card = context.unarchived(await context.card(input.card, input.version));
		withoutChildren(card);
		if (card.clock === 'done')
			throw new Problem(
				409,
				'card.done',
				`Card ${card.number} is done: nothing is left to split off.`,
				'card',
			);
		if (card.size !== null && input.part === undefined)
			throw new Problem(422, 'invalid.part', 'Say how much of what is left goes to the new card.', 'part');
		const asked = card.size === null ? 0 : (input.part ?? 0);
		if (asked > card.left)
			throw new Problem(
				422,
				'split.too_much',
				`Only ${card.left} is left of card ${card.number}; no more than that can go to the new card.`,
				'part',
			);
		const { rows } = await tx.query<{ id: string; number: number }>(
			'select id, number from sprint where id = $1 and started_at is null',
			[card.sprint_id],
		);
		const part = {
			...{ row: card, title: input.title, amount: asked, lines: input.lines ?? [] },
			// The rest of what waits on a list waits on it too; a running sprint's part waits in the backlog.
			sprint: rows[0] ?? null,
		};
		const [made] = await splitOffParts(context, [part], card.column_id === null ? card.id : null);
		await context.changedNow([card]);
		return { result: { card: made!.id, number: made!.number } };
	},
});
