import type { PastedCard } from '$core/backlog/paste';
import type { TableCard } from '$core/exchange/card-file';
import type { CardView } from '$core/pages/board';
import { list } from '$core/words';
import type { CommandInput, CommandResult, NewCard } from '../../commands';
import type { Sent } from '../send';
import { CardChanges } from './card-changes.svelte';
import { clockIn, planPatch } from './card-steps';
import { Here } from './here.svelte';
import { ranksBelow } from './ranks';
import { follow } from './stream';

/** A board as one page has it open: its cards in sight, what the others do there, and what a person can do with cards. */
export class BoardState extends CardChanges {
	/** Who else looks at it now. */
	readonly here = new Here(() => this.head.slug);

	/** Listens for the changes of others; the answer stops listening. */
	listen(): () => void {
		const address = () =>
			`/api/boards/${this.head.slug}/live?since=${this.seq || this.head.seq}&page=${this.here.page}`;
		return follow(address, {
			open: () => {
				this.connection = 'open';
				this.here.again();
			},
			lost: () => (this.connection = 'lost'),
			here: (people) => this.here.hear(people),
			change: (change) => {
				this.connection = 'open';
				this.learn(change);
				if (change.board) this.reread();
			},
		});
	}

	rename(card: CardView, title: string): Promise<Sent> {
		return this.put(card, { do: 'title', title });
	}

	block(card: CardView, reason: string): Promise<Sent> {
		const blocked = { since: this.now().toISOString(), reason: reason.trim() };
		return this.change(card, 'BlockCard', { card: card.id, version: card.version, reason }, { blocked });
	}

	unblock(card: CardView): Promise<Sent> {
		return this.change(card, 'UnblockCard', { card: card.id, version: card.version }, { blocked: null });
	}

	assign(card: CardView, owners: string[]): Promise<Sent> {
		return this.change(card, 'AssignCard', { card: card.id, version: card.version, owners }, { owners });
	}

	size(card: CardView, size: number): Promise<Sent> {
		return this.put(card, { do: 'size', size });
	}

	correctLeft(card: CardView, left: number, reason?: string): Promise<Sent> {
		const input = { card: card.id, version: card.version, left, ...(reason ? { reason } : {}) };
		return this.change(card, 'CorrectLeft', input, { left });
	}

	classify(card: CardView, serviceClass: CardView['class']): Promise<Sent> {
		return this.change(
			card,
			'ClassifyCard',
			{ card: card.id, version: card.version, class: serviceClass },
			{ class: serviceClass },
		);
	}

	date(card: CardView, due: string | null): Promise<Sent> {
		return this.put(card, { do: 'due', due });
	}

	/** Copies cards to the end of the backlog, with what is chosen of them. */
	async copy(cards: readonly CardView[], parts: CommandInput<'CopyCards'>['with']): Promise<Sent> {
		const sent = await this.ask('CopyCards', { board: this.head.id, cards: this.seen(cards), with: parts });
		if (sent.ok) {
			const numbers = sent.answer.result.cards.map(({ number }) => number);
			const text = `${list(numbers.map(String))} ${numbers.length === 1 ? 'waits' : 'wait'} in the backlog.`;
			this.tell({ tone: 'done', text, undo: sent.answer.id });
		}
		return sent;
	}

	/** Moves cards to the backlog of another board; with `leave`, what of them does not fit there is left behind. */
	async sendTo(cards: readonly CardView[], to: string, leave: boolean): Promise<Sent> {
		const input = { board: this.head.id, cards: this.seen(cards), to, leave };
		const sent = await this.track(this.send('SendCards', input));
		if (sent.ok) {
			const { keys } = sent.answer.result;
			const text = `${keys.length === 1 ? 'It is' : 'They are'} ${list(keys)} now.`;
			this.tell({ tone: 'done', text: `${text}${sent.answer.advice ? ` ${sent.answer.advice}` : ''}` });
		}
		return sent;
	}

	private readonly seen = (cards: readonly CardView[]) =>
		cards.map((card) => ({ card: card.id, version: this.latest(card).version }));

	/** Ticks off a line of a card's checklist. */
	tick(card: CardView, line: string, done = true): Promise<Sent> {
		return this.apply([card], 'TickLine', { card: card.id, line, done }, ({ checks }) => ({
			checks: checks && { ...checks, done: checks.done + (done ? 1 : -1) },
		}));
	}

	/** Orders cards in the backlog: below another one, on top (null) or at the end (undefined). */
	place(cards: readonly CardView[], below: string | null | undefined): Promise<Sent> {
		const moving = this.withParts(cards);
		const ids = new Set(moving.map((card) => card.id));
		const rankOf = ranksBelow(
			this.backlog.filter((card) => !ids.has(card.id)),
			below,
			moving,
		);
		return this.changeAll(
			cards,
			'PlaceCards',
			below === undefined ? {} : { below },
			(card) => ({ rank: rankOf.get(card.id)!, column: null }),
			moving,
		);
	}

