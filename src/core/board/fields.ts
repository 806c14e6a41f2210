import { dayText, mondayOf, parseDay, weekday } from '../calendar/days.ts';
import { DAY_MS, zoneOf, type Day } from '../calendar/zone.ts';
import type { Expectation } from '../flow/expectation.ts';
import { shownValue, type FieldValue, type OwnField } from '../fields/own.ts';
import type { BoardHead, CardView, ServiceClass } from '../pages/board.ts';
import { amount, count, figure, list } from '../words.ts';
import { dueAfter, lengthOf, ORDINARY } from '../calendar/workdays.ts';
import { CLASSES, intoLane, laneOf } from './lanes.ts';
import { uses } from './used.ts';

/** A value by which cards are put together: its key, and what it is called. The empty key stands for none. */
export interface Value {
	key: string;
	name: string;
}

/** Plain words that cards can be told by, beside the values of a field: `late`, `not sized`. */
export interface Said {
	key: string;
	words: string;
	is(card: CardView): boolean;
}

/** What is to be done to a card so that it gets another value of a field. */
export type Change =
	| { do: 'move'; column: string | null }
	| { do: 'cards'; change: CardsChange }
	| { do: 'plan'; sprint: number | null }
	| { do: 'due'; due: string | null }
	| { do: 'start'; start: string | null; due?: string | null }
	| { do: 'title'; title: string }
	| { do: 'review'; reviewer?: string | null; due?: string | null }
	| { do: 'percent'; percent: number | null }
	| { do: 'length'; due: string }
	| { do: 'size'; size: number }
	| { do: 'left'; left: number }
	| { do: 'own'; field: string; value: FieldValue | null };

/** What can be changed of many cards in one step. */
export interface CardsChange {
	type?: string;
	class?: ServiceClass;
	lane?: string | null;
	label?: string[];
	unlabel?: string[];
	initiative?: string | null;
	ready?: boolean;
	owners?: string[];
}

/**
 * A field of a card, built in or the board's own, as everything that shows, filters, sorts, arranges, counts or exports
 * cards reads it.
 */
export interface Field {
	id: string;
	name: string;
	/** A card as people read it in this field; empty for nothing. */
	text(card: CardView): string;
	/** What orders cards by it; null comes last. */
	order(card: CardView): string | number | null;
	/** By which values cards can be put together. Left out: by none. */
	values?: {
		/** Those of a card: several for owners and labels; never empty. */
		of(card: CardView): string[];
		/** All that there are, in their order, whether cards have them or not. */
		known: Value[];
		/** What one is called that is not among them. */
		name(key: string): string;
		/** What is to be done so that a card has another one in the place of one. Left out: nothing can. */
		put?(card: CardView, to: string, from: string): Change | null;
		/** What dragging a card to another one does, as a sentence has it: `hands a card over`. */
		does?: string;
	};
	/** What else cards can be told by in it. */
	said?: Said[];
	/** It holds a day: what it says of a card is one such as `2026-12-04`. What is to be done so that it is another one, or none. */
	day?: (card: CardView, day: string | null) => Change | null;
	/** An amount that can be summed up. */
	sum?(card: CardView): number;
	/** What stands for it in a table that is saved, where that is not what people read: a figure without its unit. */
	cell?(card: CardView): number | null;
	/** What else the heads of tables call it. */
	also?: readonly string[];
}

/** What stands for a field of a card in a table that is saved. */
export const cellOf = (field: Field, card: CardView): string | number | null =>
	field.cell ? field.cell(card) : field.text(card);

/** What fields are made of: a board, and the moment and the person that look at it. */
export interface Looking {
	board: Pick<
		BoardHead,
		| 'key'
		| 'unit'
		| 'columns'
		| 'lanes'
		| 'people'
		| 'types'
		| 'labels'
		| 'initiatives'
		| 'sprints'
		| 'sprintDays'
		| 'sprintName'
		| 'fields'
		| 'off'
		| 'timeZone'
	>;
	today: Day;
	/** Who looks. */
	me: string | null;
	/** Whether the team works on a day; Monday to Friday where nothing says. */
	works?: (day: Day) => boolean;
	/** How often cards were carried over, by their numbers. */
	carried?: Readonly<Record<number, number>>;
	expectation?: Expectation | null;
}

