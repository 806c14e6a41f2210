import type { ServiceClass } from '../pages/board.ts';
import type { Field, Looking } from './field.ts';
import { names } from './field-values.ts';
import { CLASSES } from './lanes.ts';
import { uses } from './used.ts';

const CLASS_NAMES: Record<ServiceClass, string> = {
	expedite: 'Expedite',
	fixed: 'Fixed date',
	standard: 'Standard',
	background: 'Background',
};

/** What kind of work a card is, and what it belongs to. */
export function fieldsOfKind({ board }: Looking): (Field | false)[] {
	const running = board.sprints.find((sprint) => sprint.startedAt && !sprint.closedAt);
	const coming = board.sprints.filter((sprint) => !sprint.startedAt);
	return [
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
	];
}
