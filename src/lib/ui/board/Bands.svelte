<script lang="ts">
	import type { Snippet } from 'svelte';
	import type { CardView, ColumnView, Unit } from '$core/pages/board';
	import { amount, count } from '../words';
	import { NONE, type GridBand } from './grid';
	import Slots from './Slots.svelte';

	interface Props {
		columns: ColumnView[];
		bands: GridBand[];
		unit: Unit;
		/** Lanes that are folded away, by their keys. */
		folded: ReadonlySet<string>;
		/** Where lanes are set up; null for those who may not. */
		settings: string | null;
		head: Snippet<[ColumnView]>;
		cell: Snippet<[ColumnView, string, string, CardView[]]>;
		onfold: (lane: string) => void;
	}
	/** The columns of a board with lanes across them. A folded lane still shows its counts. */
	let { columns, bands, unit, folded, settings, head, cell, onfold }: Props = $props();
	/** Cards, and what is left of them. */
	const sums = (cards: readonly CardView[]) =>
		!cards.length
			? 'no cards'
			: unit === 'none'
				? count(cards.length, 'card')
				: `${count(cards.length, 'card')}, ${amount(
						cards.reduce((sum, card) => sum + (card.parts ? 0 : card.left), 0),
						unit,
					)}`;
</script>

<div class="corner">
	{#if settings}<a class="link" href={settings}>Set up lanes</a>{/if}
</div>
{#each columns as column (column.id)}
	<div class="head {column.kind}">{@render head(column)}</div>
{/each}
{#each bands as { key, name, lane, standing, cells } (key)}
	{@const id = key || NONE}
	{@const shut = folded.has(id)}
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
	</section>
{/each}

<style>
	.band {
		display: contents;
	}
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
	.head,
	.place {
		min-width: 0;
		border-left: 1px solid var(--rule);
	}
	.queue {
		border-left: 1px dashed var(--faint);
	}
	.name,
	.place {
		border-bottom: 1px solid var(--rule);
	}
	.place {
		display: flex;
		flex-direction: column;
		padding-left: 10px;
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
		min-height: 24px;
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
	@media (pointer: coarse) {
		h3 button {
			min-height: 44px;
		}
	}
	@media (max-width: 700px) {
		.corner {
			display: none;
		}
		.head,
		.place {
			scroll-snap-align: start;
			border-left: 0;
			padding-inline: 14px 6px;
		}
		.place {
			border-bottom: 0;
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
