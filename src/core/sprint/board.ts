import type { Day, Instant, Zone } from '../calendar/zone.ts';
import type { Layout, LayoutColumn } from '../flow/layout.ts';

/** A sprint of a board: its days, and when it was started and closed. */
export interface BoardSprint {
	number: number;
	starts: Day;
	ends: Day;
	startedAt: Instant | null;
	closedAt: Instant | null;
}

/** A board as its figures need it, and as the board file has it: its calendar, columns and sprints. */
export interface BoardFile extends Layout {
	name: string;
	zone: Zone;
	unit: 'hours' | 'points';
	columns: (LayoutColumn & { limit: number | null })[];
	sprints: BoardSprint[];
}
