import { splitOff } from '../../../../core/sprint/left.ts';
import { Problem } from '../../problem.ts';
import { boardCommand } from '../../door/command.ts';
import { Amount, Id, Line, Lines, Optional, Version } from '../../door/fields.ts';
import { withoutChildren } from './family.ts';
import { makeCards } from './make-cards.ts';

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
		const { part, size, left } = splitOff(card, asked);
		const along = card.checklist.filter((line) => input.lines?.includes(line.id));
		const { rows } = await tx.query<{
			labels: string[];
			initiative: string | null;
			sprint: number | null;
			running: boolean;
		}>(
			`select array(select l.name from card_label k join label l on l.id = k.label_id where k.card_id = c.id) as labels,
				(select name from initiative where id = c.initiative_id) as initiative,
				s.number as sprint, s.started_at is not null as running
			from card c
			left join sprint s on s.id = c.sprint_id
			where c.id = $1`,
			[card.id],
		);
		const about = rows[0]!;
		const [made] = await makeCards(
			context,
			[
				{
					title: input.title,
					size: card.size === null ? null : part,
					class: card.class,
					lane: card.lane_id,
					labels: about.labels,
					owners: card.owners,
					initiative: about.initiative,
					checklist: along,
					// The rest of what waits on a list waits on it too; a running sprint's part waits in the backlog.
					sprint: card.sprint_id && !about.running ? { id: card.sprint_id, number: about.sprint! } : null,
				},
			],
			card.column_id === null ? card.id : null,
		);
		await tx.query('update card set type = $2 where id = $1', [made!.id, card.type]);
		if (card.type) context.note(made!.id, 'type', card.type);
		await tx.query(
			'update card set size = $2, "left" = $3, checklist = $4, version = version + 1 where id = $1',
			[card.id, size, left, JSON.stringify(card.checklist.filter((line) => !along.includes(line)))],
		);
		await tx.query(`insert into card_link (from_id, to_id, kind) values ($1, $2, 'split')`, [
			card.id,
			made!.id,
		]);
		if (part)
			context.note(
				card.id,
				'split',
				String(part),
				{ size: card.size, left: card.left },
				{ card: made!.number },
			);
		context.note(card.id, 'split-to', String(made!.number));
		context.note(made!.id, 'split-from', String(card.number));
		return { result: { card: made!.id, number: made!.number } };
	},
});
