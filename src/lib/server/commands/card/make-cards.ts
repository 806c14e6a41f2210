import { randomUUID } from 'node:crypto';
import { generateNKeysBetween } from 'fractional-indexing';
import type { BoardContext, ChecklistLine } from '../../door/contexts.ts';
import {
	ableToOwn,
	checkOwners,
	initiativeIds,
	labelIds,
	linesOf,
	typeNamed,
	typesOf,
	type TypeBegins,
} from '../board/names.ts';
import { shownValue, type FieldValue, type OwnField } from '../../../../core/fields/own.ts';
import { Problem } from '../../problem.ts';
import { fieldsOf, valueOf } from '../board/fields.ts';
import { placeBounds } from './place.ts';

/** A card to be made in the backlog. */
export interface Draft {
	title: string;
	description?: string;
	size?: number | null;
	type?: string;
	class?: 'expedite' | 'fixed' | 'standard' | 'background';
	/** The lane that it is put into, by its id. */
	lane?: string | null;
	labels?: readonly string[];
	owners?: readonly string[];
	start?: string | null;
	due?: string | null;
	initiative?: string | null;
	ready?: boolean;
	checklist?: readonly Omit<ChecklistLine, 'id'>[];
	/** It comes of a card that there was already: its type adds nothing to it, and who may not own cards any more is left out. */
	asIs?: boolean;
	/** What it holds in fields that the board has added, by their ids. */
	fields?: Readonly<Record<string, unknown>>;
	/** The place in this list, before its own, of the card that it is part of. */
	parent?: number | null;
	/** A sprint that has not started, whose list it is put on. */
	sprint?: { id: string; number: number } | null;
}

/** What a card that there was already is given by its type. */
const NOTHING: TypeBegins = { checklist: [], size: null, class: null };

export interface MadeCard {
	id: string;
	number: number;
}

/**
 * Makes cards in the backlog, in the order given, below another card of it, on top (null) or at its end (undefined).
 * A card with sub-cards among them keeps no size of its own, unless its first sub-card has none: that one takes it over.
 */
