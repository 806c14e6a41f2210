import type { BoardContext, PersonContext, Role, TeamContext } from './contexts.ts';

/** What a handler has to say when it is done; undoable commands can be taken back while their cards are unchanged. */
export interface Done<R = Record<string, unknown>> {
	result?: R;
	/** Something the person should hear, though nothing was refused. */
	advice?: string;
	/** Answered this once and stored nowhere. */
	secret?: string;
}

interface Kind<N extends string, I, R, C, P> {
	name: N;
	/** One sentence for the published description. */
	summary: string;
	input: new () => I;
	/** Fields of the input that are kept nowhere. */
	secret?: readonly (keyof I & string)[];
	/** What can be worked out from the input alone: done before anything is locked, and handed to the handler. */
	prepare?(input: I): Promise<P>;
	run(context: C, input: I, prepared: P): Promise<Done<R> | void>;
}

interface InTeam {
	/** The least role that may do it. */
	role: Role;
	undoable: boolean;
	/** It can be done to a board that is put away. */
	onPutAway?: boolean;
}

/** A command about a board: its input names the board, a card or a column of it. */
export interface BoardCommand<N extends string, I, R = Nothing>
	extends Kind<N, I, R, BoardContext, undefined>, InTeam {
	about: 'board';
	/** Another board that it changes too: both are locked, and its context has that one as `other`. */
	other?(input: I): string;
}

/** A command about the person who gives it. */
export interface PersonCommand<N extends string, I, R = Nothing> extends Kind<
	N,
	I,
	R,
	PersonContext,
	undefined
> {
	about: 'person';
}

/** A command about the people of a team: its input names the team. */
export interface TeamCommand<N extends string, I, R = Nothing, P = undefined>
	extends Kind<N, I, R, TeamContext, P>, InTeam {
	about: 'team';
}

/** The result of a command that has nothing to answer. */
export type Nothing = Record<never, never>;

// Inputs differ from command to command; each handler gets an instance of its own class, validated.
/* eslint-disable @typescript-eslint/no-explicit-any */
export type AnyBoardCommand = BoardCommand<string, any, any>;
export type AnyTeamCommand = TeamCommand<string, any, any, any>;
export type AnyPersonCommand = PersonCommand<string, any, any>;
export type AnyCommand = AnyBoardCommand | AnyTeamCommand | AnyPersonCommand;
/* eslint-enable @typescript-eslint/no-explicit-any */

/** A declaration in which the role and whether it can be undone may be left out. */
type Declared<K extends InTeam> = Omit<K, 'about' | 'role' | 'undoable'> & Partial<InTeam>;

/** Declares a command about a board; for members, and undoable, unless it says otherwise. */
export function boardCommand<const N extends string, I, R = Nothing>(
	kind: Declared<BoardCommand<N, I, R>>,
): BoardCommand<N, I, R> {
	return { about: 'board', role: 'member', undoable: true, ...kind };
}

/** Declares a command about the people of a team, for everyone in it and undoable unless it says otherwise. */
export function teamCommand<const N extends string, I, R = Nothing, P = undefined>(
	kind: Declared<TeamCommand<N, I, R, P>>,
): TeamCommand<N, I, R, P> {
	return { about: 'team', role: 'viewer', undoable: true, ...kind };
}

/** Declares a command about the person who gives it. */
export function personCommand<const N extends string, I, R = Nothing>(
	kind: Omit<PersonCommand<N, I, R>, 'about'>,
): PersonCommand<N, I, R> {
	return { about: 'person', ...kind };
}
