import type { BoardContext, PersonContext, TeamContext } from './context.ts';

/** What a handler has to say when it is done; undoable commands can be taken back while their cards are unchanged. */
export interface Done {
	result?: Record<string, unknown>;
	/** Something the person should hear, though nothing was refused. */
	advice?: string;
	/** Answered this once and stored nowhere. */
	secret?: string;
}

interface Kind<I, C> {
	name: string;
	/** One sentence for the published description. */
	summary: string;
	input: new () => I;
	run(context: C, input: I): Promise<Done | void>;
}

/** A command about a board: its input names the board, a card or a column of it. */
export interface BoardCommand<I> extends Kind<I, BoardContext> {
	about: 'board';
	/** The least role that may do it. */
	role: 'viewer' | 'member' | 'lead';
	undoable: boolean;
}

/** A command about the person who gives it. */
export interface PersonCommand<I> extends Kind<I, PersonContext> {
	about: 'person';
}

/** A command about the people of a team: its input names the team. */
export interface TeamCommand<I> extends Kind<I, TeamContext> {
	about: 'team';
}

// Inputs differ from command to command; each handler gets an instance of its own class, validated.
/* eslint-disable @typescript-eslint/no-explicit-any */
export type AnyCommand = BoardCommand<any> | TeamCommand<any> | PersonCommand<any>;

/** Declares a command about a board; undoable unless it says otherwise. */
export function boardCommand<I>(
	kind: Omit<BoardCommand<I>, 'about' | 'role' | 'undoable'> &
		Partial<Pick<BoardCommand<I>, 'role' | 'undoable'>>,
): BoardCommand<I> {
	return { about: 'board', role: 'member', undoable: true, ...kind };
}

/* eslint-enable @typescript-eslint/no-explicit-any */

/** Declares a command about the people of a team. */
export function teamCommand<I>(kind: Omit<TeamCommand<I>, 'about'>): TeamCommand<I> {
	return { about: 'team', ...kind };
}

/** Declares a command about the person who gives it. */
export function personCommand<I>(kind: Omit<PersonCommand<I>, 'about'>): PersonCommand<I> {
	return { about: 'person', ...kind };
}