	/** Puts cards on a sprint's list, or takes them off (null). */
	plan(cards: readonly CardView[], sprint: number | null, owners?: string[]): Promise<Sent> {
		const planned = planPatch(this.head, sprint);
		return this.changeAll(
			cards,
			'PlanCards',
			{ sprint, ...(owners ? { owners } : {}) },
			(card) => ({ ...planned(card), ...(owners && !card.parts ? { owners } : {}) }),
			this.withParts(cards),
		);
	}

	/** Gives unowned cards to the people that were proposed for them. */
	shareOut(gifts: readonly { card: CardView; owner: string }[]): Promise<Sent> {
		const owner = new Map(gifts.map((gift) => [gift.card.id, gift.owner]));
		const cards = gifts.map(({ card }) => this.latest(card));
		return this.changeAll(
			cards,
			'ShareOut',
			(card) => ({ owner: owner.get(card.id)! }),
			(card) => ({ owners: [...card.owners, owner.get(card.id)!] }),
		);
	}

	/** Pulls cards of the backlog into the first column. */
	replenish(cards: readonly CardView[]): Promise<Sent> {
		return this.changeAll(cards, 'ReplenishBoard', {}, () => ({ column: this.head.columns[0]!.id }));
	}

	private withParts(cards: readonly CardView[]): CardView[] {
		const moving: CardView[] = [];
		for (const card of cards.map((one) => this.latest(one)))
			for (const one of [card, ...this.backlog.filter((part) => part.parent === card.id)])
				if (!moving.some((known) => known.id === one.id)) moving.push(one);
		return moving;
	}

	describe(card: Pick<CardView, 'id' | 'version'>, description: string): Promise<Sent> {
		return this.ask('DescribeCard', { card: card.id, version: card.version, description });
	}

	/** Moves cards to the end of a column, or (null) of the backlog, in one step. */
	moveAll(cards: readonly CardView[], column: string | null): Promise<Sent> {
		const others = (column ? (this.columns.get(column) ?? []) : this.backlog).filter(
			(other) => !cards.some(({ id }) => id === other.id),
		);
		const rankOf = ranksBelow(others, undefined, cards);
		return this.changeAll(cards, 'MoveCards', { column }, (card) =>
			card.column === column
				? {}
				: { rank: rankOf.get(card.id)!, column, ...clockIn(this.head, card, column, this.now()) },
		);
	}

	archiveAll(cards: readonly CardView[], reason: string): Promise<Sent> {
		return this.changeAll(cards, 'ArchiveCards', { reason }, () => ({ archived: this.now().toISOString() }));
	}

	archive(card: CardView, reason: string): Promise<Sent> {
		return this.change(
			card,
			'ArchiveCard',
			{ card: card.id, version: card.version, reason },
			{ archived: this.now().toISOString() },
		);
	}

	restore(card: Pick<CardView, 'id' | 'version'>): Promise<Sent> {
		return this.ask('RestoreCard', { card: card.id, version: card.version });
	}

	add(
		column: string,
		title: string,
		below: string | null | undefined,
		size: number | null = null,
		lane: string | null = null,
	): Promise<Sent<CommandResult<'AddCard'>>> {
		return this.ask('AddCard', {
			board: this.head.id,
			column,
			title,
			...(size === null ? {} : { size }),
			...(lane === null ? {} : { lane }),
			...(below === undefined ? {} : { below }),
		});
	}

	/** Adds cards to the backlog as lines described them. */
	addPasted(
		cards: readonly PastedCard[],
		below: string | null | undefined,
	): Promise<Sent<CommandResult<'AddCards'>>> {
		const list: NewCard[] = [];
		const card = ({ title, size, checklist }: Omit<PastedCard, 'children'>, parent?: number) => ({
			title,
			...(size === null ? {} : { size }),
			...(checklist.length ? { checklist } : {}),
			...(parent === undefined ? {} : { parent }),
		});
		for (const one of cards) {
			const place = list.push(card(one)) - 1;
			for (const child of one.children) list.push(card(child, place));
		}
		return this.addAll(list, below);
	}

	/** Adds cards to the end of the backlog as a table described them. */
	addFromTable(cards: readonly TableCard[]): Promise<Sent<CommandResult<'AddCards'>>> {
		const place = new Map(cards.map((card, i) => [card.line, i]));
		return this.addAll(
			cards.map(({ line: _line, parent, ...card }) => ({
				...card,
				...(parent === undefined ? {} : { parent: place.get(parent) }),
			})),
			undefined,
		);
	}

	private async addAll(
		cards: NewCard[],
		below: string | null | undefined,
	): Promise<Sent<CommandResult<'AddCards'>>> {
		const sent = await this.ask('AddCards', {
			board: this.head.id,
			cards,
			...(below === undefined ? {} : { below }),
		});
		if (sent.ok && cards.length > 1)
			this.tell({ tone: 'done', text: `${cards.length} cards were made.`, undo: sent.answer.id });
		return sent;
	}
}
