import { count } from '../../words.ts';
import { finding, workingDaysAfter } from '../finding.ts';
import type { Finder } from '../state.ts';

/** Questions to somebody that have waited for a working day: the oldest of each card and person. */
export const unanswered: Finder = ({ questions, works, today }) => {
	const waited = questions
		.map((question) => ({ ...question, days: workingDaysAfter(works, question.since, today) }))
		.filter(({ days }) => days >= 1)
		.sort((a, b) => b.days - a.days);
	const seen = new Set<string>();
	return waited.flatMap(({ person, name, card, asker, days }) => {
		const subject = `${card}-${person}`;
		if (seen.has(subject)) return [];
		seen.add(subject);
		return [
			finding(
				'unanswered',
				subject,
				1,
				days,
				`${asker} asked ${name} ${count(days, 'working day')} ago, and nobody has answered.`,
				{ cards: [card], person, remedies: ['answer'] },
			),
		];
	});
};
