import { pullOrder } from '../../backlog/replenish.ts';
import { amount, count } from '../../words.ts';
import { finding, workingDaysAfter } from '../finding.ts';
import type { Finder, RoundsCard, RoundsState } from '../state.ts';

/** What somebody could pull now: of the queue furthest along, the first card that nobody else holds and nothing blocks. */
function nextToPull({ columns, cards: all, sprint }: RoundsState, person: string): RoundsCard | null {
	for (let i = columns.length - 2; i >= 0; i--) {
		if (columns[i]!.kind !== 'queue') continue;
		const ready = all.filter(
			(card) =>
				card.column === i &&
				!card.blocked &&
				!card.hasParts &&
				(!sprint || card.sprint === sprint.number) &&
				(!card.owners.length || card.owners.includes(person)),
		);
		const [first] = pullOrder(ready);
		if (first) return first;
	}
	return null;
}

/** People with hours today and no card in hand. */
export const nothingToDo: Finder = (state) => {
	const { people, today, works, columns } = state;
	return people.flatMap((person) => {
		if (person.hours <= 0 || person.idleSince === null) return [];
		const n = workingDaysAfter(works, person.idleSince, today);
		if (n < 1) return [];
		const next = nextToPull(state, person.id);
		return [
			finding(
				'nothing-to-do',
				person.id,
				2,
				n,
				`${person.name} has ${amount(person.hours, 'hours')} today and no card in hand for ${count(n, 'day')}. ${
					next ? `This one waits in ${columns[next.column!]!.name}.` : 'Nothing waits that could be pulled.'
				}`,
				{
					cards: next ? [next.number] : [],
					person: person.id,
					remedies: next ? ['pull', 'board'] : ['board', 'replenish'],
				},
			),
		];
	});
};