const CLASS_NAMES: Record<ServiceClass, string> = {
	expedite: 'Expedite',
	fixed: 'Fixed date',
	standard: 'Standard',
	background: 'Background',
};

const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];
const shortDay = (day: Day) => {
	const date = new Date(day * DAY_MS);
	return `${date.getUTCDate()} ${MONTHS[date.getUTCMonth()]}`;
};

/** Whatever holds a day: put together by weeks, dragged to a week on the same weekday, or on its Friday. */
function days(
	today: Day,
	of: (card: CardView) => string | null,
	put?: (card: CardView, day: string | null) => Change | null,
): Pick<Field, 'text' | 'order' | 'values' | 'day'> {
	const day = (card: CardView) => {
		const text = of(card);
		return text ? parseDay(text) : null;
	};
	const week = (key: string) => {
		const monday = parseDay(key)!;
		const by = (monday - mondayOf(today)) / 7;
		return by === 0 ? 'this week' : by === 1 ? 'next week' : `week of ${shortDay(monday)}`;
	};
	return {
		day: put ?? (() => null),
		text: (card) => of(card) ?? '',
		order: day,
		values: {
			of: (card) => {
				const on = day(card);
				return [on === null ? '' : dayText(mondayOf(on))];
			},
			known: [
				{ key: dayText(mondayOf(today)), name: 'this week' },
				{ key: dayText(mondayOf(today) + 7), name: 'next week' },
				{ key: '', name: 'no date' },
			],
			name: (key) => (key ? week(key) : 'no date'),
			put:
				put &&
				((card, to) => {
					if (!to) return put(card, null);
					const on = day(card);
					return put(card, dayText(parseDay(to)! + (on === null ? 4 : weekday(on))));
				}),
			does: 'gives a card another date',
		},
	};
}

/** Values that are names of the board's, with one for none. */
const names = (all: readonly string[], none: string) => ({
	known: [...all.map((name) => ({ key: name, name })), { key: '', name: none }],
	name: (key: string) => key || none,
});

const YES_NO = (yes: string, no: string) => ({
	known: [
		{ key: 'yes', name: yes },
		{ key: '', name: no },
	],
	name: (key: string) => (key ? yes : no),
});

