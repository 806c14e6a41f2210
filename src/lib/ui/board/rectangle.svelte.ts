/** A rectangle between two points of the window. */
export interface Box {
	left: number;
	top: number;
	right: number;
	bottom: number;
}

/** So far a mouse is drawn before it picks. */
const FAR = 6;

/** Cards picked by a rectangle that a mouse is drawn over, from where nothing else begins. */
export class Rectangle {
	box = $state.raw<Box | null>(null);
	private from: { x: number; y: number } | null = null;

	/** @param picked told of what the rectangle meets, and whether it comes to what was picked before */
	constructor(private readonly picked: (ids: string[], more: boolean) => void) {}

	/** Begins where there is no card, nothing to press and nothing to write in. */
	down(event: PointerEvent): void {
		const target = event.target as HTMLElement;
		if (
			event.button ||
			event.pointerType !== 'mouse' ||
			target.closest('li, a, button, input, select, textarea')
		)
			return;
		this.from = { x: event.clientX, y: event.clientY };
	}

	move({ clientX: x, clientY: y }: PointerEvent): void {
		if (!this.from || (!this.box && Math.hypot(x - this.from.x, y - this.from.y) < FAR)) return;
		this.box = {
			left: Math.min(x, this.from.x),
			right: Math.max(x, this.from.x),
			top: Math.min(y, this.from.y),
			bottom: Math.max(y, this.from.y),
		};
	}

	up(event: PointerEvent, within: HTMLElement): void {
		this.from = null;
		const { box } = this;
		if (!box) return;
		this.box = null;
		const met = [...within.querySelectorAll<HTMLElement>('li[data-card]')].filter((card) => {
			const at = card.getBoundingClientRect();
			return at.left < box.right && at.right > box.left && at.top < box.bottom && at.bottom > box.top;
		});
		this.picked(
			met.map((card) => card.dataset.card!),
			event.shiftKey || event.ctrlKey || event.metaKey,
		);
	}
}
