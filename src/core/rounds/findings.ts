import { pullOrder } from '../backlog/replenish.ts';
import type { Day } from '../calendar/zone.ts';
import type { Part } from '../capacity/promise.ts';
import type { ColumnKind } from '../flow/layout.ts';

/** A card as the rounds see it. Days are calendar days in the board's time zone. */
export interface RoundsCard {
	id: string;
	number: number;
	title: string;
	/** The column's place on the board; null in the backlog. */
	column: number | null;
	rank: string;
	class: 'expedite' | 'fixed' | 'standard' | 'background';
	clock: 'none' | 'running' | 'done' | 'dropped';
	size: number | null;
	left: number;
	owners: readonly string[];
	sprint: number | null;
	unplanned: boolean;
	/** It has sub-cards: those are sized and owned. */
	hasParts: boolean;
	/** The day its clock began; null while it does not run. */
	started: Day | null;
	due: Day | null;
	blocked: { since: Day; reason: string; waitingFor?: string | null } | null;
	/** The day on which something last happened to it. */
	touched: Day;
	/** How often it was carried over. */
	carried: number;
}

/** The state of a board on a day: all that the rounds are made of. */
export interface RoundsState {
	today: Day;
	/** Whether the team works on a day. */
	works: (day: Day) => boolean;
	unit: 'hours' | 'points' | 'none';
	columns: readonly {
		id: string;
		name: string;
		kind: ColumnKind;
		limit: number | null;
		/** Since when it has had free slots while nothing in the queue before it could be pulled; null: it has not. */
		starvedSince: Day | null;
		/** How many cards stood there on 85% of the last 90 days; null for too short a past. */
		usual: number | null;
	}[];
	/** All unfinished cards of the board. */
	cards: readonly RoundsCard[];
	people: readonly {
		id: string;
		name: string;
		/** Hours for this board today. */
		hours: number;
		/** Since when no running card has been theirs; null: one is. */
		idleSince: Day | null;
	}[];
	/** Who has how much room in the running sprint. */
	parts: readonly Part[];
	/** Days that so many percent of past cards took at most; null while too few were finished. */
	expectation: { days: number; percentile: number } | null;
	sprint: { number: number; starts: Day; ends: Day } | null;
	/** The sprint that starts next, how much is on its list and what it promises. */
	next: { number: number; starts: Day; placed: number; promise: number | null } | null;
	/** The share of trials in which all of the running sprint gets done; null where there are no odds. */
	odds: number | null;
	/** Hours that unplanned cards of the sprint took and still need, beside what was kept back. */
	surprises: { worked: number; left: number; kept: number; cards: readonly number[] } | null;
	/** Timers on this board's cards that were left on, and the hours they have run. */
	timers: readonly { person: string; card: number; hours: number }[];
}

export type FindingKind =
	| 'blocked'
	| 'too-old'
	| 'over-limit'
	| 'starved'
	| 'piling-up'
	| 'over-promise'
	| 'nothing-to-do'
	| 'no-owner'
	| 'not-sized'
	| 'late'
	| 'due-soon'
	| 'will-not-fit'
	| 'surprises-over'
	| 'carried-again'
	| 'timer-left-on'
	| 'quiet'
	| 'sprint-over'
	| 'next-not-planned';

/** What can be done about a finding, right where it is said. */
export type Remedy =
	| 'unblock'
	| 'wait-for'
	| 'backlog'
	| 'split'
	| 'owners'
	| 'size'
	| 'date'
	| 'ask'
	| 'pull'
	| 'move-on'
	| 'next-sprint'
	| 'limit'
	| 'stop-timer'
	| 'board'
	| 'replenish'
	| 'plan'
	| 'settle'
	| 'report';

export interface Finding {
	/** The same for the same thing from day to day: what is put aside is known by it. */
	key: string;
	kind: FindingKind;
	/** 3: decide now; 2: today; 1: this week. */
	severity: 1 | 2 | 3;
	/** What orders findings of one severity, the larger first. */
	figure: number;
	/** Why it matters, with its figure. */
	sentence: string;
	/** Numbers of the cards it is about. */
	cards: number[];
	person: string | null;
	/** The id of the column it is about. */
	column: string | null;
	remedies: Remedy[];
}

const BLOCKED_DAYS = 3;
const QUIET_DAYS = 3;
/** Fewer cards than this are no pile. */
const PILE = 3;
const SOON_DAYS = 2;
const NEXT_DAYS = 2;
const FAR = 1.5;
const LOAD_FAR = 1.25;

/**
 * What needs somebody today, worst first: by severity, then by figure. Every finding names its cards and what can be
 * done about it.
 */
