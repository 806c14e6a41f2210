import { amount } from '../../words.ts';
import { finding, inWorkingDays, workingDaysAfter } from '../finding.ts';
import type { Finder } from '../state.ts';

const NEXT_DAYS = 2;

/** A sprint that starts soon and is less than half full. */
export const nextNotPlanned: Finder = ({ next, today, works, unit }) => {
	if (!next || next.promise === null || next.promise <= 0) return [];
	const n = workingDaysAfter(works, today, next.starts);
	const full = next.placed / next.promise;
	if (n > NEXT_DAYS || full >= 0.5) return [];
	const when = next.starts <= today ? 'could have started' : `starts ${inWorkingDays(n)}`;
	return [
		finding(
			'next-not-planned',
			next.number,
			2,
			1 - full,
			`Sprint ${next.number} ${when} and is ${Math.round(full * 100)}% full: ${amount(next.placed, unit)} of ${amount(next.promise, unit)}.`,
			{ remedies: ['plan'] },
		),
	];
};
