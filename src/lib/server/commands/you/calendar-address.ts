import { notFound } from '../../problem.ts';
import { newSecret } from '../../sign-in.ts';
import { personCommand } from '../../door/command.ts';
import { Id, OrNull } from '../../door/fields.ts';

export class MakeCalendarAddress {
	/** The board whose sprints and milestones are read under it; null for one’s own days and due dates. */
	@OrNull()
	@Id('board')
	board!: string | null;
}

export const makeCalendarAddress = personCommand({
	name: 'MakeCalendarAddress',
	summary:
		'Makes the private address under which calendars read one’s own days and due dates, or a board’s sprints and milestones; the one before it ends. It is answered once.',
	input: MakeCalendarAddress,
	async run({ tx, person, at }, { board }) {
		if (board !== null) {
			const { rowCount } = await tx.query('select from board_right where board_id = $1 and person_id = $2', [
				board,
				person.id,
			]);
			if (!rowCount) throw notFound('board');
		}
		await tx.query(
			`update calendar_address set revoked_at = $3
			where person_id = $1 and board_id is not distinct from $2 and revoked_at is null`,
			[person.id, board, at],
		);
		const { secret, hash } = newSecret('cal_');
		const { rows } = await tx.query<{ id: string }>(
			`insert into calendar_address (person_id, board_id, secret_hash, made_at) values ($1, $2, $3, $4) returning id`,
			[person.id, board, hash, at],
		);
		return { result: { address: rows[0]!.id }, secret };
	},
});

export class EndCalendarAddress {
	@Id('address')
	address!: string;
}

export const endCalendarAddress = personCommand({
	name: 'EndCalendarAddress',
	summary: 'Ends a private address of one’s own: calendars read nothing under it any more.',
	input: EndCalendarAddress,
	async run({ tx, person, at }, { address }) {
		const { rowCount } = await tx.query(
			'update calendar_address set revoked_at = coalesce(revoked_at, $3) where id = $1 and person_id = $2',
			[address, person.id, at],
		);
		if (!rowCount) throw notFound('address');
	},
});
