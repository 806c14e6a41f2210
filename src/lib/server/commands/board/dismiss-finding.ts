import { dayText } from '../../../../core/calendar/days.ts';
import { zoneOf } from '../../../../core/calendar/zone.ts';
import { Problem } from '../../problem.ts';
import { boardCommand } from '../../door/command.ts';
import { Id, Line } from '../../door/fields.ts';

export class DismissFinding {
	@Id('board')
	board!: string;

	/** The finding’s key, such as blocked:42. */
	@Line('The finding', 120)
	finding!: string;

	@Line('The reason', 300)
	reason!: string;
}

export const dismissFinding = boardCommand({
	name: 'DismissFinding',
	summary: 'Puts a finding of the rounds aside for today, with a reason; tomorrow it is back.',
	input: DismissFinding,
	async run(context, input) {
		const today = dayText(zoneOf(context.board.timeZone).day(context.at.getTime()));
		await context.keep('dismissal', { board_id: context.board.id, finding: input.finding, day: today });
		await context.tx.query(
			`insert into dismissal (board_id, finding, day, reason, person_id, at) values ($1, $2, $3, $4, $5, $6)
			on conflict (board_id, finding, day)
			do update set reason = excluded.reason, person_id = excluded.person_id, at = excluded.at, withdrawn_at = null`,
			[context.board.id, input.finding, today, input.reason, context.person.id, context.at],
		);
		context.note(null, 'finding-dismissed', input.finding, null, { reason: input.reason });
	},
});

export class RecallFinding {
	@Id('board')
	board!: string;

	@Line('The finding', 120)
	finding!: string;
}

export const recallFinding = boardCommand({
	name: 'RecallFinding',
	summary: 'Shows a finding again that was put aside for today.',
	input: RecallFinding,
	async run(context, input) {
		const today = dayText(zoneOf(context.board.timeZone).day(context.at.getTime()));
		await context.keep('dismissal', { board_id: context.board.id, finding: input.finding, day: today });
		const { rowCount } = await context.tx.query(
			`update dismissal set withdrawn_at = $4 where board_id = $1 and finding = $2 and day = $3 and withdrawn_at is null`,
			[context.board.id, input.finding, today, context.at],
		);
		if (!rowCount) throw new Problem(409, 'finding.not_aside', 'This was not put aside today.', 'finding');
		context.note(null, 'finding-recalled', input.finding);
	},
});
