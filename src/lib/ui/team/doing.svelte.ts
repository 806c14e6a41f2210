import type { Command, CommandInput, CommandResult } from '../../commands';
import { reread } from '../frame/reread';
import { send, type Sent } from '../send';

/** What is done on a page of a team, what came of it, and taking it back. */
export class Doing {
	message = $state.raw<{ text: string; tone: 'done' | 'care' | 'warn'; undo?: string } | null>(null);
	/** Said to whoever does not see what moved. */
	spoken = $state('');
	#undoable: string[] = [];

	/** @param depends by what the page is known that is read again after a change */
	constructor(private readonly depends: string) {}

	/** Does something; what it is refused with is said, unless whoever asks says it. */
	async ask<C extends Command>(
		command: C,
		input: CommandInput<C>,
		done: string,
		quiet: (code: string) => boolean = () => false,
	): Promise<Sent<CommandResult<C>>> {
		const sent = await send(command, input);
		if (sent.ok) {
			if (sent.answer.undoable) this.#undoable.push(sent.answer.id);
			this.message = {
				text: [done, sent.answer.advice].filter(Boolean).join(' '),
				tone: 'done',
				...(sent.answer.undoable ? { undo: sent.answer.id } : {}),
			};
		} else if (!quiet(sent.refusal.code)) this.message = { text: sent.refusal.title, tone: 'warn' };
		await reread(this.depends);
		return sent;
	}

	/** Takes back what was done last here. */
	async undo(id = this.#undoable.at(-1)): Promise<void> {
		if (!id) return;
		this.#undoable = this.#undoable.filter((one) => one !== id);
		const sent = await send('UndoCommand', { of: id });
		this.message = sent.ok
			? { text: 'Taken back.', tone: 'done' }
			: { text: sent.refusal.title, tone: 'warn' };
		await reread(this.depends);
	}
}