export function findings(state: RoundsState): Finding[] {
	return [
		...blocked(state),
		...tooOld(state),
		...overLimit(state),
		...starved(state),
		...pilingUp(state),
		...overPromise(state),
		...nothingToDo(state),
		...withoutOwnerOrSize(state),
		...due(state),
		...willNotFit(state),
		...surprisesOver(state),
		...carriedAgain(state),
		...timersLeftOn(state),
		...quiet(state),
		...sprintOver(state),
		...nextNotPlanned(state),
	].sort((a, b) => b.severity - a.severity || b.figure - a.figure || (a.key < b.key ? -1 : 1));
}

/** Working days after a day, up to and with another. */
export function workingDaysAfter(works: (day: Day) => boolean, from: Day, to: Day): number {
	let days = 0;
	for (let day = from + 1; day <= to; day++) if (works(day)) days++;
	return days;
}

const since = (from: Day, today: Day) => today - from + 1;
const days = (n: number) => `${n} ${n === 1 ? 'day' : 'days'}`;
const cards = (n: number) => `${n} ${n === 1 ? 'card' : 'cards'}`;
const hours = (n: number) => `${Math.round(n * 10) / 10} h`;
const amount = (n: number, unit: RoundsState['unit']) =>
	unit === 'points' ? `${Math.round(n * 10) / 10} pt` : hours(n);

function finding(
	kind: FindingKind,
	subject: string | number,
	severity: 1 | 2 | 3,
	figure: number,
	sentence: string,
	more: Partial<Pick<Finding, 'cards' | 'person' | 'column'>> & { remedies: Remedy[] },
): Finding {
	return {
		key: `${kind}:${subject}`,
		kind,
		severity,
		figure,
		sentence,
		person: null,
		column: null,
		...more,
		// A card is named once, however often it is part of what is found.
		cards: [...new Set(more.cards)],
	};
}

function blocked({ cards: all, today }: RoundsState): Finding[] {
	return all.flatMap((card) => {
		if (!card.blocked) return [];
		const n = since(card.blocked.since, today);
		const urgent = card.class === 'expedite';
		return [
			finding(
				'blocked',
				card.number,
				n >= BLOCKED_DAYS || urgent ? 3 : 2,
				n,
				`Blocked for ${days(n)}${urgent ? ', though it is urgent' : ''}: ${card.blocked.reason}${
					card.blocked.waitingFor ? `, waiting for ${card.blocked.waitingFor}` : ''
				}.`,
				{ cards: [card.number], remedies: ['unblock', 'wait-for', 'ask', 'split', 'backlog'] },
			),
		];
	});
}

function tooOld({ cards: all, today, expectation }: RoundsState): Finding[] {
	if (!expectation) return [];
	return all.flatMap((card) => {
		if (card.clock !== 'running' || card.started === null) return [];
		const age = since(card.started, today);
		if (age <= expectation.days) return [];
		return [
			finding(
				'too-old',
				card.number,
				age > FAR * expectation.days ? 3 : 2,
				age,
				`On day ${age}: ${expectation.percentile}% of past cards took ${days(expectation.days)} or fewer.`,
				{ cards: [card.number], remedies: ['split', 'owners', 'ask'] },
			),
		];
	});
}

function overLimit({ columns, cards: all }: RoundsState): Finding[] {
	return columns.flatMap((column, i) => {
		const standing = all.filter((card) => card.column === i);
		if (column.limit === null || standing.length <= column.limit) return [];
		return [
			finding(
				'over-limit',
				column.id,
				standing.length > FAR * column.limit ? 3 : 2,
				standing.length / column.limit,
				`${column.name} holds ${standing.length} with a limit of ${column.limit}: finish or move one before another comes.`,
				{
					cards: standing.map((card) => card.number),
					column: column.id,
					remedies: ['move-on', 'board', 'limit'],
				},
			),
		];
	});
}

function starved({ columns, cards: all, today, works }: RoundsState): Finding[] {
	return columns.flatMap((column, i) => {
		if (column.starvedSince === null || column.limit === null) return [];
		const n = workingDaysAfter(works, column.starvedSince, today);
		if (n < 1) return [];
		const free = column.limit - all.filter((card) => card.column === i).length;
		return [
			finding(
				'starved',
				column.id,
				1,
				n,
				`${column.name} has ${free} free ${free === 1 ? 'slot' : 'slots'}, and nothing in ${columns[i - 1]!.name} could be pulled for ${days(n)}.`,
				{ column: column.id, remedies: ['replenish', 'board'] },
			),
		];
	});
}

