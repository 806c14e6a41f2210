import type { BoardContext, CardRow } from '../../door/contexts.ts';
import type { Draft } from './make-cards.ts';

/** What cards have by the names of a board: labels, initiatives, people who may own cards. */
export interface CardNames {
	labels: Map<string, string[]>;
	initiatives: Map<string, string>;
}

/** The labels and initiatives of cards by their names. */
export async function namesOn({ tx }: BoardContext, cards: readonly CardRow[]): Promise<CardNames> {
	const { rows } = await tx.query<{ id: string; labels: string[]; initiative: string | null }>(
		`select c.id, array(select l.name from card_label k join label l on l.id = k.label_id where k.card_id = c.id order by l.name) as labels,
			(select name from initiative where id = c.initiative_id) as initiative
		from card c
		where c.id = any($1::uuid[])`,
		[cards.map(({ id }) => id)],
	);
	return {
		labels: new Map(rows.map(({ id, labels }) => [id, labels])),
		initiatives: new Map(rows.flatMap(({ id, initiative }) => (initiative ? [[id, initiative]] : []))),
	};
}

/** A card as it would be made anew: all that somebody wrote of it, nothing of what happened to it. */
export function draftOf(card: CardRow, names: CardNames): Draft {
	return {
		title: card.title,
		description: card.description,
		size: card.size,
		type: card.type,
		class: card.class,
		lane: card.lane_id,
		labels: names.labels.get(card.id) ?? [],
		owners: card.owners,
		start: card.start,
		due: card.due,
		initiative: names.initiatives.get(card.id) ?? null,
		ready: card.ready,
		checklist: card.checklist.map(({ id: _id, ...line }) => line),
		fields: card.fields,
		asIs: true,
	};
}
