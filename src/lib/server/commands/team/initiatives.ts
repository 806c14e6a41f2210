import { IsBoolean, IsString, MaxLength } from 'class-validator';
import { notFound, Problem } from '../../problem.ts';
import { teamCommand } from '../../door/command.ts';
import type { TeamContext } from '../../door/contexts.ts';
import { Id, Line, Optional, OrNull } from '../../door/fields.ts';
import { stageNamed, stagesOf } from '../board/stages.ts';

export class StageInitiative {
	@Id('team')
	team!: string;

	@Id('initiative')
	initiative!: string;

	/** Null: in no stage. */
	@OrNull()
	@Line('The stage', 40)
	stage!: string | null;

	/** Why it goes there though the stage is full. */
	@Optional()
	@MaxLength(200, { message: 'The reason may have at most 200 characters.' })
	@IsString({ message: 'The reason must be text.' })
	reason?: string;
}

export const stageInitiative = teamCommand({
	name: 'StageInitiative',
	summary: 'Moves an initiative to another stage of its team; over the limit of a stage only with a reason.',
	role: 'member',
	input: StageInitiative,
	async run(context, { initiative, stage, reason = '' }) {
		const { tx, team, person, role } = context;
		const row = await initiativeOf(context, initiative);
		if (role !== 'lead' && row.lead_id !== person.id)
			throw new Problem(
				403,
				'right.missing',
				'Only a lead of the team, or who leads the initiative, may do this.',
			);
		if (row.stage === stage) return;
		const stages = await stagesOf(tx, team.id);
		stageNamed(stages, stage);
		const limit = stage === null ? undefined : stages.limits[stage];
		const { rows } = await tx.query<{ n: number }>(
			`select count(*)::integer as n from initiative i join board b on b.id = i.board_id
			where b.team_id = $1 and b.away_at is null and i.stage = $2 and i.retired_at is null and i.id <> $3`,
			[team.id, stage, initiative],
		);
		const full = limit !== undefined && rows[0]!.n >= limit;
		if (full && !reason.trim())
			throw new Problem(
				409,
				'stage.full',
				`${stage} is full (${rows[0]!.n} of ${limit}). Move another initiative on first, or let this one through with a reason.`,
				'reason',
			);
		await tx.query('update initiative set stage = $2, let_through = $3 where id = $1', [
			initiative,
			stage,
			full ? reason.trim() : null,
		]);
		context.note(
			`${row.name} stands ${stage === null ? 'in no stage' : `in ${stage}`} now${full ? `, over its limit: ${reason.trim()}` : ''}.`,
			{ stage: row.stage },
			{ stage },
		);
	},
});

export class ShareInitiative {
	@Id('team')
	team!: string;

	@Id('initiative')
	initiative!: string;

	/** Whether cards of all boards of the team may belong to it. */
	@IsBoolean({ message: 'An initiative is shared or not: true or false.' })
	wide!: boolean;

	/** What it is called from now on; left out to keep its name. */
	@Optional()
	@Line('The name', 80)
	name?: string;
}

export const shareInitiative = teamCommand({
	name: 'ShareInitiative',
	summary:
		'Lets cards of all boards of the team belong to an initiative, or of its own board only; renames it there.',
	role: 'lead',
	input: ShareInitiative,
	async run(context, { initiative, wide, name: called }) {
		const { tx, team } = context;
		const row = await initiativeOf(context, initiative);
		const name = called ?? row.name;
		if (row.wide === wide && name === row.name) return;
		const { rows } = await tx.query<{ name: string; cards: boolean }>(
			wide
				? `select b.name, false as cards from initiative i join board b on b.id = i.board_id
					where b.team_id = $1 and i.id <> $2 and i.name = $3 limit 1`
				: `select b.name, true as cards from card c join board b on b.id = c.board_id
					where b.team_id = $1 and c.initiative_id = $2 and c.board_id::text <> $3 limit 1`,
			[team.id, initiative, wide ? name : row.board_id],
		);
		if (rows[0])
			throw new Problem(
				409,
				wide ? 'initiative.known' : 'initiative.used',
				wide
					? `${rows[0].name} has an initiative “${name}” of its own. Give one of the two another name first.`
					: `Cards of ${rows[0].name} belong to ${row.name}. Give them another initiative first.`,
				'initiative',
			);
		if (!wide && name !== row.name) {
			const there = await tx.query('select from initiative where board_id = $1 and name = $2', [
				row.board_id,
				name,
			]);
			if (there.rowCount)
				throw new Problem(409, 'initiative.known', `There is an initiative “${name}” already.`, 'name');
		}
		await tx.query('update initiative set wide = $2, name = $3 where id = $1', [initiative, wide, name]);
		if (name !== row.name) context.note(`The initiative ${row.name} is called ${name}.`);
		if (wide === row.wide) return;
		context.note(
			wide ? `${name} is an initiative of all boards now.` : `${name} is one of its own board only now.`,
		);
	},
});

interface Row {
	name: string;
	board_id: string;
	stage: string | null;
	wide: boolean;
	lead_id: string | null;
}

/** An initiative of one of the team's boards, kept for undo. */
async function initiativeOf(context: TeamContext, id: string): Promise<Row> {
	const [row] = (await context.keep('initiative', { id })) as unknown as Row[];
	if (!row || !context.boards.some((board) => board.id === row.board_id)) throw notFound('initiative');
	return row;
}
