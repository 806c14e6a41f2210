import {
	ArrayMaxSize,
	ArrayUnique,
	IsArray,
	IsBoolean,
	IsIn,
	IsInt,
	IsString,
	Matches,
	Max,
	MaxLength,
	Min,
} from 'class-validator';
import { SWITCHES, type Switch } from '../../../../core/flow/set-up.ts';
import { Problem } from '../../problem.ts';
import { boardCommand } from '../../door/command.ts';
import type { BoardContext } from '../../door/contexts.ts';
import { applyDecorators } from '../../door/decorate.ts';
import { Entries, Id, Line, Lines, Optional, OrNull } from '../../door/fields.ts';

/** Somebody who may see a board that only named people see. */
export class NamedPerson {
	@Id('person')
	person!: string;

	/** Whether they may change it too, as far as their role lets them. */
	@IsBoolean({ message: 'A person may change the board or not: true or false.' })
	changes!: boolean;
}

/** Parts of a board that are switched. */
const Parts = (how: string) =>
	applyDecorators(
		Optional(),
		IsIn(SWITCHES, { each: true, message: `What can be switched ${how}: ${SWITCHES.join(', ')}.` }),
		ArrayUnique({ message: 'Name each part once.' }),
		ArrayMaxSize(SWITCHES.length, { message: 'Name each part once.' }),
		IsArray({ message: `What is switched ${how} must be a list.` }),
	);

export class ChangeBoard {
	@Id('board')
	board!: string;

	@Optional()
	@Line('The name of the board', 80)
	name?: string;

	/** What its cards are called by from now on; they go on answering to the old keys. */
	@Optional()
	@Matches(/^[A-Z][A-Z0-9]{1,9}$/, {
		message: 'A key is two to ten capital letters and digits and begins with a letter, such as TIDE.',
	})
	@IsString({ message: 'The key must be text.' })
	key?: string;

	/** What it is for, in Markdown. */
	@Optional()
	@MaxLength(5000, { message: 'The purpose may have at most 5,000 characters.' })
	@IsString({ message: 'The purpose must be text.' })
	purpose?: string;

	@Optional()
	@IsIn(['hours', 'points', 'none'], {
		message: 'Cards are sized in hours, in points or not at all: hours, points or none.',
	})
	unit?: 'hours' | 'points' | 'none';

	/** Who may see it: its team, named people of it, or everyone who is signed in. */
	@Optional()
	@IsIn(['team', 'named', 'signed-in'], {
		message: 'It is seen by the team, by named people or by everyone signed in: team, named or signed-in.',
	})
	visibleTo?: 'team' | 'named' | 'signed-in';

	/** Who may change it: members of its team, or of those only the named ones. Leads always may. */
	@Optional()
	@IsIn(['team', 'named'], { message: 'It is changed by the team or by named people: team or named.' })
	changedBy?: 'team' | 'named';

	/** The people who are meant where only named ones may see or change it. */
	@Optional()
	@ArrayUnique((one: NamedPerson | null) => one?.person, { message: 'Name each person once.' })
	@Entries('people', NamedPerson, 200, 0)
	people?: NamedPerson[];

	/** Parts that it uses no more and so does not show. */
	@Parts('off')
	off?: Switch[];

	/** Parts that it uses again. */
	@Parts('on')
	on?: Switch[];

	/** How many cards one person may have in hand; null for any number. */
	@Optional()
	@OrNull()
	@Max(99, { message: 'The limit of a person may be at most 99.' })
	@Min(1, { message: 'The limit of a person must be 1 or more.' })
	@IsInt({ message: 'The limit of a person must be a whole number.' })
	personLimit?: number | null;

	/** What happens over it: people are told, or held until they give a reason. */
	@Optional()
	@IsIn(['advise', 'hold'], { message: 'The limit either advises or holds.' })
	personMode?: 'advise' | 'hold';

	/** The states that lines of checklists can have beside ticked or not, in their order: needed, ordered, here. */
	@Optional()
	@ArrayUnique({ message: 'Name each state once.' })
	@Lines('state of lines', 12, 30)
	lineStates?: string[];

	/** Whether it is put away: it leaves every list, and nothing on it changes until it is brought back. */
	@Optional()
	@IsBoolean({ message: 'A board is put away or not: true or false.' })
	away?: boolean;

	/** Its place among the boards of its team, from 0. */
	@Optional()
	@Max(10_000, { message: 'The place may be at most 10,000.' })
	@Min(0, { message: 'The place must be 0 or more.' })
	@IsInt({ message: 'The place must be a whole number.' })
	place?: number;
}

interface Row {
	name: string;
	key: string;
	purpose: string;
	unit: 'hours' | 'points' | 'none';
	visible_to: string;
	changed_by: string;
	off: string[];
	person_limit: number | null;
	person_mode: 'advise' | 'hold';
	line_states: string[];
	away_at: string | null;
	position: number;
}

