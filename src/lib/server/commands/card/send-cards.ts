import { ArrayMaxSize, IsBoolean } from 'class-validator';
import { shownValue, type OwnField } from '../../../../core/fields/own.ts';
import { list } from '../../../../core/words.ts';
import { archive } from '../../../../core/flow/clock.ts';
import { Problem } from '../../problem.ts';
import { boardCommand } from '../../door/command.ts';
import type { BoardContext, CardRow } from '../../door/contexts.ts';
import { Id, Optional, SeenCard, SeenCards } from '../../door/fields.ts';
import { ableToOwn, typesOf } from '../board/names.ts';
import { fieldsOf } from '../board/fields.ts';
import { dropFromList } from '../sprint/join-leave.ts';
import { draftOf, namesOn, type CardNames } from './drafts.ts';
import { childrenOf } from './family.ts';
import { makeCards, type Draft } from './make-cards.ts';
import { clockOf } from './place.ts';

export class SendCards {
	@Id('board')
	board!: string;

	@ArrayMaxSize(100, { message: 'At most 100 cards are moved to another board at once.' })
	@SeenCards()
	cards!: SeenCard[];

	/** The board that they go to. */
	@Id('other board')
	to!: string;

	/** What does not fit there may be left behind. Without it nothing is moved where something would be. */
	@Optional()
	@IsBoolean({ message: 'What does not fit is left behind or not: true or false.' })
	leave?: boolean;
}

/**
 * Cards go on to another board as cards of its backlog. Here each stands in the archive, so that this board's figures stay
 * as they were, and its old key leads to the new one; talk, files, links and history are read there.
 */
export const sendCards = boardCommand({
	name: 'SendCards',
	summary:
		'Moves cards to the backlog of another board; their old keys lead to them. What does not fit there is asked for.',
	input: SendCards,
	undoable: false,
	other: ({ to }: SendCards) => to,
	async run(context, input) {
		const { tx } = context;
		const there = context.other!;
		if (there.board.id === context.board.id)
			throw new Problem(422, 'board.same', 'The cards are on this board already.', 'to');
		const cards = await family(context, await context.cards(input.cards));
		for (const card of cards) {
			context.unarchived(card);
			if (card.clock === 'done')
				throw new Problem(
					409,
					'card.done',
					`Card ${card.number} is done: it stays where it was finished. Copy it instead.`,
					'cards',
				);
		}
		const names = await namesOn(context, cards);
		const { drafts, unfit } = await fitted(context, there, cards, names);
		if (unfit.length && !input.leave)
			throw new Problem(
				409,
				'card.unfit',
				`On ${there.board.name} there is no room for ${list(unfit)}. Move ${cards.length > 1 ? 'them' : 'it'} without, or leave ${cards.length > 1 ? 'them' : 'it'} here.`,
				'to',
				{ unfit },
			);
		const made = await makeCards(there, drafts, undefined);
		const pairs = JSON.stringify(cards.map(({ id }, i) => ({ from: id, to: made[i]!.id })));
		const keys = made.map(({ number }) => `${there.board.key}-${number}`);
		await carryOver(context, there, pairs);
		for (const [i, card] of cards.entries()) {
			const clock = archive(clockOf(context, card));
			await tx.query(
				`update card set archived_at = $2, archived_reason = $3, clock = $4, moved_to = $5, version = version + 1 where id = $1`,
				[card.id, context.at, `Moved to ${keys[i]}`, clock.state, made[i]!.id],
			);
			context.note(card.id, 'archived', `Moved to ${keys[i]}`, {
				sprint: card.sprint_id,
				unplanned: card.unplanned,
			});
			if (clock.state === 'dropped') await dropFromList(context, card);
			context.note(card.id, 'moved-away', keys[i]!);
			there.note(made[i]!.id, 'moved-here', `${context.board.key}-${card.number}`);
		}
		return { result: { keys }, advice: unfit.length ? `Left behind: ${list(unfit)}.` : undefined };
	},
});

/** Cards with all that is part of them, each whole before its parts. */
async function family(context: BoardContext, cards: CardRow[]): Promise<CardRow[]> {
	const all: CardRow[] = [];
	for (const card of cards)
		for (const one of [card, ...(await childrenOf(context, card))])
			if (!all.some(({ id }) => id === one.id)) all.push(one);
	return all.sort((a, b) => Number(a.parent_id !== null) - Number(b.parent_id !== null));
}