/** The fields of a board's cards, built in and its own, as they stand to whoever looks; what it does not use is left out. */
export function fieldsOf(looking: Looking): Field[] {
	const { board, today, me, carried = {}, expectation, works = ORDINARY } = looking;
	const zone = zoneOf(board.timeZone);
	const dayOf = (instant: string | null) => (instant === null ? null : zone.day(Date.parse(instant)));
	const people = new Map(board.people.map((person) => [person.id, person]));
	const columns = new Map(board.columns.map((column, i) => [column.id, { ...column, i }]));
	const running = board.sprints.find((sprint) => sprint.startedAt && !sprint.closedAt);
	const coming = board.sprints.filter((sprint) => !sprint.startedAt);
	const age = (card: CardView) =>
		card.clock === 'running' && card.started ? Math.max(1, today - dayOf(card.started)! + 1) : null;
	const open = (card: CardView) => card.clock !== 'done';
	const leftOf = (card: CardView) =>
		card.parts?.left ?? (card.size === null && !card.left ? null : card.left);

	const fields: (Field | false)[] = [
		{ id: 'number', name: 'Number', text: ({ number }) => String(number), order: ({ number }) => number },
		{
			id: 'title',
			name: 'Title',
			also: ['summary', 'name', 'card', 'task', 'what'],
			text: ({ title }) => title,
			order: ({ title }) => title.toLowerCase(),
		},
		{
			id: 'column',
			name: 'Column',
			text: ({ column }) => (column === null ? 'backlog' : (columns.get(column)?.name ?? '')),
			order: ({ column }) => (column === null ? -1 : (columns.get(column)?.i ?? null)),
			values: {
				of: ({ column }) => [column ?? ''],
				known: [
					...board.columns.map(({ id, name }) => ({ key: id, name })),
					{ key: '', name: 'the backlog' },
				],
				name: (key) => (key ? (columns.get(key)?.name ?? 'elsewhere') : 'the backlog'),
				put: (_, to) => ({ do: 'move', column: to || null }),
				does: 'moves a card',
			},
		},
		board.lanes.length > 0 && {
			id: 'lane',
			name: 'Lane',
			text: (card) => laneOf(board.lanes, card)?.name ?? '',
			order: (card) => {
				const lane = laneOf(board.lanes, card);
				return lane ? board.lanes.indexOf(lane) : null;
			},
			values: {
				of: (card) => [laneOf(board.lanes, card)?.id ?? ''],
				known: [
					...board.lanes.map(({ id, name }) => ({ key: id, name })),
					...(CLASSES.every((one) => board.lanes.some((lane) => lane.class === one))
						? []
						: [{ key: '', name: 'In no lane' }]),
				],
				name: (key) => board.lanes.find(({ id }) => id === key)?.name ?? 'In no lane',
				put: (card, to) => {
					const lane = board.lanes.find(({ id }) => id === to) ?? null;
					const into = intoLane(board.lanes, card, lane);
					return into.lane === card.lane && into.class === card.class
						? null
						: { do: 'cards', change: { lane: lane?.id ?? null } };
				},
				does: 'puts a card into another lane',
			},
		},
		{
			id: 'owners',
			name: 'Owners',
			also: ['owner', 'assignee', 'assignees', 'who', 'person'],
			text: ({ owners }) => owners.flatMap((id) => people.get(id)?.name ?? []).join(', '),
			order: ({ owners }) => people.get(owners[0] ?? '')?.name ?? null,
			values: {
				of: ({ owners }) => (owners.length ? owners : ['']),
				known: [
					...board.people
						.filter((person) => person.role !== 'viewer' && !person.gone)
						.map(({ id, name }) => ({ key: id, name })),
					{ key: '', name: 'nobody' },
				],
				name: (key) => (key ? (people.get(key)?.name ?? 'somebody') : 'nobody'),
				put: ({ owners }, to, from) => {
					const rest = owners.filter((owner) => owner !== from && owner !== to);
					return { do: 'cards', change: { owners: to ? [...rest, to] : [] } };
				},
				does: 'hands a card over',
			},
			said: me
				? [
						{ key: '~mine', words: 'mine', is: ({ owners }) => owners.includes(me) },
						{
							key: '~mine-or-nobodys',
							words: 'mine or nobody’s',
							is: ({ owners }) => !owners.length || owners.includes(me),
						},
						{ key: '~several', words: 'of several', is: ({ owners }) => owners.length > 1 },
					]
				: [],
		},
		{
			id: 'reviewer',
			name: 'Reviewer',
			text: ({ review }) => people.get(review?.by ?? '')?.name ?? '',
			order: ({ review }) => people.get(review?.by ?? '')?.name ?? null,
			values: {
				of: ({ review }) => [review?.by ?? ''],
				known: [
					...board.people.filter((person) => !person.gone).map(({ id, name }) => ({ key: id, name })),
					{ key: '', name: 'no reviewer' },
				],
				name: (key) => (key ? (people.get(key)?.name ?? 'somebody') : 'no reviewer'),
				put: (_, to) => ({ do: 'review', reviewer: to || null }),
				does: 'gives a card another reviewer',
			},
			said: me
				? [{ key: '~mine', words: 'for me to review', is: (card) => card.review?.by === me && open(card) }]
				: [],
		},
		uses(board, 'dates') && {
			id: 'review',
			name: 'Review by',
			...days(
				today,
				({ review }) => review?.due ?? null,
				// A day by which nobody is to look says nothing.
				(card, day) => (card.review ? { do: 'review', due: day } : null),
			),
		},
		uses(board, 'classes') && {
			id: 'class',
			name: 'Class',
			also: ['class of service'],
			text: (card) => CLASS_NAMES[card.class],
			order: (card) => CLASSES.indexOf(card.class),
			values: {
				of: (card) => [card.class],
				known: CLASSES.map((key) => ({ key, name: CLASS_NAMES[key] })),
				name: (key) => CLASS_NAMES[key as ServiceClass] ?? key,
				put: (_, to) => ({ do: 'cards', change: { class: to as ServiceClass } }),
				does: 'gives a card another class',
			},
		},
		uses(board, 'types') && {
			id: 'type',
			name: 'Type',
			also: ['kind'],
			text: ({ type }) => type,
			order: ({ type }) => type || null,
			values: {
				of: ({ type }) => [type],
				...names(
					board.types.map(({ name }) => name),
					'no type',
				),
				put: (_, to) => ({ do: 'cards', change: { type: to } }),
				does: 'gives a card another type',
			},
		},
		{
			id: 'labels',
			name: 'Labels',
			also: ['label', 'tag', 'tags'],
			text: ({ labels }) => labels.join(', '),
			order: ({ labels }) => labels[0] ?? null,
			values: {
				of: ({ labels }) => (labels.length ? labels : ['']),
				...names(board.labels, 'no label'),
				put: ({ labels }, to, from) => ({
					do: 'cards',
					change: to ? { label: [to], ...(from ? { unlabel: [from] } : {}) } : { unlabel: [...labels] },
				}),
				does: 'changes a card’s label',
			},
		},
		{
			id: 'initiative',
			name: 'Initiative',
			also: ['project', 'client', 'epic'],
			text: ({ initiative }) => initiative ?? '',
			order: ({ initiative }) => initiative,
			values: {
				of: ({ initiative }) => [initiative ?? ''],
				...names(board.initiatives, 'no initiative'),
				put: (_, to) => ({ do: 'cards', change: { initiative: to || null } }),
				does: 'gives a card another initiative',
			},
		},
		board.sprintDays !== null && {
			id: 'sprint',
			name: board.sprintName,
			text: ({ sprint }) => (sprint === null ? '' : String(sprint)),
			order: ({ sprint }) => sprint,
			values: {
				of: ({ sprint }) => [sprint === null ? '' : String(sprint)],
				known: [
					...(running
						? [{ key: String(running.number), name: `${board.sprintName} ${running.number}` }]
						: []),
					...coming.map(({ number }) => ({ key: String(number), name: `${board.sprintName} ${number}` })),
					{ key: '', name: 'in none' },
				],
				name: (key) => (key ? `${board.sprintName} ${key}` : 'in none'),
				put: (card, to) => (card.parts ? null : { do: 'plan', sprint: to ? Number(to) : null }),
				does: 'plans a card for another one',
			},
			said: [
				{
					key: '~unplanned',
					words: 'unplanned',
					is: ({ unplanned, sprint }) => unplanned && sprint !== null,
				},
			],
		},
		uses(board, 'dates') && {
			id: 'start',
			name: 'Start',
			also: ['starts', 'start date'],
			...days(
				today,
				({ start }) => start,
				(card, day) => startOn(card, day, works),
			),
		},
		uses(board, 'dates') && {
			id: 'due',
			name: 'Due',
			also: ['due date', 'deadline', 'by'],
			...days(
				today,
				({ due }) => due,
				(_, day) => ({ do: 'due', due: day }),
			),
			said: [
				{
					key: '~late',
					words: 'late',
					is: (card) =>
						card.due !== null &&
						(dayOf(card.finished) ?? (open(card) ? today : -Infinity)) > parseDay(card.due)!,
				},
				{ key: '~today', words: 'due today', is: ({ due }) => due === dayText(today) },
				{
					key: '~soon',
					words: 'due in the next seven days',
					is: (card) =>
						card.due !== null &&
						open(card) &&
						parseDay(card.due)! >= today &&
						parseDay(card.due)! < today + 7,
				},
			],
		},
		uses(board, 'dates') && {
			id: 'length',
			name: 'Length',
			text: (card) => {
				const days = lengthIn(card, works);
				return days === null ? '' : count(days, 'working day');
			},
			order: (card) => lengthIn(card, works),
		},
		board.unit !== 'none' && {
			id: 'size',
			name: 'Size',
			also: ['estimate', 'hours', 'points', 'effort'],
			text: ({ size, parts }) =>
				parts ? amount(parts.size, board.unit) : size === null ? '' : amount(size, board.unit),
			order: ({ size, parts }) => parts?.size ?? size,
			cell: ({ size, parts }) => parts?.size ?? size,
			sum: ({ size, parts }) => (parts ? 0 : (size ?? 0)),
			said: [{ key: '~none', words: 'not sized', is: ({ size, parts }) => size === null && !parts }],
		},
		board.unit !== 'none' && {
			id: 'left',
			name: 'Left',
			text: (card) =>
				card.parts
					? amount(card.parts.left, board.unit)
					: card.size === null && !card.left
						? ''
						: amount(card.left, board.unit),
			order: leftOf,
			cell: leftOf,
			sum: ({ left, parts }) => (parts ? 0 : left),
		},
		{
			id: 'done',
			name: 'Done',
			text: (card) => percent(card),
			order: (card) => share(card),
			said: [
				{ key: '~begun', words: 'begun', is: (card) => open(card) && (share(card) ?? 0) > 0 },
				{ key: '~half', words: 'at least half done', is: (card) => (share(card) ?? 0) >= 0.5 },
			],
		},
		{
			id: 'blocked',
			name: 'Blocked',
			text: ({ blocked }) => blocked?.reason ?? '',
			order: ({ blocked }) => (blocked ? dayOf(blocked.since) : null),
			values: {
				of: ({ blocked }) => [blocked ? 'yes' : ''],
				...YES_NO('blocked', 'not blocked'),
			},
		},
		{
			id: 'waits',
			name: 'Waits for',
			text: ({ waits }) => waits.join(', '),
			order: ({ waits }) => waits.length || null,
			values: {
				of: ({ waits }) => [waits.length ? 'yes' : ''],
				...YES_NO('waits for other cards', 'waits for no card'),
			},
		},
		{
			id: 'files',
			name: 'Files',
			text: ({ files }) => (files ? String(files) : ''),
			order: ({ files }) => files || null,
			values: {
				of: ({ files }) => [files ? 'yes' : ''],
				...YES_NO('with files', 'without files'),
			},
		},
		{
			id: 'private',
			name: 'Private',
			text: (card) => (card.private ? 'yes' : ''),
			order: (card) => (card.private ? 0 : 1),
			values: {
				of: (card) => [card.private ? 'yes' : ''],
				...YES_NO('private', 'not private'),
			},
		},
		{
			id: 'ready',
			name: 'Ready',
			text: ({ ready }) => (ready ? 'yes' : ''),
			order: ({ ready }) => (ready ? 0 : 1),
			values: {
				of: ({ ready }) => [ready ? 'yes' : ''],
				...YES_NO('ready', 'not ready'),
				put: (_, to) => ({ do: 'cards', change: { ready: to === 'yes' } }),
				does: 'marks a card as ready or not',
			},
		},
		{
			id: 'checks',
			name: 'Checklist',
			text: ({ checks }) => (checks ? `${checks.done}/${checks.lines}` : ''),
			order: ({ checks }) => (checks ? checks.done / checks.lines : null),
			said: [
				{
					key: '~open',
					words: 'with lines to tick',
					is: ({ checks }) => checks !== null && checks.done < checks.lines,
				},
				{
					key: '~all',
					words: 'all ticked',
					is: ({ checks }) => checks !== null && checks.done === checks.lines,
				},
			],
		},
		{
			id: 'age',
			name: 'Days in hand',
			text: (card) => {
				const days = age(card);
				return days === null ? '' : count(days, 'day');
			},
			order: (card) => age(card),
			said: expectation
				? [
						{
							key: '~old',
							words: `older than ${expectation.percentile}% of past cards`,
							is: (card) => (age(card) ?? 0) > expectation.days,
						},
					]
				: [],
		},
		{
			id: 'carried',
			name: 'Carried',
			text: ({ number }) => (carried[number] ? `×${carried[number]}` : ''),
			order: ({ number }) => carried[number] ?? null,
			said: [
				{ key: '~yes', words: 'carried over', is: ({ number }) => (carried[number] ?? 0) > 0 },
				{ key: '~twice', words: 'carried twice or more', is: ({ number }) => (carried[number] ?? 0) > 1 },
			],
		},
		{
			id: 'finished',
			name: 'Finished',
			...days(today, ({ finished }) => (finished === null ? null : dayText(dayOf(finished)!))),
		},
		...board.fields.map((field) => ownField(field, today)),
	];
	return fields.filter((field) => field !== false);
}

