import { count } from '../../words.ts';
import { finding, since } from '../finding.ts';
import type { Finder } from '../state.ts';

const BLOCKED_DAYS = 3;

/** Cards that are blocked, the longer the worse. */
export const blocked: Finder = ({ cards: all, today }) => {
	return all.flatMap((card) => {
		if (!card.blocked) return [];
		const n = since(card.blocked.since, today);
		const urgent = card.class === 'expedite';
		return [
			finding(
				'blocked',
				card.number,
				n >= BLOCKED_DAYS || urgent ? 3 : 2,
				n,
				`Blocked for ${count(n, 'day')}${urgent ? ', though it is urgent' : ''}: ${card.blocked.reason}${
					card.blocked.waitingFor ? `, waiting for ${card.blocked.waitingFor}` : ''
				}.`,
				{ cards: [card.number], remedies: ['unblock', 'wait-for', 'ask', 'split', 'backlog'] },
			),
		];
	});
};
