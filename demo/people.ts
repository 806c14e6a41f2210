/** The made-up people of a made-up observatory. */
export interface DemoPerson {
	/** How the demo knows them; they are called so too, unless another of that name was here first. */
	name: string;
	called?: string;
	initials: string;
	title: string;
	role: 'lead' | 'member' | 'viewer';
	/** Hours on each weekday, Monday first. */
	week: number[];
	/** Share of those hours on each board, by its key. */
	share: Record<string, number>;
	/** Labels of cards that the person is at home in. */
	skills: string[];
	/** What an hour costs; none for who is not paid by the hour. */
	rate?: number;
	/** Days away, counted from today: [first, last]. */
	away: [number, number][];
}

const FULL = [8, 8, 8, 8, 8, 0, 0];

export const PEOPLE: DemoPerson[] = [
	{
		name: 'Ines Okoro',
		skills: ['alerts'],
		initials: 'IO',
		title: 'Service lead',
		role: 'lead',
		rate: 62,
		week: [8, 8, 8, 8, 4, 0, 0],
		share: { TIDE: 0.5 },
		away: [[-96, -87]],
	},
	{
		name: 'Bram Tolver',
		skills: ['alerts', 'pages'],
		initials: 'BT',
		title: 'Engineer',
		role: 'member',
		rate: 54,
		week: FULL,
		share: { TIDE: 1 },
		away: [
			[-54, -50],
			[18, 22],
		],
	},
	{
		name: 'Yuki Sandel',
		skills: ['pages', 'alerts'],
		initials: 'YS',
		title: 'Engineer',
		role: 'member',
		rate: 54,
		week: FULL,
		share: { TIDE: 1 },
		away: [
			[-131, -118],
			[3, 4],
		],
	},
	{
		name: 'Petra Lind',
		skills: ['gauges'],
		initials: 'PL',
		title: 'Radio and power',
		role: 'member',
		rate: 48,
		week: FULL,
		share: { TIDE: 0.5, BUOY: 0.5 },
		away: [[-75, -71]],
	},
	{
		name: 'Tomas Reyl',
		skills: ['data', 'alerts'],
		initials: 'TR',
		title: 'Data',
		role: 'member',
		rate: 51,
		week: [8, 8, 0, 8, 8, 0, 0],
		share: { TIDE: 1 },
		away: [[-33, -31]],
	},
	{
		name: 'Oskar Venn',
		skills: [],
		initials: 'OV',
		title: 'Yard foreman',
		role: 'lead',
		rate: 44,
		week: FULL,
		share: { BUOY: 1 },
		away: [
			[-110, -101],
			[10, 14],
		],
	},
	{
		name: 'Leila Farrow',
		skills: [],
		initials: 'LF',
		title: 'Mooring and rigging',
		role: 'member',
		rate: 46,
		week: [8, 8, 8, 8, 0, 0, 0],
		share: { BUOY: 0.6, SHORE: 0.4 },
		away: [[-20, -17]],
	},
	{
		name: 'Mara Coyle',
		skills: [],
		initials: 'MC',
		title: 'Public desk',
		role: 'lead',
		rate: 40,
		week: [6, 6, 6, 6, 6, 0, 0],
		share: { SHORE: 1 },
		away: [[-61, -57]],
	},
	{
		name: 'Sam Pike',
		skills: [],
		initials: 'SP',
		title: 'Schools',
		role: 'member',
		rate: 52,
		week: [8, 8, 8, 0, 0, 0, 0],
		share: { SHORE: 1 },
		away: [[-12, -10]],
	},
	{
		name: 'Sam Pike of the boat',
		called: 'Sam Pike',
		skills: [],
		initials: 'SP',
		title: 'Boatman',
		role: 'member',
		rate: 42,
		week: [0, 0, 0, 8, 8, 0, 0],
		share: { BUOY: 1 },
		away: [[-44, -43]],
	},
	{
		name: 'Della Marsh',
		skills: [],
		initials: 'DM',
		title: 'Harbour office',
		role: 'viewer',
		week: [0, 0, 0, 0, 0, 0, 0],
		share: {},
		away: [],
	},
];
