import type { BoardContext } from '../../door/contexts.ts';

/**
 * Makes what came of private cards private too: whoever watches or reviews the first one watches it, and so does
 * whoever made it, where they see the first one: a sprint is settled by people who do not see all its cards.
 */
export async function privateToo(
	{ tx, person }: BoardContext,
	pairs: readonly { from: string; to: string }[],
): Promise<void> {
	await tx.query(
		`with pair as (
			select n."from", n."to", may_see(c, $2::uuid) as seen from jsonb_to_recordset($1) n("from" uuid, "to" uuid)
			join card c on c.id = n."from" and c.private
		), watched as (
			insert into watch (card_id, person_id, how)
			select "to", $2::uuid, 'chosen' from pair where seen
			union
			select pair."to", w.person_id, 'chosen' from pair join watch w on w.card_id = pair."from" and w.how = 'chosen'
			union
			select pair."to", c.reviewer_id, 'chosen' from pair join card c on c.id = pair."from" and c.reviewer_id is not null
			on conflict (card_id, person_id) do update set how = excluded.how
		)
		update card c set private = true from pair where c.id = pair."to"`,
		[JSON.stringify(pairs), person.id],
	);
}