export async function makeCards(
	context: BoardContext,
	drafts: readonly Draft[],
	below: string | null | undefined,
): Promise<MadeCard[]> {
	const { board, tx, at } = context;
	const [labels, initiatives, types, able] = [
		await labelIds(
			context,
			drafts.flatMap((draft) => draft.labels ?? []),
		),
		await initiativeIds(
			context,
			drafts.flatMap((draft) => draft.initiative || []),
		),
		await typesOf(context),
		await ableToOwn(context),
	];
	const own = drafts.some((draft) => draft.fields) ? await fieldsOf(context) : [];
	const bounds = await placeBounds(context, null, below);
	const ranks = generateNKeysBetween(bounds.above, bounds.under, drafts.length);
	const begins = drafts.map(({ asIs, type = '' }) => (asIs ? NOTHING : typeNamed(types, type)));
	const whole = new Set(drafts.map(({ parent }) => parent));
	// One that is only the sum of its parts has no size of its own to begin with.
	const sizes = drafts.map((draft, i) => draft.size ?? (whole.has(i) ? null : begins[i]!.size));
	const parents = new Set<number>();
	drafts.forEach((draft, i) => {
		const parent = draft.parent ?? null;
		if (parent === null || parents.has(parent)) return;
		parents.add(parent);
		sizes[i] ??= sizes[parent] ?? null;
		sizes[parent] = null;
	});
	const rows = drafts.map((draft, i) => ({
		id: randomUUID() as string,
		number: ++board.lastNumber,
		title: draft.title,
		description: draft.description ?? '',
		rank: ranks[i]!,
		type: draft.type ?? '',
		class: draft.class ?? begins[i]!.class ?? 'standard',
		lane: draft.lane ?? null,
		size: sizes[i],
		left: sizes[i] ?? 0,
		start: draft.start ?? null,
		due: draft.due ?? null,
		initiative: draft.initiative ? initiatives.get(draft.initiative) : null,
		ready: draft.ready ?? false,
		parent: null as string | null,
		sprint: draft.sprint?.id ?? null,
		fields: heldIn(own, draft.fields ?? {}),
		checklist: checklistOf(draft, begins[i]!.checklist),
		owners: checkOwners(
			able,
			(draft.owners ?? []).filter((owner) => !draft.asIs || able.has(owner)),
		),
		labels: [...new Set(draft.labels ?? [])].map((name) => labels.get(name)!),
	}));
	rows.forEach((row, i) => (row.parent = rows[drafts[i]!.parent ?? -1]?.id ?? null));
	await tx.query(
		`with new as materialized (
			select * from jsonb_to_recordset($2) as n(id uuid, number integer, title text, description text, rank text, type text, class text, lane uuid,
				size numeric, "left" numeric, start date, due date, initiative uuid, ready boolean, parent uuid, sprint uuid, checklist jsonb, fields jsonb)
		), made as (
			insert into card (id, board_id, number, title, description, column_id, rank, type, class, lane_id, size, "left", start, due,
				initiative_id, ready, parent_id, sprint_id, checklist, fields, clock, entered_at, created_at)
			select id, $1, number, title, description, null, rank, type, class, lane, size, "left", start, due,
				initiative, ready, parent, sprint, checklist, fields, 'none', null, $3
			from new
		)
		insert into stay (card_id, column_id, entered_at) select id, null, $3 from new`,
		[board.id, JSON.stringify(rows), at],
	);
	await tx.query(
		`with new as materialized (
			select * from jsonb_to_recordset($1) as n(id uuid, owners uuid[], labels uuid[])
		), owned as (
			insert into card_owner select id, unnest(owners) from new
		)
		insert into card_label select id, unnest(labels) from new`,
		[JSON.stringify(rows)],
	);
	rows.forEach((row, i) => {
		const draft = drafts[i]!;
		context.touched.set(row.id, { before: null, version: 1 });
		context.note(row.id, 'created', row.title);
		if (row.size !== null) context.note(row.id, 'sized', String(row.size));
		if (row.type) context.note(row.id, 'type', row.type);
		if (row.class !== 'standard') context.note(row.id, 'class', row.class);
		for (const label of new Set(draft.labels ?? [])) context.note(row.id, 'label', label);
		for (const owner of row.owners) context.note(row.id, 'owner', able.get(owner)!, null, { person: owner });
		if (row.start) context.note(row.id, 'start', row.start);
		if (row.due) context.note(row.id, 'due', row.due);
		if (draft.initiative) context.note(row.id, 'initiative', draft.initiative);
		if (row.ready) context.note(row.id, 'ready', 'yes');
		if (draft.parent != null) context.note(row.id, 'part-of', String(rows[draft.parent]!.number));
		for (const field of own)
			if (row.fields[field.id] !== undefined)
				context.note(row.id, 'field', shownValue(field, row.fields[field.id]), null, {
					field: field.id,
					name: field.name,
				});
		if (draft.sprint) context.note(row.id, 'sprint', String(draft.sprint.number));
	});
	return rows.map(({ id, number }) => ({ id, number }));
}

/** What a card holds in the board's own fields, as it is kept; a field that the board does not have is refused. */
function heldIn(
	own: readonly OwnField[],
	given: Readonly<Record<string, unknown>>,
): Record<string, FieldValue> {
	const held: Record<string, FieldValue> = {};
	for (const [id, value] of Object.entries(given)) {
		const field = own.find((one) => one.id === id);
		if (!field) throw new Problem(422, 'field.unknown', 'This board has no such field.', 'fields');
		const kept = valueOf(field, value);
		if (kept !== null) held[id] = kept;
	}
	return held;
}

function checklistOf(draft: Draft, begins: readonly string[]): ChecklistLine[] {
	const own = (draft.checklist ?? []).map((line) => ({ ...line, id: randomUUID() }));
	return [...linesOf(begins), ...own];
}