/** The cards as they will be on the other board, and what of them has no place there. */
async function fitted(
	here: BoardContext,
	there: BoardContext,
	cards: readonly CardRow[],
	names: CardNames,
): Promise<{ drafts: Draft[]; unfit: string[] }> {
	const [types, able, own, fields] = [
		await typesOf(there),
		await ableToOwn(there),
		await fieldsOf(here),
		await fieldsOf(there),
	];
	const people = await ableToOwn(here);
	const unfit = new Set<string>();
	const sameUnit = here.board.unit === there.board.unit;
	const drafts = cards.map((card): Draft => {
		const whole = draftOf(card, names);
		if (whole.type && !types.has(whole.type)) unfit.add(`the type ${whole.type}`);
		for (const owner of whole.owners ?? [])
			if (!able.has(owner)) unfit.add(`its owner ${people.get(owner) ?? 'who has left'}`);
		if (whole.size !== null && !card.children && !sameUnit)
			unfit.add(`its size (that board counts ${there.board.unit === 'none' ? 'cards' : there.board.unit})`);
		if (card.sprint_id) unfit.add('its place in the sprint');
		if (card.blocked_since) unfit.add('that it is blocked');
		const held: Record<string, unknown> = {};
		for (const [id, value] of Object.entries(card.fields)) {
			const field = own.find((one) => one.id === id);
			const twin = field && fields.find((one) => !one.retired && sameField(one, field));
			const kept = twin && fieldValue(twin, field, value);
			if (kept === undefined) unfit.add(`what ${field?.name ?? 'a field'} says`);
			else held[twin!.id] = kept;
		}
		const parent = card.parent_id ? cards.findIndex(({ id }) => id === card.parent_id) : -1;
		return {
			...whole,
			type: types.has(whole.type!) ? whole.type : '',
			owners: whole.owners!.filter((owner) => able.has(owner)),
			size: sameUnit && !card.children ? card.size : null,
			lane: null,
			fields: held,
			parent: parent >= 0 ? parent : null,
		};
	});
	return { drafts, unfit: [...unfit] };
}

const sameField = (a: OwnField, b: OwnField) =>
	a.kind === b.kind && a.name.toLowerCase() === b.name.toLowerCase();

/** A value of one field as the other one has it; nothing where that has no such choice. */
function fieldValue(to: OwnField, from: OwnField, value: CardRow['fields'][string]) {
	if (from.kind !== 'choice') return value;
	const name = shownValue(from, value).toLowerCase();
	return to.choices.find((choice) => choice.name.toLowerCase() === name)?.id;
}

/** What hangs on cards goes with them: what is left, files, links, who watches, who reviews, and that they are private. */
async function carryOver(here: BoardContext, there: BoardContext, pairs: string): Promise<void> {
	const { rows } = await here.tx.query<{ id: string; size: number | null; left: number }>(
		`with pair as materialized (
			select n."from", n."to" from jsonb_to_recordset($1) n("from" uuid, "to" uuid)
		), files as (
			update attachment a set card_id = pair."to" from pair where a.card_id = pair."from"
		), watched as (
			insert into watch (card_id, person_id, how) select pair."to", w.person_id, w.how from pair join watch w on w.card_id = pair."from"
			on conflict do nothing
		), timed as (
			update timer t set card_id = pair."to" from pair where t.card_id = pair."from"
		), gone as (
			delete from card_link l using pair where pair."from" in (l.from_id, l.to_id)
			returning l.from_id, l.to_id, l.kind
		), linked as (
			insert into card_link (from_id, to_id, kind)
			select distinct coalesce(f."to", g.from_id), coalesce(t."to", g.to_id), g.kind
			from gone g
			left join pair f on f."from" = g.from_id
			left join pair t on t."from" = g.to_id
			on conflict do nothing
		)
		update card n
		set private = o.private, asker_id = o.asker_id, percent = o.percent, "left" = case when n.size is null then n."left" else o."left" end,
			reviewer_id = r.person_id, review_by = case when r.person_id is not null then o.review_by end
		from pair
		join card o on o.id = pair."from"
		left join membership r on r.person_id = o.reviewer_id and r.team_id = $2 and r.left_at is null
		where n.id = pair."to"
		returning n.id, n.size, n."left"`,
		[pairs, there.board.team],
	);
	for (const { id, size, left } of rows)
		if (size !== null && left !== size) there.note(id, 'left', String(left));
}
