import type { Instant } from '../calendar/zone.ts';
import type { BoardSprint } from '../exchange/board-file.ts';
import { NEW_CLOCK, step, type CardClock } from '../flow/clock.ts';
import type { HistoryEvent } from '../flow/history.ts';
import type { Layout } from '../flow/layout.ts';
import { sized, splitOff } from './left.ts';

export type Outcome = 'done' | 'carried' | 'returned' | 'dropped' | 'removed';

/** One card's stay in one sprint. Always: entry + resized = burned + splitOff + exit. */
export interface Stint {
	card: string;
	kind: 'committed' | 'added';
	planned: boolean;
	entry: number;
	resized: number;
	burned: number;
	worked: number;
	splitOff: number;
	exit: number;
	outcome: Outcome | null;
	/** When it was opened; and when it ended, by leaving or by the close: null while it runs. */
	opened: Instant;
	ended: Instant | null;
}

/** A card with its part of a figure. */
export interface CardAmount {
	card: string;
	amount: number;
}

/** One thing that changed how much work a running sprint holds. Resizes may be below 0; all else is 0 or more. */
export interface Move {
	at: Instant;
	card: string;
	kind: 'added' | 'resized' | 'burned' | 'splitOff' | 'removed' | 'dropped';
	amount: number;
}

/**
 * A sprint's account made of its stints. Always:
 * committed + added + resized = burned + splitOff + removed + carried + returned + dropped + open.
 */
export interface Ledger {
	number: number;
	committed: number;
	added: number;
	resized: number;
	burned: number;
	worked: number;
	splitOff: number;
	removed: number;
	carried: number;
	returned: number;
	dropped: number;
	open: number;
	delivered: number;
	stints: Stint[];
	/** Everything that changed what is left after the committed total, up to the closing instant, in time order. */
	moves: Move[];
}

export interface SprintBoard extends Layout {
	unit: 'hours' | 'points';
	sprints: BoardSprint[];
}

interface Work extends CardWork {
	clock: CardClock;
	stint: Stint | null;
	/** A stint frozen at the close whose outcome has no name yet. */
	unnamed: Stint | null;
}

/** What a card's history says of its work: how big it is, what is left, which sprint's list or stint it is on. */
export interface CardWork {
	card: string;
	size: number | null;
	left: number;
	sprint: number | null;
	/** It stands in the backlog and is not archived. */
	waits: boolean;
	/** It is finished, as its history stands now. */
	done: boolean;
}

/**
 * The ledgers of all sprints started by an instant, by number.
 * A stint opens when the sprint starts, or when a card is put into a running one; while it is open every change of
 * what is left is burned, resized or split off; it is frozen when the card leaves or the sprint closes.
 * Beside them what each card is left with.
 * @param events in time order
 */
