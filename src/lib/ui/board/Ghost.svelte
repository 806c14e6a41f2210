<script lang="ts" generics="Drop">
	import type { Carry } from './carry.svelte';

	/** What follows the pointer while cards of a list are dragged: the first of them, and how many more. */
	let { carry }: { carry: Carry<Drop> } = $props();
</script>

{#if carry.held}
	{@const [first, ...more] = carry.held.cards}
	<div
		class="ghost"
		bind:this={carry.ghost}
		style:max-width="{Math.min(carry.held.width, 420)}px"
		aria-hidden="true"
	>
		<b>{first!.number}</b>
		{first!.title}{more.length ? ` and ${more.length} more` : ''}
	</div>
{/if}

<style>
	.ghost {
		position: fixed;
		inset: 0 auto auto 0;
		z-index: 30;
		min-width: 140px;
		pointer-events: none;
		padding: 8px 12px;
		background: var(--sheet);
		border: 1px solid var(--edge);
		border-radius: 3px;
		box-shadow: 0 6px 12px #0003;
		white-space: nowrap;
		overflow: hidden;
		text-overflow: ellipsis;
	}
</style>
