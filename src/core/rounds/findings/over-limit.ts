import { finding } from '../finding.ts';
import type { Finder } from '../state.ts';

const FAR = 1.5;

/** Columns and lanes that hold more than their limit, and people who have more in hand than one may. */
export const overLimit: Finder = ({ columns, lanes, cards: all, people, personLimit }) => {
	const hands = people.flatMap(({ id, name }) => {
		if (personLimit === null) return [];
		const hand = all.filter((card) => card.clock === 'running' && card.owners.includes(id));
		if (hand.length <= personLimit) return [];
		return [
			finding(
				'over-limit',
				id,
				hand.length > FAR * personLimit ? 3 : 2,
				hand.length / personLimit,
				`${name} has ${hand.length} cards in hand, and a person may have ${personLimit}: finish one, or hand one on.`,
				{ cards: hand.map((card) => card.number), person: id, remedies: ['owners', 'move-on', 'board'] },
			),
		];
	});
	const wide = lanes.flatMap(({ id, name, limit }) => {
		const standing = all.filter((card) => card.lane === id && card.column !== null);
		if (limit === null || standing.length <= limit) return [];
		return [
			finding(
				'over-limit',
				id,
				standing.length > FAR * limit ? 3 : 2,
				standing.length / limit,
				`The lane ${name} holds ${standing.length} with a limit of ${limit}: finish or move one before another comes.`,
				{ cards: standing.map((card) => card.number), remedies: ['move-on', 'board'] },
			),
		];
	});
	const full = columns.flatMap((column, i) => {
		const standing = all.filter((card) => card.column === i);
		if (column.limit === null || standing.length <= column.limit) return [];
		return [
			finding(
				'over-limit',
				column.id,
				standing.length > FAR * column.limit ? 3 : 2,
				standing.length / column.limit,
				`${column.name} holds ${standing.length} with a limit of ${column.limit}: finish or move one before another comes.`,
				{
					cards: standing.map((card) => card.number),
					column: column.id,
					remedies: ['move-on', 'board', 'limit'],
				},
			),
		];
	});
	return [...full, ...wide, ...hands];
};
