import type { BoardHead } from '../pages/board.ts';
import { wholeNames } from '../words.ts';
import type { Field, Looking } from './field.ts';
import { days, isOpen } from './field-values.ts';
import { uses } from './used.ts';

/** Whose a card is, and who looks at it. */
export function fieldsOfPeople({ board, today, me }: Looking): (Field | false)[] {
	const people = new Map(board.people.map((person) => [person.id, person]));
	const whole = wholeNames(board.people);
	const called = (id: string) => (people.has(id) ? whole(id) : '');
	const values = (some: BoardHead['people']) =>
		some.map(({ id, name }) => ({ key: id, name: whole(id), ...(whole(id) !== name && { also: name }) }));
	return [
		{
			id: 'owners',
			name: 'Owners',
			also: ['owner', 'assignee', 'assignees', 'who', 'person'],
			text: ({ owners }) => owners.map(called).filter(Boolean).join(', '),
			order: ({ owners }) => people.get(owners[0] ?? '')?.name ?? null,
			values: {
				of: ({ owners }) => (owners.length ? owners : ['']),
				known: [
					...values(board.people.filter((person) => person.role !== 'viewer' && !person.gone)),
					{ key: '', name: 'nobody' },
				],
				name: (key) => (key ? whole(key) : 'nobody'),
				put: ({ owners }, to, from) => {
					const rest = owners.filter((owner) => owner !== from && owner !== to);
					return { do: 'cards', change: { owners: to ? [...rest, to] : [] } };
				},
				does: 'hands a card over',
			},
			said: me
				? [
						{ key: '~mine', words: 'mine', is: ({ owners }) => owners.includes(me) },
						{
							key: '~mine-or-nobodys',
							words: 'mine or nobody’s',
							is: ({ owners }) => !owners.length || owners.includes(me),
						},
						{ key: '~several', words: 'of several', is: ({ owners }) => owners.length > 1 },
					]
				: [],
		},
		{
			id: 'reviewer',
			name: 'Reviewer',
			text: ({ review }) => called(review?.by ?? ''),
			order: ({ review }) => people.get(review?.by ?? '')?.name ?? null,
			values: {
				of: ({ review }) => [review?.by ?? ''],
				known: [...values(board.people.filter((person) => !person.gone)), { key: '', name: 'no reviewer' }],
				name: (key) => (key ? whole(key) : 'no reviewer'),
				put: (_, to) => ({ do: 'review', reviewer: to || null }),
				does: 'gives a card another reviewer',
			},
			said: me
				? [{ key: '~mine', words: 'for me to review', is: (card) => card.review?.by === me && isOpen(card) }]
				: [],
		},
		uses(board, 'dates') && {
			id: 'review',
			name: 'Review by',
			...days(
				today,
				({ review }) => review?.due ?? null,
				// A day by which nobody is to look says nothing.
				(card, day) => (card.review ? { do: 'review', due: day } : null),
			),
		},
	];
}
