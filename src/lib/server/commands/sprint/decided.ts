import { IsIn, IsString, MaxLength } from 'class-validator';
import { REASONS, type Reason } from '../../../../core/events/reasons.ts';
import { DECISIONS, type Decision } from '../../../../core/sprint/settle.ts';
import type { CardRow } from '../../door/contexts.ts';
import { Id, Line, Lines, Optional, Version } from '../../door/fields.ts';
import { Problem } from '../../problem.ts';

const CODES = Object.keys(REASONS) as Reason[];

/** What happens to one card that was not finished, and why it was not. */
export class CardDecision {
	@Id('card')
	card!: string;

	@Version()
	version!: number;

	@IsIn(DECISIONS, { message: 'The decision must be carry, split, backlog or drop.' })
	decision!: Decision;

	@IsIn(CODES, { message: `The reason must be one of: ${CODES.join(', ')}.` })
	reason!: Reason;

	/** The reason in one’s own words; needed where the reason is other. */
	@Optional()
	@MaxLength(300, { message: 'The words of a reason may have at most 300 characters.' })
	@IsString({ message: 'The words of a reason must be text.' })
	words?: string;

	/** Of a split: what the finished part is called from now on; left out to keep its title. */
	@Optional()
	@Line('The title of the finished part', 300)
	finished?: string;

	/** Of a split: what the new card with the rest is called. */
	@Optional()
	@Line('The title of the new card', 300)
	title?: string;

	/** Of a split: the checklist lines that go along, by their ids. */
	@Optional()
	@Lines('checklist line', 200, 60)
	lines?: string[];

	/** Of a split: where the new card goes; onto the next sprint’s list unless said otherwise. */
	@Optional()
	@IsIn(['next', 'backlog'], { message: 'The rest goes to next or to backlog.' })
	to?: 'next' | 'backlog';
}

/** A card of which it was decided, as it stood then. */
export interface Decided extends CardDecision {
	row: CardRow;
}

/** Those of which one thing was decided. */
export const of = (decided: readonly Decided[], decision: Decision): Decided[] =>
	decided.filter((one) => one.decision === decision);

/** Checks that each unfinished card, and no other, is decided, and that each decision can be carried out. */
export function decide(
	sprint: number,
	cards: readonly CardRow[],
	unfinished: readonly CardRow[],
	said: ReadonlyMap<string, CardDecision>,
): Decided[] {
	const inSprint = new Map(cards.map((card) => [card.id, card]));
	for (const id of said.keys()) {
		const card = inSprint.get(id);
		if (!card)
			throw new Problem(
				409,
				'settle.not_in_sprint',
				`A card that was decided is not in sprint ${sprint} any more. Look at the others as they stand now.`,
				'decisions',
				{ card: id },
			);
		if (card.clock === 'done')
			throw new Problem(
				409,
				'settle.done',
				`Card ${card.number} was finished meanwhile: nothing has to be decided about it.`,
				'decisions',
				{ card: id },
			);
	}
	const undecided = unfinished.filter((card) => !said.has(card.id));
	if (undecided.length) {
		const named = undecided.slice(0, 6).map((card) => card.number);
		const more = undecided.length - named.length;
		throw new Problem(
			422,
			'settle.undecided',
			`${undecided.length === 1 ? 'A card is' : `${undecided.length} cards are`} still undecided: ${named.join(', ')}${more ? ` and ${more} more` : ''}. Decide each before sprint ${sprint} is closed.`,
			'decisions',
			{ cards: undecided.map((card) => card.id) },
		);
	}
	return unfinished.map((row) => {
		const one = { ...said.get(row.id)!, row };
		if (one.reason === 'other' && !one.words?.trim())
			throw new Problem(
				422,
				'settle.words',
				`Say in words why card ${row.number} was not finished.`,
				'words',
				{ card: row.id },
			);
		if (one.decision === 'split') splittable(one);
		return one;
	});
}

function splittable({ row, title }: Decided): void {
	if (!title?.trim())
		throw new Problem(
			422,
			'split.title',
			`Say what the new card with the rest of card ${row.number} is called.`,
			'title',
			{ card: row.id },
		);
	if (row.size !== null && row.left <= 0)
		throw new Problem(
			422,
			'split.nothing',
			`Nothing is left of card ${row.number}, so there is nothing to split off. Correct what is left, or finish it.`,
			'decision',
			{ card: row.id },
		);
}
