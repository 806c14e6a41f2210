import { IsBoolean, IsIn, IsString, MaxLength } from 'class-validator';
import type { ServiceClass } from '../../../../core/pages/board.ts';
import { sized } from '../../../../core/sprint/left.ts';
import { boardCommand } from '../../door/command.ts';
import { Id, Line, Lines, Optional, OrNull, People, SeenCard, SeenCards } from '../../door/fields.ts';
import { Problem } from '../../problem.ts';
import type { BoardContext, CardRow } from '../../door/contexts.ts';
import { checkLanes, laneChanges, writeLanes } from './lanes.ts';
import { giveOut } from './owners.ts';
import { letThrough, together, type Let } from './limits.ts';
import {
	ableToOwn,
	checkOwners,
	initiativeIds,
	labelIds,
	linesOf,
	typeNamed,
	typesOf,
} from '../board/names.ts';

export class ChangeCards {
	@Id('board')
	board!: string;

	@SeenCards()
	cards!: SeenCard[];

	/** One of the board’s types; empty for none. What a card has not got yet of checklist, size and class begins as the type’s. */
	@Optional()
	@MaxLength(40, { message: 'The type may have at most 40 characters.' })
	@IsString({ message: 'The type must be text.' })
	type?: string;

	@Optional()
	@IsIn(['expedite', 'fixed', 'standard', 'background'], {
		message: 'The class is expedite, fixed, standard or background.',
	})
	class?: 'expedite' | 'fixed' | 'standard' | 'background';

	/** The lane that they are put into; null for none. */
	@Optional()
	@OrNull()
	@Id('lane')
	lane?: string | null;

	/** Labels to put on; those that the board does not have yet are made. */
	@Optional()
	@Lines('label', 20, 40)
	label?: string[];

	/** Labels to take off. */
	@Optional()
	@Lines('label', 20, 40)
	unlabel?: string[];

	/** The initiative by its name; null for none. */
	@Optional()
	@OrNull()
	@Line('The initiative', 80)
	initiative?: string | null;

	/** Refined enough to be planned. */
	@Optional()
	@IsBoolean({ message: 'A card is ready or not: true or false.' })
	ready?: boolean;

	/** Everyone who owns them from now on. */
	@Optional()
	@People('owner')
	owners?: string[];

	/** Why they are let through over the limit of a lane or of a person. */
	@Optional()
	@Line('The reason', 300)
	reason?: string;
}

export const changeCards = boardCommand({
	name: 'ChangeCards',
	summary: 'Changes the type, class, lane, labels, initiative, owners or ready mark of one card or of many.',
	input: ChangeCards,
	async run(context, input) {
		const { tx } = context;
		const cards = await context.cards(input.cards);
		const begins = input.type === undefined ? null : typeNamed(await typesOf(context), input.type);
		const said = [await putIntoLanes(context, cards, input, begins?.class ?? null)];
		const ids = cards.map((card) => card.id);
		if (input.type !== undefined) {
			const changed = cards.filter((card) => card.type !== input.type);
			for (const card of changed) context.note(card.id, 'type', input.type, { type: card.type });
			const rows = changed.map((card) => ({
				id: card.id,
				checklist: card.checklist.length ? card.checklist : linesOf(begins!.checklist),
				...(unsized(card) && begins!.size !== null
					? sized(card, begins!.size, false)
					: { size: card.size, left: card.left }),
			}));
			await tx.query(
				`update card c set type = $2, checklist = n.checklist, size = n.size, "left" = n."left"
				from jsonb_to_recordset($1) n(id uuid, checklist jsonb, size numeric, "left" numeric)
				where c.id = n.id`,
				[JSON.stringify(rows), input.type],
			);
			for (const card of changed)
				if (unsized(card) && begins!.size !== null)
					context.note(card.id, 'sized', String(begins!.size), { size: null, left: card.left });
		}
		if (input.ready !== undefined) {
			await tx.query('update card set ready = $2 where id = any($1::uuid[])', [ids, input.ready]);
			for (const card of cards)
				if (card.ready !== input.ready) context.note(card.id, 'ready', input.ready ? 'yes' : 'no');
		}
		if (input.initiative !== undefined) {
			const name = input.initiative;
			const id = name ? (await initiativeIds(context, [name])).get(name)! : null;
			await tx.query('update card set initiative_id = $2 where id = any($1::uuid[])', [ids, id]);
			for (const card of cards)
				if (card.initiative_id !== id)
					context.note(card.id, 'initiative', name ?? '', { initiative: card.initiative_id });
		}
		const add = await labelIds(context, input.label ?? []);
		for (const [name, id] of add)
			for (const card of cards) if (!card.labels.includes(id)) context.note(card.id, 'label', name);
		if (add.size)
			await tx.query(
				`insert into card_label select c, l from unnest($1::uuid[]) c cross join unnest($2::uuid[]) l on conflict do nothing`,
				[ids, [...add.values()]],
			);
		if (input.unlabel?.length) {
			const { rows } = await tx.query<{ card_id: string; name: string }>(
				`delete from card_label k using label l
				where l.id = k.label_id and k.card_id = any($1::uuid[]) and l.name = any($2::text[])
				returning k.card_id, l.name`,
				[ids, input.unlabel],
			);
			for (const row of rows) context.note(row.card_id, 'unlabelled', row.name);
		}
		if (input.owners) {
			const able = await ableToOwn(context);
			const wanted = input.owners;
			const gave = await giveOut(
				context,
				cards.map((card) => ({ card, owners: checkOwners(able, wanted, card.owners) })),
				input.reason,
			);
			said.push({ through: null, advice: gave.advice });
		}
		await context.changedNow(cards);
		return { advice: together(...said).advice };
	},
});

/** Whether a card has no size and could have one. */
const unsized = (card: CardRow) => card.size === null && !card.children && card.clock !== 'done';

/** Puts cards into another lane, after the limits of lanes have been asked: the lane that is named, or that of another class. */
async function putIntoLanes(
	context: BoardContext,
	cards: readonly CardRow[],
	{ lane, class: to, reason }: ChangeCards,
	first: ServiceClass | null,
): Promise<Let> {
	if (lane !== undefined && to !== undefined)
		throw new Problem(
			422,
			'invalid.lane',
			'A lane may stand for a class: name the one or the other.',
			'lane',
		);
	const changes =
		lane !== undefined
			? laneChanges(context, cards, lane)
			: cards.flatMap((card) => {
					// What has no class of its own yet begins with its new type's.
					const next = to ?? (card.class === 'standard' ? first : null) ?? card.class;
					return next === card.class ? [] : [{ card, lane_id: card.lane_id, class: next }];
				});
	if (!changes.length) return { through: null };
	const said = await checkLanes(
		context,
		changes.map(({ card, ...after }) => ({ before: card, after })),
		reason,
	);
	await writeLanes(context, changes);
	if (said.through)
		await letThrough(
			context,
			changes.map(({ card }) => card),
			said.through,
		);
	return said;
}
