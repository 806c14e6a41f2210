import { calendarDays, type DayCount } from '../calendar/day-count.ts';
import type { Day, Instant, Zone } from '../calendar/zone.ts';
import type { Layout } from './layout.ts';
import type { Lifetime } from './lifetime.ts';

/** How old a card in hand is, and how long it has stood where it stands; the column is its place in the layout. */
export interface Age {
	card: string;
	column: number;
	ageDays: number;
	columnDays: number;
}

/** The ages of all running cards, both first and last day counted. */
export function ageing(
	lives: readonly Lifetime[],
	zone: Zone,
	asOf: Instant,
	count: DayCount = calendarDays,
): Age[] {
	const today = zone.day(asOf);
	return lives.flatMap((life) =>
		life.state === 'running' && life.started !== null && life.column !== null && life.entered !== null
			? [
					{
						card: life.card,
						column: life.column,
						ageDays: count(zone.day(life.started), today),
						columnDays: count(zone.day(life.entered), today),
					},
				]
			: [],
	);
}

/**
 * The past shape of each column: how old the cards finished from…to were when they left it for the last time before
 * finishing, in rising order. A leaving before the card's start is left out. The share of figures larger than an age
 * is the width of the shape at that age.
 */
export function pastShapes(
	lives: readonly Lifetime[],
	layout: Layout,
	zone: Zone,
	from: Day,
	to: Day,
	count: DayCount = calendarDays,
): number[][] {
	const shapes: number[][] = layout.columns.map(() => []);
	for (const life of lives) {
		if (life.state !== 'done' || life.started === null || life.finished === null) continue;
		const day = zone.day(life.finished);
		if (day < from || day > to) continue;
		const left = new Map<number, Instant>();
		for (const stay of life.stays)
			if (stay.until !== null && stay.until <= life.finished) left.set(stay.column, stay.until);
		for (const [column, at] of left)
			if (at >= life.started) shapes[column]!.push(count(zone.day(life.started), zone.day(at)));
	}
	for (const shape of shapes) shape.sort((a, b) => a - b);
	return shapes;
}
