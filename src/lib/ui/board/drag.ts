import type { Interactable } from '@interactjs/types';

/** What a drag tells the board. Positions are the pointer's, in the window. */
export interface DragEvents {
	start(id: string, element: HTMLElement, x: number, y: number): void;
	move(x: number, y: number): void;
	end(): void;
}

/**
 * Lets the cards inside an element be dragged, with the mouse anywhere on them and with touch by their grip, so that a
 * finger on a card still scrolls.
 */
export const dragCards = (board: HTMLElement, events: DragEvents) =>
	drag(board, 'li[data-card]', '.grip', events);

/** The same for cards of a list and for blocks in rows; blocks are small, so a finger takes hold anywhere on them. */
export const dragBetween = async (plan: HTMLElement, events: DragEvents) => {
	const stops = await Promise.all([
		drag(plan, 'li[data-card]', '.grip', events),
		drag(plan, 'a.block[data-card]', undefined, events),
	]);
	return () => stops.forEach((stop) => stop());
};

/** The same for cards of a month, which are small too. */
export const dragDays = (month: HTMLElement, events: DragEvents) =>
	drag(month, 'a.card[data-card]', undefined, events);

/** Bars of a timeline, which are held anywhere; initiatives of a stage likewise. */
export const dragBars = (within: HTMLElement, events: DragEvents) =>
	drag(within, 'a.bar[data-card]', undefined, events);
export const dragStages = (within: HTMLElement, events: DragEvents) =>
	drag(within, 'li[data-card]', '.grip', events);

/** Columns as Set-up draws them, and its clock, are held by their handles. */
export const dragColumns = (within: HTMLElement, events: DragEvents) =>
	drag(within, '[data-set-column], [data-clock]', '.handle', events, ({ setColumn }) => setColumn ?? 'clock');

/** Notes of a retrospective, held anywhere with the mouse and by their grip with a finger. */
export const dragNotes = (within: HTMLElement, events: DragEvents) =>
	drag(within, '[data-note]', '.grip', events, ({ note }) => note!);

async function drag(
	within: HTMLElement,
	what: string,
	grip: string | undefined,
	events: DragEvents,
	idOf = (data: DOMStringMap) => data.card!,
): Promise<() => void> {
	const { default: interact } = await import('interactjs');
	const touch = matchMedia('(pointer: coarse)').matches;
	const cards: Interactable = interact(what, { context: within }).draggable({
		allowFrom: touch || grip === '.handle' ? grip : undefined,
		ignoreFrom: grip === '.handle' ? undefined : 'textarea, button, input, select',
		cursorChecker: () => '',
		listeners: {
			start: ({ target, clientX, clientY }) => events.start(idOf(target.dataset), target, clientX, clientY),
			move: ({ clientX, clientY }) => events.move(clientX, clientY),
			end: () => events.end(),
		},
	});
	cards.styleCursor(false);
	return () => cards.unset();
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
