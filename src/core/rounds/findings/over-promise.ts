import { amount } from '../../words.ts';
import { finding } from '../finding.ts';
import type { Finder } from '../state.ts';

const LOAD_FAR = 1.25;

/** People who hold more of the running sprint than they can promise. */
export const overPromise: Finder = ({ parts, people, cards: all, sprint, next, unit }) => {
	// Points are promised by the count of past sprints: how far somebody is in the middle of one, they do not say.
	if (!sprint || unit === 'points') return [];
	return parts.flatMap((part) => {
		if (part.standing !== 'over') return [];
		const person = people.find((one) => one.id === part.person);
		if (!person) return [];
		const load = part.load ?? Infinity;
		const own = all.filter(
			(card) => card.sprint === sprint.number && !card.unplanned && card.owners.includes(part.person),
		);
		const over =
			part.promise > 0
				? `${amount(part.placed, unit)} with a promise of ${amount(part.promise, unit)}`
				: `${amount(part.placed, unit)} and no hours left to give`;
		return [
			finding(
				'over-promise',
				part.person,
				load > LOAD_FAR ? 3 : 2,
				Math.min(load, 99),
				`${person.name} holds ${over}: ${amount(part.placed - part.promise, unit)} too much.`,
				{
					cards: own.map((card) => card.number),
					person: part.person,
					remedies: ['plan', 'owners', ...(next ? (['next-sprint'] as const) : []), 'split'],
				},
			),
		];
	});
};
