import { IsIn } from 'class-validator';
import { Problem } from '../../problem.ts';
import { boardCommand } from '../../door/command.ts';
import { CardNamed, Id, Version } from '../../door/fields.ts';
import type { BoardContext, CardRow } from '../../door/contexts.ts';

export class LinkCard {
	@Id('card')
	card!: string;

	@Version()
	version!: number;

	/** The other card: its number on this board, or its key, such as `BUOY-12`. */
	@CardNamed()
	to!: number | string;

	/** What the card does to the other one. */
	@IsIn(['blocks', 'relates'], { message: 'A card blocks another one or relates to it.' })
	kind!: 'blocks' | 'relates';
}

export const linkCard = boardCommand({
	name: 'LinkCard',
	summary: 'Links a card to another one of its board: it blocks it, or relates to it.',
	input: LinkCard,
	async run(context, input) {
		const card = await context.card(input.card, input.version);
		const other = await otherCard(context, input.to);
		if (other.id === card.id)
			throw new Problem(422, 'link.itself', `Card ${card.number} cannot be linked to itself.`, 'to');
		if (input.kind === 'blocks') await refuseLoop(context, card, other);
		const { rowCount } = await context.tx.query(
			'insert into card_link (from_id, to_id, kind) values ($1, $2, $3) on conflict do nothing',
			[card.id, other.id, input.kind],
		);
		if (!rowCount)
			throw new Problem(
				409,
				'link.there',
				`Card ${card.number} is linked to ${other.called} like that already.`,
				'to',
			);
		await context.changedNow([card]);
		context.note(card.id, 'linked', other.called, null, { kind: input.kind });
	},
});

export class UnlinkCard {
	@Id('card')
	card!: string;

	@Version()
	version!: number;

	/** The card it leads to: its number on this board, or its key. */
	@CardNamed()
	to!: number | string;

	@IsIn(['blocks', 'relates', 'split'], { message: 'The link is blocks, relates or split.' })
	kind!: 'blocks' | 'relates' | 'split';
}

export const unlinkCard = boardCommand({
	name: 'UnlinkCard',
	summary: 'Takes away a link from a card to another one.',
	input: UnlinkCard,
	async run(context, input) {
		const card = await context.card(input.card, input.version);
		const other = await otherCard(context, input.to);
		const { rowCount } = await context.tx.query(
			'delete from card_link where from_id = $1 and to_id = $2 and kind = $3',
			[card.id, other.id, input.kind],
		);
		if (!rowCount)
			throw new Problem(409, 'link.gone', `Card ${card.number} has no such link to ${other.called}.`, 'to');
		await context.changedNow([card]);
		context.note(card.id, 'unlinked', other.called, { kind: input.kind });
	},
});

/** The card that is named, on whatever board the person may see. */
async function otherCard(
	{ tx, board, person }: BoardContext,
	named: number | string,
): Promise<{ id: string; called: string }> {
	const [key, number] = typeof named === 'number' ? [board.key, String(named)] : named.split('-');
	const { rows } = await tx.query<{ id: string; called: string }>(
		`select c.id, case when b.id = $4 then c.number::text else b.key || '-' || c.number end as called
		from card c
		join board b on b.id = c.board_id
		join board_right r on r.board_id = b.id and r.person_id = $3
		where b.id = (select board_id from board_key where key = upper($1)) and c.number = $2 and may_see(c, $3)`,
		[key, number, person.id, board.id],
	);
	if (rows[0]) return rows[0];
	const sentence =
		typeof named === 'number' ? `This board has no card ${named}.` : `There is no card ${named}.`;
	throw new Problem(422, 'card.unknown', sentence, 'to');
}

/** A card that blocks another one, which blocks it in turn through others, would wait for itself. */
async function refuseLoop(context: BoardContext, card: CardRow, other: { id: string }): Promise<void> {
	const { rows } = await context.tx.query<Step>(
		// Each card that the other one leads to is visited once, whatever the number of ways to it.
		`with recursive reached(id) as (
			select $1::uuid
			union
			select l.to_id from reached r
			-- Step by step along the index: "offset 0" keeps it from going over all links at each step.
			cross join lateral (select to_id from card_link where from_id = r.id and kind = 'blocks' offset 0) l
		)
		select l.from_id as "from", l.to_id as "to", case when f.board_id = $3 then f.number::text
			when r.person_id is not null and may_see(f, $4) then b.key || '-' || f.number else 'something you may not see' end as called
		from card_link l
		join reached on reached.id = l.from_id
		join card f on f.id = l.from_id
		join board b on b.id = f.board_id
		left join board_right r on r.board_id = b.id and r.person_id = $4
		where l.kind = 'blocks' and exists (select from reached where id = $2)`,
		[other.id, card.id, context.board.id, context.person.id],
	);
	const loop = shortestWay(rows, other.id, card.id);
	if (loop)
		throw new Problem(
			409,
			'link.loop',
			`That would be a loop: ${[card.number, ...loop, card.number].join(' blocks ')}.`,
			'to',
		);
}

interface Step {
	from: string;
	to: string;
	/** What the card is called that it leads from. */
	called: string;
}

/** What the cards on the shortest way are called from one card to another, without the last; null where there is none. */
function shortestWay(steps: readonly Step[], from: string, to: string): string[] | null {
	const next = new Map<string, Step[]>();
	for (const step of steps) next.set(step.from, [...(next.get(step.from) ?? []), step]);
	const ways = new Map<string, string[]>([[from, []]]);
	for (const [at, way] of ways) {
		if (at === to) return way;
		for (const step of next.get(at) ?? []) if (!ways.has(step.to)) ways.set(step.to, [...way, step.called]);
	}
	return null;
}
