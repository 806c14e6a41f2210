import type { BoardContext, CardRow } from '../../door/contexts.ts';

/** Gives a card to people: the ids have been checked. Notes who came and who went. */
export async function giveTo(context: BoardContext, card: CardRow, owners: readonly string[]): Promise<void> {
	const came = owners.filter((owner) => !card.owners.includes(owner));
	const went = card.owners.filter((owner) => !owners.includes(owner));
	if (!came.length && !went.length) return;
	const { rows } = await context.tx.query<{ id: string; name: string }>(
		`with gone as (
			delete from card_owner where card_id = $1 and person_id = any($3::uuid[])
		), come as (
			insert into card_owner select $1, unnest($2::uuid[]) on conflict do nothing
		)
		select id, name from person where id = any($2::uuid[]) or id = any($3::uuid[]) order by name`,
		[card.id, came, went],
	);
	for (const { id, name } of rows)
		context.note(card.id, came.includes(id) ? 'owner' : 'unowner', name, null, { person: id });
}
