import { Here } from './here.svelte';
import { generateKeyBetween, generateNKeysBetween } from 'fractional-indexing';
import { SvelteMap } from 'svelte/reactivity';
import type { PastedCard } from '$core/backlog/paste';
import { intoLane } from '$core/board/lanes';
import { fieldsOf } from '$core/board/fields';
import type { CardsChange, Change as FieldChange, Field as FieldOfCards, Looking } from '$core/board/field';
import { asUsed } from '$core/board/used';
import type { BoardCards, BoardHead, CardView, LaneView } from '$core/pages/board';
import type { TableCard } from '$core/exchange/card-file';
import { count, list } from '$core/words';
import { enter, type CardClock } from '$core/flow/clock';
import type { Command, CommandInput, CommandOnCards, CommandResult, Entry, NewCard } from '../../commands';
import { cardsPatch, datesIn, planPatch, stepFor, type CardStep } from './card-steps';
import type { DatesPage, DateTexts } from '$core/pages/dates';
import { reread } from '../frame/reread';
import { ask as read, send, type Refusal, type Sent } from '../send';

/** What a page open on a board is told. */
interface Change {
	seq: number;
	cards: CardView[];
	board: boolean;
}

export interface Message {
	tone: 'done' | 'care' | 'warn';
	text: string;
	undo?: string;
}

/** Refusals that a reason does away with. */
const ASKS_WHY = ['limit.held', 'left.reason'];

/** Who looks at a board, and on which day; what was carried over is told by the ribbon. */
type Looks = Pick<Looking, 'today' | 'me' | 'works'> & { carried: NonNullable<Looking['carried']> };

/**
 * The board as one page shows it: what the server last said of each card, with the person's own changes applied at
 * once and settled with the answer.
 */
export class BoardState {
	head = $state.raw<BoardHead>()!;
	/** Cards as they are shown. */
	cards = $state.raw<ReadonlyMap<string, CardView>>(new Map());
	expectation = $state.raw<BoardCards['expectation']>(null);
	doneSince = $state('');
	connection = $state<'open' | 'lost'>('open');
	message = $state.raw<Message | null>(null);
	/** Said to screen readers. */
	spoken = $state('');
	/** Cards with changes of one's own on their way, and how many. */
	private readonly onTheWay = new SvelteMap<string, number>();
	/** What is not done before a person gives a reason for it, or leaves it: something over a limit that holds, or a large correction. */
	through = $state.raw<{
		sentence: string;
		over: boolean;
		answer: (reason: string | null) => void;
	} | null>(null);

	/** What would follow from other dates of cards: asked for before anything is moved. */
	following = $state.raw<{
		cards: readonly CardView[];
		page: DatesPage;
		answer: (moves: 'all' | 'one' | null) => void;
	} | null>(null);

	looks = $state.raw<Looks>({ today: 0, me: null, carried: {} });
	/** The fields of its cards: what all that shows, narrows, arranges and sorts them goes by. */
	readonly looking = $derived<Looking>({ board: this.head, ...this.looks, expectation: this.expectation });
	readonly fields = $derived(fieldsOf(this.looking));

	/** How far the server's clock is ahead of this machine's. */
	private ahead = 0;
	private truth = new Map<string, CardView>();
	/** The number of the last event that this page knows of. */
	seq = $state(0);
	private undoable: string[] = [];
	/** What was asked for and has not been answered yet. */
	private readonly sending = new Set<Promise<unknown>>();
	private stream: EventSource | undefined;
	/** Who else looks at it now. */
	readonly here = new Here(() => this.head.slug);
	private retry: ReturnType<typeof setTimeout> | undefined;

	/** @param reread called when something other than cards changed on the server */
	constructor(private readonly reread: () => void) {}

	/** Takes over what the server says of the board, and who looks at it when. */
	know(head: BoardHead, now: string, looks: Looks): void {
		this.head = head;
		this.looks = looks;
		this.ahead = Date.parse(now) - Date.now();
	}

	/** Takes over the cards that the server answered for the page. */
	load(
		page: { seq: number; cards: CardView[] } & Partial<Pick<BoardCards, 'expectation' | 'doneSince'>>,
	): void {
		if (page.expectation !== undefined) this.expectation = page.expectation;
		if (page.doneSince !== undefined) this.doneSince = page.doneSince;
		const truth = new Map(page.cards.map((card) => [card.id, asUsed(this.head, card)]));
		// Where something was heard of meanwhile, the newer word on each card counts.
		if (page.seq < this.seq)
			for (const [id, known] of this.truth)
				if (known.version > (truth.get(id)?.version ?? 0)) truth.set(id, known);
		this.seq = Math.max(this.seq, page.seq);
		this.truth = truth;
		const shown = new Map(truth);
		for (const id of this.onTheWay.keys()) if (this.cards.has(id)) shown.set(id, this.cards.get(id)!);
		this.cards = shown;
	}

