import { goto } from '$app/navigation';
import type { CardLink, CardPage } from '$core/pages/card';
import type { CardInput, Command, CommandInput, CommandOnCard } from '../../commands';
import type { BoardState } from '../board/board-state.svelte';
import { reread } from '../frame/reread';
import { ask as readFrom, type Refusal } from '../send';
import { Title } from './title.svelte';

/** How another card is linked to the one that is open: it waits for this one, this one for it, beside it, or as its whole. */
export type LinkTo = 'blocks' | 'waits' | 'relates' | 'part';

/** The card that is open: read when it is opened and again when it changes, and changed in the order of what is sent. */
export class OpenCard {
	private read = $state.raw<CardPage | null>(null);
	problem = $state('');
	readonly title: Title;
	/** As the board has it, where it has it: that is never older than what was read. */
	readonly card = $derived.by(() => {
		const { read } = this;
		if (!read) return null;
		const live = this.board().cards.get(read.id);
		return live && live.version >= read.version ? { ...read, ...live } : read;
	});
	readonly id = $derived(this.read?.id ?? null);
	/** The checklist as it was last changed here, until the server has it so. */
	private wanted = $state.raw<CardPage['checklist'] | null>(null);
	readonly checklist = $derived.by(() => this.wanted ?? this.card?.checklist ?? []);

	private last: Promise<unknown> = Promise.resolve();
	/** Changes that have not been answered yet. */
	private waiting = 0;
	/** The version that a card, or a part of it, has once what was sent has happened. */
	private readonly ahead = new Map<string, number>();
	private readings = 0;

	/**
	 * Made where a component begins.
	 * @param opened told when a card has been read for the first time
	 */
	constructor(
		private readonly board: () => BoardState,
		private readonly key: () => string,
		private readonly opened: () => void,
	) {
		this.title = new Title(() => this.read?.key);
		const version = $derived(this.read ? (board().cards.get(this.read.id)?.version ?? 0) : 0);
		// Read when another card is opened, and again whenever this one changes on the board.
		$effect(() => {
			const { read } = this;
			if (read?.key === key() && (version <= read.version || this.waiting)) return;
			if (read && board().changing(read.id)) return;
			void this.load();
		});
	}

	/** The names of the cards that its texts name. */
	get named(): CardPage['named'] | undefined {
		return this.read?.named;
	}

	async load(): Promise<void> {
		const key = this.key();
		const mine = ++this.readings;
		try {
			const response = await fetch(`/api/cards/${encodeURIComponent(key)}`);
			const answer = await response.json();
			// An answer that comes after a later one is passed over.
			if (key !== this.key() || mine !== this.readings) return;
			if (!response.ok) return void (this.problem = answer.title);
			const { head } = this.board();
			// One that went on to another board is looked at there.
			if (answer.board !== head.slug)
				return void goto(`/boards/${answer.board}?card=${answer.key}`, { replaceState: true });
			const first = this.read?.id !== answer.id;
			if (first) this.title.open(answer.key, answer.title, head.role !== 'viewer');
			else this.title.reread(answer.title);
			this.read = answer;
			this.problem = '';
			if (first) this.opened();
		} catch {
			this.problem = 'Not connected: this card cannot be read now. It is tried again when something changes.';
		}
	}

	/** Keeps the title that was typed. */
	rename(): void {
		const { card } = this;
		const text = card && this.title.ended(card.title);
		if (text) void this.board().rename(card, text);
	}

	/**
	 * Sends a change of the card, or of a part of it, whose effect is read again; gives whether it was kept. What
	 * follows quickly waits for what went before, so that a person's own changes never meet each other.
	 */
	ask<C extends CommandOnCard>(command: C, input: CardInput<C>, part?: string): Promise<boolean> {
		this.waiting++;
		const work = this.last.then(async () => {
			const board = this.board();
			let kept = false;
			const of = part ? this.card?.children.find(({ id }) => id === part) : this.card;
			if (of) {
				const known = board.cards.get(of.id)?.version ?? 0;
				const version = Math.max(this.ahead.get(of.id) ?? 0, of.version, known);
				const sent = await board.ask(command, {
					card: of.id,
					version,
					...input,
				} as unknown as CommandInput<C>);
				kept = sent.ok;
				if (kept) this.ahead.set(of.id, version + 1);
				else this.ahead.delete(of.id);
				// Where somebody else wrote meanwhile, what was typed stays, beside what they wrote.
				if (this.waiting === 1 || !kept) await this.load();
			}
			this.waiting--;
			return kept;
		});
		this.last = work;
		return work;
	}

	/** Sends something that is said, lies or waits beside the card; it is read again. */
	async send<C extends Command>(command: C, input: CommandInput<C>) {
		const sent = await this.board().ask(command, input);
		await this.load();
		return sent;
	}

	/** Sends a command about time; what the bar shows of the timer follows. */
	async time<C extends Command>(command: C, input: CommandInput<C>): Promise<Refusal | null> {
		const sent = await this.send(command, input);
		if (command.endsWith('Timer')) await reread('harrow:timer');
		return sent.ok ? null : sent.refusal;
	}

	async tick(lines: CardPage['checklist']): Promise<void> {
		this.wanted = lines;
		const kept = await this.ask('ChecklistCard', { lines });
		if (!kept || this.wanted === lines) this.wanted = null;
	}

	/** Another card as it stands now; where it cannot be read, why is said. */
	async other(key: string): Promise<CardPage | null> {
		const found = await readFrom<CardPage>(`/api/cards/${key}`);
		if (found.ok) return found.answer;
		this.board().tell({ tone: 'warn', text: found.refusal.title });
		return null;
	}

	async link(kind: LinkTo, to: string): Promise<boolean> {
		if (kind === 'blocks' || kind === 'relates') return this.ask('LinkCard', { kind, to });
		const found = await this.other(to);
		if (!found) return false;
		if (kind === 'part') return this.ask('NestCard', { parent: found.id });
		// The other one blocks this card: it is that one which changes.
		const { id: card, version } = found;
		return (await this.send('LinkCard', { card, version, kind: 'blocks', to: this.key() })).ok;
	}

	async unlink({ comes, kind, key }: CardLink): Promise<void> {
		if (!comes) return void (await this.ask('UnlinkCard', { kind, to: key! }));
		// The link belongs to the other card: it is that one which changes.
		const found = await this.other(key!);
		if (!found) return;
		await this.send('UnlinkCard', { card: found.id, version: found.version, kind, to: this.card!.key });
	}
}
