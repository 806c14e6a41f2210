import { count } from '../../words.ts';
import { finding } from '../finding.ts';
import type { Finder } from '../state.ts';

/** A sprint that is over and not settled. */
export const sprintOver: Finder = ({ sprint, today, cards: all }) => {
	if (!sprint || today <= sprint.ends) return [];
	const open = all.filter((card) => card.sprint === sprint.number && card.clock !== 'done');
	return [
		finding(
			'sprint-over',
			sprint.number,
			3,
			today - sprint.ends,
			`Sprint ${sprint.number} ended ${count(today - sprint.ends, 'day')} ago and is not settled: ${count(open.length, 'card')} to decide.`,
			{ cards: open.map((card) => card.number), remedies: ['settle'] },
		),
	];
};
