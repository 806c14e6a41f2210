import { count } from '../../words.ts';
import { finding, workingDaysAfter } from '../finding.ts';
import type { Finder } from '../state.ts';

/** A running sprint, half over, of which not all will be done. */
export const willNotFit: Finder = ({ odds, sprint, today, works, cards: all }) => {
	if (odds === null || odds >= 0.5 || !sprint) return [];
	const whole = workingDaysAfter(works, sprint.starts - 1, sprint.ends);
	const gone = workingDaysAfter(works, sprint.starts - 1, Math.min(today, sprint.ends));
	if (gone * 2 < whole) return [];
	const unfinished = all.filter((card) => card.sprint === sprint.number && card.clock !== 'done');
	return [
		finding(
			'will-not-fit',
			sprint.number,
			3,
			1 - odds,
			`All of sprint ${sprint.number} gets done in ${Math.round(odds * 100)} of 100 tries, and ${gone} of its ${count(whole, 'day')} are gone.`,
			{ cards: unfinished.map((card) => card.number), remedies: ['plan', 'report'] },
		),
	];
};
