import { generateKeyBetween, generateNKeysBetween } from 'fractional-indexing';
import { enter, type CardClock } from '../../../../core/flow/clock.ts';
import { checkLanes } from './lanes.ts';
import { checkLimit, together } from './limits.ts';
import { joinRunningSprint, leaveSprint } from '../sprint/join-leave.ts';
import type { BoardContext, CardRow } from '../../door/contexts.ts';

/**
 * The ranks between which a place of the board (null: the backlog) lies: right below another card of it, on top (null),
 * or at the end (undefined, or when the other card has gone from there meanwhile).
 * @param moving cards that do not count, as they are the ones that come
 * @returns how many cards stand there, where the place has a limit; else 0
 */
export async function placeBounds(
	context: BoardContext,
	column: string | null,
	below: string | null | undefined,
	moving: readonly string[] = [],
): Promise<{ above: string | null; under: string | null; standing: number }> {
	const limited = column !== null && context.column(column).limit !== null;
	// Written out for each case, so that each is a walk along the index of places; counted only where there is a limit.
	const place = `c.board_id = $1 and c.column_id ${column === null ? 'is null and $2::uuid is null' : '= $2'} and c.archived_at is null and c.id <> all($4::uuid[])`;
	const { rows } = await context.tx.query<{
		standing: number;
		above: string | null;
		under: string | null;
		last: string | null;
	}>({
		name: `place-bounds${column === null ? '-backlog' : limited ? '-limited' : ''}`,
		text: `with above as materialized (
				select c.rank from card c where c.id = $3 and ${place}
			)
			select ${limited ? `(select count(*) from card c where ${place})` : '0'} as standing,
				(select rank from above) as above,
				case when $3::uuid is null then (select c.rank from card c where ${place} order by c.rank limit 1)
					else (select c.rank from card c where ${place} and c.rank > (select rank from above) order by c.rank limit 1) end as under,
				case when not exists (select from above)
					then (select c.rank from card c where ${place} order by c.rank desc limit 1) end as last`,
		values: [context.board.id, column, below ?? null, moving],
	});
	const { standing, above, under, last } = rows[0]!;
	if (below === null) return { standing, above: null, under };
	if (below === undefined || above === null) return { standing, above: last, under: null };
	return { standing, above, under };
}

/** A rank in a place of the board. */
export async function rankIn(
	context: BoardContext,
	column: string | null,
	below: string | null | undefined,
	moving: readonly string[] = [],
): Promise<{ rank: string; standing: number }> {
	const { above, under, standing } = await placeBounds(context, column, below, moving);
	return { rank: generateKeyBetween(above, under), standing };
}

/** The ranks that cards had, for those that come back; the next free one after it where another card took the place. */
export async function freeRanks(
	context: BoardContext,
	cards: readonly Pick<CardRow, 'id' | 'column_id' | 'rank' | 'archived_at'>[],
): Promise<string[]> {
	const wanted = cards.map(({ column_id, rank }) => ({ column_id, rank }));
	const coming = cards.map((card) => card.id);
	// Of each place only what stands there already, and what comes right after it.
	const { rows } = await context.tx.query<{ column_id: string | null; rank: string }>(
		`with w as (
			select * from jsonb_to_recordset($2) w(column_id uuid, rank text)
		)
		select c.column_id, c.rank
		from w join card c on c.board_id = $1 and c.column_id = w.column_id and c.rank = w.rank
		where c.archived_at is null and c.id <> all($3::uuid[])
		union all
		select c.column_id, c.rank
		from w join card c on c.board_id = $1 and w.column_id is null and c.column_id is null and c.rank = w.rank
		where c.archived_at is null and c.id <> all($3::uuid[])`,
		[context.board.id, JSON.stringify(wanted), coming],
	);
	const places = new Map<string | null, Set<string>>();
	const known = (column: string | null) => {
		const place = places.get(column) ?? new Set<string>();
		places.set(column, place);
		return place;
	};
	for (const { column_id, rank } of rows) known(column_id).add(rank);
	const found: string[] = [];
	for (const { column_id, rank, archived_at } of cards) {
		const taken = known(column_id);
		let free = rank;
		if (!archived_at && taken.has(rank)) {
			const next = await rankAfter(context, column_id, rank, coming);
			const mine = [...taken].filter((other) => other > rank && (next === null || other < next)).sort()[0];
			free = generateKeyBetween(rank, mine ?? next);
		}
		if (!archived_at) taken.add(free);
		found.push(free);
	}
	return found;
}

/** The rank of the card that stands next after a rank in a place; null where it is the last. */
async function rankAfter(
	context: BoardContext,
	column: string | null,
	rank: string,
	but: readonly string[],
): Promise<string | null> {
	const { rows } = await context.tx.query<{ rank: string }>(
		`select rank from card
		where board_id = $1 and column_id ${column === null ? 'is null and $2::uuid is null' : '= $2'} and archived_at is null
			and rank > $3 and id <> all($4::uuid[])
		order by rank
		limit 1`,
		[context.board.id, column, rank, but],
	);
	return rows[0]?.rank ?? null;
}

/** The clock of a card's row, as the core reads it. */
export function clockOf(context: BoardContext, card: CardRow): CardClock {
	const at = (date: Date | null) => (date === null ? null : date.getTime());
	const column = context.board.columns.findIndex((known) => known.id === card.column_id);
	return {
		state: card.clock,
		// One that was taken away is none of those that stand, and not the backlog either.
		column: column >= 0 ? column : card.column_id === null ? null : context.board.columns.length,
		entered: at(card.entered_at),
		started: at(card.started_at),
		finished: at(card.finished_at),
		archived: card.archived_at !== null,
		before: card.started_at === null ? 'none' : 'running',
	};
}

