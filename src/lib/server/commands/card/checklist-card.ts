import type { CardEventName } from '../../../../core/events/kinds.ts';
import { randomUUID } from 'node:crypto';
import { IsBoolean, IsUrl, isUUID } from 'class-validator';
import type { BoardContext, ChecklistLine } from '../../door/contexts.ts';
import { Problem } from '../../problem.ts';
import { boardCommand } from '../../door/command.ts';
import { Entries, Id, Line, Optional, Version } from '../../door/fields.ts';

export class KeptLine {
	/** The line's id; of a new line a UUID made by the sender, or left out. */
	@Optional()
	@Line('The id', 60)
	id?: string;

	@Line('The checklist line', 300)
	text!: string;

	@IsBoolean({ message: 'A checklist line is done or not: true or false.' })
	done!: boolean;

	/** How much of it, as people write it: `12 m`. */
	@Optional()
	@Line('The quantity', 30)
	quantity?: string;

	/** An address where more is to be found: https://… */
	@Optional()
	@IsUrl(
		{ protocols: ['http', 'https'], require_protocol: true, require_tld: false },
		{ message: 'The link of a line begins with https:// or http://.' },
	)
	@Line('The link', 500)
	link?: string;

	/** One of the states that the board has for lines. */
	@Optional()
	@Line('The state', 30)
	state?: string;
}

export class ChecklistCard {
	@Id('card')
	card!: string;

	@Version()
	version!: number;

	/** The whole checklist, in order. */
	@Entries('checklist lines', KeptLine, 200, 0)
	lines!: KeptLine[];
}

export const checklistCard = boardCommand({
	name: 'ChecklistCard',
	summary: 'Changes the checklist of a card: its lines, their order, and which are done.',
	input: ChecklistCard,
	async run(context, input) {
		const card = await context.card(input.card, input.version);
		const before = new Map(card.checklist.map((line) => [line.id, line]));
		const used = new Set<string>();
		const states = input.lines.some(({ state }) => state) ? await lineStates(context) : [];
		const lines = input.lines.map(({ id, text, done, quantity, link, state }): ChecklistLine => {
			const own = id && !used.has(id) && (before.has(id) || isUUID(id)) ? id : randomUUID();
			used.add(own);
			// One that the board has no more stays where it is.
			if (state && !states.includes(state) && before.get(own)?.state !== state)
				throw new Problem(
					422,
					'line.state_unknown',
					states.length
						? `Lines of this board are ${states.join(', ')}; not “${state}”.`
						: 'This board has no states for lines. A lead can add some in Set-up.',
					'state',
				);
			return {
				id: own,
				text,
				done,
				...(quantity && { quantity }),
				...(link && { link }),
				...(state && { state }),
			};
		});
		await context.tx.query('update card set checklist = $2, version = version + 1 where id = $1', [
			card.id,
			JSON.stringify(lines),
		]);
		let said = false;
		const say = (kind: CardEventName, value: string) => {
			said = true;
			context.note(card.id, kind, value);
		};
		for (const line of lines) {
			const old = before.get(line.id);
			if (!old) say('line-added', spelled(line));
			else {
				if (old.text !== line.text || old.quantity !== line.quantity || old.link !== line.link)
					context.note(card.id, 'line-changed', spelled(line), { text: spelled(old) });
				if (old.state !== line.state)
					context.note(
						card.id,
						'line-state',
						line.text,
						{ state: old.state ?? null },
						{ state: line.state ?? null },
					);
				if (old.done !== line.done) say(line.done ? 'line-done' : 'line-undone', line.text);
				said ||= spelled(old) !== spelled(line) || old.link !== line.link || old.state !== line.state;
			}
			before.delete(line.id);
		}
		for (const line of before.values()) say('line-removed', line.text);
		if (!said) context.note(card.id, 'lines-ordered');
	},
});

/** A line with how much of it there is: `Bolts, 12`. */
const spelled = ({ text, quantity }: ChecklistLine) => (quantity ? `${text}, ${quantity}` : text);

/** The states that lines of the board's checklists can have. */
async function lineStates({ tx, board }: BoardContext): Promise<string[]> {
	const { rows } = await tx.query<{ states: string[] }>(
		'select line_states as states from board where id = $1',
		[board.id],
	);
	return rows[0]!.states;
}
