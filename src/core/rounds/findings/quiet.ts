import type { Day } from '../../calendar/zone.ts';
import { count } from '../../words.ts';
import { finding, workingDaysAfter } from '../finding.ts';
import type { Finder } from '../state.ts';

const QUIET_DAYS = 3;

/** Cards in hand to which nothing has happened for days. */
export const quiet: Finder = ({ cards: all, today, works }) => {
	// Whole days: today is not over. Many cards were touched on one day.
	const known = new Map<Day, number>();
	const since = (day: Day) => {
		const n = known.get(day) ?? workingDaysAfter(works, day, today - 1);
		known.set(day, n);
		return n;
	};
	return all.flatMap((card) => {
		if (card.clock !== 'running') return [];
		const n = since(card.touched);
		if (n < QUIET_DAYS) return [];
		return [
			finding('quiet', card.number, 2, n, `Nothing has happened to it for ${count(n, 'day')} of work.`, {
				cards: [card.number],
				remedies: ['ask', 'owners'],
			}),
		];
	});
};
