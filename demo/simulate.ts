import { weekday } from '../src/core/calendar/days.ts';
import { HOUR_MS, type Day, type Instant, type Zone } from '../src/core/calendar/zone.ts';
import type { FiledEvent } from '../src/core/events/kinds.ts';
import type { Reason } from '../src/core/events/reasons.ts';
import { restTitle } from '../src/core/sprint/left.ts';
import type { Decision } from '../src/core/sprint/settle.ts';
import type { DemoBoard } from './boards.ts';
import { cardsFor, type DemoCard } from './cards.ts';
import type { DemoPerson } from './people.ts';
import { chance, type Chance } from './random.ts';

/** An event of the demo's history, with the person who did it. */
export interface DemoEvent {
	card: number;
	at: Instant;
	event: FiledEvent | 'due' | 'described' | 'comment' | 'unfinished' | 'split-to' | 'split-from';
	value: string;
	by: string;
	after?: object;
}

export interface DemoSprint {
	number: number;
	goal: string;
	starts: Day;
	ends: Day;
	startedAt: Instant | null;
	closedAt: Instant | null;
}

export interface DemoHistory {
	events: DemoEvent[];
	sprints: DemoSprint[];
}

interface Card extends DemoCard {
	number: number;
	/** null: backlog */
	column: number | null;
	/** Hours of work each column still needs. */
	need: number[];
	left: number;
	worked: number;
	owner: string | null;
	second: string | null;
	sprint: number | null;
	blockedUntil: Instant | null;
	reason: string;
	urgent: boolean;
	since: Instant;
	done: boolean;
	archived: boolean;
}

interface Tuning {
	/** Share of working hours that go into cards. */
	focus: number;
	/** Cards that should wait in the backlog. */
	backlog: number;
	/** How full a sprint is planned, as a share of what is usually worked. */
	fill: number;
	/** Urgent cards that a storm brings at most, and how likely one comes in on any other day. */
	storm: number;
	gust: number;
	seed: number;
}

const TUNING: Record<string, Tuning> = {
	TIDE: { focus: 0.45, backlog: 34, fill: 1, storm: 3, gust: 0.15, seed: 4107 },
	BUOY: { focus: 0.42, backlog: 12, fill: 1, storm: 3, gust: 0.015, seed: 977 },
	SHORE: { focus: 0.42, backlog: 13, fill: 0.55, storm: 1, gust: 0.05, seed: 2203 },
};

const HISTORY_DAYS = 182;
const FUTURE_SPRINTS = 3;
/** Days of the history, counted back from today, on which storms came in. */
const STORMS = [163, 131, 104, 102, 68, 41, 40, 19, 5];

/**
 * Half a year of a board's life, hour by hour, up to now. The same for the same day, whatever the hour it is asked at,
 * but for what has not happened yet.
 * @param life other numbers make other lives, in which chance fell otherwise
 */
export function simulate(
	board: DemoBoard,
	people: readonly DemoPerson[],
	zone: Zone,
	now: Instant,
	life = 0,
): DemoHistory {
	return new Simulation(board, people, zone, now, life).run();
}

class Simulation {
	private readonly by: Chance;
	private readonly tuning: Tuning;
	private readonly usual: DemoCard[];
	private readonly urgent: DemoCard[];
	private readonly cards: Card[] = [];
	private readonly events: DemoEvent[] = [];
	private readonly sprints: DemoSprint[];
	private readonly team: DemoPerson[];
	private readonly lead: string;
	private readonly today: Day;
	private readonly committed: number;
	/** The last working day before yesterday. */
	private readonly lookAhead: Day;

	constructor(
		private readonly board: DemoBoard,
		people: readonly DemoPerson[],
		private readonly zone: Zone,
		private readonly now: Instant,
		life: number,
	) {
		this.tuning = TUNING[board.key]!;
		this.by = chance(this.tuning.seed + life * 7919);
		({ usual: this.usual, urgent: this.urgent } = cardsFor(board.key, this.by));
		this.team = people.filter((person) => person.share[board.key]);
		this.lead = this.team.find((person) => person.role === 'lead')!.name;
		this.today = zone.day(now);
		this.committed = board.columns.findIndex((column) => column.name === board.commitment);
		this.sprints = this.calendar();
		this.lookAhead = this.today - 2;
		while (weekday(this.lookAhead) > 4) this.lookAhead--;
	}

