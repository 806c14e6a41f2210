import { dayText } from '../calendar/days.ts';
import { typedDay } from '../calendar/typed-day.ts';
import type { Day } from '../calendar/zone.ts';
import { checkValue, right, short, wrong, type Checked, type OwnField } from './own.ts';

/**
 * A value as somebody typed it, or as it stands in a table.
 * @param today the day from which days without a year are told
 */
export function readValue(field: OwnField, text: string, today: Day): Checked {
	const typed = text.trim();
	if (!typed) return right(null);
	switch (field.kind) {
		case 'text':
			return checkValue(field, typed);
		case 'number':
			return /^[+-]?\d+([.,]\d+)?$/.test(typed)
				? checkValue(field, Number(typed.replace(',', '.')))
				: wrong(`the ${field.name} “${short(typed)}” is not a number`);
		case 'date': {
			const day = typedDay(typed, today);
			return day === null
				? wrong(`the ${field.name} “${short(typed)}” is not a day such as 2026-12-04 or 4.12.2026`)
				: right(dayText(day));
		}
		case 'choice': {
			const found = field.choices.find(({ name }) => name.toLowerCase() === typed.toLowerCase());
			const names = field.choices.map(({ name }) => name).join(', ');
			return found ? right(found.id) : wrong(`the ${field.name} “${short(typed)}” is none of: ${names}`);
		}
		case 'yes-no':
			if (/^(yes|y|true|1|x|✓)$/i.test(typed)) return right(true);
			if (/^(no|n|false|0|-)$/i.test(typed)) return right(false);
			return wrong(`the ${field.name} “${short(typed)}” is neither yes nor no`);
	}
}
