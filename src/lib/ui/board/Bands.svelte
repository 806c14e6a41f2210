<script lang="ts">
	import type { Snippet } from 'svelte';
	import type { CardView, ColumnView, Unit } from '$core/pages/board';
	import Band from './Band.svelte';
	import { NONE, type GridBand } from './grid';

	interface Props {
		columns: ColumnView[];
		bands: GridBand[];
		unit: Unit;
		/** Lanes that are folded away, by their keys. */
		folded: ReadonlySet<string>;
		/** The board shows so many cards that only the lanes near what is seen are drawn. */
		many: boolean;
		/** Where lanes are set up; null for those who may not. */
		settings: string | null;
		head: Snippet<[ColumnView]>;
		cell: Snippet<[ColumnView, string, string, CardView[]]>;
		onfold: (lane: string) => void;
	}
	/** The columns of a board with lanes across them. */
	let { columns, bands, unit, folded, many, settings, head, cell, onfold }: Props = $props();
	const drawn = $state<Record<string, ReturnType<typeof Band> | undefined>>({});

	/** Draws a lane’s cards, also where it is out of sight. */
	export function draw(lane: string): void {
		drawn[lane]?.draw();
	}
</script>

<div class="corner">
	{#if settings}<a class="link" href={settings}>Set up lanes</a>{/if}
</div>
{#each columns as column (column.id)}
	<div class="head {column.kind}">{@render head(column)}</div>
{/each}
{#each bands as band, i (band.key)}
	<Band
		bind:this={drawn[band.key]}
		{columns}
		{band}
		{unit}
		shut={folded.has(band.key || NONE)}
		later={many && i > 0}
		{cell}
		{onfold}
	/>
{/each}

<style>
	.corner,
	.head {
		position: sticky;
		top: 0;
		z-index: 4;
		background: var(--paper);
		padding: 4px 0 6px 10px;
		border-bottom: 1.5px solid var(--edge);
	}
	.corner {
		padding: 6px 8px 6px 0;
		font-size: 12px;
	}
	.head {
		min-width: 0;
		border-left: 1px solid var(--rule);
	}
	.queue {
		border-left: 1px dashed var(--faint);
	}
	@media (max-width: 700px) {
		.corner {
			display: none;
		}
		.head {
			scroll-snap-align: start;
			border-left: 0;
			padding-inline: 14px 6px;
		}
	}
</style>
