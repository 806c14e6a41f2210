import type { ColumnKind } from '../src/core/flow/layout.ts';

export interface DemoColumn {
	name: string;
	kind: ColumnKind;
	limit?: number;
	mode?: 'advise' | 'hold';
	policy?: string;
	/** Share of a card's work done in this column. */
	work?: number;
}

export interface DemoBoard {
	name: string;
	slug: string;
	key: string;
	unit: 'hours' | 'points';
	purpose: string;
	sprintDays: number | null;
	visibleTo: 'team' | 'signed-in';
	columns: DemoColumn[];
	commitment: string;
	/** Lanes for classes of service. */
	lanes?: { name: string; class: string; limit: number; mode: 'advise' | 'hold' }[];
	/** Hours of work that one unit of size stands for. */
	hoursPerUnit: number;
	reasons: string[];
	goals: string[];
	/** Checklists that cards of each type begin with. */
	types: Record<string, string[]>;
	/** Initiatives by the label of the cards that belong to them. */
	initiatives: Record<string, string>;
	/** Initiatives that another board has, and shares. */
	shares?: string[];
	/** Budgets of initiatives in hours, by their names. */
	budgets: Record<string, number>;
}

export const BOARDS: DemoBoard[] = [
	{
		name: 'Tidewatch',
		slug: 'tidewatch',
		key: 'TIDE',
		unit: 'hours',
		purpose: 'The warning service: harbours and ferries hear of tides and storms in time.',
		sprintDays: 14,
		visibleTo: 'team',
		commitment: 'Building',
		hoursPerUnit: 1,
		columns: [
			{ name: 'Lined up', kind: 'queue', policy: 'Sized, owned, and small enough for one sprint.' },
			{
				name: 'Building',
				kind: 'work',
				limit: 5,
				mode: 'hold',
				policy: 'One card a person; finish before you start.',
				work: 0.75,
			},
			{
				name: 'Review',
				kind: 'queue',
				limit: 3,
				mode: 'advise',
				policy: 'Looked at within a day by someone who did not build it.',
			},
			{
				name: 'Field trial',
				kind: 'work',
				limit: 4,
				mode: 'advise',
				policy: 'Two tides logged without a gap.',
				work: 0.25,
			},
			{ name: 'Live', kind: 'done' },
		],
		reasons: [
			'Waiting on the radio licence',
			'Harbour office has not granted access',
			'Part on order from the mainland',
			'Test mast is out of service',
			'Ferry company has not answered',
			'Needs a calm day at the gauge',
		],
		types: {
			Work: ['Agreed how it is tried out', 'Words read by somebody else', 'Tried at one harbour'],
			Repair: ['Cause written down', 'Same fault looked for elsewhere'],
		},
		initiatives: {
			alerts: 'Nights without false alarms',
			gauges: 'Gauges for every harbour',
			data: 'Open figures',
		},
		budgets: { 'Nights without false alarms': 600, 'Gauges for every harbour': 600, 'Open figures': 320 },
		goals: [
			'Warnings people trust',
			'Nobody is woken for nothing',
			'Every harbour hears within a minute',
			'Gauges that look after themselves',
			'One screen for the ferry desk',
			'Storm season without surprises',
			'Numbers a harbour master can act on',
		],
	},
	{
		name: 'Buoy yard',
		slug: 'buoy-yard',
		key: 'BUOY',
		unit: 'hours',
		purpose: 'Repairs and moorings at sea, pulled as the tide and the boat allow.',
		sprintDays: null,
		visibleTo: 'team',
		commitment: 'At the bench',
		lanes: [{ name: 'Storm damage', class: 'expedite', limit: 2, mode: 'hold' }],
		hoursPerUnit: 1,
		columns: [
			{
				name: 'Next in',
				kind: 'queue',
				limit: 5,
				mode: 'advise',
				policy: 'Storm damage first, then by date.',
			},
			{
				name: 'At the bench',
				kind: 'work',
				limit: 3,
				mode: 'hold',
				policy: 'Bench log signed before it leaves.',
				work: 0.6,
			},
			{
				name: 'Waiting for weather',
				kind: 'queue',
				limit: 4,
				mode: 'advise',
				policy: 'Goes out under force 4.',
			},
			{
				name: 'At sea',
				kind: 'work',
				limit: 2,
				mode: 'hold',
				policy: 'Two people aboard, always.',
				work: 0.4,
			},
			{ name: 'Moored', kind: 'done' },
		],
		reasons: [
			'Spare chain not delivered',
			'Swell over two metres',
			'Boat in the slip for its survey',
			'Permit for the shipping lane',
			'Crane booked by the fish quay',
		],
		types: {
			Work: ['Bench log signed', 'Weather window noted'],
			Repair: ['Damage photographed', 'Cause written down'],
		},
		initiatives: { mooring: 'New moorings', sensors: 'Gauges for every harbour' },
		shares: ['Gauges for every harbour'],
		budgets: { 'New moorings': 400 },
		goals: [],
	},
	{
		name: 'Shore desk',
		slug: 'shore-desk',
		key: 'SHORE',
		unit: 'points',
		purpose: 'School visits and the pages that the public reads.',
		sprintDays: 7,
		visibleTo: 'signed-in',
		commitment: 'Preparing',
		hoursPerUnit: 2.4,
		columns: [
			{ name: 'Agreed', kind: 'queue' },
			{
				name: 'Preparing',
				kind: 'work',
				limit: 2,
				mode: 'advise',
				policy: 'One page or visit at a time.',
				work: 0.8,
			},
			{
				name: 'Read by another',
				kind: 'queue',
				limit: 3,
				mode: 'advise',
				policy: 'Read aloud once; no sentence over two lines.',
			},
			{ name: 'Given', kind: 'done' },
		],
		reasons: [
			'School has not confirmed the date',
			'Waiting for pictures from the yard',
			'Text is with the harbour office',
		],
		types: { Work: ['Read aloud once', 'Pictures cleared'], Repair: ['Answer read by the service lead'] },
		initiatives: { visits: 'Every school once a year', pages: 'Open figures' },
		budgets: { 'Open figures': 90 },
		goals: [
			'Three visits and a new tide page',
			'The storm page reads well on a phone',
			'Autumn visits are booked',
			'Fewer questions by telephone',
		],
	},
];
