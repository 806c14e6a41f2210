import { dayText } from '../../../../core/calendar/days.ts';
import { isZone, zoneOf } from '../../../../core/calendar/zone.ts';
import { Problem } from '../../problem.ts';
import { personCommand } from '../../door/command.ts';
import { Line, Week } from '../../door/fields.ts';
import { joinTeam } from './members.ts';

export class MakeTeam {
	@Line('The name of the team', 80)
	name!: string;

	/** An IANA time zone, which its boards use. */
	@Line('The time zone', 60)
	timeZone!: string;

	/** The hours of a usual week, Monday first; 0 for a day on which nobody works. */
	@Week()
	week!: number[];
}

export const makeTeam = personCommand({
	name: 'MakeTeam',
	summary: 'Makes a team; whoever makes it leads it.',
	input: MakeTeam,
	async run({ tx, person, at }, input) {
		checkZone(input.timeZone);
		const { rows } = await tx.query<{ id: string }>(
			'insert into team (name, time_zone, week) values ($1, $2, $3) returning id',
			[input.name, input.timeZone, input.week],
		);
		const team = rows[0]!.id;
		const today = dayText(zoneOf(input.timeZone).day(at.getTime()));
		await joinTeam(tx, team, person.id, { role: 'lead', title: '' }, today);
		return { result: { team } };
	},
});

/** Refuses a time zone that nobody knows. */
export function checkZone(name: string): void {
	if (!isZone(name))
		throw new Problem(
			422,
			'zone.unknown',
			`There is no time zone “${name}”. One is Europe/Lisbon.`,
			'timeZone',
		);
}
