import type { D3DragEvent } from 'd3-drag';

/** What a drag tells the board. Positions are the pointer's, in the window. */
export interface DragEvents {
	start(id: string, element: HTMLElement, x: number, y: number): void;
	move(x: number, y: number): void;
	end(): void;
}

/** What can be held, by a selector, and by what of it: `always`, or `touch` where a finger anywhere else scrolls. */
interface Holds {
	what: string;
	grip?: string;
	by?: 'always' | 'touch';
}

const CARDS: Holds = { what: 'li[data-card]', grip: '.grip', by: 'touch' };

/**
 * Lets the cards inside an element be dragged, with the mouse anywhere on them and with touch by their grip, so that a
 * finger on a card still scrolls.
 */
export const dragCards = (board: HTMLElement, events: DragEvents) => drag(board, [CARDS], events);

/** The same for cards of a list and for blocks in rows; blocks are small, so a finger takes hold anywhere on them. */
export const dragBetween = (plan: HTMLElement, events: DragEvents) =>
	drag(plan, [CARDS, { what: 'a.block[data-card]' }], events);

/** The same for cards of a month, which are small too. */
export const dragDays = (month: HTMLElement, events: DragEvents) =>
	drag(month, [{ what: 'a.card[data-card]' }], events);

/** Bars of a timeline, which are held anywhere; initiatives of a stage likewise. */
export const dragBars = (within: HTMLElement, events: DragEvents) =>
	drag(within, [{ what: 'a.bar[data-card]' }], events);
export const dragStages = (within: HTMLElement, events: DragEvents) => drag(within, [CARDS], events);

/** Columns as Set-up draws them, and its clock, are held by their handles. */
export const dragColumns = (within: HTMLElement, events: DragEvents) =>
	drag(
		within,
		[{ what: '[data-set-column], [data-clock]', grip: '.handle', by: 'always' }],
		events,
		({ setColumn }) => setColumn ?? 'clock',
	);

/** Notes of a retrospective, held anywhere with the mouse and by their grip with a finger. */
export const dragNotes = (within: HTMLElement, events: DragEvents) =>
	drag(within, [{ what: '[data-note]', grip: '.grip', by: 'touch' }], events, ({ note }) => note!);

/** So far a pointer goes before what it holds is dragged: a hand that clicks is not quite still. */
const SLIGHT = 3;

async function drag(
	within: HTMLElement,
	kinds: readonly Holds[],
	events: DragEvents,
	idOf = (data: DOMStringMap) => data.card!,
): Promise<() => void> {
	const [{ drag: behaviour }, { select }] = await Promise.all([import('d3-drag'), import('d3-selection')]);
	let held = false;
	// Listened to on what is held alone: everything else scrolls freely, and what is taken off the page is still held.
	const takeHold = ({ target, pointerType, button, ctrlKey }: PointerEvent) => {
		const kind = kinds.find(({ what }) => (target as Element).closest(what));
		const item = kind && (target as Element).closest<HTMLElement>(kind.what);
		if (held || button || ctrlKey || !kind || !item) return;
		const byGrip = kind.grip && (kind.by === 'always' || pointerType === 'touch');
		const hold = byGrip ? (target as Element).closest<HTMLElement>(kind.grip!) : item;
		if (!hold || (!byGrip && (target as Element).closest('textarea, button, input, select'))) return;
		let began: { x: number; y: number } | null = null;
		select(hold).call(
			behaviour<HTMLElement, unknown>()
				.clickDistance(SLIGHT)
				.on('start', () => (held = true))
				.on('drag', (moved) => {
					const { x, y } = pointOf(moved);
					if (!began && Math.hypot(moved.x - moved.subject.x, moved.y - moved.subject.y) <= SLIGHT) return;
					if (!began) events.start(idOf(item.dataset), item, x, y);
					began = { x, y };
					events.move(x, y);
				})
				.on('end', () => {
					held = false;
					select(hold).on('.drag', null).style('touch-action', null);
					if (began) events.end();
				}),
		);
	};
	within.addEventListener('pointerdown', takeHold);
	return () => within.removeEventListener('pointerdown', takeHold);
}

/** Where the pointer of a drag is, in the window. */
function pointOf({ identifier, sourceEvent }: D3DragEvent<HTMLElement, unknown, unknown>): {
	x: number;
	y: number;
} {
	const touches: Touch[] = [...((sourceEvent as TouchEvent).changedTouches ?? [])];
	const { clientX, clientY } =
		touches.find((touch) => touch.identifier === identifier) ?? (sourceEvent as MouseEvent);
	return { x: clientX, y: clientY };
}

/** Where a card held at a point would go: a column, there a lane (`none`: in none), and the card it would stand below (null: on top). */
export function dropAt(
	x: number,
	y: number,
	moving: string,
): { column: string; lane: string | undefined; below: string | null } | null {
	const under = document.elementFromPoint(x, y);
	const column = under?.closest<HTMLElement>('[data-column]');
	if (!column?.dataset.column) return null;
	const cards = [...column.querySelectorAll<HTMLElement>('li[data-card]')].filter(
		(card) => card.dataset.card !== moving,
	);
	let below: string | null = null;
	let best = -Infinity;
	for (const card of cards) {
		const box = card.getBoundingClientRect();
		// Two abreast: a card comes before the point when it ends above it, or stands left of it in the same row.
		const before =
			box.bottom <= y ||
			(box.top <= y && (box.left + box.width < x || (x >= box.left && y > box.top + box.height / 2)));
		if (!before) continue;
		const order = Number(card.getAttribute('aria-posinset'));
		if (order > best) [best, below] = [order, card.dataset.card!];
	}
	return { column: column.dataset.column, lane: column.dataset.lane, below };
}
