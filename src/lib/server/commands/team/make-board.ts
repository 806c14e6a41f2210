import { IsIn, IsInt, IsString, Matches, Max, Min } from 'class-validator';
import { slugFrom, type BoardSetUp } from '../../../../core/flow/set-up.ts';
import { EMPTY, TEMPLATES } from '../../../../core/board/templates.ts';
import { zoneOf } from '../../../../core/calendar/zone.ts';
import { Problem } from '../../problem.ts';
import { teamCommand } from '../../door/command.ts';
import type { TeamContext } from '../../door/contexts.ts';
import { Id, Line, Optional, OrNull } from '../../door/fields.ts';
import { setUpOf } from '../../questions/templates.ts';
import { keepAhead } from '../sprint/keep-ahead.ts';

export class MakeBoard {
	@Id('team')
	team!: string;

	@Line('The name of the board', 80)
	name!: string;

	/** What its cards are called by: two to ten capital letters and digits, beginning with a letter. */
	@Matches(/^[A-Z][A-Z0-9]{1,9}$/, {
		message: 'A key is two to ten capital letters and digits and begins with a letter, such as TIDE.',
	})
	@IsString({ message: 'The key must be text.' })
	key!: string;

	/** A template, by its id: it begins with its columns, types and the rest. */
	@Optional()
	@Line('The template', 60)
	template?: string;

	/** Another board instead, whose set-up it begins with; not its cards. */
	@Optional()
	@Id('board')
	from?: string;

	@IsIn(['hours', 'points', 'none'], {
		message: 'Cards are sized in hours, in points or not at all: hours, points or none.',
	})
	unit!: 'hours' | 'points' | 'none';

	/** Every how many days a sprint starts; null for a board without sprints. */
	@OrNull()
	@Max(90, { message: 'A sprint may be at most 90 days long.' })
	@Min(1, { message: 'A sprint is at least a day long.' })
	@IsInt({ message: 'The length of a sprint must be a whole number of days.' })
	sprintDays!: number | null;
}

export const makeBoard = teamCommand({
	name: 'MakeBoard',
	summary:
		'Makes a board from a template, from another board’s set-up, or with no more than every board needs.',
	input: MakeBoard,
	role: 'lead',
	undoable: false,
	async run(context, input) {
		const setUp = { ...(await beginning(context, input)), unit: input.unit, sprintDays: input.sprintDays };
		await refuseTaken(context, input);
		const board = await writeBoard(context, input, setUp);
		context.boards.push({ id: board.id, name: input.name, lastSeq: 0 });
		const on = await context.onBoard(board.id);
		if (setUp.sprintDays !== null) {
			const today = zoneOf(context.team.timeZone).day(context.at.getTime());
			await keepAhead(on, { days: setUp.sprintDays, weekday: setUp.sprintWeekday }, [], today);
		}
		context.note(`The board ${input.name} was made.`);
		return { result: { board: board.id, slug: board.slug } };
	},
});

/** What it begins with. */
async function beginning(context: TeamContext, input: MakeBoard): Promise<BoardSetUp> {
	if (input.template && input.from)
		throw new Problem(
			422,
			'invalid.from',
			'A board begins with a template or with another board, not with both.',
			'from',
		);
	if (input.from) {
		const setUp = await setUpOf(context.person, input.from);
		if (!setUp) throw new Problem(422, 'board.unknown', 'There is no such board to begin with.', 'from');
		return setUp;
	}
	if (!input.template) return EMPTY;
	const shipped = TEMPLATES.find(({ id }) => id === input.template);
	if (shipped) return shipped.setUp;
	const { rows } = await context.tx.query<{ document: BoardSetUp }>(
		'select document from template where id::text = $1 and team_id = $2 and retired_at is null',
		[input.template, context.team.id],
	);
	if (!rows[0]) throw new Problem(422, 'template.unknown', 'There is no such template.', 'template');
	return rows[0].document;
}

