import type { Field, Looking } from './field.ts';
import { CLASSES, intoLane, laneOf } from './lanes.ts';

/** What a card is called, and where it stands. */
export function fieldsOfPlace({ board }: Looking): (Field | false)[] {
	const columns = new Map(board.columns.map((column, i) => [column.id, { ...column, i }]));
	return [
		{ id: 'number', name: 'Number', text: ({ number }) => String(number), order: ({ number }) => number },
		{
			id: 'title',
			name: 'Title',
			also: ['summary', 'name', 'card', 'task', 'what'],
			text: ({ title }) => title,
			order: ({ title }) => title.toLowerCase(),
		},
		{
			id: 'column',
			name: 'Column',
			text: ({ column }) => (column === null ? 'backlog' : (columns.get(column)?.name ?? '')),
			order: ({ column }) => (column === null ? -1 : (columns.get(column)?.i ?? null)),
			values: {
				of: ({ column }) => [column ?? ''],
				known: [
					...board.columns.map(({ id, name }) => ({ key: id, name })),
					{ key: '', name: 'the backlog' },
				],
				name: (key) => (key ? (columns.get(key)?.name ?? 'elsewhere') : 'the backlog'),
				put: (_, to) => ({ do: 'move', column: to || null }),
				does: 'moves a card',
			},
		},
		board.lanes.length > 0 && {
			id: 'lane',
			name: 'Lane',
			text: (card) => laneOf(board.lanes, card)?.name ?? '',
			order: (card) => {
				const lane = laneOf(board.lanes, card);
				return lane ? board.lanes.indexOf(lane) : null;
			},
			values: {
				of: (card) => [laneOf(board.lanes, card)?.id ?? ''],
				known: [
					...board.lanes.map(({ id, name }) => ({ key: id, name })),
					...(CLASSES.every((one) => board.lanes.some((lane) => lane.class === one))
						? []
						: [{ key: '', name: 'In no lane' }]),
				],
				name: (key) => board.lanes.find(({ id }) => id === key)?.name ?? 'In no lane',
				put: (card, to) => {
					const lane = board.lanes.find(({ id }) => id === to) ?? null;
					const into = intoLane(board.lanes, card, lane);
					return into.lane === card.lane && into.class === card.class
						? null
						: { do: 'cards', change: { lane: lane?.id ?? null } };
				},
				does: 'puts a card into another lane',
			},
		},
	];
}
