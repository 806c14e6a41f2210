import { BLANK } from '../board/blank.ts';
import type { Looking } from '../board/field.ts';
import type { CardView, ColumnView, PersonView } from '../pages/board.ts';

const column = (id: string, name: string, kind: ColumnView['kind'], position: number): ColumnView => ({
	id,
	name,
	kind,
	limit: null,
	mode: 'advise',
	policy: '',
	commitment: kind === 'work',
	hidden: false,
	was: [],
	position,
	version: 1,
});
const person = (id: string, name: string, role: PersonView['role'] = 'member'): PersonView => ({
	id,
	name,
	initials: name.slice(0, 2),
	title: '',
	role,
	gone: false,
	skills: [],
});

/** A board with all that cards can be arranged by. */
export const BOARD: Looking['board'] = {
	key: 'TRY',
	unit: 'hours',
	columns: [
		column('ready', 'Ready', 'queue', 0),
		column('making', 'Making', 'work', 1),
		column('done', 'Done', 'done', 2),
	],
	lanes: [
		{ id: 'urgent', name: 'Urgent', class: 'expedite', limit: 1, mode: 'hold' },
		{ id: 'north', name: 'North', class: null, limit: null, mode: 'advise' },
	],
	people: [person('ines', 'Ines'), person('bram', 'Bram'), person('della', 'Della', 'viewer')],
	types: [
		{ name: 'Repair', checklist: [], size: null, class: null },
		{ name: 'Work', checklist: [], size: null, class: null },
	],
	labels: ['mast', 'quay'],
	initiatives: ['Winter', 'Spring'],
	sprints: [3, 4].map((number) => ({
		number,
		goal: '',
		starts: number === 3 ? '2026-11-16' : '2026-11-30',
		ends: number === 3 ? '2026-11-27' : '2026-12-11',
		startedAt: number === 3 ? '2026-11-16T09:00:00Z' : null,
		closedAt: null,
		focus: null,
		keepBack: null,
		raw: null,
		dayHours: null,
		version: 1,
	})),
	sprintDays: 14,
	sprintName: 'Sprint',
	fields: [
		{
			id: 'harbour',
			name: 'Harbour',
			kind: 'choice',
			choices: [
				{ id: 'n', name: 'North quay' },
				{ id: 's', name: 'South quay' },
			],
		},
		{ id: 'seen', name: 'Seen', kind: 'date', choices: [] },
		{ id: 'wet', name: 'Wet', kind: 'yes-no', choices: [] },
		{ id: 'depth', name: 'Depth', kind: 'number', choices: [] },
		{ id: 'who', name: 'Asked by', kind: 'text', choices: [] },
	],
	off: [],
	timeZone: 'Europe/Lisbon',
};

let made = 0;
/** A card with what is said of it, and nothing else. */
export function cardWith(more: Partial<CardView> = {}): CardView {
	const number = more.number ?? ++made;
	return {
		...BLANK,
		id: `id-${number}`,
		number,
		title: `Card ${number}`,
		column: 'ready',
		rank: `a${String(number).padStart(5, '0')}`,
		review: null,
		percent: null,
		picture: null,
		version: 1,
		...more,
	};
}
