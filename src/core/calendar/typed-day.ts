import * as chrono from 'chrono-node';
import { parseDay } from './days.ts';
import { DAY_MS, type Day } from './zone.ts';

const FIRST = parseDay('1900-01-01')!;
const LAST = parseDay('2200-01-01')!;
/** A day without a year is the next one of that name, or one that was not long ago. */
const LATELY = 60;

/**
 * A day as people write it: `4 dec`, `fri`, `tomorrow`, `+2w`, `04.12.`, `4/12/2026` (day first), `2026-12-04`.
 * @param today from which days without a year, and counted ones, are told
 * @returns null when the text is no day
 */
export function typedDay(text: string, today: Day): Day | null {
	const plain = text.trim().toLowerCase();
	const day = parseDay(plain) ?? counted(plain, today) ?? figures(plain, today) ?? inWords(plain, today);
	return day !== null && day >= FIRST && day <= LAST ? day : null;
}

const dayOf = (year: number, month: number, day: number): Day | null =>
	parseDay(
		`${String(year).padStart(4, '0')}-${String(month).padStart(2, '0')}-${String(day).padStart(2, '0')}`,
	);

/** `+3d`, `+2w`, `+1m`: so many days, weeks or months on. */
function counted(text: string, today: Day): Day | null {
	const found = /^\+\s*(\d{1,3})\s*(d|w|m)\w*$/.exec(text);
	if (!found) return null;
	const n = Number(found[1]);
	if (found[2] !== 'm') return today + n * (found[2] === 'w' ? 7 : 1);
	const from = new Date(today * DAY_MS);
	const last = new Date(Date.UTC(from.getUTCFullYear(), from.getUTCMonth() + n + 1, 0)).getUTCDate();
	const on = Date.UTC(from.getUTCFullYear(), from.getUTCMonth() + n, Math.min(from.getUTCDate(), last));
	return on / DAY_MS;
}

/** `4.12.`, `04.12.26`, `4/12/2026`: the day first. */
function figures(text: string, today: Day): Day | null {
	const found = /^(\d{1,2})\s*[./-]\s*(\d{1,2})\s*(?:[./-]\s*(\d{2}|\d{4})?)?$/.exec(text);
	if (!found) return null;
	const [day, month] = [Number(found[1]), Number(found[2])];
	if (found[3]) return dayOf(Number(found[3]) + (found[3].length === 2 ? 2000 : 0), month, day);
	const year = new Date(today * DAY_MS).getUTCFullYear();
	const near = dayOf(year, month, day);
	return near !== null && near < today - LATELY ? dayOf(year + 1, month, day) : near;
}

function inWords(text: string, today: Day): Day | null {
	const reference = { instant: new Date(today * DAY_MS + DAY_MS / 2), timezone: 0 };
	const [found] = chrono.en.GB.parse(text, reference, { forwardDate: true });
	// All of it has to be a day: words beside it would be lost.
	if (!found || found.text.length !== text.length || found.start.isCertain('hour')) return null;
	const { start } = found;
	return dayOf(start.get('year')!, start.get('month')!, start.get('day')!);
}
