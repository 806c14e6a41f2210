import { parseDay } from '../calendar/days.ts';
import type { Rota } from './hours.ts';

export const day = (text: string) => parseDay(text)!;

/** A team of three with two boards, of which one person works; tests say what is otherwise. */
export const rota = (more: Partial<Rota> = {}): Rota => ({
	boards: ['a', 'b'],
	weeks: [{ person: 'ann', from: day('2026-01-01'), hours: [8, 8, 8, 8, 4, 0, 0] }],
	absences: [],
	shares: [{ person: 'ann', from: day('2026-01-01'), boards: { a: 1 } }],
	holidays: new Set(),
	// Whoever it is about has always been there.
	members: ['ann', 'bob', 'cyd'].map((person) => ({ person, from: 0, until: null })),
	...more,
});
