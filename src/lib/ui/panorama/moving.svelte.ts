import { dayText } from '$core/calendar/days';
import type { Day } from '$core/calendar/zone';
import {
	follow,
	keptLength,
	nextWorkday,
	shiftedBy,
	spanOf,
	type DatedCard,
	type Dates,
} from '$core/dates/follow';
import type { DatesPage } from '$core/pages/dates';
import type { PanoramaPage, TimelineCard } from '$core/pages/panorama';
import { datesOf, keyOf } from '$core/panorama/rows';
import { dragBars } from '../board/drag';
import { ask } from '../send';
import type { Doing } from '../team/doing.svelte';
import { count, dateWords } from '../words';

/** What bars are moved over. */
interface Ground {
	page: PanoramaPage;
	works: (day: Day) => boolean;
	doing: Doing;
	/** How many pixels wide a day is. */
	wide: number;
}

/** A card and all that hangs on it, with what these wait for. */
interface Chain {
	cards: Map<string, DatedCard>;
	links: { from: string; to: string }[];
}

const text = (day: Day | null) => (day === null ? null : dayText(day));

/**
 * Bars in somebody's hand: cards are shown as they would lie, with all that hangs on them, before what follows is asked for
 * and they are moved. Cards are named by their places in the page.
 */
export class Moving {
	/** Dates that cards would have: while one is held, and until the server has answered. */
	would = $state.raw<ReadonlyMap<number, Dates>>(new Map());
	held = $state.raw<{ at: number; days: number; edge: boolean } | null>(null);
	/** What would follow, before it is asked. */
	slip = $state.raw<{ at: number; to: Dates; follows: DatesPage } | null>(null);
	/** A drag ends with a click on what it began with: that opens nothing. */
	dragged = false;
	private chain: Chain | null = null;
	private readonly places = $derived.by(
		() => new Map(this.ground().page.cards.map(({ id }, at) => [id, at])),
	);

	constructor(private readonly ground: () => Ground) {}

	/** Whether whoever looks may move a card. */
	may(card: TimelineCard): boolean {
		return this.ground().page.boards.find(({ id }) => id === card.board)?.role !== 'viewer';
	}

	/** Cards lie where they lay. */
	leave(): void {
		this.slip = null;
		this.would = new Map();
		this.chain = null;
	}

	/** What is begun or done is not moved by others; by hand it is. */
	private datedOf(card: TimelineCard): DatedCard {
		return {
			...{ id: card.id, ...datesOf(card), works: this.ground().works, mine: this.may(card) },
			state: card.clock === 'done' ? 'over' : card.clock === 'none' ? 'waits' : 'begun',
		};
	}

	private chainOf(at: number): Chain {
		const { page } = this.ground();
		const next = new Map<number, number[]>();
		for (const [from, to] of page.links) next.set(from, [...(next.get(from) ?? []), to]);
		const reached = new Set([at]);
		for (const one of reached) for (const to of next.get(one) ?? []) reached.add(to);
		const links = page.links.filter(([, to]) => reached.has(to));
		const need = new Set([...reached, ...links.map(([from]) => from)]);
		return {
			cards: new Map([...need].map((one) => [page.cards[one]!.id, this.datedOf(page.cards[one]!)])),
			links: links.map(([from, to]) => ({ from: page.cards[from]!.id, to: page.cards[to]!.id })),
		};
	}

	/** The dates of a card so many days on; by its edge only its end moves. It begins and ends on days on which its team works. */
	private movedBy(card: TimelineCard, days: number, edge: boolean): Dates | null {
		const { works } = this.ground();
		const span = spanOf(datesOf(card))!;
		const near = (day: Day) => (works(day) ? day : nextWorkday(works, day));
		if (edge) {
			const end = near(Math.max(span.start, span.end + days));
			return end === null ? null : { start: span.start, due: end };
		}
		const start = near(span.start + days);
		return start === null ? null : keptLength(this.datedOf(card), start);
	}

	private preview(at: number, to: Dates): void {
		const card = this.ground().page.cards[at]!;
		this.chain ??= this.chainOf(at);
		const { moved } = follow(this.chain.cards, this.chain.links, new Map([[card.id, to]]));
		this.would = new Map([
			[at, to],
			...moved.map(({ card: id, start, due }): [number, Dates] => [this.places.get(id)!, { start, due }]),
		]);
	}