	run(): DemoHistory {
		for (let day = this.today - HISTORY_DAYS; day <= this.today; day++) {
			const hour = (h: number) => this.zone.startOf(day) + h * HOUR_MS;
			this.collect(day, hour(8.5));
			if (weekday(day) > 4) continue;
			this.plan(day, hour(8.75));
			this.open(day, hour(9));
			if (this.board.sprintDays === null) this.replenish(day, hour(9.1));
			this.storm(day, hour(9.4));
			for (let h = 9; h < 17; h++) this.hour(day, hour(h), h);
			this.settle(day, hour(17.25));
		}
		const events = mergeTime(
			this.zone,
			this.events.filter((event) => event.at <= this.now).sort((a, b) => a.at - b.at),
		);
		const past = (at: Instant | null) => (at !== null && at <= this.now ? at : null);
		const sprints = this.sprints.map((s) => ({
			...s,
			startedAt: past(s.startedAt),
			closedAt: past(s.closedAt),
		}));
		return { events, sprints };
	}

	/** Sprints one after the other, laid so that today is always half way through one. */
	private calendar(): DemoSprint[] {
		const length = this.board.sprintDays;
		if (length === null) return [];
		let start =
			this.today -
			(length === 14 ? (weekday(this.today) <= 2 ? 7 + weekday(this.today) : weekday(this.today)) : 3);
		while (weekday(start) > 4) start--;
		const before = Math.floor((HISTORY_DAYS - 10) / length);
		return Array.from({ length: before + 1 + FUTURE_SPRINTS }, (_, i) => {
			const starts = start + (i - before) * length;
			// A fortnight ends on its second Friday; a week on the last weekday before the next one.
			let ends = length === 14 ? starts + 11 : starts + length - 1;
			while (weekday(ends) > 4) ends--;
			return {
				number: i + 1,
				goal: i <= before + 1 ? this.board.goals[i % this.board.goals.length]! : '',
				starts,
				ends,
				startedAt: null,
				closedAt: null,
			};
		});
	}

	private note(card: Card, at: Instant, event: DemoEvent['event'], value: string, by: string): void {
		// A second apart, so that what one person does in a moment keeps its order.
		const last = this.events.at(-1);
		const when = last && last.card === card.number && last.at >= at ? last.at + 1000 : at;
		this.events.push({ card: card.number, at: when, event, value, by });
	}

	private make(idea: DemoCard, at: Instant, by: string, urgent = false): Card {
		const scale = idea.size * this.board.hoursPerUnit * this.by.factor(0.38);
		const card: Card = {
			...idea,
			number: this.cards.length + 1,
			column: null,
			need: this.board.columns.map((column) => (column.work ?? 0) * scale),
			left: 0,
			worked: 0,
			owner: null,
			second: null,
			sprint: null,
			blockedUntil: null,
			reason: '',
			urgent,
			since: at,
			done: false,
			archived: false,
		};
		this.cards.push(card);
		this.note(card, at, 'created', idea.title, by);
		this.note(card, at, 'described', idea.description, by);
		this.note(card, at, 'type', urgent ? 'Repair' : 'Work', by);
		this.note(card, at, 'label', idea.label, by);
		if (urgent) this.note(card, at, 'class', 'expedite', by);
		return card;
	}

	private size(card: Card, at: Instant, by: string): void {
		card.left = card.size;
		this.note(card, at, 'sized', String(card.size), by);
	}

	private waiting(): Card[] {
		return this.cards.filter((card) => card.column === null && !card.done && !card.archived);
	}

	/** New work comes in, more on some days than on others, and is sized a few days later. */
	private collect(day: Day, at: Instant): void {
		const short = this.tuning.backlog - this.waiting().length;
		const first = day === this.today - HISTORY_DAYS;
		let coming = first
			? this.tuning.backlog
			: short > 0
				? this.by.whole(0, Math.min(4, 1 + Math.ceil(short / 4)))
				: this.by.happens(0.12)
					? 1
					: 0;
		for (; coming > 0 && this.usual.length; coming--) {
			const card = this.make(this.usual.shift()!, at + coming * 60_000, this.by.pick(this.team).name);
			// Some of the latest wait unsized, as they do in life.
			if (day < this.today - 9 || this.by.happens(0.6))
				this.size(card, at + 2 * HOUR_MS + coming * 60_000, this.lead);
			if (this.by.happens(0.08)) this.dated(card, day, at + 3 * HOUR_MS);
			if (this.by.happens(0.06)) this.note(card, at + 3 * HOUR_MS, 'class', 'background', this.lead);
		}
	}

	private dated(card: Card, day: Day, at: Instant): void {
		this.note(card, at, 'class', 'fixed', this.lead);
		const due = day + this.by.whole(20, 60);
		this.note(card, at + 1000, 'due', new Date(due * 86_400_000).toISOString().slice(0, 10), this.lead);
	}

