import { fsum } from 'd3-array';
import { SvelteMap, SvelteSet } from 'svelte/reactivity';
import type { SettlePage } from '$core/pages/settling';
import type { CardView } from '$core/pages/board';
import { partsInHours, partsInPoints, type Part } from '$core/capacity/promise';
import type { Reason } from '$core/events/reasons';
import type { Stint } from '$core/sprint/ledger';
import { restTitle } from '$core/sprint/left';
import { sidesOf, type Decision } from '$core/sprint/settle';
import type { CommandInput } from '../../commands';
import type { BoardState } from '../board/board-state.svelte';

/** What a person has said so far of one card. */
export interface Draft {
	decision: Decision | null;
	reason: Reason | '';
	words: string;
	/** Of a split: what each part is called, which lines go along, and where the rest goes. */
	finished: string;
	title: string;
	lines: string[];
	to: 'next' | 'backlog';
}

const EMPTY: Draft = {
	decision: null,
	reason: '',
	words: '',
	finished: '',
	title: '',
	lines: [],
	to: 'next',
};

/** Settling as one page shows it: the decisions so far, kept in this window until the sprint is closed. */
export class SettleState {
	page = $state.raw<SettlePage>()!;
	drafts = new SvelteMap<string, Draft>();
	picked = new SvelteSet<string>();
	/** The card in hand. */
	current = $state<string | null>(null);

	constructor(private readonly board: BoardState) {}

	readonly sprint = $derived.by(
		() => this.board.head.sprints.find((known) => known.number === this.page.sprint) ?? null,
	);
	readonly unit = $derived.by(() => this.board.head.unit);
	/** The unfinished cards, those furthest along the board first. */
	readonly cards = $derived.by(() => {
		const columns = new Map(this.board.head.columns.map((column, i) => [column.id, i]));
		const place = (card: CardView) => (card.column === null ? -1 : (columns.get(card.column) ?? -1));
		return [...this.board.cards.values()]
			.filter(
				(card) =>
					card.sprint !== null && card.sprint === this.page.sprint && !card.archived && card.clock !== 'done',
			)
			.sort((a, b) => place(b) - place(a) || (a.rank < b.rank ? -1 : a.rank > b.rank ? 1 : 0));
	});
	readonly stints = $derived.by(() => {
		const open = new Map<number, Stint>();
		for (const stint of this.page.ledger?.stints ?? [])
			if (stint.outcome === null) open.set(Number(stint.card.slice(this.board.head.key.length + 1)), stint);
		return open;
	});
	readonly done = $derived.by(() => {
		const open = new Set(this.cards.map((card) => card.number));
		return [...this.stints.keys()].filter((number) => !open.has(number)).length;
	});
	readonly undecided = $derived(this.cards.filter((card) => this.missing(card) !== ''));
	/** Both sides of the ledger, with the decisions so far. */
	readonly sides = $derived.by(() => {
		if (!this.page.ledger) return null;
		const decisions = new Map<string, Decision>();
		for (const card of this.cards) {
			const { decision } = this.draft(card);
			if (decision) decisions.set(`${this.board.head.key}-${card.number}`, decision);
		}
		return sidesOf(this.page.ledger, decisions);
	});
	/** How full the next sprint would start, person by person. */
	readonly nextParts = $derived.by((): Part[] => {
		const { next } = this.page;
		if (!next) return [];
		const sprint = this.board.head.sprints.find((known) => known.number === next.number);
		const coming = this.cards.filter((card) => {
			const { decision, to } = this.draft(card);
			return decision === 'carry' || (decision === 'split' && to === 'next');
		});
		const cards = [...next.cards, ...coming].map((card) => ({
			card: String(card.number),
			left: card.left,
			owners: card.owners,
		}));
		const raw = new Map(next.people.map((person) => [person.person, person.raw]));
		return this.unit === 'points'
			? partsInPoints(raw, next.learned.perDay, cards)
			: partsInHours(
					raw,
					sprint?.focus ?? next.learned.focus,
					sprint?.keepBack ?? next.learned.keepBack,
					cards,
				);
	});
	/** What would be placed in the next sprint, owned or not, beside what it promises. */
	readonly nextFull = $derived.by(() => {
		const { next } = this.page;
		const promise = fsum(this.nextParts, (part) => part.promise);
		if (!next || promise <= 0) return null;
		const placed = fsum(
			[
				...next.cards,
				...this.cards.filter((card) => {
					const { decision, to } = this.draft(card);
					return decision === 'carry' || (decision === 'split' && to === 'next');
				}),
			],
			(card) => card.left,
		);
		return { placed, promise, share: placed / promise };
	});

	draft(card: Pick<CardView, 'id'>): Draft {
		return this.drafts.get(card.id) ?? EMPTY;
	}

	/** What a card still needs; empty when it is decided. */
	missing(card: CardView): string {
		const draft = this.draft(card);
		if (!draft.decision) return 'undecided';
		if (draft.decision === 'split' && !draft.title.trim()) return 'needs a title for the rest';
		if (draft.decision === 'split' && card.size !== null && card.left <= 0)
			return 'nothing is left to split off';
		if (!draft.reason) return 'needs a reason';
		return draft.reason === 'other' && !draft.words.trim() ? 'needs words' : '';
	}

	/** Says something of a card, and of all picked ones where it is one of them. */
	say(card: CardView, change: Partial<Draft>): CardView[] {
		const all = this.picked.has(card.id) ? this.cards.filter((one) => this.picked.has(one.id)) : [card];
		for (const one of all) {
			const draft = { ...this.draft(one), ...change };
			if (draft.decision === 'split') {
				draft.title ||= restTitle(one.title);
				draft.finished ||= one.title;
				if (change.decision === 'split' && !this.draft(one).title)
					draft.lines = (this.page.checklists[one.id] ?? [])
						.filter((line) => !line.done)
						.map((line) => line.id);
			}
			this.drafts.set(one.id, draft);
		}
		this.store();
		return all;
	}

	/** Takes what was said of one card alone. */
	only(card: CardView, change: Partial<Draft>): void {
		this.drafts.set(card.id, { ...this.draft(card), ...change });
		this.store();
	}

	pick(card: CardView): void {
		if (!this.picked.delete(card.id)) this.picked.add(card.id);
	}

	/** The decisions as the command wants them. */
	decisions(): CommandInput<'SettleSprint'>['decisions'] {
		return this.cards.map((card) => {
			const { decision, reason, words, finished, title, lines, to } = this.draft(card);
			return {
				card: card.id,
				version: this.board.latest(card).version,
				// What is not decided yet is not sent: the button waits for it, and the server would refuse it.
				decision: decision as Decision,
				reason: reason as Reason,
				...(words.trim() ? { words } : {}),
				...(decision === 'split' ? { title, lines, to, ...(finished.trim() ? { finished } : {}) } : {}),
			};
		});
	}

	private get key(): string {
		return `harrow-settle-${this.board.head.key}-${this.page.sprint}`;
	}

	/** Takes up again what was said before the page was read anew. */
	restore(): void {
		if (typeof sessionStorage === 'undefined' || this.drafts.size) return;
		const kept = sessionStorage.getItem(this.key);
		if (!kept) return;
		for (const [card, draft] of JSON.parse(kept) as [string, Draft][]) this.drafts.set(card, draft);
	}

	private store(): void {
		sessionStorage.setItem(this.key, JSON.stringify([...this.drafts]));
	}

	/** Forgets what was said: the sprint is closed. */
	forget(): void {
		sessionStorage.removeItem(this.key);
		this.drafts.clear();
		this.picked.clear();
	}
}
