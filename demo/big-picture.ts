import { randomUUID } from 'node:crypto';
import { dayText, parseDay, weekday } from '../src/core/calendar/days.ts';
import { zoneOf } from '../src/core/calendar/zone.ts';
import { rows } from '../src/lib/server/database.ts';
import { obey } from '../src/lib/server/door/door.ts';
import { Problem } from '../src/lib/server/problem.ts';
import { now } from '../src/lib/server/time.ts';
import { boardOfDemo, peopleOfDemo } from './through-the-door.ts';

const STAGES = ['Idea', 'Agreed', 'Under way', 'Landed'];

/** What is set of initiatives: who leads them, in which stage, from when to when counted from today, and what for. */
const INITIATIVES: [
	board: string,
	name: string,
	lead: string,
	stage: string,
	from: number,
	to: number,
	purpose: string,
	money?: number,
][] = [
	[
		...(['TIDE', 'Gauges for every harbour', 'Ines Okoro', 'Under way', -84, 62] as const),
		'A harbour without a gauge of its own gets the warning of its neighbour, up to forty minutes late.',
		26_000,
	],
	[
		...(['TIDE', 'Nights without false alarms', 'Tomas Reyl', 'Under way', -140, 35] as const),
		'Whoever is woken for nothing three times switches the warning off.',
	],
	[
		...(['TIDE', 'Open figures', 'Mara Coyle', 'Agreed', 7, 118] as const),
		'Ten years of readings, for everyone, in a form that can be read by machine.',
	],
	[
		...(['BUOY', 'New moorings', 'Oskar Venn', 'Under way', -60, 90] as const),
		'The old chains do not last another winter.',
	],
	[
		...(['SHORE', 'Every school once a year', 'Mara Coyle', 'Under way', -120, 150] as const),
		'Each class has seen the watch room once before it leaves school.',
	],
	[...(['SHORE', 'Open figures', 'Leila Farrow', 'Idea', 14, 104] as const), ''],
];

/** Cards that get dates one after the other, by the initiative they belong to: how long each takes, and the gap before it. */
const CHAINS: Record<string, [days: number, gap: number][]> = {
	'Gauges for every harbour': [
		[11, -6],
		[8, 1],
		[6, 1],
		[7, 2],
		[6, 5],
	],
	'New moorings': [
		[9, -4],
		[12, 2],
		[7, 3],
	],
	'Nights without false alarms': [
		[6, -3],
		[9, -1],
		[8, 2],
	],
	'Open figures': [
		[10, 8],
		[12, 1],
	],
	'Every school once a year': [
		[7, -2],
		[6, 1],
		[9, 4],
	],
};

