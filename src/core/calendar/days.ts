import { DAY_MS, type Day } from './zone.ts';

/** Texts of days that were asked for lately: pages with thousands of dates ask for the same few again and again. */
const texts = new Map<Day, string>();
const days = new Map<string, Day>();
const MOST_KEPT = 20_000;
function kept<K, V>(known: Map<K, V>, key: K, value: V): V {
	if (known.size >= MOST_KEPT) known.clear();
	known.set(key, value);
	return value;
}

/** A date as text, `2026-11-23`. */
export function dayText(day: Day): string {
	return texts.get(day) ?? kept(texts, day, new Date(day * DAY_MS).toISOString().slice(0, 10));
}

/** Reads `2026-11-23`; null when the text is not a real date in that form. */
export function parseDay(text: string): Day | null {
	const known = days.get(text);
	if (known !== undefined) return known;
	if (!/^\d{4}-\d{2}-\d{2}$/.test(text)) return null;
	const at = Date.parse(`${text}T00:00:00Z`);
	if (Number.isNaN(at)) return null;
	const day = at / DAY_MS;
	return dayText(day) === text ? kept(days, text, day) : null;
}

/** Weekday of a date, 0 for Monday to 6 for Sunday (ISO 8601 order). */
export function weekday(day: Day): number {
	return (((day + 3) % 7) + 7) % 7;
}

/** The Monday of the ISO week that the date lies in. */
export function mondayOf(day: Day): Day {
	return day - weekday(day);
}

/** The ISO 8601 week of a date, `2026-W31`: the week belongs to the year of its Thursday. */
export function weekText(day: Day): string {
	const thursday = mondayOf(day) + 3;
	const year = new Date(thursday * DAY_MS).getUTCFullYear();
	const first = Date.UTC(year, 0, 1) / DAY_MS;
	return `${year}-W${String(Math.floor((thursday - first) / 7) + 1).padStart(2, '0')}`;
}
