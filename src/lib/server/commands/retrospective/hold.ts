import { ArrayMinSize, IsBoolean, IsIn, IsInt, Max, Min } from 'class-validator';
import { phaseAfter, PHASES, type Phase } from '../../../../core/retrospective/phases.ts';
import { boardCommand } from '../../door/command.ts';
import { Id, Lines, Optional, SprintNumber } from '../../door/fields.ts';
import { notFound, Problem } from '../../problem.ts';
import { retroOf, tellRetro } from './retro-of.ts';

export class HoldRetrospective {
	@Id('board')
	board!: string;

	/** The number of the sprint that it is about; left out, it is held on any day. */
	@Optional()
	@SprintNumber()
	sprint?: number;

	/** What its columns are called. */
	@ArrayMinSize(1, { message: 'There must be at least one column.' })
	@Lines('column', 5, 40)
	columns!: string[];

	/** Whether nobody is stored with what they write. */
	@IsBoolean({ message: 'It is anonymous or not: true or false.' })
	anonymous!: boolean;

	/** So many votes each person has. */
	@Max(10, { message: 'Each person has at most 10 votes.' })
	@Min(1, { message: 'Each person has at least one vote.' })
	@IsInt({ message: 'The votes are a whole number.' })
	votes!: number;
}

export const holdRetrospective = boardCommand({
	name: 'HoldRetrospective',
	summary: 'Opens a retrospective of a board, about a sprint or on any day; one is held at a time.',
	role: 'lead',
	undoable: false,
	input: HoldRetrospective,
	async run(context, input) {
		const { tx, board, person, at } = context;
		const columns = input.columns.map((name) => name.trim()).filter(Boolean);
		if (new Set(columns.map((name) => name.toLowerCase())).size < input.columns.length)
			throw new Problem(422, 'invalid.columns', 'Each column has a name of its own.', 'columns');
		let sprint: string | null = null;
		if (input.sprint !== undefined) {
			const { rows } = await tx.query<{ id: string; held: boolean }>(
				`select s.id, exists (select from retrospective r where r.sprint_id = s.id) as held
				from sprint s where s.board_id = $1 and s.number = $2 and s.started_at is not null`,
				[board.id, input.sprint],
			);
			if (!rows[0]) throw notFound('sprint');
			if (rows[0].held)
				throw new Problem(
					409,
					'retrospective.held',
					`There is a retrospective of sprint ${input.sprint} already.`,
					'sprint',
				);
			sprint = rows[0].id;
		}
		const { rows: open } = await tx.query<{ number: number }>(
			`select number from retrospective where board_id = $1 and phase <> 'closed'`,
			[board.id],
		);
		if (open[0])
			throw new Problem(
				409,
				'retrospective.open',
				`Retrospective ${open[0].number} is not closed yet: one is held at a time.`,
			);
		const { rows } = await tx.query<{ id: string; number: number }>(
			`insert into retrospective (board_id, number, sprint_id, columns, anonymous, votes, opened_by, opened_at)
			select $1, coalesce(max(number), 0) + 1, $2, $3, $4, $5, $6, $7 from retrospective where board_id = $1
			returning id, number`,
			[board.id, sprint, columns, input.anonymous, input.votes, person.id, at],
		);
		context.note(null, 'retrospective-opened', String(rows[0]!.number), null, {
			...(input.sprint === undefined ? {} : { sprint: input.sprint }),
		});
		await tellRetro(context);
		return { result: { retrospective: rows[0]!.id, number: rows[0]!.number } };
	},
});

export class MoveRetrospective {
	@Id('board')
	board!: string;

	@Id('retrospective')
	retrospective!: string;

	/** The phase that it is in: of two who lead on at once, one does. */
	@IsIn(PHASES, { message: `The phase is one of: ${PHASES.join(', ')}.` })
	from!: Phase;
}

export const moveRetrospective = boardCommand({
	name: 'MoveRetrospective',
	summary: 'Leads a retrospective on to its next phase: turns the notes over, lets vote, counts, closes.',
	role: 'lead',
	undoable: false,
	input: MoveRetrospective,
	async run(context, input) {
		const { tx, at } = context;
		const to = phaseAfter(input.from);
		if (!to) throw new Problem(409, 'retrospective.closed', 'This retrospective is closed.', 'retrospective');
		const retro = await retroOf(context, input.retrospective, [input.from]);
		if (to === 'lay')
			// Written anew in no order: neither where a note stands in the table nor when it came tells whose it is.
			await tx.query(
				`with old as (delete from retro_note where retrospective_id = $1 returning place, words, author_id)
				insert into retro_note (retrospective_id, place, words, author_id)
				select $1, place, words, author_id from old order by random()`,
				[retro.id],
			);
		if (to === 'agree')
			await tx.query(
				`with given as (
					delete from retro_vote v using retro_note n
					where n.id = v.note_id and n.retrospective_id = $1
					returning v.note_id, v.votes
				)
				update retro_note n set votes = g.votes
				from (select note_id, sum(votes)::int as votes from given group by 1) g
				where n.id = g.note_id`,
				[retro.id],
			);
		await tx.query(
			`update retrospective set phase = $2, closed_at = case when $2 = 'closed' then $3::timestamptz end where id = $1`,
			[retro.id, to, at],
		);
		if (to === 'closed') context.note(null, 'retrospective-closed', String(retro.number));
		await tellRetro(context);
		return { result: { phase: to } };
	},
});