function pilingUp({ columns, cards: all }: RoundsState): Finding[] {
	return columns.flatMap((column, i) => {
		if (column.kind !== 'queue' || column.usual === null) return [];
		const waiting = all.filter((card) => card.column === i);
		if (waiting.length <= column.usual || waiting.length < PILE) return [];
		return [
			finding(
				'piling-up',
				column.id,
				1,
				waiting.length,
				`${cards(waiting.length)} wait in ${column.name}; at the end of 85% of the last 90 days it was ${column.usual || 'none'}${column.usual ? ' or fewer' : ''}.`,
				{
					cards: waiting.map((card) => card.number),
					column: column.id,
					remedies: ['move-on', 'board', 'limit'],
				},
			),
		];
	});
}

function overPromise({ parts, people, cards: all, sprint, next, unit }: RoundsState): Finding[] {
	// Points are promised by the count of past sprints: how far somebody is in the middle of one, they do not say.
	if (!sprint || unit === 'points') return [];
	return parts.flatMap((part) => {
		if (part.standing !== 'over') return [];
		const person = people.find((one) => one.id === part.person);
		if (!person) return [];
		const load = part.load ?? Infinity;
		const own = all.filter(
			(card) => card.sprint === sprint.number && !card.unplanned && card.owners.includes(part.person),
		);
		const over =
			part.promise > 0
				? `${amount(part.placed, unit)} with a promise of ${amount(part.promise, unit)}`
				: `${amount(part.placed, unit)} and no hours left to give`;
		return [
			finding(
				'over-promise',
				part.person,
				load > LOAD_FAR ? 3 : 2,
				Math.min(load, 99),
				`${person.name} holds ${over}: ${amount(part.placed - part.promise, unit)} too much.`,
				{
					cards: own.map((card) => card.number),
					person: part.person,
					remedies: ['plan', 'owners', ...(next ? (['next-sprint'] as const) : []), 'split'],
				},
			),
		];
	});
}

/** What somebody could pull now: of the queue furthest along, the first card that nobody else holds and nothing blocks. */
function nextToPull({ columns, cards: all, sprint }: RoundsState, person: string): RoundsCard | null {
	for (let i = columns.length - 2; i >= 0; i--) {
		if (columns[i]!.kind !== 'queue') continue;
		const ready = all.filter(
			(card) =>
				card.column === i &&
				!card.blocked &&
				!card.hasParts &&
				(!sprint || card.sprint === sprint.number) &&
				(!card.owners.length || card.owners.includes(person)),
		);
		const [first] = pullOrder(ready);
		if (first) return first;
	}
	return null;
}

function nothingToDo(state: RoundsState): Finding[] {
	const { people, today, works, columns } = state;
	return people.flatMap((person) => {
		if (person.hours <= 0 || person.idleSince === null) return [];
		const n = workingDaysAfter(works, person.idleSince, today);
		if (n < 1) return [];
		const next = nextToPull(state, person.id);
		return [
			finding(
				'nothing-to-do',
				person.id,
				2,
				n,
				`${person.name} has ${hours(person.hours)} today and no card in hand for ${days(n)}. ${
					next ? `This one waits in ${columns[next.column!]!.name}.` : 'Nothing waits that could be pulled.'
				}`,
				{
					cards: next ? [next.number] : [],
					person: person.id,
					remedies: next ? ['pull', 'board'] : ['board', 'replenish'],
				},
			),
		];
	});
}

function withoutOwnerOrSize({ cards: all, columns, sprint, next, today, unit }: RoundsState): Finding[] {
	const starting = next && next.starts === today + 1 ? next.number : null;
	return all.flatMap((card) => {
		if (card.hasParts || card.clock === 'done') return [];
		const working =
			sprint !== null &&
			card.sprint === sprint.number &&
			card.column !== null &&
			columns[card.column]?.kind === 'work';
		const entering = starting !== null && card.sprint === starting;
		if (!working && !entering) return [];
		const where = working ? `in ${columns[card.column!]!.name}` : `in the sprint that starts tomorrow`;
		return [
			...(card.owners.length
				? []
				: [
						finding('no-owner', card.number, 2, 1, `Nobody owns it, and it is ${where}.`, {
							cards: [card.number],
							remedies: ['owners'] as Remedy[],
						}),
					]),
			...(card.size !== null || unit === 'none'
				? []
				: [
						finding(
							'not-sized',
							card.number,
							1,
							1,
							`It has no size, and it is ${where}: no figure of the sprint counts it.`,
							{ cards: [card.number], remedies: ['size'] as Remedy[] },
						),
					]),
		];
	});
}

