import type { Day, Instant, Zone } from '../calendar/zone.ts';
import { type CardClock } from './clock.ts';
import type { HistoryEvent } from './history.ts';
import type { Layout } from './layout.ts';
import { Lifetimes, type ClockStep } from './lifetime.ts';

/** How many cards stood where at the end of a day. Columns are in the layout's order. */
export interface Standing {
	day: Day;
	/** Cards whose clock was running. */
	wip: number;
	columns: number[];
}

/** What is kept of day counts, to go on from there later. */
export interface KeptDays {
	over: Standing[];
	columns: number[];
	wip: number;
	day: Day | null;
	/** null: no day has begun */
	ends: Instant | null;
}

/**
 * What stood where at the end of each day, followed change by change, in time order. Archived cards count only in done
 * columns; the backlog is not counted.
 */
export class DayCounts {
	readonly #layout: Layout;
	readonly #zone: Zone;
	/** Of the days that are over, one after the other; before the first of them nothing stood. */
	#over: Standing[] = [];
	#columns: number[];
	#wip = 0;
	#day: Day | null = null;
	#ends: Instant = -Infinity;

	constructor(layout: Layout, zone: Zone) {
		this.#layout = layout;
		this.#zone = zone;
		this.#columns = layout.columns.map(() => 0);
	}

	/** What they have counted, as it is now: to be written down at once. */
	kept(): KeptDays {
		const ends = this.#day === null ? null : this.#ends;
		return { over: this.#over, columns: this.#columns, wip: this.#wip, day: this.#day, ends };
	}

	/** Goes on from what was kept. */
	resume({ over, columns, wip, day, ends }: KeptDays): void {
		this.#over = over;
		this.#columns = columns;
		this.#wip = wip;
		this.#day = day;
		this.#ends = ends ?? -Infinity;
	}

	take(at: Instant, { before, after }: ClockStep): void {
		if (before === after) return;
		if (at >= this.#ends) this.#goOn(this.#zone.day(at));
		this.#count(before, -1);
		this.#count(after, 1);
	}

	/** Takes a change that came in before out again, or (1) one in that happened before what came in last. */
	mend(at: Instant, { before, after }: ClockStep, by: 1 | -1): void {
		if (before === after) return;
		const day = this.#zone.day(at);
		// A day without counts yet begins with what stands now.
		if (this.#day === null || day > this.#day) this.#goOn(day);
		const first = this.#over[0]?.day ?? this.#day!;
		for (let early = first - 1; early >= day; early--)
			this.#over.unshift({ day: early, wip: 0, columns: this.#columns.map(() => 0) });
		for (const over of this.#over) {
			if (over.day < day) continue;
			over.wip += by * (running(after) - running(before));
			this.#stand(over.columns, before, -by);
			this.#stand(over.columns, after, by);
		}
		this.#wip += by * (running(after) - running(before));
		this.#stand(this.#columns, before, -by);
		this.#stand(this.#columns, after, by);
	}

	/** The days from…to; what stands now stands on from the last day on which something changed. */
	between(from: Day, to: Day): Standing[] {
		const first = this.#over[0]?.day ?? this.#day ?? Infinity;
		return Array.from({ length: Math.max(0, to - from + 1) }, (_, i) => {
			const day = from + i;
			if (day < first) return { day, wip: 0, columns: this.#columns.map(() => 0) };
			const over = this.#over[day - first];
			return over ?? { day, wip: this.#wip, columns: [...this.#columns] };
		});
	}

	#goOn(day: Day): void {
		for (let over = this.#day ?? day; over < day; over++)
			this.#over.push({ day: over, wip: this.#wip, columns: [...this.#columns] });
		this.#day = day;
		this.#ends = this.#zone.startOf(day + 1);
	}

	#count(clock: CardClock, by: 1 | -1): void {
		this.#wip += by * running(clock);
		this.#stand(this.#columns, clock, by);
	}

	#stand(columns: number[], clock: CardClock, by: number): void {
		if (clock.column === null) return;
		if (clock.archived && this.#layout.columns[clock.column]?.kind !== 'done') return;
		columns[clock.column]! += by;
	}
}

const running = (clock: CardClock) => (clock.state === 'running' ? 1 : 0);

/**
 * Work in hand and cumulative flow: what stood where at the end of each day, from the history up to then (on the
 * as-of day, up to as-of). Archived cards count only in done columns; the backlog is not counted.
 * @param events in time order
 */
export function standing(
	layout: Layout,
	zone: Zone,
	events: readonly HistoryEvent[],
	from: Day,
	to: Day,
	asOf: Instant,
): Standing[] {
	const lives = new Lifetimes(layout);
	const counts = new DayCounts(layout, zone);
	for (const event of events) {
		if (event.at > asOf) break;
		counts.take(event.at, lives.take(event));
	}
	return counts.between(from, to);
}
