import { dayWords } from '../../../../core/calendar/day-words.ts';
import { fsum } from 'd3-array';
import { Max, Min } from 'class-validator';
import { Problem } from '../../problem.ts';
import { teamCommand } from '../../door/command.ts';
import { dayField } from '../../door/day-field.ts';
import { DayText, Decimals, Entries, Id } from '../../door/fields.ts';
import { memberOf } from './member-of.ts';

export class BoardShare {
	@Id('board')
	board!: string;

	/** From 0 to 1. */
	@Max(1, { message: 'A share must not be above 1.' })
	@Min(0, { message: 'A share must not be below 0.' })
	@Decimals(4, 'A share must be a number from 0 to 1.')
	share!: number;
}

export class ChangeShares {
	@Id('team')
	team!: string;

	@Id('person')
	person!: string;

	/** The day from which they hold. */
	@DayText('The day')
	from!: string;

	/** The boards that get a share of the person’s hours; the others get none. */
	@Entries('shares', BoardShare, 100, 0)
	shares!: BoardShare[];
}

export const changeShares = teamCommand({
	name: 'ChangeShares',
	summary: 'Says how a person’s hours are shared between the boards of the team, from a day on.',
	input: ChangeShares,
	role: 'lead',
	async run(context, input) {
		const person = await memberOf(context, input.person);
		dayField(input.from, 'from', 'The day');
		for (const { board } of input.shares)
			if (!context.boards.some((known) => known.id === board))
				throw new Problem(422, 'board.unknown', 'The team has no such board.', 'shares');
		const shares = Object.fromEntries(input.shares.map(({ board, share }) => [board, share]));
		const sum = fsum(Object.values(shares));
		if (sum > 1 + 1e-9)
			throw new Problem(
				422,
				'shares.too_much',
				`The shares of ${person.name} come to ${Math.round(sum * 100)}%: together they may be at most 100%.`,
				'shares',
			);
		await context.keep('board_share', {
			team_id: context.team.id,
			person_id: person.id,
			from_day: input.from,
		});
		await context.tx.query(
			`insert into board_share (team_id, person_id, from_day, shares) values ($1, $2, $3, $4)
			on conflict (team_id, person_id, from_day) do update set shares = excluded.shares`,
			[context.team.id, person.id, input.from, JSON.stringify(shares)],
		);
		context.note(
			`The hours of ${person.name} are shared between boards anew from ${dayWords(input.from)} on.`,
		);
	},
});