/**
 * A card that starts on another day. One that has a start and a due day keeps its length: the due day moves along. Source:
 * measures, dates and dependencies.
 */
function startOn({ start, due }: CardView, day: string | null, works: (day: Day) => boolean): Change {
	if (!start || !due || !day) return { do: 'start', start: day };
	const length = lengthOf(works, parseDay(start)!, parseDay(due)!);
	const end = dueAfter(works, parseDay(day)!, length);
	return { do: 'start', start: day, due: end === null ? due : dayText(end) };
}

/** How many working days a card takes from its start to its due day, both counted; one where it has one of them; null without. */
function lengthIn({ start, due }: CardView, works: (day: Day) => boolean): number | null {
	if (!start && !due) return null;
	return start && due ? lengthOf(works, parseDay(start)!, parseDay(due)!) : 1;
}

/**
 * How much of a card is done, from 0 to 1: what somebody said of it, else by what is left of its size, else by its
 * checklist; null where nothing says.
 */
export function share({ clock, parts, size, left, checks, percent }: CardView): number | null {
	if (clock === 'done') return 1;
	if (typeof percent === 'number') return percent / 100;
	if (parts) return parts.size ? 1 - parts.left / Math.max(parts.size, parts.left) : parts.done / parts.cards;
	if (size) return 1 - left / Math.max(size, left);
	return checks ? checks.done / checks.lines : null;
}
const percent = (card: CardView) => {
	const done = share(card);
	return done === null ? '' : `${figure(done * 100, 0)}%`;
};

