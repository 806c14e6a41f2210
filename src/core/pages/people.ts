import type { Role } from './board.ts';

/** What a link invites somebody to. */
export interface Invitation {
	team: string;
	role: Role;
	title: string;
	/** Who made it. */
	by: string;
	until: Date;
}

/** An invitation that waits to be taken. */
export interface InvitationView {
	id: string;
	role: Role;
	title: string;
	several: boolean;
	by: string;
	until: Date;
	/** The address that it was mailed to. */
	email: string | null;
	/** How many have taken it so far. */
	taken: number;
}

/** Somebody of a team, as its own page lists them. */
export interface MemberView {
	id: string;
	name: string;
	initials: string;
	email: string;
	role: Role;
	title: string;
	gone: boolean;
	/** Open cards of theirs in columns or sprints: they are given on before somebody leaves. */
	cards: { key: string; title: string; slug: string; number: number }[];
}

/** A team's own page. */
export interface TeamPage {
	id: string;
	name: string;
	timeZone: string;
	week: number[];
	stages: string[];
	away: boolean;
	role: Role;
	me: string;
	people: MemberView[];
	boards: TeamBoard[];
	invitations: InvitationView[];
	/** Whether invitations and links can be mailed. */
	mail: boolean;
}

/** A board as its team lists it, those put away too. */
export interface TeamBoard {
	id: string;
	name: string;
	slug: string;
	key: string;
	away: boolean;
}

/** A session of one's own. */
export interface SessionView {
	id: string;
	/** What the browser said it is. */
	device: string;
	since: Date;
	seen: Date;
	/** The one that looks at this. */
	here: boolean;
}
