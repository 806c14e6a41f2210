<script lang="ts">
	import type { Snippet } from 'svelte';
	import type { CardView, ColumnView, Unit } from '$core/pages/board';
	import { leftOf } from '$core/board/left';
	import { amount, count } from '../words';
	import { NONE, type GridBand } from './grid';
	import { whenNear } from './near';
	import Slots from './Slots.svelte';

	interface Props {
		columns: ColumnView[];
		band: GridBand;
		unit: Unit;
		/** It is folded away. */
		shut: boolean;
		/** The board shows so many cards that it is drawn only when it comes near what is seen. */
		later: boolean;
		cell: Snippet<[ColumnView, string, string, CardView[]]>;
		onfold: (lane: string) => void;
	}
	/** A lane across the columns. Folded away it still shows its counts. */
	let { columns, band, unit, shut, later, cell, onfold }: Props = $props();
	const { key, name, lane, standing, cells } = $derived(band);
	const id = $derived(key || NONE);

	let near = $state(false);
	/** Draws its cards, wherever it is. */
	export function draw(): void {
		near = true;
	}
	/** About how high it will be: what is long scrolls by itself. */
	const CARD_PX = 110;
	const LONG = 6;
	const height = $derived(CARD_PX * Math.min(LONG, Math.max(1, ...cells.map((cards) => cards.length))));

	/** Cards, and what is left of them. */
	const sums = (cards: readonly CardView[]) =>
		!cards.length
			? 'no cards'
			: unit === 'none'
				? count(cards.length, 'card')
				: `${count(cards.length, 'card')}, ${amount(leftOf(cards), unit)}`;
</script>

<section class="band" aria-labelledby="lane-{id}">
	<div class="name" class:shut>
		<h3 id="lane-{id}">
			<button
				type="button"
				aria-expanded={!shut}
				title={shut ? 'Unfold it' : 'Fold it away'}
				onclick={() => onfold(id)}
				><span class="turn" aria-hidden="true">{shut ? '▸' : '▾'}</span>{name}</button
			>
		</h3>
		{#if lane && lane.limit !== null}<Slots limit={lane.limit} standing={standing.length} />
			{#if standing.length > lane.limit}<small class="warn">{standing.length} of {lane.limit}</small>{/if}
		{:else}<small>{sums(standing)}</small>{/if}
		{#if lane?.class && lane.class !== lane.name.toLowerCase()}<small
				>{lane.class === 'fixed' ? 'fixed date' : lane.class}</small
			>{/if}
	</div>
	{#if shut || near || !later}
		{#each columns as column, i (column.id)}
			<div class="place {column.kind}">
				{#if shut}<span class="count" aria-label="{count(cells[i]!.length, 'card')} in {column.name}"
						>{cells[i]!.length ? (column.kind === 'done' ? cells[i]!.length : sums(cells[i]!)) : '·'}</span
					>{:else}{@render cell(
						column,
						key,
						name,
						cells[i]!,
					)}{#if column.kind !== 'done' && cells[i]!.length > 1}<span class="sums">{sums(cells[i]!)}</span
						>{/if}{/if}
			</div>
		{/each}
	{:else}
		<div class="later" style:height="{height}px" {@attach (element) => whenNear(element, draw)}></div>
	{/if}
</section>

<style>
	.band {
		display: contents;
	}
	.place {
		display: flex;
		flex-direction: column;
		min-width: 0;
		padding-left: 10px;
		border-left: 1px solid var(--rule);
	}
	.queue {
		border-left: 1px dashed var(--faint);
	}
	.later {
		grid-column: 2 / -1;
	}
	.name,
	.place,
	.later {
		border-bottom: 1px solid var(--rule);
	}
	.sums {
		padding: 0 0 6px 2px;
		font-size: 12px;
		color: var(--faint);
	}
	.name {
		display: flex;
		flex-direction: column;
		align-items: flex-start;
		gap: 3px;
		padding: 6px 8px 6px 0;
	}
	.shut {
		padding-block: 3px;
		flex-flow: row wrap;
		align-items: center;
	}
	h3 {
		font: 600 0.95rem var(--text);
		overflow-wrap: anywhere;
	}
	h3 button {
		border: 0;
		background: none;
		color: inherit;
		font: inherit;
		padding: 0;
		text-align: left;
		min-height: max(24px, var(--touch, 0px));
	}
	h3 button:hover {
		color: var(--moss);
	}
	.turn {
		display: inline-block;
		width: 1em;
		color: var(--faint);
	}
	small {
		font-size: 12px;
		color: var(--faint);
	}
	small.warn {
		color: var(--brick);
	}
	.count {
		display: block;
		padding: 5px 2px;
		color: var(--soft);
		font-variant-numeric: tabular-nums;
	}
	@media (max-width: 700px) {
		.place {
			scroll-snap-align: start;
			border-left: 0;
			padding-inline: 14px 6px;
			border-bottom: 0;
		}
		.later {
			grid-column: 1 / -1;
		}
		.name {
			grid-column: 1 / -1;
			position: sticky;
			left: 0;
			width: 100vw;
			flex-flow: row wrap;
			align-items: center;
			gap: 3px 10px;
			padding: 2px 14px;
			border-bottom: 1px solid var(--rule);
		}
	}
</style>
