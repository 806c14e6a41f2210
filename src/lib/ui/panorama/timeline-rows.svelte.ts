import type { PanoramaPage } from '$core/pages/panorama';
import type { Asked } from '$core/panorama/asked';
import { rowsOf, type Row } from '$core/panorama/rows';

/** How high rows are, in pixels: of an initiative, of another group, of a card; and where a finger points. */
const HIGH = { initiative: 48, group: 34, card: 27 };
const TOUCHED = { initiative: 68, group: 44, card: 44 };
/** Groups of more cards are folded at first. */
const MANY = 40;
/** So far beyond what is seen rows are drawn as well. */
const BEYOND = 200;

/** The rows of a timeline: which are folded, how high each lies, and which are near enough to be drawn. */
export class TimelineRows {
	/** The row that has the focus, by its place; it is drawn wherever it lies. */
	focus = $state(0);
	/** What of the picture is in sight, in pixels, and how wide the names of its rows are. */
	seen = $state.raw({ top: 0, left: 0, high: 800, wide: 1280, label: 220 });
	private touched = $state(false);
	private readonly highs = $derived(this.touched ? TOUCHED : HIGH);
	/** What somebody has unfolded or folded. */
	private turned = $state.raw<ReadonlyMap<string, boolean>>(new Map());
	private readonly all = $derived.by(() => rowsOf(this.page(), this.asked(), new Set()));
	readonly folded = $derived(
		new Set(
			this.all.flatMap((row) =>
				row.kind === 'group' && (this.turned.get(row.id) ?? row.cards.length > MANY) ? [row.id] : [],
			),
		),
	);
	readonly list = $derived.by(() =>
		this.folded.size ? rowsOf(this.page(), this.asked(), this.folded) : this.all,
	);
	/** Where each row begins, and after the last the height of all. */
	readonly tops = $derived.by(() => {
		const tops = [0];
		for (const row of this.list) tops.push(tops.at(-1)! + this.heightOf(row));
		return tops;
	});
	readonly high = $derived(this.tops.at(-1)!);
	/** The places of the rows that are drawn. */
	readonly drawn = $derived.by(() => {
		const { list, tops, seen, focus } = this;
		const [from, to] = [seen.top - BEYOND, seen.top + seen.high + BEYOND];
		// The first row that reaches into sight, found by halving.
		let [low, high] = [0, list.length];
		while (low < high) {
			const middle = (low + high) >> 1;
			if (tops[middle + 1]! < from) low = middle + 1;
			else high = middle;
		}
		const drawn: number[] = [];
		for (let i = low; i < list.length && tops[i]! < to; i++) drawn.push(i);
		if (focus < list.length && !drawn.includes(focus)) drawn.push(focus);
		return drawn;
	});

	constructor(
		private readonly page: () => PanoramaPage,
		private readonly asked: () => Asked,
	) {}

	heightOf(row: Row): number {
		return this.highs[row.kind === 'card' ? 'card' : row.initiative ? 'initiative' : 'group'];
	}

	/** The middle of a card's bar, from its row's top. */
	readonly middle = $derived(this.highs.card / 2);

	/** What a row is told by, however the rows stand. */
	keyOf(i: number): string {
		const row = this.list[i]!;
		return row.kind === 'group' ? `g ${row.id}` : `c ${row.group} ${row.at}`;
	}

	/** Folds a group, or unfolds it. */
	turn(id: string): void {
		this.turned = new Map([...this.turned, [id, !this.folded.has(id)]]);
	}

	/** The place of a card's row; -1 where it is not shown. */
	placeOf(card: number): number {
		return this.list.findIndex((row) => row.kind === 'card' && row.at === card);
	}

	look(element: HTMLElement): void {
		this.touched = matchMedia('(pointer: coarse)').matches;
		const { scrollTop: top, scrollLeft: left, clientHeight: high, clientWidth: wide } = element;
		this.seen = { top, left, high, wide, label: wide < 620 ? 132 : 220 };
	}
}
