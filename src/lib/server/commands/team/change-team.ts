import { IsBoolean } from 'class-validator';
import { teamCommand } from '../../door/command.ts';
import { Id, Line, Lines, Optional, Week } from '../../door/fields.ts';
import { checkZone } from './make-team.ts';

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
			away: input.away ?? before.away_at !== null,
		};
		await context.tx.query(
			`update team set name = $2, time_zone = $3, week = $4, stages = $5,
				away_at = case when $6 then coalesce(away_at, $7) end
			where id = $1`,
			[context.team.id, after.name, after.timeZone, after.week, after.stages, after.away, context.at],
		);
		context.note(sentence(before, after), {}, {});
	},
});

function sentence(
	before: Row,
	after: { name: string; timeZone: string; stages: string[]; away: boolean },
): string {
	const said: string[] = [];
	if (after.name !== before.name) said.push(`The team ${before.name} is called ${after.name}.`);
	if (after.timeZone !== before.time_zone)
		said.push(`Its time zone is ${after.timeZone}, before ${before.time_zone}.`);
	if (after.stages.join() !== before.stages.join())
		said.push(`Initiatives go through: ${after.stages.join(', ') || 'no stages'}.`);
	if (after.away !== (before.away_at !== null))
		said.push(after.away ? 'The team was put away.' : 'The team was brought back.');
	return said.join(' ') || 'The usual week of the team was changed.';
}
