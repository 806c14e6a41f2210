import type { CardView } from '$core/pages/board';
import type { DragEvents } from './drag';

/** Cards in someone's hand: where they were taken from, and where on the first of them they are held. */
interface Held {
	cards: CardView[];
	/** What they were taken from. */
	source: HTMLElement;
	width: number;
	dx: number;
	dy: number;
}

interface Options<Drop> {
	/** The cards that go along when one is taken; nothing where it cannot be. */
	take(id: string, source: HTMLElement): CardView[] | undefined;
	/** Where what is held would go from a point; asked for once a frame, however often the pointer moves. */
	over(x: number, y: number, held: Held): Drop | null;
	/** Whether two places are the same one. */
	same(a: Drop | null, b: Drop | null): boolean;
	/** How far to scroll what is under the pointer each frame; 0 for not at all. */
	pull?(x: number, y: number, drop: Drop | null): number;
	scroll?(drop: Drop | null, pixels: number): void;
	/** The same from side to side, where not all places are in sight at once. */
	pullAcross?(x: number): number;
	scrollAcross?(pixels: number): void;
	/** Told when nothing is held any more. */
	ended?(): void;
	dropped(held: Held, drop: Drop): void;
}

/** So far a pointer that was at an edge from the start has to go towards it. */
const TOWARDS = 12;

/** Cards being dragged on a page: what is held, where it would go, and what follows the pointer. */
export class Carry<Drop> {
	held = $state.raw<Held | null>(null);
	drop = $state.raw<Drop | null>(null);
	/** What is drawn under the pointer. */
	ghost = $state<HTMLElement>();
	private pointer = { x: 0, y: 0 };
	private frame = 0;
	private ended = false;
	/** Where it was taken; null once the pointer has been away from the edges, or has gone towards one. */
	private taken: number | null = null;

	constructor(private readonly options: Options<Drop>) {}

	/** Begins to listen to drags; the answer, once it is there, stops. */
	attach(
		drag: (element: HTMLElement, events: DragEvents) => Promise<() => void>,
		element: HTMLElement,
	): () => void {
		let stop: (() => void) | undefined;
		let gone = false;
		void drag(element, {
			start: (id, source, x, y) => {
				const cards = this.options.take(id, source);
				if (!cards) return;
				const box = source.getBoundingClientRect();
				this.held = { cards, source, width: box.width, dx: x - box.left, dy: y - box.top };
				this.taken = x;
				this.move(x, y);
			},
			move: (x, y) => this.move(x, y),
			end: () => this.end(),
		}).then((unset) => {
			stop = unset;
			if (gone) unset();
		});
		return () => {
			gone = true;
			stop?.();
		};
	}

	/** A drag ends in a click, which must not open the card. */
	onclick = (event: MouseEvent): void => {
		if (!this.ended) return;
		event.preventDefault();
		event.stopPropagation();
	};

	private move(x: number, y: number): void {
		this.pointer = { x, y };
		this.frame ||= requestAnimationFrame(() => this.follow());
	}

	private look(): void {
		const { x, y } = this.pointer;
		const next = this.held && this.options.over(x, y, this.held);
		if (!this.options.same(next, this.drop)) this.drop = next;
	}

	private follow(): void {
		this.frame = 0;
		const { held, ghost } = this;
		if (!held) return;
		const { x, y } = this.pointer;
		if (ghost) ghost.style.transform = `translate(${x - held.dx}px, ${y - held.dy}px) rotate(1.2deg)`;
		this.look();
		const pixels = this.options.pull?.(x, y, this.drop) ?? 0;
		const across = this.across(x);
		if (!pixels && !across) return;
		if (pixels) this.options.scroll?.(this.drop, pixels);
		if (across) this.options.scrollAcross?.(across);
		this.frame = requestAnimationFrame(() => this.follow());
	}

	/** What is taken by a grip that lies at an edge is not pulled over it before it goes there. */
	private across(x: number): number {
		const pixels = this.options.pullAcross?.(x) ?? 0;
		if (!pixels || (this.taken !== null && Math.sign(pixels) * (x - this.taken) >= TOWARDS))
			this.taken = null;
		return this.taken === null ? pixels : 0;
	}

	private end(): void {
		cancelAnimationFrame(this.frame);
		this.frame = 0;
		this.look();
		const { held, drop } = this;
		[this.held, this.drop, this.ended] = [null, null, true];
		setTimeout(() => (this.ended = false));
		this.options.ended?.();
		if (held && drop) this.options.dropped(held, drop);
	}
}