function due({ cards: all, today, works }: RoundsState): Finding[] {
	return all.flatMap((card) => {
		if (card.due === null || card.clock === 'done' || card.clock === 'dropped') return [];
		if (today > card.due) {
			const n = today - card.due;
			return [
				finding('late', card.number, 3, n, `It was due ${days(n)} ago.`, {
					cards: [card.number],
					remedies: ['date', 'ask', 'split'],
				}),
			];
		}
		const n = workingDaysAfter(works, today, card.due);
		if (n > SOON_DAYS && card.due !== today) return [];
		return [
			finding(
				'due-soon',
				card.number,
				1,
				-n,
				card.due === today
					? 'It is due today.'
					: `It is due in ${n === 0 ? 'no working day' : n === 1 ? 'one working day' : `${n} working days`}.`,
				{ cards: [card.number], remedies: ['date', 'ask', 'split'] },
			),
		];
	});
}

function willNotFit({ odds, sprint, today, works, cards: all }: RoundsState): Finding[] {
	if (odds === null || odds >= 0.5 || !sprint) return [];
	const whole = workingDaysAfter(works, sprint.starts - 1, sprint.ends);
	const gone = workingDaysAfter(works, sprint.starts - 1, Math.min(today, sprint.ends));
	if (gone * 2 < whole) return [];
	const unfinished = all.filter((card) => card.sprint === sprint.number && card.clock !== 'done');
	return [
		finding(
			'will-not-fit',
			sprint.number,
			3,
			1 - odds,
			`All of sprint ${sprint.number} gets done in ${Math.round(odds * 100)} of 100 tries, and ${gone} of its ${days(whole)} are gone.`,
			{ cards: unfinished.map((card) => card.number), remedies: ['plan', 'report'] },
		),
	];
}

function surprisesOver({ surprises, sprint }: RoundsState): Finding[] {
	if (!surprises || !sprint) return [];
	const { worked, left, kept } = surprises;
	if (worked + left <= kept + 1e-9) return [];
	return [
		finding(
			'surprises-over',
			sprint.number,
			2,
			worked + left - kept,
			`Unplanned cards took ${hours(worked)} and need ${hours(left)} more; ${hours(kept)} were kept back.`,
			{ cards: [...surprises.cards], remedies: ['plan', 'report'] },
		),
	];
}

function carriedAgain({ cards: all, sprint }: RoundsState): Finding[] {
	return all.flatMap((card) =>
		sprint && card.sprint === sprint.number && card.carried >= 2 && card.clock !== 'done'
			? [
					finding(
						'carried-again',
						card.number,
						2,
						card.carried,
						`Carried over ${card.carried} times: what keeps it from being finished?`,
						{ cards: [card.number], remedies: ['split', 'ask'] },
					),
				]
			: [],
	);
}

function timersLeftOn({ timers, people }: RoundsState): Finding[] {
	return timers.map(({ person, card, hours: ran }) =>
		finding(
			'timer-left-on',
			person,
			1,
			ran,
			`The timer of ${people.find((one) => one.id === person)?.name ?? 'somebody'} has run for ${hours(ran)}: it was left on.`,
			{ cards: [card], person, remedies: ['stop-timer'] },
		),
	);
}

function quiet({ cards: all, today, works }: RoundsState): Finding[] {
	return all.flatMap((card) => {
		if (card.clock !== 'running') return [];
		// Whole days: today is not over.
		const n = workingDaysAfter(works, card.touched, today - 1);
		if (n < QUIET_DAYS) return [];
		return [
			finding('quiet', card.number, 2, n, `Nothing has happened to it for ${days(n)} of work.`, {
				cards: [card.number],
				remedies: ['ask', 'owners'],
			}),
		];
	});
}

function sprintOver({ sprint, today, cards: all }: RoundsState): Finding[] {
	if (!sprint || today <= sprint.ends) return [];
	const open = all.filter((card) => card.sprint === sprint.number && card.clock !== 'done');
	return [
		finding(
			'sprint-over',
			sprint.number,
			3,
			today - sprint.ends,
			`Sprint ${sprint.number} ended ${days(today - sprint.ends)} ago and is not settled: ${cards(open.length)} to decide.`,
			{ cards: open.map((card) => card.number), remedies: ['settle'] },
		),
	];
}

function nextNotPlanned({ next, today, works, unit }: RoundsState): Finding[] {
	if (!next || next.promise === null || next.promise <= 0) return [];
	const n = workingDaysAfter(works, today, next.starts);
	const full = next.placed / next.promise;
	if (n > NEXT_DAYS || full >= 0.5) return [];
	const when =
		next.starts <= today
			? 'could have started'
			: n === 1
				? 'starts in one working day'
				: `starts in ${n} working days`;
	return [
		finding(
			'next-not-planned',
			next.number,
			2,
			1 - full,
			`Sprint ${next.number} ${when} and is ${Math.round(full * 100)}% full: ${amount(next.placed, unit)} of ${amount(next.promise, unit)}.`,
			{ remedies: ['plan'] },
		),
	];
}
