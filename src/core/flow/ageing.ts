import { calendarDays, type DayCount } from '../calendar/day-count.ts';
import type { Day, Instant, Zone } from '../calendar/zone.ts';
import { inParts, STEP } from '../steps.ts';
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
 * is the width of the shape at that age. In steps, between which others may have their turn.
 */
export function* pastShapes(
	lives: readonly Lifetime[],
	layout: Layout,
	zone: Zone,
	from: Day,
	to: Day,
	count: DayCount = calendarDays,
): Generator<void, number[][]> {
	const shapes: number[][] = layout.columns.map(() => []);
	const shape = ({ state, started, finished, stays }: Lifetime) => {
		if (state !== 'done' || started === null || finished === null) return;
		const day = zone.day(finished);
		if (day < from || day > to) return;
		const left = new Map<number, Instant>();
		for (const stay of stays)
			if (stay.until !== null && stay.until <= finished) left.set(stay.column, stay.until);
		for (const [column, at] of left)
			if (at >= started) shapes[column]!.push(count(zone.day(started), zone.day(at)));
	};
	for (const some of inParts(lives, STEP)) {
		some.forEach(shape);
		yield;
	}
	for (const ages of shapes) ages.sort((a, b) => a - b);
	return shapes;
}
