<script lang="ts">
	import type { BoardSetUp } from '$core/flow/set-up';

	/** A board as it would stand, drawn small: columns by kind, with their slots, and where the clock starts. */
	let { setUp }: { setUp: BoardSetUp } = $props();
	const words = $derived(
		setUp.columns
			.map(({ name, kind, limit }) => {
				const what = kind === 'queue' ? 'cards wait' : kind === 'work' ? 'worked on' : 'done';
				return `${name} (${what}${limit ? `, ${limit} slots` : ''})`;
			})
			.join(', '),
	);
</script>

<span class="board" role="img" aria-label={words}>
	{#each setUp.columns as column (column.name)}
		<span class="column {column.kind}" class:clock={column.name === setUp.commitment}>
			<span class="name">{column.name}</span>
			<span class="slots"
				>{#each { length: Math.min(column.limit ?? 0, 10) }, i (i)}<i></i>{/each}</span
			>
		</span>
	{/each}
</span>

<style>
	.board {
		display: flex;
		gap: 2px;
		align-items: stretch;
		height: 62px;
	}
	.column {
		flex: 1 1 auto;
		min-width: min-content;
		display: flex;
		flex-direction: column;
		justify-content: space-between;
		padding: 3px;
		border: 1px solid var(--edge);
		background: var(--sheet);
		position: relative;
		color: var(--ink);
	}
	.queue {
		border-style: dashed;
		background: none;
	}
	.done {
		border: 0;
		border-left: 3px solid var(--moss);
		background: none;
	}
	.clock::before {
		content: '';
		position: absolute;
		inset: -4px auto -4px -4px;
		border-left: 2px solid var(--river);
	}
	.name {
		width: min-content;
		font-size: 11px;
		line-height: 1.15;
		letter-spacing: -0.01em;
		font-weight: 600;
		overflow: hidden;
		display: -webkit-box;
		-webkit-box-orient: vertical;
		-webkit-line-clamp: 3;
		line-clamp: 3;
	}
	.slots {
		display: flex;
		flex-wrap: wrap;
		gap: 2px;
		max-width: 40px;
	}
	i {
		width: 6px;
		height: 6px;
		background: var(--moss);
		border-radius: 1px;
	}
</style>