	/** On the last working day before a sprint starts, cards are put on its list until it seems full. */
	private plan(day: Day, at: Instant): void {
		for (const sprint of this.sprints) {
			let planned = sprint.starts - 1;
			while (weekday(planned) > 4) planned--;
			// What comes after the running sprint is looked at early, the nearest first.
			const ahead =
				sprint.starts > this.today ? sprint.number - this.sprints.findIndex((s) => s.starts > this.today) : 0;
			if (ahead ? day !== this.lookAhead : day !== planned) continue;
			let room =
				this.usualWork(sprint) *
				this.tuning.fill *
				(ahead ? Math.max(0, 1.33 - ahead * 0.4) : this.by.factor(0.08));
			for (const card of this.cards) if (card.sprint === sprint.number && !card.done) room -= card.left;
			for (const card of this.waiting()) {
				if (room <= 0) break;
				if (card.sprint !== null || !card.left || this.by.happens(0.15)) continue;
				room -= card.left;
				card.sprint = sprint.number;
				this.note(card, at + card.number * 1000, 'sprint', String(sprint.number), this.lead);
			}
		}
	}

	/** What the people who are there will put into cards in a sprint, in the board's unit. */
	private usualWork(sprint: DemoSprint): number {
		let hours = 0;
		for (let day = sprint.starts; day <= sprint.ends; day++)
			for (const person of this.team) hours += this.hoursOf(person, day);
		return (hours * this.tuning.focus * 0.8) / this.board.hoursPerUnit;
	}

	private hoursOf(person: DemoPerson, day: Day): number {
		const away = person.away.some(([from, to]) => day >= this.today + from && day <= this.today + to);
		return away ? 0 : person.week[weekday(day)]! * person.share[this.board.key]!;
	}

	private running(day: Day): DemoSprint | undefined {
		return this.sprints.find((sprint) => sprint.starts <= day && day <= sprint.ends);
	}

	private open(day: Day, at: Instant): void {
		const sprint = this.sprints.find((known) => known.starts === day);
		if (!sprint) return;
		sprint.startedAt = at;
		for (const card of this.cards)
			if (card.sprint === sprint.number && card.column === null && !card.done)
				this.move(card, 0, at + 60_000 + card.number * 1000, this.lead);
	}

	/** On a board without sprints the first queue is filled up to its limit. */
	private replenish(day: Day, at: Instant): void {
		if (weekday(day) % 2) return;
		const room = (this.board.columns[0]!.limit ?? 5) - this.in(0).length;
		this.waiting()
			.filter((card) => card.left > 0)
			.slice(0, Math.max(0, room))
			.forEach((card, i) => this.move(card, 0, at + i * 60_000, this.lead));
	}

	private storm(day: Day, at: Instant): void {
		const ago = this.today - day;
		const stormy = STORMS.includes(ago);
		if (!stormy && !this.by.happens(this.tuning.gust)) return;
		const sprint = this.running(day);
		const most = stormy ? this.tuning.storm : 1;
		for (let n = this.by.whole(Math.max(1, most - 1), most); n > 0 && this.urgent.length; n--) {
			const card = this.make(this.urgent.shift()!, at + n * 240_000, this.lead, true);
			this.size(card, at + n * 240_000, this.lead);
			if (sprint) {
				card.sprint = sprint.number;
				this.note(card, at + n * 240_000, 'sprint', String(sprint.number), this.lead);
			}
			this.move(
				card,
				this.in(this.committed).length <= (this.board.columns[this.committed]!.limit ?? 99)
					? this.committed
					: 0,
				at + n * 240_000,
				this.lead,
			);
		}
	}

	private in(column: number): Card[] {
		return this.cards.filter((card) => card.column === column && !card.done && !card.archived);
	}

	private move(card: Card, column: number, at: Instant, by: string): void {
		card.column = column;
		card.since = at;
		card.done = this.board.columns[column]!.kind === 'done';
		if (card.done) card.left = 0;
		this.note(card, at, 'column', this.board.columns[column]!.name, by);
	}

	/** One hour of everyone: those who are there work on a card, or pull one. */
	private hour(day: Day, at: Instant, hour: number): void {
		for (const card of this.cards)
			if (card.blockedUntil !== null && card.blockedUntil <= at) {
				card.blockedUntil = null;
				this.note(card, at, 'unblocked', '', card.owner ?? this.lead);
			}
		for (const person of this.team) {
			const hours = this.hoursOf(person, day);
			if (!hours || !this.by.happens((hours / 8) * this.tuning.focus * 1.15)) continue;
			const card = this.choose(person.name, at);
			if (card) this.work(card, person.name, at + this.by.whole(5, 50) * 60_000, hour);
		}
	}

