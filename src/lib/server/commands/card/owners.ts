import { rollup } from 'd3-array';
import type { BoardContext, CardRow } from '../../door/contexts.ts';
import { checkHands } from './hands.ts';

/** A card, and everyone who owns it from now on. */
export interface Gift {
	card: CardRow;
	owners: readonly string[];
}

/**
 * Gives cards to people, all at once: the ids have been checked. Notes who came and who went.
 * @param reason why they are let through over the limit of a person
 */
export async function giveOut(
	context: BoardContext,
	gifts: readonly Gift[],
	reason?: string,
): Promise<{ advice?: string }> {
	const changes = gifts.flatMap(({ card, owners }) => [
		...owners
			.filter((owner) => !card.owners.includes(owner))
			.map((person) => ({ card: card.id, person, comes: true })),
		...card.owners
			.filter((owner) => !owners.includes(owner))
			.map((person) => ({ card: card.id, person, comes: false })),
	]);
	if (!changes.length) return {};
	const started = gifts.filter(({ card }) => card.clock === 'running' && !card.archived_at);
	const { through, advice } = await checkHands(
		context,
		rollup(
			changes.filter(({ card, comes }) => comes && started.some((gift) => gift.card.id === card)),
			(all) => all.length,
			({ person }) => person,
		),
		started.map(({ card }) => card.id),
		reason,
	);
	const { rows } = await context.tx.query<{ card: string; person: string; comes: boolean; name: string }>(
		`with change as materialized (
			select c.n, (c.change ->> 'card')::uuid as card, (c.change ->> 'person')::uuid as person,
				(c.change ->> 'comes')::boolean as comes, p.name
			from jsonb_array_elements($1) with ordinality c(change, n)
			join person p on p.id = (c.change ->> 'person')::uuid
		), gone as (
			delete from card_owner o using change c where o.card_id = c.card and o.person_id = c.person and not c.comes
		), come as (
			insert into card_owner select card, person from change where comes on conflict do nothing
		)
		select card, person, comes, name from change order by n`,
		[JSON.stringify(changes)],
	);
	for (const { card, person, comes, name } of rows)
		context.note(card, comes ? 'owner' : 'unowner', name, null, {
			person,
			...(through && comes ? { letThrough: through } : {}),
		});
	return { advice };
}