export const changeBoard = boardCommand({
	name: 'ChangeBoard',
	summary:
		'Changes a board itself: name, key, purpose, who sees and changes it, what it uses; puts it away or brings it back.',
	input: ChangeBoard,
	role: 'lead',
	onPutAway: true,
	async run(context, input) {
		const { tx, board } = context;
		const [row] = await context.keep('board', { id: board.id });
		const before = row as unknown as Row;
		await refuseTaken(context, input);
		if (input.unit && input.unit !== before.unit && board.runningSprint)
			throw new Problem(
				409,
				'sprint.running',
				`Sprint ${board.runningSprint.number} is running: what cards are sized in can change once it is settled.`,
				'unit',
			);
		const after = {
			name: input.name ?? before.name,
			key: input.key ?? before.key,
			purpose: input.purpose ?? before.purpose,
			unit: input.unit ?? before.unit,
			visibleTo: input.visibleTo ?? before.visible_to,
			changedBy: input.changedBy ?? before.changed_by,
			off: [...new Set([...before.off, ...(input.off ?? [])])].filter(
				(part) => !input.on?.includes(part as Switch),
			),
			personLimit: input.personLimit === undefined ? before.person_limit : input.personLimit,
			personMode: input.personMode ?? before.person_mode,
			lineStates: input.lineStates ?? before.line_states,
			away: input.away ?? before.away_at !== null,
		};
		await tx.query(
			`update board set name = $2, key = $3, purpose = $4, unit = $5, visible_to = $6, changed_by = $7, off = $8,
				person_limit = $9, person_mode = $10, line_states = $13, away_at = case when $11 then coalesce(away_at, $12) end
			where id = $1`,
			[
				board.id,
				after.name,
				after.key,
				after.purpose,
				after.unit,
				after.visibleTo,
				after.changedBy,
				after.off,
				after.personLimit,
				after.personMode,
				after.away,
				context.at,
				after.lineStates,
			],
		);
		if (input.people) await namePeople(context, input.people);
		if (input.place !== undefined) await place(context, input.place);
		context.note(
			null,
			'board-changed',
			after.name,
			{
				name: before.name,
				key: before.key,
				purpose: before.purpose,
				unit: before.unit,
				visibleTo: before.visible_to,
				changedBy: before.changed_by,
				off: before.off,
				personLimit: before.person_limit,
				personMode: before.person_mode,
				lineStates: before.line_states,
				away: before.away_at !== null,
			},
			after,
		);
	},
});

async function refuseTaken({ tx, board }: BoardContext, { name, key }: ChangeBoard): Promise<void> {
	if (name !== undefined) {
		const { rows } = await tx.query<{ away: boolean }>(
			'select away_at is not null as away from board where team_id = $1 and lower(name) = lower($2) and id <> $3',
			[board.team, name, board.id],
		);
		if (rows[0])
			throw new Problem(
				409,
				'board.name_taken',
				`This team has a board called ${name} already${rows[0].away ? ', which is put away' : ''}. Choose another name.`,
				'name',
			);
	}
	if (key === undefined) return;
	const { rowCount } = await tx.query('select from board_key where key = $1 and board_id <> $2', [
		key,
		board.id,
	]);
	if (rowCount)
		throw new Problem(
			409,
			'board.key_taken',
			`The key ${key} belongs to another board, or did before. Choose another one.`,
			'key',
		);
}

async function namePeople(context: BoardContext, people: readonly NamedPerson[]): Promise<void> {
	const { tx, board } = context;
	await context.keep('board_person', { board_id: board.id });
	const { rows } = await tx.query<{ person_id: string }>(
		'select person_id from membership where team_id = $1 and left_at is null',
		[board.team],
	);
	const known = new Set(rows.map((row) => row.person_id));
	if (people.some(({ person }) => !known.has(person)))
		throw new Problem(422, 'person.unknown', 'Only people of the board’s team can be named.', 'people');
	await tx.query('delete from board_person where board_id = $1', [board.id]);
	await tx.query(
		`insert into board_person (board_id, person_id, changes)
		select $1, p.person, p.changes from jsonb_to_recordset($2) as p(person uuid, changes boolean)`,
		[board.id, JSON.stringify(people)],
	);
	// Streams of those who may not see it any more end.
	await tx.query(
		`select pg_notify('harrow', 'person ' || person_id) from membership where team_id = $1 and left_at is null`,
		[board.team],
	);
}

/** Puts a board to its place among those of its team. */
async function place({ tx, board }: BoardContext, to: number): Promise<void> {
	await tx.query(
		`with others as (
			select id, row_number() over (order by position, name) - 1 as n from board where team_id = $1 and id <> $2
		)
		update board b set position = coalesce((select n + (n >= $3)::integer from others o where o.id = b.id), $3)
		where b.team_id = $1`,
		[board.team, board.id, to],
	);
}
