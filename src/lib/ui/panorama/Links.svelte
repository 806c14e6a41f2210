<script lang="ts">
	import { spanOf } from '$core/dates/follow';
	import type { PanoramaPage } from '$core/pages/panorama';
	import { datesOf, linesOf } from '$core/panorama/rows';
	import { arrowFrom, type Lie } from './scale';
	import type { TimelineRows } from './timeline-rows.svelte';

	interface Props {
		page: PanoramaPage;
		rows: TimelineRows;
		lie: Lie;
		/** Of all that is drawn across. */
		width: number;
	}
	/** Dependencies as thin lines from the end of one card to the start of another; one that does not hold is thicker. */
	let { page, rows, lie, width }: Props = $props();
	const BEYOND = 300;

	const drawn = $derived(linesOf(page, rows.list));
	const spanAt = (at: number) => spanOf(datesOf(page.cards[at]!))!;
	const lines = $derived.by(() => {
		const { tops, middle, seen } = rows;
		const [top, bottom] = [seen.top - BEYOND, seen.top + seen.high + BEYOND];
		return drawn.flatMap(({ link: [from, to], rows: [above, below], crossed }) => {
			const [a, b] = [tops[above]!, tops[below]!];
			if (Math.max(a, b) < top || Math.min(a, b) > bottom) return [];
			const [x1, y1] = [lie.left(spanAt(from).end + 1), a + middle];
			const [x2, y2] = [lie.left(spanAt(to).start), b + middle];
			const path = arrowFrom([x1, y1], [x2, y2]);
			return [{ key: `${above} ${below}`, path, crossed, x2, y2 }];
		});
	});
</script>

<svg aria-hidden="true" {width} height={rows.high + 20}>
	{#each lines as { key, path, crossed, x2, y2 } (key)}
		<path class:crossed d={path} />
		<path class="tip" class:crossed d="M{x2 - 6} {y2 - 3.5}L{x2 - 1} {y2}L{x2 - 6} {y2 + 3.5}" />
	{/each}
</svg>

<style>
	svg {
		position: absolute;
		inset: 0 auto auto 0;
		pointer-events: none;
		z-index: 1;
	}
	path {
		fill: none;
		stroke: var(--ink);
		stroke-width: 1.2;
	}
	.crossed {
		stroke: var(--brick);
		stroke-width: 2;
	}
</style>
