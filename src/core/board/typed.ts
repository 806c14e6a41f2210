import { dayText, parseDay } from '../calendar/days.ts';
import { dueAfter, ORDINARY } from '../calendar/workdays.ts';
import { typedDay } from '../calendar/typed-day.ts';
import { readValue } from '../fields/typed.ts';
import type { CardView } from '../pages/board.ts';
import { list } from '../words.ts';
import type { Change, Field, Looking } from './field.ts';

/** What is to be done so that a field holds what was typed; null for nothing, as it holds that already; or why it cannot. */
export type Typed = { ok: true; change: Change | null } | { ok: false; reason: string };

const right = (change: Change | null): Typed => ({ ok: true, change });
const wrong = (reason: string): Typed => ({ ok: false, reason });
const short = (text: string) => (text.length > 40 ? `${text.slice(0, 40)}…` : text);
const MOST_SIZE = 9999;

/** Fields that nobody types: they follow from what happens to a card. */
const FOLLOWS = new Set([
	'number',
	'blocked',
	'waits',
	'files',
	'private',
	'checks',
	'age',
	'carried',
	'finished',
]);

/** Whether a field of a card can be typed into. */
export const typeable = (field: Field): boolean => !FOLLOWS.has(field.id);

/** Reads what somebody typed into a field of a card, or pasted there: values by their names, days and sizes as people write them. */
export function readTyped(field: Field, card: CardView, text: string, looking: Looking): Typed {
	const { board, today } = looking;
	const typed = text.trim();
	if (!typeable(field)) return wrong(`${field.name} follows from what happens to a card`);
	if (typed === field.text(card)) return right(null);
	const own = board.fields.find(({ id }) => id === field.id);
	if (own) {
		const read = readValue(own, typed, today);
		return read.ok ? right({ do: 'own', field: own.id, value: read.value }) : wrong(read.reason);
	}
	switch (field.id) {
		case 'title':
			if (!typed) return wrong('the title is empty');
			if (typed.length > 300) return wrong(`the title has ${typed.length} characters; at most 300 are kept`);
			return right({ do: 'title', title: typed.replace(/\s+/g, ' ') });
		case 'size':
		case 'left': {
			if (card.parts) return wrong('what is split into sub-cards has the size of its parts');
			const figure = /^(\d{1,4}(?:[.,]\d{1,2})?)\s*(h|hours?|pt|pts|points?)?$/i.exec(typed);
			const value = figure ? Number(figure[1]!.replace(',', '.')) : NaN;
			if (!(value <= MOST_SIZE)) return wrong(`“${short(typed)}” is not a figure from 0 to 9,999`);
			return right(field.id === 'size' ? { do: 'size', size: value } : { do: 'left', left: value });
		}
		case 'start':
		case 'review':
		case 'due': {
			const day = typed ? typedDay(typed, today) : null;
			if (typed && day === null)
				return wrong(`“${short(typed)}” is not a day such as 2026-12-04 or 4.12.2026`);
			const change = field.day!(card, day === null ? null : dayText(day));
			return change ? right(change) : wrong('there is no reviewer yet');
		}
		case 'length':
			return typedLength(card, typed, looking);
		case 'done': {
			if (!typed) return right({ do: 'percent', percent: null });
			const figure = /^(\d{1,3})\s*%?$/.exec(typed);
			if (card.clock === 'done') return wrong('it is finished');
			if (card.parts) return wrong('how much is done of what is split follows from its parts');
			return figure && Number(figure[1]) <= 100
				? right({ do: 'percent', percent: Number(figure[1]) })
				: wrong(`“${short(typed)}” is not a figure from 0 to 100 %`);
		}
		case 'owners':
		case 'labels':
			return several(field, card, typed);
	}
	const { values } = field;
	if (!values?.put) return wrong(`${field.name} follows from what happens to a card`);
	const key = keyOf(field, typed);
	// An initiative that there is not yet is made, as everywhere.
	if (key === undefined && field.id === 'initiative')
		return typed.length > 80
			? wrong('the initiative has more than 80 characters')
			: right({ do: 'cards', change: { initiative: typed } });
	if (key === undefined)
		return wrong(`“${short(typed)}” is none of: ${values.known.map(({ name }) => name).join(', ')}`);
	return right(values.put(card, key, values.of(card)[0]!));
}

/** So many working days from its start: it is due on the last of them. */
function typedLength({ start, due }: CardView, typed: string, { works }: Looking): Typed {
	const figure = /^(\d{1,3})\s*(d|days?|working days?)?$/.exec(typed);
	const days = figure ? Number(figure[1]) : 0;
	const from = parseDay(start ?? '');
	if (!days) return wrong(`“${short(typed)}” is not a number of working days from 1 to 999`);
	// With one date it takes that day.
	if (from === null) return days === 1 && due ? right(null) : wrong('it has no start yet');
	const end = dueAfter(works ?? ORDINARY, from, days);
	if (end === null) return wrong('the team has no working days');
	return right({ do: 'length', due: dayText(end) });
}

/** The value that is called so; a bare sprint number and nothing at all are values too. */
function keyOf({ id, values }: Field, typed: string): string | undefined {
	const small = typed.toLowerCase();
	const named = values!.known.find(
		({ name, key }) =>
			name.toLowerCase() === small ||
			(id === 'sprint' && key === typed) ||
			((id === 'class' || id === 'ready') && key === small),
	);
	if (named) return named.key;
	return typed === '' && values!.known.some(({ key }) => key === '') ? '' : undefined;
}

/** Names separated by commas: all that the card has from now on. */
function several(field: Field, card: CardView, typed: string): Typed {
	const names = typed
		.split(/[;,]/)
		.map((name) => name.trim())
		.filter(Boolean);
	if (field.id === 'labels') {
		if (names.some((name) => name.length > 40)) return wrong('a label has more than 40 characters');
		return right({
			do: 'cards',
			change: {
				label: names.filter((name) => !card.labels.includes(name)),
				unlabel: card.labels.filter((label) => !names.includes(label)),
			},
		});
	}
	const owners: string[] = [];
	for (const name of names) {
		const called = field.values!.known.filter(
			(one) => one.key && [one.name, one.also].some((known) => known?.toLowerCase() === name.toLowerCase()),
		);
		if (!called.length) return wrong(`“${short(name)}” is nobody who can own cards here`);
		if (called.length > 1) {
			const apart = [...new Set(called.map((one) => one.name))];
			const which = apart.length > 1 ? `: ${list(apart)}` : '';
			return wrong(`there are ${called.length} people called “${short(name)}”${which}`);
		}
		owners.push(called[0]!.key);
	}
	return right({ do: 'cards', change: { owners } });
}
