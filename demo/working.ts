import { dayText } from '../src/core/calendar/days.ts';
import type { Zone } from '../src/core/calendar/zone.ts';
import type { BoardFile } from '../src/core/sprint/board.ts';
import type { HistoryEvent } from '../src/core/flow/history.ts';
import { sprintAccounts } from '../src/core/sprint/accounts.ts';
import type { Tx } from '../src/lib/server/database.ts';
import type { DemoBoard } from './boards.ts';
import { PEOPLE } from './people.ts';
import { RECORDED } from './planning.ts';
import type { DemoHistory } from './simulate.ts';

/** What people wrote beside their hours; most wrote nothing. */
const NOTES = [
	'',
	'',
	'',
	'Tried it against last winter’s records.',
	'',
	'Went through it with the harbour office.',
	'',
	'',
	'Half of it was finding the right cable.',
	'',
	'Wrote down how it is tested.',
];

/** Every worked hour of the history as an entry of time, on the day on which it was worked. */
export async function writeTime(
	tx: Tx,
	board: string,
	file: BoardFile,
	history: DemoHistory,
	cards: Map<number, string>,
	people: Map<string, string>,
): Promise<void> {
	const lists = new Map<number, number | null>();
	const running = (at: number) =>
		history.sprints.find(
			(s) => s.startedAt !== null && s.startedAt < at && (s.closedAt === null || at <= s.closedAt),
		);
	const entries = history.events.flatMap((e, i) => {
		if (e.event === 'sprint') lists.set(e.card, e.value ? Number(e.value) : null);
		if (e.event !== 'worked') return [];
		const sprint = running(e.at);
		return [
			{
				card: cards.get(e.card),
				person: people.get(e.by),
				day: dayText(file.zone.day(e.at)),
				hours: Number(e.value),
				note: NOTES[(e.card * 7 + i) % NOTES.length],
				billable: e.card % 3 === 0,
				sprint: sprint && lists.get(e.card) === sprint.number ? sprint.number : null,
				seq: i + 1,
				at: new Date(e.at),
			},
		];
	});
	await tx.query(
		`insert into time_entry (card_id, person_id, day, hours, note, billable, sprint_id, seq, logged_at)
		select t.card, t.person, t.day, t.hours, t.note, t.billable, s.id, t.seq, t.at
		from jsonb_to_recordset($2) as t(card uuid, person uuid, day date, hours numeric, note text, billable boolean,
			sprint integer, seq bigint, at timestamptz)
		left join sprint s on s.board_id = $1 and s.number = t.sprint`,
		[board, JSON.stringify(entries)],
	);
}

/** Cards that were split know each other. */
export async function writeSplits(tx: Tx, history: DemoHistory, cards: Map<number, string>): Promise<void> {
	const links = history.events.flatMap((e) =>
		e.event === 'split-to' ? [{ from: cards.get(e.card), to: cards.get(Number(e.value)) }] : [],
	);
	await tx.query(
		`insert into card_link (from_id, to_id, kind)
		select l."from", l."to", 'split' from jsonb_to_recordset($1) as l("from" uuid, "to" uuid)`,
		[JSON.stringify(links)],
	);
}

interface Outcome {
	met: 'yes' | 'partly' | 'no';
	words: string;
}

/** How the goals of closed sprints turned out: the more was done of what was committed, the better. */
export function outcomes(file: BoardFile, events: HistoryEvent[], at: number): Map<number, Outcome> {
	const closed = new Set(file.sprints.filter((s) => s.closedAt !== null).map((s) => s.number));
	return new Map(
		sprintAccounts(file, events, at)
			.ledgers.filter((ledger) => closed.has(ledger.number))
			.map((ledger): [number, Outcome] => {
				const share = ledger.committed ? ledger.delivered / ledger.committed : 1;
				if (share >= 0.8) return [ledger.number, { met: 'yes', words: 'Harbours felt the difference.' }];
				return share >= 0.55
					? [
							ledger.number,
							{ met: 'partly', words: 'The main part stands; the rest waits for parts and permits.' },
						]
					: [ledger.number, { met: 'no', words: 'Other things came first.' }];
			}),
	);
}

export async function writeRates(
	tx: Tx,
	team: string,
	people: Map<string, string>,
	today: number,
): Promise<void> {
	const rates = PEOPLE.flatMap(({ name, rate }) =>
		rate
			? [
					{ person: people.get(name), day: dayText(today - RECORDED), rate: rate - 3 },
					{ person: people.get(name), day: dayText(today - 60), rate },
				]
			: [],
	);
	await tx.query(
		`insert into hourly_rate (team_id, person_id, from_day, rate)
		select $1, r.person, r.day, r.rate from jsonb_to_recordset($2) as r(person uuid, day date, rate numeric)`,
		[team, JSON.stringify(rates)],
	);
}

export async function writeBudgets(tx: Tx, board: string, demo: DemoBoard): Promise<void> {
	await tx.query(
		`update initiative i set budget_hours = b.value::numeric
		from jsonb_each_text($2) b where i.board_id = $1 and i.name = b.key`,
		[board, JSON.stringify(demo.budgets)],
	);
}

/** Two timers run: one since a little over an hour, one that was left on yesterday. */
export async function writeTimers(tx: Tx, people: Map<string, string>, zone: Zone, at: Date): Promise<void> {
	const today = zone.startOf(zone.day(at.getTime()));
	const since = {
		'Petra Lind': Math.max(today + 60_000, at.getTime() - 72 * 60_000),
		'Yuki Sandel': today - 7.6 * 3_600_000,
	};
	for (const [name, started] of Object.entries(since))
		await tx.query(
			`insert into timer (person_id, card_id, started_at)
			select o.person_id, c.id, $2
			from card_owner o
			join card c on c.id = o.card_id
			join board b on b.id = c.board_id and b.key = 'TIDE'
			where o.person_id = $1 and c.clock = 'running' and c.blocked_since is null and c.archived_at is null
			order by c.entered_at desc
			limit 1`,
			[people.get(name), new Date(started)],
		);
}
