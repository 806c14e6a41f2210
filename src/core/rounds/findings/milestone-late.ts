import { format, parseISO } from 'date-fns';
import { dayText } from '../../calendar/days.ts';
import { count, list } from '../../words.ts';
import { finding, workingDaysAfter } from '../finding.ts';
import type { Finder } from '../state.ts';

/** So many working days before a milestone what will not be done before it is to be decided now. */
const NEAR_DAYS = 5;

/** Milestones before which something will not be done that must be. */
export const milestoneLate: Finder = ({ milestones, today, works }) =>
	milestones.flatMap(({ id, name, day, late }) => {
		if (!late.length) return [];
		const worst = Math.max(...late.map(({ days }) => days));
		const near = day <= today || workingDaysAfter(works, today, day) <= NEAR_DAYS;
		const said = late.map(({ what, days }) => `${what} ${count(days, 'day')} after it`);
		return [
			finding(
				'milestone-late',
				id,
				near ? 3 : 2,
				worst,
				`${name}, on ${format(parseISO(dayText(day)), 'EEE d MMM')}, will not be met: ${list(said.slice(0, 3))}${said.length > 3 ? `, and ${said.length - 3} more` : ''}.`,
				{ cards: late.flatMap(({ card }) => card ?? []), remedies: ['date', 'ask', 'split', 'panorama'] },
			),
		];
	});
