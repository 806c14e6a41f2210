import type { Results } from './api.ts';
import type { Commands } from './server/commands/index.ts';

/** The commands as pages know them: their names, inputs and results, as the server declares them. Types only. */
export type Command = keyof Commands;
export type CommandInput<C extends Command> = Commands[C]['input'];
export type CommandResult<C extends Command> = Commands[C]['result'];

type Published<C> = C extends keyof Results ? Results[C] : Record<never, never>;
/** Commands whose results are not as they are published: there may be none, and none is published that is not there. */
type Otherwise =
	| {
			[C in Command]: [CommandResult<C>, keyof Published<C>] extends [Published<C>, keyof CommandResult<C>]
				? [keyof CommandResult<C>] extends [keyof Published<C>]
					? never
					: C
				: C;
	  }[Command]
	| Exclude<keyof Results, Command>;
true satisfies [Otherwise] extends [never] ? true : Otherwise;

/** Commands that name several cards as they were seen, and what they say of each. */
export type CommandOnCards = {
	[C in Command]: CommandInput<C> extends { cards: { version: number }[] } ? C : never;
}[Command];
export type Entry<C extends CommandOnCards> = CommandInput<C>['cards'][number];

/** Commands about one card as it was seen, and what they take beside it. */
export type CommandOnCard = {
	[C in Command]: CommandInput<C> extends { card: string; version: number } ? C : never;
}[Command];
export type CardInput<C extends CommandOnCard> = Omit<CommandInput<C>, 'card' | 'version'>;

/** A card as it is added among others. */
export type NewCard = CommandInput<'AddCards'>['cards'][number];

/** Commands about a team, and what they take beside the team. */
export type TeamCommand = { [C in Command]: CommandInput<C> extends { team: string } ? C : never }[Command];
export type TeamInput<C extends TeamCommand> = Omit<CommandInput<C>, 'team'>;
/** Sends a command about the team; the answer says what is wrong, or nothing. */
export type TellTeam = <C extends TeamCommand>(command: C, input: CommandInput<C>) => Promise<string>;
