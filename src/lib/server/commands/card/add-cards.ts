import { IsBoolean, IsIn, IsInt, IsObject, IsString, MaxLength, Max, Min } from 'class-validator';
import { Problem } from '../../problem.ts';
import { boardCommand } from '../../door/command.ts';
import { dayField } from '../../door/day-field.ts';
import { Amount, DayText, Entries, Id, Line, Lines, Optional, OrNull, People } from '../../door/fields.ts';
import { gaveWay, nest } from './family.ts';
import { makeCards } from './make-cards.ts';

export class NewChecklistLine {
	@Line('The checklist line', 300)
	text!: string;

	@IsBoolean({ message: 'A checklist line is done or not: true or false.' })
	done!: boolean;
}

export class NewCard {
	@Line('The title', 300)
	title!: string;

	@Optional()
	@MaxLength(50_000, { message: 'The description may have at most 50,000 characters.' })
	@IsString({ message: 'The description must be text.' })
	description?: string;

	@Optional()
	@OrNull()
	@Amount('The size')
	size?: number | null;

	/** One of the board’s types. */
	@Optional()
	@MaxLength(40, { message: 'The type may have at most 40 characters.' })
	@IsString({ message: 'The type must be text.' })
	type?: string;

	@Optional()
	@IsIn(['expedite', 'fixed', 'standard', 'background'], {
		message: 'The class is expedite, fixed, standard or background.',
	})
	class?: 'expedite' | 'fixed' | 'standard' | 'background';

	/** Labels that the board does not have yet are made. */
	@Optional()
	@Lines('label', 20, 40)
	labels?: string[];

	@Optional()
	@People('owner')
	owners?: string[];

	@Optional()
	@OrNull()
	@DayText('The start')
	start?: string | null;

	@Optional()
	@OrNull()
	@DayText('The due date')
	due?: string | null;

	/** An initiative that the board does not have yet is made. */
	@Optional()
	@OrNull()
	@Line('The initiative', 80)
	initiative?: string | null;

	/** Refined enough to be planned. */
	@Optional()
	@IsBoolean({ message: 'A card is ready or not: true or false.' })
	ready?: boolean;

	/** What it holds in fields that the board has added, by their ids. */
	@Optional()
	@IsObject({ message: 'What a card holds in fields is an object of their ids.' })
	fields?: Record<string, string | number | boolean | null>;

	@Optional()
	@Entries('checklist lines', NewChecklistLine, 100, 0)
	checklist?: NewChecklistLine[];

	/** The place in this list, counted from 0, of an earlier card that it is part of. */
	@Optional()
	@OrNull()
	@Max(1000, { message: 'The parent is the place of an earlier card in this list.' })
	@Min(0, { message: 'The parent is the place of an earlier card in this list.' })
	@IsInt({ message: 'The parent is the place of an earlier card in this list.' })
	parent?: number | null;

	/** A card of the board that it is part of. */
	@Optional()
	@Id('card it is part of')
	partOf?: string;
}

export class AddCards {
	@Id('board')
	board!: string;

	@Entries('cards', NewCard, 1000)
	cards!: NewCard[];

	/** The card of the backlog right above them; null for the top, left out for the end. */
	@Optional()
	@OrNull()
	@Id('card above')
	below?: string | null;
}

export const addCards = boardCommand({
	name: 'AddCards',
	summary: 'Adds cards to the backlog, all of them or none: pasted, imported or written one by one.',
	input: AddCards,
	async run(context, input) {
		input.cards.forEach((card, i) => {
			const parent = card.parent ?? null;
			if (parent === null) return;
			const above = input.cards[parent];
			if (parent >= i || !above)
				throw new Problem(
					422,
					'invalid.parent',
					'The parent is the place of an earlier card in this list.',
					'parent',
				);
			if (above.parent != null)
				throw new Problem(
					409,
					'parent.is_part',
					`“${above.title.slice(0, 40)}” is a sub-card itself and can have none.`,
					'parent',
				);
		});
		for (const { start, due } of input.cards) {
			const [first, last] = [
				start && dayField(start, 'start', 'The start'),
				due && dayField(due, 'due', 'The due date'),
			];
			if (first && last && first > last)
				throw new Problem(422, 'invalid.due', 'A card cannot be due before it starts.', 'due');
		}
		const cards = await makeCards(context, input.cards, input.below);
		const advice: (string | undefined)[] = input.cards.map((card, i) => {
			const own = input.cards.find((one) => one.parent === i);
			return card.size && own?.size != null
				? gaveWay(`“${card.title}”`, card.size, context.board.unit)
				: undefined;
		});
		for (const [i, { partOf }] of input.cards.entries()) {
			if (!partOf) continue;
			const [child, parent] = await context.cards([{ card: cards[i]!.id }, { card: partOf }]);
			advice.push(await nest(context, child!, context.unarchived(parent!)));
		}
		const parents = [...new Set(input.cards.flatMap((card) => card.partOf ?? []))];
		await context.changedNow(parents.map((id) => ({ id })));
		return { result: { cards }, advice: advice.filter(Boolean).join(' ') || undefined };
	},
});
