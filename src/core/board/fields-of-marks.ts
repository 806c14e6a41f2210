import { zoneOf } from '../calendar/zone.ts';
import type { Field, Looking } from './field.ts';
import { YES_NO } from './field-values.ts';

/** What is marked on a card, and what it has with it. */
export function fieldsOfMarks({ board }: Looking): Field[] {
	const zone = zoneOf(board.timeZone);
	return [
		{
			id: 'blocked',
			name: 'Blocked',
			text: ({ blocked }) => blocked?.reason ?? '',
			order: ({ blocked }) => (blocked ? zone.day(Date.parse(blocked.since)) : null),
			values: {
				of: ({ blocked }) => [blocked ? 'yes' : ''],
				...YES_NO('blocked', 'not blocked'),
			},
		},
		{
			id: 'waits',
			name: 'Waits for',
			text: ({ waits }) => waits.join(', '),
			order: ({ waits }) => waits.length || null,
			values: {
				of: ({ waits }) => [waits.length ? 'yes' : ''],
				...YES_NO('waits for other cards', 'waits for no card'),
			},
		},
		{
			id: 'files',
			name: 'Files',
			text: ({ files }) => (files ? String(files) : ''),
			order: ({ files }) => files || null,
			values: {
				of: ({ files }) => [files ? 'yes' : ''],
				...YES_NO('with files', 'without files'),
			},
		},
		{
			id: 'private',
			name: 'Private',
			text: (card) => (card.private ? 'yes' : ''),
			order: (card) => (card.private ? 0 : 1),
			values: {
				of: (card) => [card.private ? 'yes' : ''],
				...YES_NO('private', 'not private'),
			},
		},
		{
			id: 'ready',
			name: 'Ready',
			text: ({ ready }) => (ready ? 'yes' : ''),
			order: ({ ready }) => (ready ? 0 : 1),
			values: {
				of: ({ ready }) => [ready ? 'yes' : ''],
				...YES_NO('ready', 'not ready'),
				put: (_, to) => ({ do: 'cards', change: { ready: to === 'yes' } }),
				does: 'marks a card as ready or not',
			},
		},
		{
			id: 'checks',
			name: 'Checklist',
			text: ({ checks }) => (checks ? `${checks.done}/${checks.lines}` : ''),
			order: ({ checks }) => (checks ? checks.done / checks.lines : null),
			said: [
				{
					key: '~open',
					words: 'with lines to tick',
					is: ({ checks }) => checks !== null && checks.done < checks.lines,
				},
				{
					key: '~all',
					words: 'all ticked',
					is: ({ checks }) => checks !== null && checks.done === checks.lines,
				},
			],
		},
	];
}
