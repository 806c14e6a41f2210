import { IsBoolean, IsInt, Max, Min } from 'class-validator';
import { teamCommand } from '../../door/command.ts';
import { Problem } from '../../problem.ts';
import { Entries, Id, Line, Lines, Optional, OrNull, Week } from '../../door/fields.ts';
import { checkZone } from './make-team.ts';

export class StageLimit {
	@Line('The stage', 40)
	stage!: string;

	/** How many initiatives it holds; null for any number. */
	@OrNull()
	@Max(99, { message: 'A stage holds at most 99 initiatives.' })
	@Min(1, { message: 'The limit of a stage is at least 1.' })
	@IsInt({ message: 'The limit of a stage is a whole number.' })
	limit!: number | null;
}

export class ChangeTeam {
	@Id('team')
	team!: string;

	@Optional()
	@Line('The name of the team', 80)
	name?: string;

	/** An IANA time zone, which its boards use. */
	@Optional()
	@Line('The time zone', 60)
	timeZone?: string;

	/** The hours of a usual week, Monday first: those who come in begin with it. */
	@Optional()
	@Week()
	week?: number[];

	/** The stages that initiatives go through, in their order. */
	@Optional()
	@Lines('stage', 12, 40)
	stages?: string[];

	/** How many initiatives stages hold; those that are not named keep theirs. */
	@Optional()
	@Entries('limits', StageLimit, 12)
	limits?: StageLimit[];

	/** Whether absences that members enter wait for a lead to agree. */
	@Optional()
	@IsBoolean({ message: 'Absences are agreed to or not: true or false.' })
	agreeAbsences?: boolean;

	/** Whether the team is put away: it leaves every list, and its boards with it. */
	@Optional()
	@IsBoolean({ message: 'A team is put away or not: true or false.' })
	away?: boolean;
}

interface Row {
	name: string;
	time_zone: string;
	week: number[];
	stages: string[];
	stage_limits: Record<string, number>;
	agree_absences: boolean;
	away_at: string | null;
}

export const changeTeam = teamCommand({
	name: 'ChangeTeam',
	summary:
		'Changes a team: its name, time zone, usual week and stages of initiatives; puts it away or brings it back.',
	input: ChangeTeam,
	role: 'lead',
	async run(context, input) {
		const [row] = await context.keep('team', { id: context.team.id });
		const before = row as unknown as Row;
		if (input.timeZone) checkZone(input.timeZone);
		const after = {
			name: input.name ?? before.name,
			timeZone: input.timeZone ?? before.time_zone,
			week: input.week ?? before.week,
			stages: [...new Set(input.stages?.map((stage) => stage.trim()).filter(Boolean) ?? before.stages)],
			agree: input.agreeAbsences ?? before.agree_absences,
			away: input.away ?? before.away_at !== null,
		};
		const limits = limitsOf(before, after.stages, input.limits ?? []);
		await context.tx.query(
			`update team set name = $2, time_zone = $3, week = $4, stages = $5,
				away_at = case when $6 then coalesce(away_at, $7) end, stage_limits = $8, agree_absences = $9
			where id = $1`,
			[
				...[context.team.id, after.name, after.timeZone, after.week, after.stages, after.away, context.at],
				...[JSON.stringify(limits), after.agree],
			],
		);
		if (!after.agree)
			await context.tx.query(
				`update absence a set waits = false from membership m
				where a.waits and m.person_id = a.person_id and m.team_id = $1 and m.left_at is null and not exists (
					select from membership o join team t on t.id = o.team_id and t.agree_absences
					where o.person_id = a.person_id and o.left_at is null and o.team_id <> $1)`,
				[context.team.id],
			);
		context.note(sentence(before, { ...after, limits }), {}, {});
	},
});

/** How many initiatives each stage holds from now on. */
function limitsOf(
	before: Row,
	stages: readonly string[],
	asked: readonly StageLimit[],
): Record<string, number> {
	const unknown = asked.find(({ stage }) => !stages.includes(stage));
	if (unknown) throw new Problem(422, 'stage.unknown', `The team has no stage “${unknown.stage}”.`, 'limits');
	const limits = new Map(Object.entries(before.stage_limits).filter(([stage]) => stages.includes(stage)));
	for (const { stage, limit } of asked)
		if (limit === null) limits.delete(stage);
		else limits.set(stage, limit);
	return Object.fromEntries(limits);
}

function sentence(
	before: Row,
	after: {
		name: string;
		timeZone: string;
		stages: string[];
		limits: Record<string, number>;
		agree: boolean;
		away: boolean;
	},
): string {
	const said: string[] = [];
	if (after.name !== before.name) said.push(`The team ${before.name} is called ${after.name}.`);
	if (after.timeZone !== before.time_zone)
		said.push(`Its time zone is ${after.timeZone}, before ${before.time_zone}.`);
	if (after.stages.join() !== before.stages.join())
		said.push(`Initiatives go through: ${after.stages.join(', ') || 'no stages'}.`);
	for (const stage of after.stages)
		if (after.limits[stage] !== before.stage_limits[stage])
			said.push(`${stage} holds ${after.limits[stage] ?? 'any number of'} initiatives.`);
	if (after.agree !== before.agree_absences)
		said.push(
			after.agree ? 'A lead agrees to absences from now on.' : 'Absences need nobody’s agreement any more.',
		);
	if (after.away !== (before.away_at !== null))
		said.push(after.away ? 'The team was put away.' : 'The team was brought back.');
	return said.join(' ') || 'The usual week of the team was changed.';
}
