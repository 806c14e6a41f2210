import { IsBoolean } from 'class-validator';
import { boardCommand } from '../../door/command.ts';
import { Id, People } from '../../door/fields.ts';
import { Problem } from '../../problem.ts';

export class WatchCard {
	@Id('card')
	card!: string;

	/** Whether one wants to be told of what happens to it from now on. */
	@IsBoolean({ message: 'A card is watched or not: true or false.' })
	watch!: boolean;
}

export const watchCard = boardCommand({
	name: 'WatchCard',
	summary:
		'Watches a card, or stops: whoever owns a card, reviews it, made it or talked on it is told of it unless they stop.',
	role: 'viewer',
	undoable: false,
	input: WatchCard,
	async run(context, input) {
		const [card] = await context.look([{ card: input.card, seen: true }]);
		await context.tx.query(
			`insert into watch (card_id, person_id, how) values ($1, $2, $3)
			on conflict (card_id, person_id) do update set how = excluded.how`,
			[card!.id, context.person.id, input.watch ? 'chosen' : 'stopped'],
		);
	},
});

export class AskToWatch {
	@Id('card')
	card!: string;

	@People('person')
	people!: string[];
}

export const askToWatch = boardCommand({
	name: 'AskToWatch',
	summary: 'Asks people to watch a card: they see it, if it is private, and are told of what happens to it.',
	undoable: false,
	input: AskToWatch,
	async run(context, input) {
		const card = await context.card(input.card, undefined, true);
		const { rows } = await context.tx.query<{ id: string; name: string }>(
			`select p.id, p.name from board_right r join person p on p.id = r.person_id
			where r.board_id = $1 and p.id = any($2::uuid[])
			order by p.name`,
			[context.board.id, input.people],
		);
		if (rows.length < new Set(input.people).size)
			throw new Problem(422, 'person.unknown', 'Whoever is asked must be able to see the board.', 'people');
		await context.tx.query(
			`insert into watch (card_id, person_id) select $1, unnest($2::uuid[])
			on conflict (card_id, person_id) do update set how = 'chosen'`,
			[card.id, rows.map(({ id }) => id)],
		);
		await context.changedNow([card]);
		for (const { id, name } of rows) context.note(card.id, 'watcher', name, null, { person: id });
	},
});
