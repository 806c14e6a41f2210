import type { CardView } from '$core/pages/board';
import type { Command, CommandInput, CommandOnCards, CommandResult, Entry } from '../../commands';
import { send, type Refusal, type Sent } from '../send';
import { CardsInSight } from './cards-in-sight.svelte';

export interface Message {
	tone: 'done' | 'care' | 'warn';
	text: string;
	undo?: string;
}

/** Refusals that a reason does away with. */
const ASKS_WHY = ['limit.held', 'left.reason'];

/**
 * What a person does on a board is shown at once, sent, and settled with the answer: what was refused is said, what a limit
 * holds is asked for a reason, and what can be taken back is.
 */
export class Sending extends CardsInSight {
	connection = $state<'open' | 'lost'>('open');
	message = $state.raw<Message | null>(null);
	/** Said to screen readers. */
	spoken = $state('');
	/** What is not done before a person gives a reason for it, or leaves it: something over a limit that holds, or a large correction. */
	through = $state.raw<{
		sentence: string;
		over: boolean;
		answer: (reason: string | null) => void;
	} | null>(null);
	private undoable: string[] = [];
	/** What was asked for and has not been answered yet. */
	private readonly sending = new Set<Promise<unknown>>();

	/** @param reread called when something other than cards changed on the server */
	constructor(protected readonly reread: () => void) {
		super();
	}

	/** Takes back the last thing that this page did and that can be taken back. */
	async undo(wanted?: string): Promise<void> {
		// What is still on its way is the last thing that was done.
		await Promise.allSettled([...this.sending]);
		const id = wanted ?? this.undoable.at(-1);
		if (!id) return this.tell({ tone: 'care', text: 'There is nothing of yours to take back here.' });
		this.undoable = this.undoable.filter((known) => known !== id);
		const sent = await this.passing({ of: id }, (input) => this.send('UndoCommand', input));
		if (sent.ok) this.tell({ tone: 'done', text: 'Taken back.' });
		else this.refuse(sent.refusal);
	}

	tell(message: Message): void {
		this.message = message;
		this.spoken = message.text;
	}

	refuse(refusal: Refusal): void {
		if (!ASKS_WHY.includes(refusal.code)) this.tell({ tone: 'warn', text: refusal.title });
	}

	/** Sends a command whose effect shows when the server tells of it. */
	ask<C extends Command>(command: C, input: CommandInput<C>): Promise<Sent<CommandResult<C>>> {
		return this.track(this.asking(command, input));
	}

	protected async track<R>(work: Promise<R>): Promise<R> {
		this.sending.add(work);
		try {
			return await work;
		} finally {
			this.sending.delete(work);
		}
	}

	private async asking<C extends Command>(
		command: C,
		input: CommandInput<C>,
	): Promise<Sent<CommandResult<C>>> {
		const sent = await this.passing(input, (asked) => this.send(command, asked));
		this.settle(sent);
		return sent;
	}

	/** Does what a limit may hold: then the reason is asked for, and it is done again with it. */
	private async passing<I extends object, R>(
		input: I,
		attempt: (input: I, reason?: string) => Promise<Sent<R>>,
	): Promise<Sent<R>> {
		const sent = await attempt(input);
		if (sent.ok || !ASKS_WHY.includes(sent.refusal.code)) return sent;
		this.spoken = sent.refusal.title;
		const reason = await new Promise<string | null>((answer) => {
			this.through = { sentence: sent.refusal.title, over: sent.refusal.code === 'limit.held', answer };
		});
		this.through = null;
		return reason === null ? sent : attempt({ ...input, reason }, reason);
	}

	/** Applies a change at once, sends it, and settles it with the answer; a refusal puts the card back as the server has it. */
	protected change<C extends Command>(
		card: CardView,
		command: C,
		input: CommandInput<C>,
		patch: Partial<CardView>,
	): Promise<Sent<CommandResult<C>>> {
		return this.apply([card], command, input, () => patch);
	}

	/**
	 * The same for a command about several cards, each named as it was last seen.
	 * @param more what the command says beside its cards, or of each of them
	 * @param showing the cards that change on the page, where the command changes more than it names
	 */
	protected changeAll<C extends CommandOnCards>(
		cards: readonly CardView[],
		command: C,
		more: Omit<CommandInput<C>, 'board' | 'cards'> | ((card: CardView) => Omit<Entry<C>, 'card' | 'version'>),
		patch: (card: CardView) => Partial<CardView>,
		showing?: readonly CardView[],
	): Promise<Sent<CommandResult<C>>> {
		const latest = cards.map((card) => this.latest(card));
		const of = (card: CardView) => (typeof more === 'function' ? more(card) : {});
		const input = {
			board: this.head.id,
			cards: latest.map((card) => ({ card: card.id, version: card.version, ...of(card) })),
			...(typeof more === 'function' ? {} : more),
		};
		return this.apply(showing ?? latest, command, input as unknown as CommandInput<C>, patch);
	}

	protected apply<C extends Command>(
		cards: readonly CardView[],
		command: C,
		input: CommandInput<C>,
		patch: (card: CardView, reason?: string) => Partial<CardView>,
	): Promise<Sent<CommandResult<C>>> {
		return this.track(this.applying(cards, command, input, patch));
	}

	private async applying<C extends Command>(
		cards: readonly CardView[],
		command: C,
		input: CommandInput<C>,
		patch: (card: CardView, reason?: string) => Partial<CardView>,
	): Promise<Sent<CommandResult<C>>> {
		const sent = await this.passing(input, (asked, reason) =>
			this.showAndSend(cards, command, asked, (card) => patch(card, reason)),
		);
		this.settle(sent);
		return sent;
	}

	private async showAndSend<C extends Command>(
		cards: readonly CardView[],
		command: C,
		input: CommandInput<C>,
		patch: (card: CardView) => Partial<CardView>,
	): Promise<Sent<CommandResult<C>>> {
		const sent = await this.shownAs(cards, patch, () => this.send(command, input));
		if (!sent.ok && sent.refusal.code === 'card.changed') this.reread();
		return sent;
	}

	protected send<C extends Command>(command: C, input: CommandInput<C>): Promise<Sent<CommandResult<C>>> {
		return send(command, input, () => (this.connection = 'lost'));
	}

	private settle(sent: Sent): void {
		if (!sent.ok) return this.refuse(sent.refusal);
		const { id, undoable, advice } = sent.answer;
		if (undoable) this.undoable.push(id);
		if (advice) this.tell({ tone: 'care', text: advice, undo: undoable ? id : undefined });
	}
}
