import { Problem } from '../problem.ts';
import { teamCommand } from './command.ts';
import { Id } from './fields.ts';
import { leadsOnly, memberOf } from './team.ts';

export class RemoveMember {
	@Id('team')
	team!: string;

	@Id('person')
	person!: string;
}

export const removeMember = teamCommand({
	name: 'RemoveMember',
	summary:
		'Lets a person leave the team. Their name stays on what they did; cards in hand have to be given to others first.',
	input: RemoveMember,
	async run(context, input) {
		leadsOnly(context);
		const person = await memberOf(context, input.person);
		const { rows: leads } = await context.tx.query<{ n: number }>(
			`select count(*) as n from membership where team_id = $1 and role = 'lead' and left_at is null and person_id <> $2`,
			[context.team.id, person.id],
		);
		if (!leads[0]!.n)
			throw new Problem(
				409,
				'team.last_lead',
				`${person.name} is the only lead: make somebody else a lead first.`,
				'person',
			);
		const { rows } = await context.tx.query<{ key: string }>(
			`select b.key || '-' || c.number as key
			from card_owner o
			join card c on c.id = o.card_id
			join board b on b.id = c.board_id and b.team_id = $1
			where o.person_id = $2 and c.archived_at is null and c.clock <> 'done'
				and (c.sprint_id is not null or c.column_id is not null)
			order by b.key, c.number`,
			[context.team.id, person.id],
		);
		if (rows.length) {
			const named = rows.slice(0, 6).map((row) => row.key);
			const more = rows.length - named.length;
			throw new Problem(
				409,
				'member.has_cards',
				`${person.name} still owns ${rows.length === 1 ? 'a card' : `${rows.length} cards`} in hand or in a sprint: ${named.join(', ')}${more ? ` and ${more} more` : ''}. Give them to somebody else first.`,
				'person',
				{ cards: rows.map((row) => row.key) },
			);
		}
		await context.tx.query(
			`with gone as (
				update membership set left_at = $3 where team_id = $1 and person_id = $2
			)
			delete from session where person_id = $2`,
			[context.team.id, person.id, context.at],
		);
		context.note(`${person.name} left the team.`);
	},
});
