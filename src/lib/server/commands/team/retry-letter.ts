import { teamCommand } from '../../door/command.ts';
import { Id } from '../../door/fields.ts';
import { mailOn } from '../../mail/settings.ts';
import { queueLetter } from '../../mail/post.ts';
import { notFound, Problem } from '../../problem.ts';

export class RetryLetter {
	@Id('team')
	team!: string;

	@Id('letter')
	letter!: string;
}

export const retryLetter = teamCommand({
	name: 'RetryLetter',
	summary: 'Has a letter to somebody of the team tried again now: one that waits, or that was refused.',
	input: RetryLetter,
	role: 'lead',
	undoable: false,
	async run(context, input) {
		const { tx, team } = context;
		if (!mailOn()) throw new Problem(409, 'mail.off', 'This Harrow has no mail server: nothing can be sent.');
		const { rows } = await tx.query<{ id: string; to: string; sent: boolean; empty: boolean }>(
			`select m.id, coalesce(p.name, m.to_address) as to, m.sent_at is not null as sent,
				m.words is null and m.kind in ('invitation', 'reset') as empty
			from mail m left join person p on p.id = m.person_id
			where m.id = $1 and (m.team_id = $2 or exists (
				select from membership o where o.team_id = $2 and o.person_id = m.person_id and o.left_at is null))
			for update of m`,
			[input.letter, team.id],
		);
		const [letter] = rows;
		if (!letter) throw notFound('letter');
		if (letter.sent) throw new Problem(409, 'letter.sent', 'This letter was sent already.', 'letter');
		if (letter.empty)
			throw new Problem(
				409,
				'letter.empty',
				'The link of this letter is kept nowhere any more. Make a new one, and it is sent.',
				'letter',
			);
		await tx.query(
			`with again as (
				update mail set dropped_at = null, refused = false, trouble = null, claimed_at = null where id = $1 returning id
			)
			select ${queueLetter('0')} from again`,
			[letter.id],
		);
		context.note(`A letter to ${letter.to} is tried again.`);
	},
});