	/** What someone turns to: urgent cards, then their own furthest along, then a review, then the next one waiting. */
	private choose(name: string, at: Instant): Card | null {
		const { columns } = this.board;
		const mine = this.cards
			.filter(
				(card) =>
					card.column !== null &&
					columns[card.column]!.kind === 'work' &&
					!card.done &&
					!card.archived &&
					card.blockedUntil === null,
			)
			.filter((card) => card.owner === name || card.owner === null || card.second === name)
			.sort((a, b) => Number(b.urgent) - Number(a.urgent) || b.column! - a.column!);
		if (mine[0]) return this.own(mine[0], name, at);
		for (let column = columns.length - 2; column >= 0; column--) {
			if (columns[column]!.kind !== 'queue') continue;
			const next = columns[column + 1]!;
			const free =
				next.kind === 'done' ||
				this.in(column + 1).length < (next.limit ?? 99) ||
				this.by.happens(this.today - this.zone.day(at) <= 3 ? 0.1 : 0.03);
			if (!free) continue;
			const ready = this.in(column).filter(
				(card) =>
					card.blockedUntil === null &&
					(column === 0 || card.owner !== name || this.by.happens(0.2)) &&
					at - card.since > (column === 0 ? 0 : 3 * HOUR_MS),
			);
			const card =
				ready.find((c) => c.urgent) ??
				ready.find((c) => c.owner === name) ??
				ready.find((c) => c.owner === null) ??
				(column > 0 ? ready[0] : undefined);
			if (!card) continue;
			this.own(card, name, at);
			this.move(card, column + 1, at + 120_000, name);
			return card.done ? null : card;
		}
		return this.help(name, at);
	}

	/** Whom nothing waits for helps with a card that one person works on alone. */
	private help(name: string, at: Instant): Card | null {
		const alone = this.cards.filter(
			(card) =>
				card.column !== null &&
				this.board.columns[card.column]!.kind === 'work' &&
				!card.done &&
				!card.archived &&
				card.blockedUntil === null &&
				card.second === null,
		);
		if (!alone.length || this.by.happens(0.5)) return null;
		const card = this.by.pick(alone);
		card.second = name;
		this.note(card, at, 'owner', name, name);
		return card;
	}

	private own(card: Card, name: string, at: Instant): Card {
		if (card.owner === null) {
			card.owner = name;
			this.note(card, at, 'owner', name, name);
		}
		return card;
	}

	private work(card: Card, name: string, at: Instant, hour: number): void {
		const column = card.column!;
		card.need[column]! -= 1;
		card.worked += 1;
		this.note(card, at, 'worked', '1', name);
		if (this.board.unit === 'hours') card.left = Math.max(0, card.left - 1);
		if (card.need[column]! <= 0) return this.pass(card, name, at + 180_000);
		// Who finds that nothing is left, though work is, says so.
		if (this.board.unit === 'hours' && card.left === 0) {
			const rest = card.need.reduce((sum, need) => sum + Math.max(0, need), 0);
			card.left = Math.max(1, Math.round(rest));
			this.note(card, at + 60_000, 'left', String(card.left), name);
		}
		if (!card.urgent && card.second === null && this.by.happens(0.02)) {
			card.second = this.by.pick(this.team.filter((person) => person.name !== card.owner)).name;
			this.note(card, at + 90_000, 'owner', card.second, name);
		}
		const lately = this.today - this.zone.day(at) <= 6;
		const blocked = this.cards.filter((other) => other.blockedUntil !== null).length;
		if (
			!card.urgent &&
			hour < 16 &&
			(lately ? blocked < 2 && this.by.happens(0.25) : this.by.happens(card.size > 12 ? 0.03 : 0.012))
		) {
			const days = Math.max(lately ? 8 : 1, Math.round(2.4 * this.by.factor(0.9)));
			card.blockedUntil = at + days * 24 * HOUR_MS;
			// No two cards wait for the same thing at once.
			const waited = new Set(
				this.cards.flatMap((other) => (other !== card && other.blockedUntil !== null ? [other.reason] : [])),
			);
			card.reason = this.by.pick(this.board.reasons.filter((reason) => !waited.has(reason)));
			this.note(card, at + 200_000, 'blocked', card.reason, name);
			this.note(
				card,
				at + 2 * HOUR_MS,
				'comment',
				`${card.reason}: I have asked, and ask again tomorrow.`,
				name,
			);
		}
	}

