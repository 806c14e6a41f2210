import { MINE } from '../../core/pages/mine.ts';
import { MOST_DATED, SHIFTED } from '../../core/pages/dates.ts';
import { FIGURES } from '../../core/pages/look-back.ts';
import type { Read } from '../api.ts';

/** How a read is asked for, beside what stands in its path. */
export interface ReadDescription {
	/** A name for programs that are made from the description. */
	id: string;
	summary: string;
	/** What the address may say after its question mark, and what that means. */
	query?: Record<string, string>;
	/** A file is sent to be looked at; nothing is kept of it. */
	body?: object;
}

/** What stands in paths. */
export const PLACES: Record<string, string> = {
	board: 'The last part of the board’s address',
	sprint: 'The number of the sprint',
	key: 'Such as TIDE-214',
	file: 'The id of the file',
	team: 'The id of the team',
};

/** Every read of the API. What each answers stands in `lib/api.ts`. */
export const READS: Record<Read, ReadDescription> = {
	'/api/boards': { id: 'boards', summary: 'The boards you may see' },
	'/api/boards/{board}': { id: 'board', summary: 'A board with its cards' },
	'/api/boards/{board}/room': {
		id: 'room',
		summary: 'Who has how much room in a sprint of a board',
		query: { sprint: 'The number of the sprint; the running one, else the next, where it is left out' },
	},
	'/api/boards/{board}/flow': {
		id: 'flow',
		summary: 'The flow figures of a board',
		query: { from: 'First day, 2026-11-23', to: 'Last day', days: 'calendar or working' },
	},
	'/api/boards/{board}/look-back': {
		id: 'lookBack',
		summary: 'Velocity, reliability and carry-over of the closed sprints of a board',
	},
	'/api/boards/{board}/look-back/cards': {
		id: 'lookBackCards',
		summary: 'The cards behind one figure of looking back',
		query: {
			of: `One of: ${FIGURES.join(', ')}`,
			which: 'The number of the sprint, the code of the reason, or how many sprints',
		},
	},
	'/api/boards/{board}/look-back/{sprint}': {
		id: 'sprintReport',
		summary: 'The report of a sprint: ledger, stints, day by day, changes of scope',
	},
	'/api/boards/{board}/table': {
		id: 'lookAtTable',
		summary: 'Looks at a table of cards (CSV): what would be made of it, and which lines cannot be read',
		body: {
			type: 'object',
			required: ['file'],
			properties: {
				file: { type: 'string', description: 'The file itself' },
				mapping: {
					type: ['object', 'null'],
					description: 'For each field the column that holds it, counted from 0',
					additionalProperties: { type: 'integer', minimum: 0 },
				},
			},
		},
	},
	'/api/boards/{board}/shift': {
		id: 'shift',
		summary: 'What shifting the dates of many cards would do; nothing is changed',
		query: {
			of: `One of: ${SHIFTED.join(', ')}`,
			which: 'The number of the sprint, or the name of the initiative',
			from: 'Cards that begin on this day or after it, 2026-12-04',
			days: 'By so many working days; below 0: back',
		},
	},
	'/api/cards/{key}': { id: 'card', summary: 'A card with its history' },
	'/api/cards/{key}/dates': {
		id: 'dates',
		summary: 'What would follow from giving a card other dates; nothing is changed',
		query: {
			start: 'The day it would start, 2026-12-04; empty for none, left out to keep it',
			due: 'The day it would be due; likewise',
		},
	},
	'/api/teams/{team}/panorama': {
		id: 'panorama',
		summary:
			'Several boards of a team as one picture: cards with dates, what blocks what, initiatives, milestones, sprints',
		query: {
			as: 'kinds: boards by kind of column too',
			q: 'Only cards with these words',
			where:
				'Only cards of which this holds: a field, a colon, and values with | between them; ! before it: of which it does not',
		},
	},
	'/api/teams/{team}/dates': {
		id: 'teamDates',
		summary: 'What would follow from giving some cards of a team other dates; nothing is changed',
		body: {
			type: 'object',
			required: ['cards'],
			properties: {
				cards: {
					type: 'array',
					maxItems: MOST_DATED,
					description: 'Each with the dates it would have, 2026-12-04; null for none',
					items: {
						type: 'object',
						required: ['card', 'start', 'due'],
						properties: {
							card: { type: 'string', format: 'uuid' },
							start: { type: ['string', 'null'], format: 'date' },
							due: { type: ['string', 'null'], format: 'date' },
						},
					},
				},
			},
		},
	},
	'/api/teams/{team}/conditions': {
		id: 'teamConditions',
		summary: 'The fields, and what they can be, by which cards of a team’s boards can be narrowed',
	},
	'/api/teams/{team}/loose': {
		id: 'looseCards',
		summary:
			'The open cards of a team’s boards without a date, on which nothing hangs and that hang on nothing',
	},
	'/api/teams/{team}/days': {
		id: 'days',
		summary: 'Who is where: the people of a team and thirty days',
		query: { day: 'The first of them, 2026-11-23; the Monday of this week where it is left out' },
	},
	'/api/find': {
		id: 'find',
		summary: 'Cards whose key or title holds a text; boards, people and sprints too, unless a board is named',
		query: { q: 'The text', board: 'The last part of a board’s address: only its cards' },
	},
	'/api/mine': {
		id: 'mine',
		summary: 'Your cards over all boards',
		query: { of: `One of: ${MINE.join(', ')}; mine where it is left out` },
	},
	'/api/notices': {
		id: 'notices',
		summary: 'What you are told, the latest first',
		query: {
			q: 'Words of a key, a title or a board’s name',
			of: 'all that are not put away, asks for open questions, or away',
			before: 'What the answer before this one says as next',
		},
	},
};