	/** Gives a card other dates; where others hang on it, what follows is asked first. */
	async give(at: number, to: Dates): Promise<void> {
		const { page, doing } = this.ground();
		const query = new URLSearchParams({ start: text(to.start) ?? '', due: text(to.due) ?? '' });
		const found = await ask<DatesPage>(`/api/cards/${keyOf(page, page.cards[at]!)}/dates?${query}`);
		if (!found.ok) {
			doing.message = { text: found.refusal.title, tone: 'warn' };
			this.would = new Map();
			return;
		}
		const { moved, conflicts, milestones } = found.answer;
		if (moved.length || conflicts.length || milestones.some(({ missed }) => missed.length))
			this.slip = { at, to, follows: found.answer };
		else await this.move(at, to, []);
	}

	/** Moves a card, and those that follow it. */
	async move(at: number, to: Dates, followers: DatesPage['moved']): Promise<void> {
		this.slip = null;
		const { page, doing } = this.ground();
		const card = page.cards[at]!;
		const key = keyOf(page, card);
		const span = spanOf(to)!;
		const sent = await doing.ask(
			'MoveDates',
			{
				team: page.team.id,
				cards: [{ card: card.id, version: card.version, start: text(to.start), due: text(to.due) }],
				followers: followers.map(({ card: id, version, to: dates }) => ({ card: id, version, ...dates })),
			},
			`${key} lies from ${dateWords(dayText(span.start), page.today)} to ${dateWords(dayText(span.end), page.today)}${followers.length ? `, and ${count(followers.length, 'card')} moved along` : ''}.`,
		);
		if (sent.ok) doing.spoken = doing.message?.text ?? '';
		this.leave();
	}

	/** Shows where a card would lie a working day on or back, or with another end; nothing is kept yet. */
	step(at: number, does: 'move' | 'longer' | 'shorter', on: boolean): void {
		const { page, works, doing } = this.ground();
		const card = page.cards[at]!;
		if (!this.may(card)) return;
		const dates = this.would.get(at) ?? datesOf(card);
		const span = spanOf(dates)!;
		const by = does === 'longer' || (does === 'move' && on) ? 1 : -1;
		const to = shiftedBy(works, does === 'move' ? span.start : span.end, by);
		if (to === null || (does !== 'move' && to < span.start)) return;
		const next =
			does === 'move' ? keptLength({ ...this.datedOf(card), ...dates }, to) : { start: span.start, due: to };
		if (!next) return;
		this.preview(at, next);
		const lies = spanOf(next)!;
		const [start, end] = [lies.start, lies.end].map((day) => dateWords(dayText(day), page.today));
		doing.spoken = `${keyOf(page, card)} would lie from ${start} to ${end}. Enter keeps it, Escape leaves it.`;
	}

	/** Bars within an element are dragged, by their end only that. */
	readonly dragging = (element: HTMLElement): (() => void) => {
		let from = 0;
		const stop = dragBars(element, {
			start: (id, bar, x) => {
				const at = this.places.get(id);
				if (at === undefined || !this.may(this.ground().page.cards[at]!)) return;
				const box = bar.getBoundingClientRect();
				this.held = { at, days: 0, edge: box.width > 28 && x > box.right - 9 };
				[from, this.dragged, this.chain] = [x, true, null];
			},
			move: (x) => {
				const { page, wide } = this.ground();
				if (!this.held) return;
				const days = Math.round((x - from) / wide);
				if (days === this.held.days) return;
				this.held = { ...this.held, days };
				const to = this.movedBy(page.cards[this.held.at]!, days, this.held.edge);
				if (to && days) this.preview(this.held.at, to);
				else this.would = new Map();
			},
			end: () => {
				const was = this.held;
				this.held = null;
				setTimeout(() => (this.dragged = false));
				const to = was && this.would.get(was.at);
				if (was?.days && to) void this.give(was.at, to);
				else this.would = new Map();
			},
		});
		return () => void stop.then((end) => end());
	};
}