	private pass(card: Card, name: string, at: Instant): void {
		const next = card.column! + 1;
		// Now and then a trial shows that it was not finished after all.
		if (this.board.columns[next]!.kind === 'done' && this.by.happens(0.03)) {
			card.need[this.committed] = 2;
			return this.move(card, this.committed, at, name);
		}
		this.move(card, next, at, name);
	}

	/** At its end a sprint's unfinished cards are carried, split, put back or dropped. */
	private settle(day: Day, at: Instant): void {
		const sprint = this.sprints.find((known) => known.ends === day);
		if (!sprint || sprint.startedAt === null || at > this.now) return;
		sprint.closedAt = at;
		const next = this.sprints[sprint.number];
		for (const card of [...this.cards]) {
			if (card.sprint !== sprint.number || card.done || card.archived) continue;
			const luck = this.by.next();
			const begun = card.worked > 0;
			const say = (event: DemoEvent['event'], value: string) =>
				this.events.push({ card: card.number, at, event, value, by: this.lead });
			const why = (decision: Decision) => this.explain(card, sprint.number, decision, at);
			if (!begun && luck < 0.45) {
				card.sprint = null;
				why('backlog');
				say('sprint', '');
				say('column', '');
				card.column = null;
			} else if (!begun && luck < 0.53) {
				card.archived = true;
				why('drop');
				say('archived', 'No longer needed');
			} else if (begun && luck < 0.14 && card.left >= 3 && card.blockedUntil === null) {
				why('split');
				this.split(card, next, at);
			} else if (next) {
				card.sprint = next.number;
				why('carry');
				say('sprint', String(next.number));
			}
		}
	}

	/** What the lead says of a card that was not finished. */
	private explain(card: Card, sprint: number, decision: Decision, at: Instant): void {
		const stormy = this.sprints[sprint - 1]!;
		const surprised = this.cards.some((one) => one.urgent && one.sprint === stormy.number);
		const waited = this.events.some(
			(e) => e.card === card.number && e.event === 'blocked' && e.at >= stormy.startedAt!,
		);
		const reason: Reason =
			card.blockedUntil !== null
				? 'blocked'
				: waited
					? 'waiting'
					: !card.worked
						? surprised
							? 'surprises'
							: 'not-started'
						: card.worked >= card.size * 0.8
							? 'bigger'
							: surprised
								? 'surprises'
								: card.number % 5 === 0
									? 'away'
									: card.number % 3 === 0
										? 'scope'
										: 'bigger';
		const after = { sprint, decision, words: '', left: card.left };
		this.events.push({ card: card.number, at, event: 'unfinished', value: reason, by: this.lead, after });
	}

	private split(card: Card, next: DemoSprint | undefined, at: Instant): void {
		const part = card.left;
		this.events.push({ card: card.number, at, event: 'split', value: String(part), by: this.lead });
		this.events.push({
			card: card.number,
			at,
			event: 'column',
			value: this.board.columns.at(-1)!.name,
			by: this.lead,
		});
		card.column = this.board.columns.length - 1;
		card.done = true;
		const number = this.cards.length;
		const rest = this.make({ ...card, title: restTitle(card.title), size: part }, at, this.lead);
		rest.left = part;
		rest.sprint = next?.number ?? null;
		for (const event of this.events) if (event.card === number + 1) event.at = at;
		this.events.push({ card: card.number, at, event: 'split-to', value: String(rest.number), by: this.lead });
		this.events.push({
			card: rest.number,
			at,
			event: 'split-from',
			value: String(card.number),
			by: this.lead,
		});
		this.events.push({ card: rest.number, at, event: 'sized', value: String(part), by: this.lead });
		if (next)
			this.events.push({ card: rest.number, at, event: 'sprint', value: String(next.number), by: this.lead });
	}
}

/** What may stand between two hours of a person on a card that are logged as one. */
const BESIDE: DemoEvent['event'][] = ['worked', 'comment', 'blocked', 'owner'];

/** Hours of a person on a card, on one day and with nothing else between them, are logged together, at the last of them. */
function mergeTime(zone: Zone, events: DemoEvent[]): DemoEvent[] {
	const open = new Map<string, DemoEvent>();
	const merged = new Set<DemoEvent>();
	for (const event of events) {
		if (event.event === 'worked') {
			const key = `${event.card} ${event.by}`;
			const before = open.get(key);
			if (before && zone.day(before.at) === zone.day(event.at)) {
				event.value = String(Number(before.value) + Number(event.value));
				merged.add(before);
			}
			open.set(key, event);
		} else if (!BESIDE.includes(event.event))
			for (const key of [...open.keys()]) if (key.startsWith(`${event.card} `)) open.delete(key);
	}
	return events.filter((event) => !merged.has(event));
}