/** The big picture: stages and targets of initiatives, cards with dates that hang on each other, milestones, who is where. */
export async function bigPictureDemo(): Promise<void> {
	const people = await peopleOfDemo();
	const lead = people.get('Ines Okoro')!;
	const [team] = await rows<{ id: string; zone: string }>(
		'select t.id, t.time_zone as zone from team t join board b on b.team_id = t.id and b.key = $1',
		['TIDE'],
	);
	const today = zoneOf(team!.zone).day(now().getTime());
	const does = (command: string, input: object, who = lead) =>
		obey(who, { id: randomUUID(), command, input });
	const day = (from: number) => {
		let at = today + from;
		while (weekday(at) > 4) at++;
		return dayText(at);
	};
	await does('ChangeTeam', {
		...{ team: team!.id, stages: STAGES },
		limits: [{ stage: 'Under way', limit: 4 }],
	});
	for (const [key, initiative, leads, stage, from, to, purpose, money] of INITIATIVES) {
		const board = await boardOfDemo(key);
		await does('ChangeInitiative', {
			...{ board, initiative, lead: people.get(leads)!.id, purpose },
			...{ start: day(from), target: day(to) },
		});
		if (money) await does('ChangeBudget', { board, initiative, money });
		const [one] = await rows<{ id: string }>('select initiative_named($1, $2) as id', [board, initiative]);
		await does('StageInitiative', { team: team!.id, initiative: one!.id, stage });
	}
	const before: string[] = [];
	for (const [name, steps] of Object.entries(CHAINS)) {
		const open = (begun: boolean, most: number) =>
			rows<{ id: string; key: string }>(
				`select c.id, b.key || '-' || c.number as key
				from initiative i join card c on c.initiative_id = i.id join board b on b.id = c.board_id
				where i.name = $1 and c.archived_at is null and c.clock = $2 and (c.clock = 'running' or c.column_id is null)
					and not exists (select from board_column k where k.id = c.column_id and k.name = 'Review')
					and not exists (select from card k where k.parent_id = c.id)
					and not exists (select from card_link l where l.to_id = c.id or l.from_id = c.id)
				order by c.sprint_id is null, b.position desc, c.rank
				limit $3`,
				[name, begun ? 'running' : 'none', most],
			);
		const begun = await open(true, 1);
		const cards = [...begun, ...(await open(false, steps.length - begun.length))];
		let at = today;
		for (const [i, card] of cards.entries()) {
			const [days, gap] = steps[i]!;
			const start = parseDay(day(at - today + gap))!;
			at = parseDay(day(start + days - 1 - today))!;
			const { version } = (
				await rows<{ version: number }>('select version from card where id = $1', [card.id])
			)[0]!;
			await does('DateCard', { card: card.id, version, start: dayText(start), due: dayText(at) });
			const last = cards[i - 1];
			if (last) {
				const [seen] = await rows<{ version: number }>('select version from card where id = $1', [last.id]);
				await does('LinkCard', { card: last.id, version: seen!.version, to: card.key, kind: 'blocks' });
			}
		}
		if (name.startsWith('Gauges')) before.push(...cards.map(({ key }) => key));
	}
	const made = await does('AddMilestone', { team: team!.id, name: 'Harbour masters’ day', day: day(52) });
	await does('ChangeMilestone', { team: team!.id, milestone: made.result.milestone, cards: before });
	await does('AddMilestone', {
		...{ team: team!.id, board: await boardOfDemo('BUOY') },
		...{ name: 'The crane is ours', day: day(24) },
	});
	await whoIsWhere(team!.id, people, day, does);
}

/** Who is down for something without a card in the next weeks. */
async function whoIsWhere(
	team: string,
	people: Awaited<ReturnType<typeof peopleOfDemo>>,
	day: (from: number) => string,
	does: (command: string, input: object) => Promise<unknown>,
): Promise<void> {
	const BOOKED: [who: string, from: number, to: number, part: string, what: object, note: string][] = [
		['Oskar Venn', 1, 3, 'day', { site: 'Outer Skerry' }, 'with the yard’s boat'],
		['Leila Farrow', 2, 2, 'morning', { board: await boardOfDemo('SHORE') }, 'a class from North Quay'],
		['Tomas Reyl', 7, 8, 'day', { site: 'Lamb Island' }, ''],
		['Bram Tolver', 4, 4, 'afternoon', { site: 'Watch room' }, 'shows the newcomers around'],
		['Mara Coyle', 9, 10, 'day', { board: await boardOfDemo('SHORE') }, 'open days'],
	];
	for (const [who, from, to, part, what, note] of BOOKED)
		await does('BookDays', {
			...{ team, person: people.get(who)!.id, from: day(from), to: day(to), part, ...what, note },
		}).catch((refused: unknown) => {
			// Whoever is away just then is left in peace.
			if (!(refused instanceof Problem)) throw refused;
		});
	const monday = parseDay(day(0))! - weekday(parseDay(day(0))!) + 7;
	await does('NoteWeek', {
		...{ team, person: people.get('Yuki Sandel')!.id, monday: dayText(monday) },
		note: 'Goes home at noon on Thursday',
	});
}
