import type { Filter } from '$core/board/filter';

/** Cards that were added under a filter: they stay in sight until somebody goes on to another. */
export class Fresh {
	private ids = $state.raw<ReadonlySet<string>>(new Set());

	/** Made where a component begins. */
	constructor(filter: () => Filter) {
		$effect(() => {
			filter();
			this.ids = new Set();
		});
	}

	has(id: string): boolean {
		return this.ids.has(id);
	}

	add(ids: readonly string[]): void {
		this.ids = new Set([...this.ids, ...ids]);
	}
}
