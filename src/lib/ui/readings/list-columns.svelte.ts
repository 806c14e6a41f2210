import { fsum } from 'd3-array';
import { fieldNamed, type Field } from '$core/board/field';

/** Fields that a list shows until somebody chooses others. */
const USUAL = ['column', 'owners', 'size', 'left', 'due', 'labels', 'initiative'];
/** Widths that columns have at least, and their shares of what is free. */
const WIDTHS: Record<string, [number, number]> = {
	title: [220, 3],
	labels: [110, 1.4],
	owners: [110, 1.2],
};
const NUMBER = 56;
const [NARROW, BROAD] = [50, 700];

/** The columns of a list: which fields it shows beside number and title, and how wide; kept for this person and board. */
export class ListColumns {
	private chosen = $state.raw<readonly string[]>(USUAL);
	/** Widths that this person drew columns to, here. */
	private drawn = $state.raw<Readonly<Record<string, number>>>({});
	/** What can be shown beside number and title. */
	readonly others = $derived.by(() => this.fields().filter(({ id }) => id !== 'number' && id !== 'title'));
	readonly shown = $derived.by(() => [
		fieldNamed(this.fields(), 'title')!,
		...this.chosen.flatMap((id) => fieldNamed(this.others, id) ?? []),
	]);
	/** As tracks of a grid, and how wide all of it is at least, in pixels. */
	readonly template = $derived.by(() =>
		[`${NUMBER}px`, ...this.shown.map((field) => this.trackOf(field))].join(' '),
	);
	readonly least = $derived.by(() => NUMBER + fsum(this.shown, (field) => this.widthOf(field)));

	/** Made where a component begins. */
	constructor(
		private readonly board: () => string,
		private readonly fields: () => readonly Field[],
	) {
		$effect(() => {
			const kept = localStorage.getItem(this.name('fields'));
			this.chosen = kept === null ? USUAL : kept.split(' ').filter(Boolean);
			this.drawn = JSON.parse(localStorage.getItem(this.name('widths')) ?? '{}');
		});
	}

	private name(what: 'fields' | 'widths'): string {
		return `list-${what}-${this.board()}`;
	}

	has({ id }: Field): boolean {
		return this.chosen.includes(id);
	}

	show({ id }: Field, on: boolean): void {
		this.chosen = on ? [...this.chosen, id] : this.chosen.filter((one) => one !== id);
		localStorage.setItem(this.name('fields'), this.chosen.join(' '));
	}

	/** How wide a column is at least. */
	widthOf({ id }: Field): number {
		return this.drawn[id] ?? WIDTHS[id]?.[0] ?? 86;
	}

	private trackOf(field: Field): string {
		const least = this.widthOf(field);
		return this.drawn[field.id] ? `${least}px` : `minmax(${least}px, ${WIDTHS[field.id]?.[1] ?? 1}fr)`;
	}

	/** Draws a column to a width, in pixels. */
	widen({ id }: Field, to: number): void {
		this.drawn = { ...this.drawn, [id]: Math.round(Math.max(NARROW, Math.min(BROAD, to))) };
		localStorage.setItem(this.name('widths'), JSON.stringify(this.drawn));
	}
}
