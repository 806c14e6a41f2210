import type { Command, CommandInput, CommandResult } from '../../commands';
import type { Sent } from '../send';

/** Sends a command of the team's page; done is what is said when it is. */
export type Tell = <C extends Command>(
	command: C,
	input: CommandInput<C>,
	done: string,
) => Promise<Sent<CommandResult<C>>>;

/** What people may do, in words. */
export const ROLES = [
	{ value: 'lead', name: 'leads' },
	{ value: 'member', name: 'works in it' },
	{ value: 'viewer', name: 'looks on' },
] as const;
export type Role = (typeof ROLES)[number]['value'];