export function sprintAccounts(
	board: SprintBoard,
	events: readonly HistoryEvent[],
	asOf: Instant,
): { ledgers: Ledger[]; cards: Map<string, CardWork> } {
	const cards = new Map<string, Work>();
	const books = new Map<number, { sprint: BoardSprint; ledger: Ledger }>();
	const running = new Map<number, BoardSprint>();

	const openStint = (work: Work, number: number, kind: Stint['kind'], opened: Instant) => {
		const entry = work.left;
		const zero = { resized: 0, burned: 0, worked: 0, splitOff: 0, exit: entry, outcome: null, ended: null };
		work.stint = { card: work.card, kind, planned: kind === 'committed', entry, ...zero, opened };
		work.unnamed = null;
		const ledger = books.get(number)!.ledger;
		ledger.stints.push(work.stint);
		if (kind === 'added') ledger.moves.push({ at: opened, card: work.card, kind, amount: entry });
	};
	const closeStint = (work: Work, outcome: Outcome, at: Instant) => {
		if (!work.stint) return;
		work.stint.exit = work.left;
		work.stint.outcome = outcome;
		work.stint.ended = at;
		work.stint = null;
	};
	/** Whether the sprint that the card is in closes at this very instant: then leaving it is a decision about it. */
	const closing = (work: Work, at: Instant) =>
		work.sprint !== null && running.get(work.sprint)?.closedAt === at;
	const moved = (work: Work, at: Instant, kind: Move['kind'], amount: number) => {
		if (!work.stint || work.sprint === null || closing(work, at)) return;
		books.get(work.sprint)?.ledger.moves.push({ at, card: work.card, kind, amount });
	};
	const leave = (work: Work, at: Instant, atTheClose: Outcome) => {
		moved(work, at, 'removed', work.left);
		closeStint(work, closing(work, at) ? atTheClose : 'removed', at);
		work.sprint = null;
	};
	const burn = (work: Work, at: Instant, amount: number) => {
		if (work.stint && amount) {
			work.stint.burned += amount;
			moved(work, at, 'burned', amount);
		}
		work.left -= amount;
	};
	const resize = (work: Work, at: Instant, left: number) => {
		if (work.stint && left !== work.left) {
			work.stint.resized += left - work.left;
			moved(work, at, 'resized', left - work.left);
		}
		work.left = left;
	};
	const name = (work: Work, outcome: Outcome) => {
		if (work.unnamed) work.unnamed.outcome = outcome;
		work.unnamed = null;
	};

	const take = (work: Work, event: HistoryEvent) => {
		const before = work.clock;
		work.clock = step(board, before, event);
		const isDone = before.state === 'done';
		switch (event.event) {
			case 'sprint': {
				if (before.archived) return;
				const number = event.value ? Number(event.value) : null;
				if (number === work.sprint && !work.unnamed) return;
				name(work, number === null ? 'returned' : 'carried');
				if (work.stint) leave(work, event.at, isDone ? 'done' : number === null ? 'returned' : 'carried');
				work.sprint = number;
				if (number !== null && running.has(number)) openStint(work, number, 'added', event.at);
				return;
			}
			case 'column': {
				if (work.clock === before) return;
				if (work.clock.column === null) {
					name(work, 'returned');
					if (work.stint) leave(work, event.at, 'returned');
				} else if (work.clock.state === 'done' && !isDone) {
					name(work, 'returned');
					burn(work, event.at, work.left);
				}
				return;
			}
			case 'archived': {
				if (before.archived || isDone) return;
				name(work, 'dropped');
				moved(work, event.at, 'dropped', work.left);
				closeStint(work, 'dropped', event.at);
				work.sprint = null;
				return;
			}
			case 'sized': {
				const { size, left } = sized(work, Number(event.value), isDone);
				resize(work, event.at, left);
				work.size = size;
				return;
			}
			case 'left':
				if (!isDone) resize(work, event.at, Number(event.value));
				return;
			case 'worked': {
				const hours = Number(event.value);
				if (work.stint) work.stint.worked += hours;
				if (board.unit !== 'hours') return;
				burn(work, event.at, Math.min(work.left, hours));
				return;
			}
			case 'split': {
				if (isDone) return;
				const { part, size, left } = splitOff(work, Number(event.value));
				if (work.stint) work.stint.splitOff += part;
				moved(work, event.at, 'splitOff', part);
				Object.assign(work, { size, left });
				return;
			}
			case 'planned':
				if (work.stint) work.stint.planned = event.value === 'yes';
		}
	};

	const start = (sprint: BoardSprint) => {
		books.set(sprint.number, { sprint, ledger: emptyLedger(sprint.number) });
		running.set(sprint.number, sprint);
		for (const work of cards.values())
			if (work.sprint === sprint.number) openStint(work, sprint.number, 'committed', sprint.startedAt!);
	};
	const close = (sprint: BoardSprint) => {
		for (const work of cards.values()) {
			if (work.sprint !== sprint.number || !work.stint) continue;
			const { stint } = work;
			if (work.clock.state === 'done') closeStint(work, 'done', sprint.closedAt!);
			else {
				stint.exit = work.left;
				stint.ended = sprint.closedAt;
				work.unnamed = stint;
				work.stint = null;
			}
			work.sprint = null;
		}
		running.delete(sprint.number);
	};

	for (const { act } of turns(board.sprints, asOf, start, close, events)) {
		if (typeof act === 'function') {
			act();
			continue;
		}
		let work = cards.get(act.card);
		if (!work)
			cards.set(
				act.card,
				(work = {
					card: act.card,
					clock: NEW_CLOCK,
					size: null,
					left: 0,
					sprint: null,
					waits: true,
					done: false,
					stint: null,
					unnamed: null,
				}),
			);
		take(work, act);
	}
	const done = [...books.values()].map(({ ledger }) => totals(ledger));
	for (const work of cards.values()) {
		work.waits = work.clock.column === null && !work.clock.archived;
		work.done = work.clock.state === 'done';
	}
	return { ledgers: done.sort((a, b) => a.number - b.number), cards };
}

/** What is left of an open stint: all that came in and was neither burned nor split off. */
function leftOf(stint: Stint): number {
	return stint.entry + stint.resized - stint.burned - stint.splitOff;
}

/** Events and turns of sprints in time order: at one instant first the events, then what closes, then what starts. */
function* turns(
	sprints: readonly BoardSprint[],
	asOf: Instant,
	start: (sprint: BoardSprint) => void,
	close: (sprint: BoardSprint) => void,
	events: readonly HistoryEvent[],
): Generator<{ act: HistoryEvent | (() => void) }> {
	const edges: { at: Instant; order: number; act: () => void }[] = [];
	for (const sprint of sprints) {
		if (sprint.startedAt === null) continue;
		edges.push({ at: sprint.startedAt, order: 1, act: () => start(sprint) });
		// A sprint that closes the instant it starts closes after its start.
		const order = sprint.closedAt === sprint.startedAt ? 2 : 0;
		if (sprint.closedAt !== null) edges.push({ at: sprint.closedAt, order, act: () => close(sprint) });
	}
	edges.sort((a, b) => a.at - b.at || a.order - b.order);
	let next = 0;
	for (const event of events) {
		if (event.at > asOf) break;
		for (; next < edges.length && edges[next]!.at < event.at; next++) yield edges[next]!;
		yield { act: event };
	}
	for (; next < edges.length && edges[next]!.at <= asOf; next++) yield edges[next]!;
}

function emptyLedger(number: number): Ledger {
	const flows = { committed: 0, added: 0, resized: 0, burned: 0, worked: 0, splitOff: 0 };
	const ends = { removed: 0, carried: 0, returned: 0, dropped: 0, open: 0, delivered: 0 };
	return { number, ...flows, ...ends, stints: [], moves: [] };
}

function totals(ledger: Ledger): Ledger {
	for (const stint of ledger.stints) {
		ledger[stint.kind] += stint.entry;
		for (const flow of ['resized', 'burned', 'worked', 'splitOff'] as const) ledger[flow] += stint[flow];
		if (stint.outcome === 'done') ledger.delivered += stint.burned;
		// Still running: what is left now. Frozen: as it was at the close.
		if (stint.outcome === null) stint.exit = leftOf(stint);
		if (stint.outcome === null) ledger.open += stint.exit;
		else if (stint.outcome !== 'done') ledger[stint.outcome] += stint.exit;
	}
	ledger.stints = inCardOrder(ledger.stints);
	return ledger;
}

function inCardOrder(stints: readonly Stint[]): Stint[] {
	return [...stints].sort((a, b) => (a.card < b.card ? -1 : a.card > b.card ? 1 : 0));
}
