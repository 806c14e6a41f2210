import type { CardEventName } from '../../../../core/events/kinds.ts';
import { randomUUID } from 'node:crypto';
import { IsBoolean, isUUID } from 'class-validator';
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
		const lines = input.lines.map(({ id, text, done }) => {
			const own = id && !used.has(id) && (before.has(id) || isUUID(id)) ? id : randomUUID();
			used.add(own);
			return { id: own, text, done };
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
			if (!old) say('line-added', line.text);
			else {
				if (old.text !== line.text) context.note(card.id, 'line-changed', line.text, { text: old.text });
				if (old.done !== line.done) say(line.done ? 'line-done' : 'line-undone', line.text);
				said ||= old.text !== line.text;
			}
			before.delete(line.id);
		}
		for (const line of before.values()) say('line-removed', line.text);
		if (!said) context.note(card.id, 'lines-ordered');
	},
});
