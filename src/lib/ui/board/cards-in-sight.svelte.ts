import { SvelteMap } from 'svelte/reactivity';
import type { Looking } from '$core/board/field';
import { fieldsOf } from '$core/board/fields';
import { asUsed } from '$core/board/used';
import type { BoardCards, BoardHead, CardView } from '$core/pages/board';
import type { Sent } from '../send';

/** Who looks at a board, and on which day; what was carried over is told by the ribbon. */
type Looks = Pick<Looking, 'today' | 'me' | 'works'> & { carried: NonNullable<Looking['carried']> };

/** A board's cards as one page shows them: what the server last said of each, or what it will be by a change on its way. */
export class CardsInSight {
	head = $state.raw<BoardHead>()!;
	/** Cards as they are shown. */
	cards = $state.raw<ReadonlyMap<string, CardView>>(new Map());
	expectation = $state.raw<BoardCards['expectation']>(null);
	doneSince = $state('');
	/** The number of the last event that this page knows of. */
	seq = $state(0);
	looks = $state.raw<Looks>({ today: 0, me: null, carried: {} });
	/** The fields of its cards: what all that shows, narrows, arranges and sorts them goes by. */
	readonly looking = $derived<Looking>({ board: this.head, ...this.looks, expectation: this.expectation });
	readonly fields = $derived(fieldsOf(this.looking));

	/** How far the server's clock is ahead of this machine's. */
	private ahead = 0;
	private truth = new Map<string, CardView>();
	/** Cards with changes of one's own on their way, and how many. */
	private readonly onTheWay = new SvelteMap<string, number>();

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

	/** Takes over cards that changed on the server. */
	protected learn(told: { seq: number; cards: readonly CardView[] }): void {
		if (told.seq > this.seq) this.seq = told.seq;
		const cards = new Map(this.cards);
		let news = false;
		for (const one of told.cards) {
			const card = asUsed(this.head, one);
			const known = this.truth.get(card.id);
			if (known && known.version > card.version) continue;
			this.truth.set(card.id, card);
			const shown = cards.get(card.id);
			if (shown && shown.version > card.version) continue;
			cards.set(card.id, card);
			news = true;
		}
		if (news) this.cards = cards;
	}

	/** Whether a change of one's own of this card is on its way. */
	changing(card: string): boolean {
		return this.onTheWay.has(card);
	}

	/** Shows cards as they will be while their change is on its way; a refusal puts them back as the server has them. */
	protected async shownAs<R>(
		cards: readonly CardView[],
		patch: (card: CardView) => Partial<CardView>,
		change: () => Promise<Sent<R>>,
	): Promise<Sent<R>> {
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
		const sent = await change();
		count(-1);
		if (sent.ok) {
			for (const card of mine) {
				const known = this.truth.get(card.id);
				if (!known || known.version < card.version) this.truth.set(card.id, card);
			}
		} else this.show(cards.map((card) => this.truth.get(card.id) ?? card));
		return sent;
	}

	/** The server's present. */
	protected now(): Date {
		return new Date(Date.now() + this.ahead);
	}

	private show(changed: readonly CardView[]): void {
		const cards = new Map(this.cards);
		for (const card of changed) cards.set(card.id, card);
		this.cards = cards;
	}
}
