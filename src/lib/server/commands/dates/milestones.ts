import { dayWords } from '../../../../core/calendar/day-words.ts';
import { randomUUID } from 'node:crypto';
import { notFound, Problem } from '../../problem.ts';
import { teamCommand } from '../../door/command.ts';
import type { TeamContext } from '../../door/contexts.ts';
import { dayField } from '../../door/day-field.ts';
import { CardKeys, DayText, Id, Ids, Line, Optional, OrNull } from '../../door/fields.ts';

export class AddMilestone {
	@Id('team')
	team!: string;

	/** The board whose milestone it is; left out or null for one of the whole team. */
	@Optional()
	@OrNull()
	@Id('board')
	board?: string | null;

	@Line('The name', 80)
	name!: string;

	@DayText('The day')
	day!: string;
}

export const addMilestone = teamCommand({
	name: 'AddMilestone',
	summary: 'Adds a milestone of a team, or of one of its boards.',
	role: 'lead',
	input: AddMilestone,
	async run(context, input) {
		dayField(input.day, 'day', 'The day');
		const board = boardOf(context, input.board ?? null);
		const id = randomUUID();
		await context.keep('milestone', { id });
		await context.tx.query(
			'insert into milestone (id, team_id, board_id, name, day) values ($1, $2, $3, $4, $5)',
			[id, context.team.id, board, input.name, input.day],
		);
		context.note(`The milestone ${input.name} is on ${dayWords(input.day)}.`);
		return { result: { milestone: id } };
	},
});

export class ChangeMilestone {
	@Id('team')
	team!: string;

	@Id('milestone')
	milestone!: string;

	@Optional()
	@Line('The name', 80)
	name?: string;

	@Optional()
	@DayText('The day')
	day?: string;

	/** Null: of the whole team. */
	@Optional()
	@OrNull()
	@Id('board')
	board?: string | null;

	/** Keys of cards that must be done before it too; those that must already stay. */
	@Optional()
	@CardKeys(200)
	cards?: string[];

	/** Ids of initiatives that must be done before it too. */
	@Optional()
	@Ids('initiative', 50)
	initiatives?: string[];

	/** Keys of cards that need not be done before it any more. */
	@Optional()
	@CardKeys(200)
	withoutCards?: string[];

	/** Ids of initiatives that need not be done before it any more. */
	@Optional()
	@Ids('initiative', 50)
	withoutInitiatives?: string[];
}

export const changeMilestone = teamCommand({
	name: 'ChangeMilestone',
	summary: 'Changes a milestone: its name, its day, whose it is, and what must be done before it.',
	role: 'lead',
	input: ChangeMilestone,
	async run(context, input) {
		const before = await milestoneOf(context, input.milestone);
		if (input.day !== undefined) dayField(input.day, 'day', 'The day');
		const after = {
			name: input.name ?? before.name,
			day: input.day ?? before.day,
			board: input.board === undefined ? before.board_id : boardOf(context, input.board),
		};
		await context.tx.query('update milestone set name = $2, day = $3, board_id = $4 where id = $1', [
			input.milestone,
			after.name,
			after.day,
			after.board,
		]);
		const { more, fewer } = await changeBefore(context, input);
		const said = [
			after.name !== before.name && `was called ${before.name}`,
			after.day !== before.day && `is on ${dayWords(after.day)}, before on ${dayWords(before.day)}`,
			after.board !== before.board_id && (after.board ? 'is one of a board' : 'is one of the whole team'),
			more && `has ${more} more to wait for`,
			fewer && `has ${fewer} fewer to wait for`,
		].filter(Boolean);
		context.note(`The milestone ${after.name} ${said.join('; ') || `is on ${dayWords(after.day)}`}.`);
	},
});

export class DropMilestone {
	@Id('team')
	team!: string;

	@Id('milestone')
	milestone!: string;
}

export const dropMilestone = teamCommand({
	name: 'DropMilestone',
	summary: 'Takes a milestone away.',
	role: 'lead',
	input: DropMilestone,
	async run(context, input) {
		const { name } = await milestoneOf(context, input.milestone);
		await context.tx.query('update milestone set withdrawn_at = $2 where id = $1', [
			input.milestone,
			context.at,
		]);
		context.note(`The milestone ${name} was taken away.`);
	},
});

interface MilestoneRow {
	name: string;
	day: string;
	board_id: string | null;
	team_id: string;
	withdrawn_at: string | null;
}

async function milestoneOf(context: TeamContext, id: string): Promise<MilestoneRow> {
	const [row] = (await context.keep('milestone', { id })) as unknown as MilestoneRow[];
	if (!row || row.team_id !== context.team.id || row.withdrawn_at) throw notFound('milestone');
	return row;
}

function boardOf({ boards }: TeamContext, board: string | null): string | null {
	if (board === null || boards.some(({ id }) => id === board)) return board;
	throw new Problem(422, 'board.unknown', 'A milestone is one of the team or of one of its boards.', 'board');
}

/**
 * Adds to what must be done before a milestone, and takes from it: what two say at once both holds.
 * @returns how many cards and initiatives came to it, and how many are no longer among them
 */
async function changeBefore(
	context: TeamContext,
	input: ChangeMilestone,
): Promise<{ more: number; fewer: number }> {
	const { cards = [], initiatives = [], withoutCards = [], withoutInitiatives = [] } = input;
	if (!cards.length && !initiatives.length && !withoutCards.length && !withoutInitiatives.length)
		return { more: 0, fewer: 0 };
	const { tx, team, person } = context;
	await context.keep('milestone_before', { milestone_id: input.milestone });
	const found = await tx.query<{ key: string; id: string | null }>(
		`select a.key, c.id from unnest($1::text[]) a(key)
		left join lateral (
			select c.id from board_key k
			join board b on b.id = k.board_id and b.team_id = $2
			join board_right r on r.board_id = b.id and r.person_id = $3
			join card c on c.board_id = b.id and c.number = split_part(a.key, '-', 2)::integer
			where k.key = split_part(a.key, '-', 1) and may_see(c, $3)
		) c on true`,
		[[...new Set([...cards, ...withoutCards])], team.id, person.id],
	);
	const unknown = found.rows.find(({ id }) => id === null);
	if (unknown)
		throw new Problem(422, 'card.unknown', `The team’s boards hold no card ${unknown.key}.`, 'cards');
	const idsOf = (keys: readonly string[]) =>
		[...new Set(keys)].map((key) => found.rows.find((row) => row.key === key)!.id);
	const known = await tx.query<{ id: string }>(
		`select i.id from initiative i join board b on b.id = i.board_id and b.team_id = $2
		join board_right r on r.board_id = b.id and r.person_id = $3
		where i.id = any($1::uuid[])`,
		[initiatives, team.id, person.id],
	);
	if (known.rows.length < initiatives.length)
		throw new Problem(422, 'initiative.unknown', 'The team has no such initiative.', 'initiatives');
	const taken = await tx.query(
		`delete from milestone_before
		where milestone_id = $1 and (card_id = any($2::uuid[]) or initiative_id = any($3::uuid[]))`,
		[input.milestone, idsOf(withoutCards), withoutInitiatives],
	);
	const added = await tx.query(
		`insert into milestone_before (milestone_id, card_id, initiative_id)
		select $1::uuid, c, null::uuid from unnest($2::uuid[]) c union all select $1::uuid, null::uuid, i from unnest($3::uuid[]) i
		on conflict do nothing`,
		[input.milestone, idsOf(cards), initiatives],
	);
	return { more: added.rowCount ?? 0, fewer: taken.rowCount ?? 0 };
}
