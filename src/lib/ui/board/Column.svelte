<script lang="ts">
	import type { Snippet } from 'svelte';
	import type { ColumnView } from '$core/pages/board';

	interface Props {
		column: ColumnView;
		/** It is a value of a field, not one of the board’s columns. */
		plain?: boolean;
		head: Snippet<[ColumnView]>;
		children: Snippet;
	}
	/** A column of a board without lanes: its head, and its cards below, which scroll by themselves. */
	let { column, plain = false, head, children }: Props = $props();
</script>

<section
	class="column {plain ? '' : column.kind}"
	data-column={column.id}
	aria-labelledby="column-{column.id}"
>
	{@render head(column)}
	{@render children()}
</section>

<style>
	.column {
		display: flex;
		flex-direction: column;
		min-width: 0;
		min-height: 0;
		padding: 4px 0 0 10px;
		border-left: 1px solid var(--rule);
	}
	.queue {
		border-left: 1px dashed var(--faint);
	}
	.column:first-child {
		border-left: 0;
		padding-left: 0;
	}
	@media (max-width: 700px) {
		.column,
		.column:first-child {
			border-left: 0;
			padding: 4px 6px 0 14px;
		}
	}
</style>
