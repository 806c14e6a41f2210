<script lang="ts">
	import type { Arrangement } from '$core/board/arrange';
	import { sortText } from '$core/board/arrange';
	import type { Field } from '$core/board/field';
	import type { ListColumns } from './list-columns.svelte';

	interface Props {
		columns: ListColumns;
		sort: Arrangement['sort'];
		/** Orders the list anew, as its address says it. */
		onsort: (sort: string | null) => void;
	}
	/** The names of a list’s columns: each orders by its field, and is drawn wider or narrower at its edge. */
	let { columns, sort, onsort }: Props = $props();

	/** Orders by a field, then the other way round, then no more; with Shift as one more key. */
	function order({ id }: Field, more: boolean): void {
		const known = sort.find(({ field }) => field === id);
		const others = more ? sort.filter(({ field }) => field !== id) : [];
		const next = known?.down ? others : [...others, { field: id, down: Boolean(known) }];
		onsort(sortText(next) || null);
	}
	/** How it is ordered by a field, among several. */
	function markOf({ id }: Field): string {
		const at = sort.findIndex(({ field }) => field === id);
		return at < 0 ? '' : `${sort[at]!.down ? '↓' : '↑'}${sort.length > 1 ? at + 1 : ''}`;
	}
	const orderOf = ({ id }: Field) => {
		const known = sort.find(({ field }) => field === id);
		return known ? (known.down ? 'descending' : 'ascending') : 'none';
	};

	function draw(event: PointerEvent, field: Field): void {
		const edge = event.currentTarget as HTMLElement;
		const from = event.clientX - edge.parentElement!.getBoundingClientRect().width;
		edge.setPointerCapture(event.pointerId);
		edge.onpointermove = (moved) => columns.widen(field, moved.clientX - from);
		edge.onpointerup = () => (edge.onpointermove = null);
	}
	function drawByKey(event: KeyboardEvent, field: Field): void {
		if (event.key !== 'ArrowLeft' && event.key !== 'ArrowRight') return;
		event.preventDefault();
		const wide = (event.currentTarget as HTMLElement).parentElement!.getBoundingClientRect().width;
		columns.widen(field, wide + (event.key === 'ArrowLeft' ? -20 : 20));
	}
</script>

<div class="head" role="row">
	<span role="columnheader">Nr.</span>
	{#each columns.shown as field (field.id)}
		{@const mark = markOf(field)}
		<span role="columnheader" aria-label="{field.name}{mark ? ` ${mark}` : ''}" aria-sort={orderOf(field)}
			><button
				type="button"
				title="Order by it; with Shift after the others"
				onclick={(event) => order(field, event.shiftKey)}
				>{field.name}{#if mark}<small>{mark}</small>{/if}</button
			>
			<!-- svelte-ignore a11y_no_noninteractive_tabindex, a11y_no_noninteractive_element_interactions -->
			<span
				class="edge"
				role="separator"
				aria-orientation="vertical"
				aria-label="Width of {field.name}"
				aria-valuenow={Math.round(columns.widthOf(field))}
				tabindex="0"
				title="Draw it wider or narrower"
				onpointerdown={(event) => draw(event, field)}
				onkeydown={(event) => drawByKey(event, field)}
			></span></span
		>
	{/each}
</div>

<style>
	.head {
		display: grid;
		grid-template-columns: var(--template);
		min-width: var(--least);
		min-height: max(33px, var(--touch, 0px));
		align-items: stretch;
		position: sticky;
		top: 0;
		z-index: 2;
		background: var(--paper);
		border-bottom: 1.5px solid var(--edge);
		color: var(--soft);
	}
	.head > span {
		position: relative;
		padding: 5px 8px 5px 0;
		min-width: 0;
		overflow: hidden;
		text-overflow: ellipsis;
		white-space: nowrap;
	}
	.edge {
		position: absolute;
		inset: 4px 0 4px auto;
		width: 9px;
		border-right: 2px solid var(--rule);
		cursor: col-resize;
		touch-action: none;
	}
	.edge:hover,
	.edge:focus-visible {
		border-right-color: var(--river);
	}
	button {
		min-width: var(--touch, auto);
		border: 0;
		background: none;
		color: inherit;
		font: 600 0.93rem var(--text);
		padding: 0;
		min-height: max(30px, var(--touch, 0px));
		text-align: left;
	}
	small {
		margin-left: 4px;
		color: var(--moss);
	}
	@media (pointer: coarse) {
		.head {
			align-items: center;
		}
		.head > span {
			padding-block: 0;
		}
	}
</style>
