import { ArrayUnique, IsArray, IsIn } from 'class-validator';
import { boardCommand } from '../../door/command.ts';
import { Id, SeenCard, SeenCards } from '../../door/fields.ts';
import { draftOf, namesOn } from './drafts.ts';
import { makeCards } from './make-cards.ts';
import { privateToo } from './private-too.ts';

/** What a copy can take along, beside title, type and class. */
export const TAKEN_ALONG = [
	'description',
	'checklist',
	'owners',
	'labels',
	'initiative',
	'size',
	'dates',
	'fields',
	'files',
] as const;

export class CopyCards {
	@Id('board')
	board!: string;

	@SeenCards()
	cards!: SeenCard[];

	/** What the copies take along beside title, type and class. */
	@ArrayUnique({ message: 'Name each part once.' })
	@IsIn(TAKEN_ALONG, { each: true, message: `A copy takes along: ${TAKEN_ALONG.join(', ')}.` })
	@IsArray({ message: 'What copies take along must be a list.' })
	with!: (typeof TAKEN_ALONG)[number][];
}

export const copyCards = boardCommand({
	name: 'CopyCards',
	summary: 'Makes copies of cards in the backlog, with what is chosen of them; nothing in them is begun.',
	input: CopyCards,
	async run(context, input) {
		const cards = await context.look(input.cards);
		const names = await namesOn(context, cards);
		const takes = (part: (typeof TAKEN_ALONG)[number]) => input.with.includes(part);
		const made = await makeCards(
			context,
			cards.map((card) => {
				const whole = draftOf(card, names);
				return {
					title: whole.title,
					type: whole.type,
					class: whole.class,
					lane: whole.lane,
					asIs: true,
					...(takes('description') ? { description: whole.description } : {}),
					...(takes('checklist')
						? { checklist: whole.checklist?.map((line) => ({ ...line, done: false, state: undefined })) }
						: {}),
					...(takes('owners') ? { owners: whole.owners } : {}),
					...(takes('labels') ? { labels: whole.labels } : {}),
					...(takes('initiative') ? { initiative: whole.initiative } : {}),
					...(takes('size') && !card.children ? { size: whole.size } : {}),
					...(takes('dates') ? { start: whole.start, due: whole.due } : {}),
					...(takes('fields') ? { fields: whole.fields } : {}),
				};
			}),
			undefined,
		);
		if (takes('files'))
			await context.tx.query(
				`insert into attachment (card_id, name, sha256, person_id, at, front)
				select n."to", a.name, a.sha256, a.person_id, $2, a.front
				from jsonb_to_recordset($1) n("from" uuid, "to" uuid)
				join attachment a on a.card_id = n."from" and a.removed_at is null`,
				[JSON.stringify(cards.map(({ id }, i) => ({ from: id, to: made[i]!.id }))), context.at],
			);
		await privateToo(
			context,
			cards.map(({ id }, i) => ({ from: id, to: made[i]!.id })),
		);
		cards.forEach((card, i) => context.note(made[i]!.id, 'copied-from', String(card.number)));
		return { result: { cards: made.map(({ id, number }) => ({ card: id, number })) } };
	},
});