	/** The unfinished and lately finished cards of each column, in order; finished ones newest first. */
	readonly columns = $derived.by(() => {
		const columns = new Map<string, CardView[]>(this.head.columns.map((column) => [column.id, []]));
		for (const card of this.cards.values())
			if (card.column && !card.archived && this.lately(card)) columns.get(card.column)?.push(card);
		for (const column of this.head.columns) {
			const cards = columns.get(column.id)!;
			if (column.kind === 'done')
				cards.sort((a, b) => (b.finished ?? '').localeCompare(a.finished ?? '') || b.number - a.number);
			else cards.sort((a, b) => (a.rank < b.rank ? -1 : a.rank > b.rank ? 1 : 0));
		}
		return columns;
	});

	/** The cards that wait in the backlog, in order; sub-cards stand below their parent. */
	readonly backlog = $derived(
		[...this.cards.values()]
			.filter((card) => card.column === null && !card.archived)
			.sort((a, b) => (a.rank < b.rank ? -1 : a.rank > b.rank ? 1 : 0)),
	);

	/** A card as it stands now, or as it was last seen. */
	latest(card: CardView): CardView {
		return this.cards.get(card.id) ?? card;
	}

	private lately(card: CardView): boolean {
		return (
			card.clock !== 'done' ||
			(card.finished !== null && Date.parse(card.finished) >= Date.parse(this.doneSince))
		);
	}

	/** Listens for the changes of others; the answer stops listening. */
	listen(): () => void {
		const open = () => {
			this.stream = new EventSource(
				`/api/boards/${this.head.slug}/live?since=${this.seq || this.head.seq}&page=${this.here.page}`,
			);
			this.stream.addEventListener('here', (event) => this.here.hear(event.data as string));
			this.stream.onopen = () => {
				this.connection = 'open';
				this.here.again();
			};
			this.stream.onmessage = (event) => this.hear(JSON.parse(event.data) as Change);
			for (const part of ['notices', 'retrospective'])
				this.stream.addEventListener(part, () => void reread(`harrow:${part}`));
			this.stream.onerror = () => {
				this.connection = 'lost';
				if (this.stream?.readyState !== EventSource.CLOSED) return;
				clearTimeout(this.retry);
				this.retry = setTimeout(open, 2000);
			};
		};
		open();
		return () => {
			clearTimeout(this.retry);
			this.stream?.close();
		};
	}

	private hear(change: Change): void {
		this.connection = 'open';
		if (change.seq > this.seq) this.seq = change.seq;
		const cards = new Map(this.cards);
		let news = false;
		for (const told of change.cards) {
			const card = asUsed(this.head, told);
			const known = this.truth.get(card.id);
			if (known && known.version > card.version) continue;
			this.truth.set(card.id, card);
			const shown = cards.get(card.id);
			if (shown && shown.version > card.version) continue;
			cards.set(card.id, card);
			news = true;
		}
		if (news) this.cards = cards;
		if (change.board) this.reread();
	}

	/** Whether a change of one's own of this card is on its way. */
	changing(card: string): boolean {
		return this.onTheWay.has(card);
	}

	/** Moves a card: below another one, on top (null) or at the end (undefined) of a column; into a lane (null: none), where one is given. */
	move(
		card: CardView,
		column: string | null,
		below: string | null | undefined,
		lane?: LaneView | null,
	): Promise<Sent> {
		const { command, input, patch } = this.moveStep(card, column, below, lane);
		return this.apply([card], command, input, patch);
	}

