import type { Virtualizer, VirtualItem } from '@tanstack/virtual-core';

/**
 * The part of a long list that is seen, with a little above and below. The list scrolls inside an element; its items
 * are laid in lanes and measured as they appear.
 */
export class Windowed {
	items = $state.raw<VirtualItem[]>([]);
	height = $state(0);
	private virtualizer: Virtualizer<HTMLElement, Element> | undefined;
	/** What the list was last said to hold: said again once it can be heard. */
	private last: Parameters<Windowed['update']> | undefined;

	/**
	 * @param estimate height of an item that has not been measured yet
	 * @param gap between items
	 */
	constructor(
		private readonly estimate = 104,
		private readonly gap = 8,
	) {}

	/** Begins to follow an element; the answer stops. What draws long lists is fetched with the first of them. */
	mount(element: HTMLElement): () => void {
		let clean: (() => void) | undefined;
		let gone = false;
		void import('@tanstack/virtual-core').then((core) => {
			if (gone) return;
			this.virtualizer = new core.Virtualizer<HTMLElement, Element>({
				count: 0,
				getScrollElement: () => element,
				estimateSize: () => this.estimate,
				overscan: 6,
				gap: this.gap,
				observeElementRect: core.observeElementRect,
				observeElementOffset: core.observeElementOffset,
				scrollToFn: core.elementScroll,
				onChange: () => this.read(),
			});
			clean = this.virtualizer._didMount();
			this.virtualizer._willUpdate();
			if (this.last) this.update(...this.last);
		});
		return () => {
			gone = true;
			clean?.();
		};
	}

	/** Says what the list holds now. */
	update(count: number, lanes: number, key: (index: number) => string, always: number | null): void {
		this.last = [count, lanes, key, always];
		const { virtualizer } = this;
		if (!virtualizer) return;
		virtualizer.setOptions({
			...virtualizer.options,
			count,
			lanes,
			getItemKey: key,
			rangeExtractor: ({ startIndex, endIndex, overscan }) => {
				const first = Math.max(0, startIndex - overscan);
				const last = Math.min(count - 1, endIndex + overscan);
				const indexes = Array.from({ length: Math.max(0, last - first + 1) }, (_, i) => first + i);
				return always !== null && always < count && (always < first || always > last)
					? [...indexes, always].sort((a, b) => a - b)
					: indexes;
			},
		});
		virtualizer._willUpdate();
		this.read();
	}

	measure = (element: Element) => {
		this.virtualizer?.measureElement(element);
	};

	/** Brings an item into view. */
	reveal(index: number): void {
		this.virtualizer?.scrollToIndex(index, { align: 'auto' });
	}

	private read(): void {
		if (!this.virtualizer) return;
		this.items = this.virtualizer.getVirtualItems();
		this.height = this.virtualizer.getTotalSize();
	}
}