/** Names and keys of boards that are put away are taken too, and so are keys that a board had before. */
async function refuseTaken({ tx, team }: TeamContext, { name, key }: MakeBoard): Promise<void> {
	const { rows } = await tx.query<{ named: boolean; away: boolean; key: string | null }>(
		`select
			exists (select from board where team_id = $1 and lower(name) = lower($2)) as named,
			exists (select from board where team_id = $1 and lower(name) = lower($2) and away_at is not null) as away,
			(select key from board_key where key = $3) as key`,
		[team.id, name, key],
	);
	const { named, away, key: taken } = rows[0]!;
	if (named)
		throw new Problem(
			409,
			'board.name_taken',
			`This team has a board called ${name} already${away ? ', which is put away' : ''}. Choose another name.`,
			'name',
		);
	if (taken)
		throw new Problem(
			409,
			'board.key_taken',
			`The key ${key} belongs to another board, or did before. Choose another one.`,
			'key',
		);
}

async function writeBoard(
	{ tx, team }: TeamContext,
	{ name, key }: MakeBoard,
	setUp: BoardSetUp,
): Promise<{ id: string; slug: string }> {
	const slug = slugFrom(name);
	const { rows } = await tx.query<{ id: string; slug: string }>(
		`insert into board (team_id, name, slug, key, unit, sprint_days, sprint_weekday, sprint_name, off, person_limit, person_mode, line_states, position)
		select $1, $2,
			(select s from (select $3::text as s, 1 as n union all select $3 || '-' || n, n from generate_series(2, 1000) n) tried
			where not exists (select from board where slug = s) order by n limit 1),
			$4, $5, $6, $7, $8, $9, $10, $11, $12, coalesce((select max(position) + 1 from board where team_id = $1), 0)
		returning id, slug`,
		[
			team.id,
			name,
			slug,
			key,
			setUp.unit,
			setUp.sprintDays,
			setUp.sprintWeekday,
			setUp.sprintName,
			setUp.off,
			setUp.personLimit ?? null,
			setUp.personMode ?? 'advise',
			setUp.lineStates ?? [],
		],
	);
	const board = rows[0]!;
	await tx.query(
		`with columns as (
			insert into board_column (board_id, name, kind, position, wip_limit, limit_mode, policy, commitment)
			select $1, c.name, c.kind, c.n, c."limit", c.mode, c.policy, c.name = $3
			from rows from (jsonb_to_recordset($2) as (name text, kind text, "limit" integer, mode text, policy text))
				with ordinality as c(name, kind, "limit", mode, policy, n)
		), types as (
			insert into card_type (board_id, name, checklist, first_size, first_class, position)
			select $1, t.name, t.checklist, t.size, t.class, t.n
			from rows from (jsonb_to_recordset($4) as (name text, checklist text[], size numeric, class text))
				with ordinality as t(name, checklist, size, class, n)
		), lanes as (
			insert into lane (board_id, name, class, wip_limit, limit_mode, position)
			select $1, l.name, l.class, l."limit", l.mode, l.n - 1
			from rows from (jsonb_to_recordset($6) as (name text, class text, "limit" integer, mode text))
				with ordinality as l(name, class, "limit", mode, n)
		), fields as (
			insert into field (board_id, name, kind, choices, position)
			select $1, f.name, f.kind,
				(select coalesce(jsonb_agg(jsonb_build_object('id', gen_random_uuid(), 'name', c) order by m), '[]')
				from jsonb_array_elements_text(f.choices) with ordinality e(c, m)), f.n - 1
			from rows from (jsonb_to_recordset($7) as (name text, kind text, choices jsonb))
				with ordinality as f(name, kind, choices, n)
		)
		insert into label (board_id, name) select $1, unnest($5::text[])`,
		[
			board.id,
			JSON.stringify(setUp.columns),
			setUp.commitment,
			JSON.stringify(setUp.types),
			setUp.labels,
			JSON.stringify(setUp.lanes ?? []),
			JSON.stringify(setUp.fields ?? []),
		],
	);
	return board;
}
