import { group } from 'd3-array';
import { MOST_DATED } from '../../../../core/pages/dates.ts';
import { teamCommand } from '../../door/command.ts';
import { RANK, type TeamContext } from '../../door/contexts.ts';
import { dayField } from '../../door/day-field.ts';
import { DayText, Entries, Id, OrNull, Version } from '../../door/fields.ts';
import { notFound, Problem } from '../../problem.ts';
import { whatFollows } from '../../questions/dates.ts';

export class DatedCard {
	@Id('card')
	card!: string;

	@Version()
	version!: number;

	/** The day it starts from now on, `2026-12-04`; null for none. */
	@OrNull()
	@DayText('The start')
	start!: string | null;

	/** The day it is due from now on; null for none. */
	@OrNull()
	@DayText('The due date')
	due!: string | null;
}

export class MoveDates {
	@Id('team')
	team!: string;

	/** The cards that get other dates. */
	@Entries('cards', DatedCard, MOST_DATED)
	cards!: DatedCard[];

	/** All that moves along, as its sender was shown it. */
	@Entries('followers', DatedCard, MOST_DATED, 0)
	followers!: DatedCard[];
}

export const moveDates = teamCommand({
	name: 'MoveDates',
	summary:
		'Gives cards of a team other dates, and moves what hangs on them along, over all its boards, as it was shown before; one step to take back.',
	role: 'member',
	input: MoveDates,
	async run(context, { cards, followers }) {
		for (const { start, due } of [...cards, ...followers]) {
			if (start !== null) dayField(start, 'start', 'The start');
			if (due !== null) dayField(due, 'due', 'The due date');
			if (start !== null && due !== null && start > due)
				throw new Problem(422, 'invalid.due', 'A card cannot be due before it starts.', 'due');
		}
		if (new Set(cards.map(({ card }) => card)).size < cards.length)
			throw new Problem(422, 'invalid.cards', 'Each card is given its dates once.', 'cards');
		const { moved, boards } = await whatFollows(context.person, context.team.id, cards);
		const shown = new Map(followers.map((one) => [one.card, one]));
		const same =
			moved.length === shown.size &&
			moved.every(({ card, to }) => {
				const one = shown.get(card);
				return one !== undefined && one.start === to.start && one.due === to.due;
			});
		if (!same)
			throw new Problem(
				409,
				'dates.changed',
				'What moves along is not what you were shown: somebody has changed dates, links or people’s days meanwhile. Look at it again.',
				'followers',
			);
		await give(context, [...cards, ...followers], boards);
		return { result: { moved: moved.length } };
	},
});

/** Gives cards their dates, board by board. */
async function give(
	context: TeamContext,
	all: readonly DatedCard[],
	boards: ReadonlyMap<string, string>,
): Promise<void> {
	const by = group(all, ({ card }) => boards.get(card) ?? '');
	for (const [board, cards] of by) {
		if (!context.boards.some(({ id }) => id === board)) throw notFound('card');
		const on = await context.onBoard(board);
		if (RANK[on.role] < RANK.member)
			throw new Problem(403, 'right.missing', `Only members of the team may do this on ${on.board.name}.`);
		if (on.board.away)
			throw new Problem(
				409,
				'board.away',
				`${on.board.name} is put away: nothing on it changes until a lead brings it back.`,
			);
		const found = await on.cards(cards);
		await context.tx.query(
			`update card c set start = d.start, due = d.due, version = c.version + 1
			from jsonb_to_recordset($1) d(card uuid, start date, due date)
			where c.id = d.card`,
			[JSON.stringify(cards)],
		);
		for (const [i, { start, due }] of cards.entries()) {
			const was = found[i]!;
			if (due !== was.due) on.note(was.id, 'due', due ?? '', { due: was.due });
			if (start !== was.start) on.note(was.id, 'start', start ?? '', { start: was.start });
		}
	}
}
