import type { Role } from './board.ts';

/** A board on the first page, with what it asks for today. */
export interface HomeBoard {
	name: string;
	slug: string;
	key: string;
	purpose: string;
	role: Role;
	/** null for a board of a team that one is not in. */
	team: string | null;
	teamName: string;
	/** The sprint that runs: its name, the day on which it ends, and whether that is past. */
	sprint: { name: string; number: number; ends: string; over: boolean } | null;
	blocked: number;
	late: number;
	/** One's own cards that are in hand. */
	mine: number;
	/** Open cards on it, in columns or in the backlog. */
	open: number;
}

/** What the first page shows: one's teams, and the boards that one may see. */
export interface HomePage {
	today: string;
	teams: { id: string; name: string; role: Role }[];
	boards: HomeBoard[];
}
