import { amount } from '../../words.ts';
import { finding } from '../finding.ts';
import type { Finder } from '../state.ts';

/** Timers that nobody stopped. */
export const timersLeftOn: Finder = ({ timers, people }) => {
	return timers.map(({ person, card, hours: ran }) =>
		finding(
			'timer-left-on',
			person,
			1,
			ran,
			`The timer of ${people.find((one) => one.id === person)?.name ?? 'somebody'} has run for ${amount(ran, 'hours')}: it was left on.`,
			{ cards: [card], person, remedies: ['stop-timer'] },
		),
	);
};
