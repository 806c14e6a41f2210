import { Problem } from '../../problem.ts';
import { boardCommand } from '../../door/command.ts';
import { dayField } from '../../door/day-field.ts';
import { DayText, Id, Optional, OrNull, Version } from '../../door/fields.ts';

export class ReviewCard {
	@Id('card')
	card!: string;

	@Version()
	version!: number;

	/** Who looks it over before it is done; null for nobody, left out to keep who it is. */
	@Optional()
	@OrNull()
	@Id('reviewer')
	reviewer?: string | null;

	/** The day by which they do, `2026-12-04`; null for none, left out to keep it as it is. */
	@Optional()
	@OrNull()
	@DayText('The day of the review')
	due?: string | null;
}

export const reviewCard = boardCommand({
	name: 'ReviewCard',
	summary: 'Asks somebody to look a card over before it is done, by a day where one is named.',
	input: ReviewCard,
	async run(context, input) {
		const { tx, board } = context;
		const card = await context.card(input.card, input.version);
		const { rows } = await tx.query<{ id: string; name: string }>(
			`select p.id, p.name from membership m join person p on p.id = m.person_id
			where m.team_id = $1 and m.left_at is null and p.id = any($2::uuid[])`,
			[board.team, input.reviewer ? [input.reviewer] : []],
		);
		if (input.reviewer && !rows[0] && input.reviewer !== card.reviewer_id)
			throw new Problem(422, 'reviewer.unknown', 'A reviewer must be in the board’s team.', 'reviewer');
		const reviewer = input.reviewer === undefined ? card.reviewer_id : input.reviewer;
		if (input.due) dayField(input.due, 'due', 'The day of the review');
		if (!reviewer && input.due)
			throw new Problem(422, 'invalid.due', 'Say who reviews it before you say by when.', 'due');
		const due = !reviewer ? null : input.due === undefined ? card.review_by : input.due;
		await tx.query('update card set reviewer_id = $2, review_by = $3, version = version + 1 where id = $1', [
			card.id,
			reviewer,
			due,
		]);
		if (reviewer !== card.reviewer_id)
			context.note(
				card.id,
				'reviewer',
				rows[0]?.name ?? '',
				{ reviewer: card.reviewer_id },
				{ person: reviewer },
			);
		if (due !== card.review_by) context.note(card.id, 'review-by', due ?? '', { due: card.review_by });
	},
});
