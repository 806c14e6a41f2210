import { getMetadataStorage, IsObject, IsString, MaxLength } from 'class-validator';
import { COMMANDS } from '../commands/index.ts';
import { Problem } from '../problem.ts';
import { boardCommand, type AnyBoardCommand } from './command.ts';
import { RANK } from './contexts.ts';
import { Entries, Id, Line, Optional } from './fields.ts';
import { readInput } from './input.ts';

export class Step {
	/** A command about a card of this board, or about several. */
	@MaxLength(40, { message: 'There is no such command.' })
	@IsString({ message: 'Each step names a command.' })
	command!: string;

	/** What it is sent with by itself. */
	@IsObject({ message: 'The input of each step must be an object.' })
	input!: Record<string, unknown>;
}

export class DoTogether {
	@Id('board')
	board!: string;

	@Entries('steps', Step, 500)
	steps!: Step[];

	/** Why what goes over a limit is let through, for every step that asks for it. */
	@Optional()
	@Line('The reason', 300)
	reason?: string;
}

/** Many changes of cards that are one: all of them happen or none, and they are taken back in one step. */
export const doTogether = boardCommand({
	name: 'DoTogether',
	summary: 'Does several commands about cards of one board as one: all or none, taken back in one step.',
	input: DoTogether,
	async run(context, { steps, reason }) {
		const advice = new Set<string>();
		/** Cards that an earlier step changed: the sender saw them as they were before that. */
		const changed = new Set<string>();
		for (const { command: name, input: given } of steps) {
			const command = stepNamed(name);
			if (RANK[context.role] < RANK[command.role])
				throw new Problem(403, 'right.missing', 'Only a lead of the team may do this on this board.');
			const takesReason = reason !== undefined && given.reason === undefined && hasField(command, 'reason');
			const input = await readInput(command, takesReason ? { ...given, reason } : given);
			if (input.board !== undefined && input.board !== context.board.id)
				throw new Problem(422, 'step.elsewhere', 'All steps are about cards of this board.', 'steps');
			forgetSeen(input, changed);
			const done = (await command.run(context, input, undefined)) ?? {};
			if (done.advice) advice.add(done.advice);
			for (const id of context.touched.keys()) changed.add(id);
		}
		const { rows } = await context.tx.query<{ id: string; version: number }>(
			'select id, version from card where id = any($1::uuid[])',
			[[...context.touched.keys()]],
		);
		for (const { id, version } of rows) context.touched.get(id)!.version = version;
		return { advice: [...advice].slice(0, 3).join(' ') || undefined };
	},
});

/** A command that can be a step: about one board, and taken back with the others. */
function stepNamed(name: string): AnyBoardCommand {
	const command = COMMANDS.get(name);
	if (command?.about !== 'board' || !command.undoable || command.other || name === 'DoTogether')
		throw new Problem(422, 'step.unknown', `${name.slice(0, 40)} cannot be one of several steps.`, 'steps');
	return command;
}

const hasField = (command: AnyBoardCommand, field: string) =>
	getMetadataStorage()
		.getTargetValidationMetadatas(command.input, '', false, false)
		.some(({ propertyName }) => propertyName === field);

/** Of cards that this very command has changed already, the version that its sender saw is the one before it. */
function forgetSeen(input: Record<string, unknown>, changed: ReadonlySet<string>): void {
	const seen = [input, ...(Array.isArray(input.cards) ? (input.cards as Record<string, unknown>[]) : [])];
	for (const one of seen) if (changed.has(one.card as string)) delete one.version;
}