	private moveStep(
		card: CardView,
		column: string | null,
		below: string | null | undefined,
		lane?: LaneView | null,
	): CardStep<'MoveCard'> {
		const rank = this.rankFor(card, column, below);
		const into = lane === undefined ? {} : this.intoLane(card, lane?.id ?? null);
		return {
			command: 'MoveCard',
			input: {
				card: card.id,
				version: card.version,
				column,
				...(below === undefined ? {} : { below }),
				...(lane === undefined ? {} : { lane: lane?.id ?? null }),
			},
			patch: (_, reason) => ({
				...into,
				rank,
				column,
				...this.clockIn(card, column),
				letThrough: column === card.column ? card.letThrough : (reason ?? null),
			}),
		};
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

	/** Changes type, class, lane, labels, initiative, owners or ready mark of cards, in one step. */
	changeCards(cards: readonly CardView[], change: CardsChange): Promise<Sent> {
		return this.changeAll(cards, 'ChangeCards', change, cardsPatch(this.head, change));
	}

	private intoLane(card: CardView, id: string | null): Pick<CardView, 'lane' | 'class'> {
		return intoLane(this.head.lanes, card, this.head.lanes.find((lane) => lane.id === id) ?? null);
	}

	/** Gives a card another value of a field, as the field says how. */
	put(card: CardView, change: FieldChange): Promise<Sent> {
		const live = this.latest(card);
		const step = this.stepFor(live, change);
		const { to } = datesIn(step, live);
		if (!to) return this.apply([live], step.command, step.input, step.patch);
		return this.moveDates([{ card: live, to }], () => {
			const again = this.stepFor(this.latest(card), change);
			return this.apply([this.latest(card)], again.command, again.input, again.patch);
		});
	}

	/**
	 * Gives cards other dates: where others hang on them, what follows is shown first, and asked.
	 * @param alone moves these cards only
	 */
	private async moveDates(
		dated: readonly { card: CardView; to: DateTexts }[],
		alone: () => Promise<Sent>,
	): Promise<Sent> {
		const found = await read<DatesPage>(`/api/teams/${this.head.teamId}/dates`, {
			cards: dated.map(({ card, to }) => ({ card: card.id, ...to })),
		});
		// Without a connection it is moved alone, as soon as there is one.
		if (!found.ok) return alone();
		const { moved, conflicts, milestones } = found.answer;
		const missed = milestones.some((one) => one.missed.length > 0);
		if (!moved.length && !conflicts.length && !missed) return alone();
		const moves = await new Promise<'all' | 'one' | null>((answer) => {
			this.following = { cards: dated.map(({ card }) => card), page: found.answer, answer };
		});
		this.following = null;
		if (moves === 'one') return alone();
		if (!moves) return { ok: false, refusal: { status: 0, code: 'left', title: 'Nothing was moved.' } };
		const sent = await this.ask('MoveDates', {
			team: this.head.teamId,
			cards: dated.map(({ card, to }) => ({ card: card.id, version: this.latest(card).version, ...to })),
			followers: moved.map(({ card: id, version, to: dates }) => ({ card: id, version, ...dates })),
		});
		const many = dated.length > 1;
		const moving = many
			? `${count(dated.length, 'card')} are moved`
			: `Card ${dated[0]!.card.number} is moved`;
		if (sent.ok)
			this.tell({
				tone: 'done',
				text: `${moving}, and ${count(moved.length, 'card')} with ${many ? 'them' : 'it'}.`,
				undo: sent.answer.id,
			});
		return sent;
	}

	/** Changes of cards that are one step: all of them happen or none, and they are taken back at once. */
	putAll(changes: readonly { card: CardView; change: FieldChange }[]): Promise<Sent> {
		const [first] = changes;
		if (changes.length === 1) return this.put(first!.card, first!.change);
		const cards = changes.map(({ card }) => this.latest(card));
		const once = new Set(cards.map(({ id }) => id)).size === cards.length;
		const dated = changes.map(({ change }, i) => ({
			card: cards[i]!,
			...datesIn(this.stepFor(cards[i]!, change), cards[i]!),
		}));
		const together = () => this.doTogether(changes);
		return once && dated.every((one): one is typeof one & { to: DateTexts } => one.to !== undefined)
			? this.moveDates(dated, together)
			: together();
	}

	private doTogether(changes: readonly { card: CardView; change: FieldChange }[]): Promise<Sent> {
		const cards = new Map<string, CardView>();
		const shown = new Map<string, CardView>();
		const steps = changes.map(({ card, change }) => {
			const live = this.latest(card);
			cards.set(card.id, live);
			const { command, input, patch } = this.stepFor(live, change);
			const now = shown.get(card.id) ?? live;
			shown.set(card.id, { ...now, ...patch(now) });
			return { command, input: input as Record<string, unknown> };
		});
		return this.apply([...cards.values()], 'DoTogether', { board: this.head.id, steps }, ({ id }) =>
			shown.get(id)!,
		);
	}

	/** Gives cards one of the values of a field, in one step. */
	async choose(cards: readonly CardView[], { values }: FieldOfCards, key: string): Promise<void> {
		const changes = cards.flatMap((card) => {
			const live = this.latest(card);
			const change = values!.put!(live, key, values!.of(live)[0]!);
			return change ? [{ card: live, change }] : [];
		});
		const [first] = changes;
		if (!first) return;
		const alike = changes.every(({ change }) => JSON.stringify(change) === JSON.stringify(first.change));
		// What is the same for all is one change of many; anything else as many of one each.
		if (alike && first.change.do === 'cards')
			await this.changeCards(
				changes.map(({ card }) => card),
				first.change.change,
			);
		else await this.putAll(changes);
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

	/** A card as it will be after a change. */
	after(card: CardView, change: FieldChange): CardView {
		return { ...card, ...this.stepFor(card, change).patch(card) };
	}

	private stepFor(card: CardView, change: FieldChange): CardStep {
		return stepFor(this.head, card, change, (one, column) => this.moveStep(one, column, undefined));
	}

	/** Orders cards in the backlog: below another one, on top (null) or at the end (undefined). */
	place(cards: readonly CardView[], below: string | null | undefined): Promise<Sent> {
		const moving = this.withParts(cards);
		const ids = new Set(moving.map((card) => card.id));
		const others = this.backlog.filter((card) => !ids.has(card.id));
		let index = below === null ? 0 : others.length;
		if (below) index = others.findIndex((card) => card.id === below) + 1 || others.length;
		const ranks = generateNKeysBetween(
			others[index - 1]?.rank ?? null,
			others[index]?.rank ?? null,
			moving.length,
		);
		const rankOf = new Map(moving.map((card, i) => [card.id, ranks[i]!]));
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
		const last =
			others
				.map(({ rank }) => rank)
				.sort()
				.at(-1) ?? null;
		const ranks = generateNKeysBetween(last, null, cards.length);
		const rankOf = new Map(cards.map(({ id }, i) => [id, ranks[i]!]));
		return this.changeAll(cards, 'MoveCards', { column }, (card) =>
			card.column === column ? {} : { rank: rankOf.get(card.id)!, column, ...this.clockIn(card, column) },
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

	private async track<R>(work: Promise<R>): Promise<R> {
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
	private change<C extends Command>(
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
	private changeAll<C extends CommandOnCards>(
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

	private apply<C extends Command>(
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
		const mine = cards.map((card) => ({ ...card, ...patch(card), version: card.version + 1 }));
		this.show(mine);
		const count = (by: 1 | -1) => {
			for (const { id } of cards) {
				const left = (this.onTheWay.get(id) ?? 0) + by;
				if (left) this.onTheWay.set(id, left);
				else this.onTheWay.delete(id);
			}
		};
		count(1);
		const sent = await this.send(command, input);
		count(-1);
		if (sent.ok) {
			for (const card of mine) {
				const known = this.truth.get(card.id);
				if (!known || known.version < card.version) this.truth.set(card.id, card);
			}
		} else {
			this.show(cards.map((card) => this.truth.get(card.id) ?? card));
			if (sent.refusal.code === 'card.changed') this.reread();
		}
		return sent;
	}

	private send<C extends Command>(command: C, input: CommandInput<C>): Promise<Sent<CommandResult<C>>> {
		return send(command, input, () => (this.connection = 'lost'));
	}

	private settle(sent: Sent): void {
		if (!sent.ok) return this.refuse(sent.refusal);
		const { id, undoable, advice } = sent.answer;
		if (undoable) this.undoable.push(id);
		if (advice) this.tell({ tone: 'care', text: advice, undo: undoable ? id : undefined });
	}

	private now(): Date {
		return new Date(Date.now() + this.ahead);
	}

	private show(changed: readonly CardView[]): void {
		const cards = new Map(this.cards);
		for (const card of changed) cards.set(card.id, card);
		this.cards = cards;
	}

	private rankFor(card: CardView, column: string | null, below: string | null | undefined): string {
		const others = (column ? (this.columns.get(column) ?? []) : []).filter((other) => other.id !== card.id);
		const ranks = others.map((other) => other.rank).sort();
		const above =
			below === undefined
				? ranks.at(-1)
				: below === null
					? undefined
					: others.find((other) => other.id === below)?.rank;
		const under =
			below === undefined ? undefined : above === undefined ? ranks[0] : ranks.find((rank) => rank > above);
		return generateKeyBetween(above ?? null, under ?? null);
	}

	private clockIn(card: CardView, column: string | null): Partial<CardView> {
		if (column === card.column) return {};
		const index = (id: string | null) => {
			const found = this.head.columns.findIndex((known) => known.id === id);
			return found < 0 ? null : found;
		};
		const at = (text: string | null) => (text === null ? null : Date.parse(text));
		const text = (instant: number | null) => (instant === null ? null : new Date(instant).toISOString());
		const clock: CardClock = {
			state: card.clock,
			column: index(card.column),
			entered: at(card.entered),
			started: at(card.started),
			finished: at(card.finished),
			archived: card.archived !== null,
			before: card.started === null ? 'none' : 'running',
		};
		const layout = {
			columns: this.head.columns,
			commitment: this.head.columns.findIndex((known) => known.commitment),
		};
		const after = enter(layout, clock, index(column), this.now().getTime());
		const left = after.state === 'done' ? 0 : card.left;
		return {
			clock: after.state,
			entered: text(after.entered),
			started: text(after.started),
			finished: text(after.finished),
			left,
		};
	}
}
