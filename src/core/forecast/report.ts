import { dayText } from '../calendar/days.ts';
import type { Instant, Zone } from '../calendar/zone.ts';
import type { FlowFold } from '../flow/fold.ts';
import { howMany, when, windowBefore } from './throughput.ts';

const CONFIDENCES = [50, 70, 85, 95] as const;
type At<V> = { p50: V; p70: V; p85: V; p95: V };
const DAYS = 14;
const ITEMS = 20;

/** What a board's own past says of what comes. */
export interface ForecastReport {
	windowFrom: string;
	windowTo: string;
	howMany: { days: number } & At<number>;
	/** In days. */
	when: { items: number } & At<number | null>;
}

/** How many cards in two weeks, and in how many days twenty; null where too few were finished lately. */
export function forecastReport(flow: FlowFold, zone: Zone, asOf: Instant): ForecastReport | null {
	const today = zone.day(asOf);
	const first = flow.first === null ? today : zone.day(flow.first);
	const window = windowBefore(new Map(flow.finishedByDay()), first, today);
	if (!window) return null;
	const shares = CONFIDENCES.map((p) => p / 100);
	return {
		windowFrom: dayText(window.from),
		windowTo: dayText(window.to),
		howMany: { days: DAYS, ...named(howMany(window.counts, DAYS, shares)) },
		when: { items: ITEMS, ...named(when(window.counts, ITEMS, shares)) },
	};
}

const named = <V>(values: readonly V[]): At<V> => ({
	p50: values[0]!,
	p70: values[1]!,
	p85: values[2]!,
	p95: values[3]!,
});