/** A field that a board has added. */
function ownField(field: OwnField, today: Day): Field {
	const held = (card: CardView) => card.fields[field.id];
	const put = (value: FieldValue | null): Change => ({ do: 'own', field: field.id, value });
	const own: Pick<Field, 'id' | 'name' | 'text'> = {
		id: field.id,
		name: field.name,
		text: (card) => shownValue(field, held(card)),
	};
	switch (field.kind) {
		case 'date':
			return {
				...own,
				...days(
					today,
					(card) => (held(card) as string | undefined) ?? null,
					(_, day) => put(day),
				),
				text: own.text,
			};
		case 'choice':
			return {
				...own,
				order: (card) => {
					const at = field.choices.findIndex(({ id }) => id === held(card));
					return at < 0 ? null : at;
				},
				values: {
					of: (card) => [String(held(card) ?? '')],
					known: [
						...field.choices.map(({ id, name }) => ({ key: id, name })),
						{ key: '', name: `no ${field.name}` },
					],
					name: (key) => field.choices.find(({ id }) => id === key)?.name ?? `no ${field.name}`,
					put: (_, to) => put(to || null),
					does: `changes a card’s ${field.name}`,
				},
			};
		case 'yes-no':
			return {
				...own,
				order: (card) => (held(card) === true ? 0 : held(card) === false ? 1 : null),
				values: {
					of: (card) => [held(card) === undefined ? '' : held(card) ? 'yes' : 'no'],
					known: [
						{ key: 'yes', name: `${field.name}: yes` },
						{ key: 'no', name: `${field.name}: no` },
						{ key: '', name: 'not said' },
					],
					name: (key) => (key ? `${field.name}: ${key}` : 'not said'),
					put: (_, to) => put(to ? to === 'yes' : null),
					does: `changes a card’s ${field.name}`,
				},
			};
		case 'number':
			return {
				...own,
				order: (card) => (held(card) as number | undefined) ?? null,
				cell: (card) => (held(card) as number | undefined) ?? null,
				sum: (card) => (held(card) as number | undefined) ?? 0,
				said: [{ key: '~none', words: `without ${field.name}`, is: (card) => held(card) === undefined }],
			};
		case 'text':
			return {
				...own,
				order: (card) => (held(card) as string | undefined)?.toLowerCase() ?? null,
				said: [{ key: '~none', words: `without ${field.name}`, is: (card) => held(card) === undefined }],
			};
	}
}

/** One field by its id. */
export const fieldNamed = (fields: readonly Field[], id: string): Field | undefined =>
	fields.find((field) => field.id === id);

/** What a board's sentence says of how its cards are arranged: `by owners; dragging hands a card over`. */
export const arrangedWords = (by: Field, lanes: Field | null): string =>
	[
		`Arranged by ${list([by.name.toLowerCase(), ...(lanes ? [lanes.id === 'lane' ? 'in its lanes' : `in lanes of ${lanes.name.toLowerCase()}`] : [])])}`,
		...(by.values?.put && by.values.does
			? [`dragging ${by.values.does}`]
			: ['cards stay where they are put']),
	].join('; ');
