import type { BoardContext, PersonContext, Role, TeamContext } from './context.ts';

/** What a handler has to say when it is done; undoable commands can be taken back while their cards are unchanged. */
export interface Done {
	result?: Record<string, unknown>;
	/** Something the person should hear, though nothing was refused. */
	advice?: string;
	/** Answered this once and stored nowhere. */
	secret?: string;
}

interface Kind<I, C, P> {
	name: string;
	/** One sentence for the published description. */
	summary: string;
	input: new () => I;
	/** What can be worked out from the input alone: done before anything is locked, and handed to the handler. */
	prepare?(input: I): Promise<P>;
	run(context: C, input: I, prepared: P): Promise<Done | void>;
}

/** A command about a board: its input names the board, a card or a column of it. */
export interface BoardCommand<I, P = undefined> extends Kind<I, BoardContext, P> {
	about: 'board';
	/** The least role that may do it. */
	role: Role;
	undoable: boolean;
}

/** A command about the person who gives it. */
export interface PersonCommand<I, P = undefined> extends Kind<I, PersonContext, P> {
	about: 'person';
}

/** A command about the people of a team: its input names the team. */
export interface TeamCommand<I, P = undefined> extends Kind<I, TeamContext, P> {
	about: 'team';
	/** The least role that may do it. */
	role: Role;
	undoable: boolean;
}

// Inputs differ from command to command; each handler gets an instance of its own class, validated.
/* eslint-disable @typescript-eslint/no-explicit-any */
export type AnyCommand = BoardCommand<any, any> | TeamCommand<any, any> | PersonCommand<any, any>;

/** Declares a command about a board; undoable unless it says otherwise. */
export function boardCommand<I>(
	kind: Omit<BoardCommand<I>, 'about' | 'role' | 'undoable'> &
		Partial<Pick<BoardCommand<I>, 'role' | 'undoable'>>,
): BoardCommand<I> {
	return { about: 'board', role: 'member', undoable: true, ...kind };
}

/* eslint-enable @typescript-eslint/no-explicit-any */

/** Declares a command about the people of a team, for everyone in it and undoable unless it says otherwise. */
export function teamCommand<I, P = undefined>(
	kind: Omit<TeamCommand<I, P>, 'about' | 'role' | 'undoable'> &
		Partial<Pick<TeamCommand<I, P>, 'role' | 'undoable'>>,
): TeamCommand<I, P> {
	return { about: 'team', role: 'viewer', undoable: true, ...kind };
}

/** Declares a command about the person who gives it. */
export function personCommand<I>(kind: Omit<PersonCommand<I>, 'about'>): PersonCommand<I> {
	return { about: 'person', ...kind };
}
