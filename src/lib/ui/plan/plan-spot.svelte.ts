import { tick } from 'svelte';
import type { CardView } from '$core/pages/board';
import type { PlanRow, PlanState } from './plan-state.svelte';

/** A block in a row, with its row and its place in it. */
export interface InRow {
	at: number;
	row: PlanRow;
	index: number;
	card: CardView;
}

/** What a row is called by in the page: a person's id; nobody's has none. */
export const rowId = (row: PlanRow): string => row.person?.id ?? 'nobody';
/** A block, by its row and its card. */
export const blockKey = (row: PlanRow, card: CardView): string => `${rowId(row)}/${card.id}`;

/** Where somebody is on a plan, in the backlog or in a row, and where keys lead from there. */
export class PlanSpot {
	/** The card of the backlog that keys speak of. */
	current = $state<string | null>(null);
	/** The block that keys speak of. */
	block = $state<string | null>(null);
	/** The block to which the key Tab comes. */
	readonly tabbable = $derived.by(() => {
		const keys = this.plan().rows.flatMap((row) => row.blocks.map(({ card }) => blockKey(row, card)));
		return this.block !== null && keys.includes(this.block) ? this.block : (keys[0] ?? null);
	});

	/**
	 * @param element what holds the rows
	 * @param showWaiting gives a card of the backlog the focus
	 */
	constructor(
		private readonly plan: () => PlanState,
		private readonly element: () => HTMLElement | undefined,
		private readonly showWaiting: (card: string) => unknown,
	) {}

	/** Takes note of what has got the focus. */
	came(target: HTMLElement): void {
		const card = target.closest<HTMLElement>('[data-card]')?.dataset.card;
		if (!card) return;
		if (target.closest('a.block'))
			this.block = `${target.closest<HTMLElement>('[data-person]')!.dataset.person!}/${card}`;
		else this.current = card;
	}

	/** The block that an element is part of. */
	inRow(target: HTMLElement): InRow | null {
		const id = target.closest<HTMLElement>('a.block')?.dataset.card;
		const person = target.closest<HTMLElement>('[data-person]')?.dataset.person;
		const { rows } = this.plan();
		const at = rows.findIndex((row) => rowId(row) === person);
		const row = rows[at];
		const index = row?.blocks.findIndex((one) => one.card.id === id) ?? -1;
		const card = row?.blocks[index]?.card;
		return row && card ? { at, row, index, card } : null;
	}

	/** Gives a card the focus in a row, as soon as it stands there. */
	async focusIn(row: PlanRow, card: CardView): Promise<void> {
		this.block = blockKey(row, card);
		await tick();
		this.element()
			?.querySelector<HTMLElement>(`[data-person="${rowId(row)}"] a.block[data-card="${card.id}"]`)
			?.focus();
	}

	/** Gives a card the focus wherever it stands now. */
	async focus(card: CardView): Promise<void> {
		const row = this.plan().rows.find(({ blocks }) => blocks.some((known) => known.card.id === card.id));
		if (row) await this.focusIn(row, card);
		else await this.showWaiting(card.id);
	}

	/** Goes on from a block: from person to person, or along its row and on into the backlog. */
	goInRows({ at, row, index }: InRow, key: string): void {
		const { rows, backlog } = this.plan();
		const by = key === 'ArrowUp' || key === 'ArrowLeft' ? -1 : 1;
		if (key === 'ArrowLeft' || key === 'ArrowRight') {
			const next = row.blocks[index + by];
			if (next) void this.focusIn(row, next.card);
			else if (by < 0) void this.showWaiting(this.current ?? backlog[0]?.id ?? '');
			return;
		}
		if (key === 'Home' || key === 'End') return;
		for (let i = at + by; rows[i]; i += by) {
			const { blocks } = rows[i]!;
			const next = blocks[Math.min(index, blocks.length - 1)];
			if (next) return void this.focusIn(rows[i]!, next.card);
		}
	}

	/** Goes on from a card of the backlog, by its place there. */
	goInBacklog(at: number, key: string): void {
		const { backlog } = this.plan();
		const step: Record<string, number> = { ArrowUp: at - 1, ArrowDown: at + 1, Home: 0 };
		const to = backlog[step[key] ?? backlog.length - 1];
		if (!to) return;
		this.current = to.id;
		void this.showWaiting(to.id);
	}
}
