import { ArrayMaxSize, ArrayUnique, IsArray, IsUUID } from 'class-validator';
import { Problem } from '../problem.ts';
import { boardCommand } from './command.ts';
import { Id, Version } from './fields.ts';

export class AssignCard {
	@Id('card')
	card!: string;

	@Version()
	version!: number;

	/** Everyone who owns it from now on. */
	@IsUUID(undefined, { each: true, message: 'Each owner must be named by their id.' })
	@ArrayUnique({ message: 'Name each owner once.' })
	@ArrayMaxSize(20, { message: 'A card may have at most 20 owners.' })
	@IsArray({ message: 'The owners must be a list of ids.' })
	owners!: string[];
}

export const assignCard = boardCommand({
	name: 'AssignCard',
	summary: 'Says who owns a card: one person, several, or nobody.',
	input: AssignCard,
	async run(context, input) {
		const card = await context.card(input.card, input.version);
		const { rows: people } = await context.tx.query<{
			id: string;
			name: string;
			owned: boolean;
			role: string | null;
		}>(
			`select p.id, p.name, exists (select from card_owner o where o.card_id = $1 and o.person_id = p.id) as owned, m.role
			from person p
			left join membership m on m.person_id = p.id and m.team_id = $3
			where p.id = any($2::uuid[]) or p.id in (select person_id from card_owner where card_id = $1)
			order by p.name`,
			[card.id, input.owners, context.board.team],
		);
		for (const id of input.owners) {
			const person = people.find((known) => known.id === id.toLowerCase());
			if (!person?.owned && (!person?.role || person.role === 'viewer'))
				throw new Problem(
					422,
					'owner.unknown',
					'An owner must be a lead or member of the board’s team.',
					'owners',
				);
		}
		const wanted = new Set(input.owners.map((id) => id.toLowerCase()));
		for (const person of people) {
			if (wanted.has(person.id) && !person.owned) context.note(card.id, 'owner', person.name);
			if (!wanted.has(person.id) && person.owned) context.note(card.id, 'unowner', person.name);
		}
		await context.tx.query(
			`with gone as (delete from card_owner where card_id = $1 and person_id <> all($2::uuid[])),
			come as (insert into card_owner select $1, unnest($2::uuid[]) on conflict do nothing)
			update card set version = version + 1 where id = $1`,
			[card.id, [...wanted]],
		);
	},
});
