import { sum } from 'd3-array';
import { calendarDays, type DayCount } from '../calendar/day-count.ts';
import { HOUR_MS, type Instant, type Zone } from '../calendar/zone.ts';
import type { Layout } from './layout.ts';
import type { Lifetime, Spell } from './lifetime.ts';

/**
 * Days a card took, counting both its first and its last day, in the board's time zone. Null unless it is done.
 * Source: the trade's usual definition of cycle time (finish date − start date + 1).
 */
export function cycleDays(life: Lifetime, zone: Zone, count: DayCount = calendarDays): number | null {
	if (life.state !== 'done' || life.started === null || life.finished === null) return null;
	return count(zone.day(life.started), zone.day(life.finished));
}

/** Days from a card's making to its finish, both counted. Null unless done, or when it was made after its finish. */
export function leadDays(life: Lifetime, zone: Zone, count: DayCount = calendarDays): number | null {
	if (life.state !== 'done' || life.finished === null) return null;
	if (life.created === null || life.created > life.finished) return null;
	return count(zone.day(life.created), zone.day(life.finished));
}

/** Hours from start to finish. Null unless done. */
export function cycleHours(life: Lifetime): number | null {
	if (life.state !== 'done' || life.started === null || life.finished === null) return null;
	return (life.finished - life.started) / HOUR_MS;
}

/** Milliseconds that two spells share; an open spell lasts to `open`. */
function overlap(a: Spell, b: Spell, open: Instant): number {
	return Math.max(0, Math.min(a.until ?? open, b.until ?? open) - Math.max(a.from, b.from));
}

/** Hours a done card was blocked between its start and its finish. Null unless done. */
export function blockedHours(life: Lifetime, asOf: Instant): number | null {
	const span = spanOf(life);
	if (!span) return null;
	return sum(life.blockages, (blockage) => overlap(span, blockage, asOf)) / HOUR_MS;
}

/** Hours a done card was worked on: in columns of kind work and not blocked, between start and finish. Null unless done. */
export function activeHours(life: Lifetime, layout: Layout, asOf: Instant): number | null {
	const span = spanOf(life);
	if (!span) return null;
	let sum = 0;
	for (const stay of life.stays) {
		if (layout.columns[stay.column]?.kind !== 'work') continue;
		const inside = { from: Math.max(stay.from, span.from), until: Math.min(stay.until ?? asOf, span.until) };
		if (inside.until <= inside.from) continue;
		sum += inside.until - inside.from;
		for (const blockage of life.blockages) sum -= overlap(inside, blockage, asOf);
	}
	return sum / HOUR_MS;
}

/** Share of a done card's time from start to finish in which it was worked on; null unless done, or when it took no time. */
export function flowEfficiency(life: Lifetime, layout: Layout, asOf: Instant): number | null {
	const all = cycleHours(life);
	const active = activeHours(life, layout, asOf);
	return all && active !== null ? active / all : null;
}

/** Hours a done card stood in each column between start and finish, by the column's place in the layout. */
export function columnHours(life: Lifetime, layout: Layout, asOf: Instant): number[] {
	const hours = layout.columns.map(() => 0);
	const span = spanOf(life);
	if (span)
		for (const stay of life.stays)
			hours[stay.column] = (hours[stay.column] ?? 0) + overlap(span, stay, asOf) / HOUR_MS;
	return hours;
}

function spanOf(life: Lifetime): { from: Instant; until: Instant } | null {
	if (life.state !== 'done' || life.started === null || life.finished === null) return null;
	return { from: life.started, until: life.finished };
}