/** The clock after the card came to a place now. */
export function clockIn(context: BoardContext, card: CardRow, column: string | null): CardClock {
	const index = context.board.columns.findIndex((known) => known.id === column);
	return enter(context.board, clockOf(context, card), index < 0 ? null : index, context.at.getTime());
}

/** Brings a card to another place: its clock, its stay, its part in the running sprint and its history. */
export async function moveTo(
	context: BoardContext,
	card: CardRow,
	column: string | null,
	rank: string,
	through: string | null,
): Promise<void> {
	await writePlace(context, card, column, rank, clockIn(context, card, column), through);
	context.note(
		card.id,
		'column',
		context.placeName(column),
		{ column: context.placeName(card.column_id) },
		through ? { letThrough: through } : null,
	);
	if (column === null) await leaveSprint(context, card);
	else if (card.column_id === null) await joinRunningSprint(context, card);
}

/** Gives cards other ranks in the place where they stand. */
export async function reorder(
	context: BoardContext,
	cards: readonly CardRow[],
	ranks: readonly string[],
): Promise<void> {
	const ids = cards.map((card) => card.id);
	// Freed first: one card's new rank may be another's old one.
	await context.tx.query(`update card set rank = '~' || id where id = any($1::uuid[])`, [ids]);
	await context.tx.query(
		`update card c set rank = n.rank, version = version + 1
		from unnest($1::uuid[], $2::text[]) as n(id, rank)
		where c.id = n.id`,
		[ids, ranks],
	);
	for (const card of cards) context.note(card.id, 'ordered');
}

/** Writes a clock into the card's row, and the stay that goes with a new place. */
async function writePlace(
	context: BoardContext,
	card: CardRow,
	column: string | null,
	rank: string,
	clock: CardClock,
	through: string | null,
): Promise<void> {
	const date = (at: number | null) => (at === null ? null : new Date(at));
	const moved = column !== card.column_id;
	await context.tx.query({
		name: 'place-write',
		text: `with gone as (
				update stay set left_at = $9 where card_id = $1 and left_at is null and $10 returning card_id
			), come as (
				-- Counted first, so that the stay before has ended when this one begins.
				insert into stay (card_id, column_id, entered_at) select $1, $2, $9 from (select count(*) from gone) ended where $10
			)
			update card
			set column_id = $2, rank = $3, clock = $4, entered_at = $5, started_at = $6, finished_at = $7, let_through = $8,
				"left" = case when $4 = 'done' then 0 else "left" end, version = version + 1
			where id = $1`,
		values: [
			card.id,
			column,
			rank,
			clock.state,
			date(clock.entered),
			date(clock.started),
			date(clock.finished),
			through,
			context.at,
			moved,
		],
	});
}

/** A card's new place, with the clock that goes with it. */
export interface Placing {
	row: CardRow;
	column: string | null;
	rank: string;
	clock: CardClock;
}

/**
 * Writes the places of many cards at once, each another than where the card stood, and the stays that go with them.
 * @param through why they were let through over a limit
 */
export async function writePlaces(
	context: BoardContext,
	placings: readonly Placing[],
	through: string | null = null,
): Promise<void> {
	if (!placings.length) return;
	const date = (at: number | null) => (at === null ? null : new Date(at));
	await context.tx.query('update stay set left_at = $2 where card_id = any($1::uuid[]) and left_at is null', [
		placings.map(({ row }) => row.id),
		context.at,
	]);
	await context.tx.query(
		`with places as (
			select * from jsonb_to_recordset($1)
				as p(id uuid, "column" uuid, rank text, clock text, entered timestamptz, started timestamptz, finished timestamptz)
		), stays as (
			insert into stay (card_id, column_id, entered_at) select id, "column", $2 from places
		)
		update card c
		set column_id = p."column", rank = p.rank, clock = p.clock, entered_at = p.entered, started_at = p.started,
			finished_at = p.finished, let_through = $3, "left" = case when p.clock = 'done' then 0 else "left" end,
			version = version + 1
		from places p
		where c.id = p.id`,
		[
			JSON.stringify(
				placings.map(({ row, column, rank, clock }) => ({
					id: row.id,
					column,
					rank,
					clock: clock.state,
					entered: date(clock.entered),
					started: date(clock.started),
					finished: date(clock.finished),
				})),
			),
			context.at,
			through,
		],
	);
}

/** Brings cards of the backlog into the first column, at its end, where its limit lets them in or a reason is given. */
export async function bringIn(
	context: BoardContext,
	cards: readonly CardRow[],
	reason: string | undefined,
): Promise<{ advice?: string }> {
	const first = context.board.columns[0]!;
	const { above, under, standing } = await placeBounds(context, first.id, undefined);
	const { through, advice } = together(
		checkLimit(first, standing, cards.length, reason),
		await checkLanes(
			context,
			cards.map((before) => ({ before, after: { column_id: first.id } })),
			reason,
		),
	);
	const ranks = generateNKeysBetween(above, under, cards.length);
	const placings = cards.map((row, i) => ({
		row,
		column: first.id,
		rank: ranks[i]!,
		clock: clockIn(context, row, first.id),
	}));
	await writePlaces(context, placings, through);
	for (const card of cards)
		context.note(card.id, 'column', first.name, { column: '' }, through ? { letThrough: through } : null);
	return { advice };
}
