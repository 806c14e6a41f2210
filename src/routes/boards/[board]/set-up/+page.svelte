<script lang="ts">
	import { getContext } from 'svelte';
	import { page } from '$app/state';
	import type { BoardState } from '$lib/ui/board/board-state.svelte';
	import Places from '$lib/ui/frame/Places.svelte';
	import Ask from '$lib/ui/set-up/Ask.svelte';
	import BoardPart from '$lib/ui/set-up/BoardPart.svelte';
	import Changes from '$lib/ui/set-up/Changes.svelte';
	import Columns from '$lib/ui/set-up/Columns.svelte';
	import Fields from '$lib/ui/set-up/Fields.svelte';
	import Initiatives from '$lib/ui/set-up/Initiatives.svelte';
	import Kinds from '$lib/ui/set-up/Kinds.svelte';
	import Labels from '$lib/ui/set-up/Labels.svelte';
	import Lanes from '$lib/ui/set-up/Lanes.svelte';
	import Sprints from '$lib/ui/set-up/Sprints.svelte';
	import { setUpSentence } from '$lib/ui/set-up/sentence';
	import { PARTS } from '$lib/ui/set-up/parts';

	let { data } = $props();
	const board = getContext<BoardState>('board');
	const head = $derived(board.head);
	const lead = $derived(head.role === 'lead');
	const setUp = $derived(data.setUp);
	const part = $derived(PARTS.find(({ id }) => id === page.url.searchParams.get('part'))?.id ?? 'columns');
</script>

<Places board={head} here="set-up" />
<p class="sentence">
	{#each setUpSentence(head) as { text, tone }, i (i)}{#if tone}<b class={tone}>{text}</b
			>{:else}{text}{/if}{/each}
</p>
<div class="page">
	<nav aria-label="Parts of Set-up">
		{#each PARTS as one (one.id)}<a
				href="?part={one.id}"
				aria-current={one.id === part ? 'page' : undefined}
				data-sveltekit-noscroll>{one.name}</a
			>{/each}
	</nav>
	<div class="part">
		{#key part}
			{#if part === 'board'}<BoardPart {board} {setUp} />
			{:else if part === 'columns'}<Columns {board} {setUp} mayChange={lead && !head.away} />
			{:else if part === 'lanes'}<Lanes {board} {setUp} />
			{:else if part === 'kinds'}<Kinds {board} {setUp} />
			{:else if part === 'labels'}<Labels {board} {setUp} />
			{:else if part === 'initiatives'}<Initiatives {board} {setUp} today={data.today} />
			{:else if part === 'fields'}<Fields {board} {setUp} />
			{:else if part === 'ask'}<Ask {board} {setUp} />
			{:else if part === 'sprints'}<Sprints {board} today={data.today} />
			{:else}<Changes {board} {setUp} />{/if}
		{/key}
	</div>
</div>

<style>
	.sentence {
		margin: 0;
		padding: 9px 20px 8px;
		flex: none;
	}
	.page {
		display: grid;
		grid-template-columns: 190px minmax(0, 1fr);
		gap: 26px;
		padding: 0 20px;
		overflow: visible;
	}
	nav {
		display: flex;
		flex-direction: column;
	}
	nav a {
		padding: 6px 10px;
		color: var(--soft);
		text-decoration: none;
		border-left: 3px solid transparent;
	}
	nav a:hover {
		color: var(--ink);
	}
	nav [aria-current] {
		background: var(--sunk);
		border-left-color: var(--moss);
		color: var(--ink);
		font-weight: 650;
	}
	.part {
		overflow-y: auto;
		padding-bottom: 30px;
	}
	/* What the parts have in common. */
	.part :global(h2) {
		font-size: 1.1rem;
		margin-bottom: 8px;
	}
	.part :global(section:not([data-set-column])) {
		max-width: 760px;
		margin-bottom: 26px;
	}
	.part :global(section > form) {
		display: grid;
		gap: 10px;
		margin-bottom: 16px;
		justify-items: start;
	}
	.part :global(section > form > div) {
		width: 100%;
	}
	.part :global(:is(ul, ol)) {
		list-style: none;
		margin: 0 0 12px;
		padding: 0;
	}
	.part :global(li) {
		padding: 6px 0;
		border-bottom: 1px dotted var(--rule);
	}
	.part :global(li .link) {
		margin-left: 8px;
	}
	.part :global(p) {
		margin: 0 0 8px;
	}
	@media (pointer: coarse) {
		.part :global(.link) {
			min-height: 44px;
			display: inline-flex;
			align-items: center;
		}
		nav a {
			min-height: 44px;
			display: grid;
			align-items: center;
		}
	}
	@media (max-width: 800px) {
		.page {
			grid-template-columns: minmax(0, 1fr);
			grid-template-rows: auto minmax(0, 1fr);
			gap: 8px;
			padding: 0 12px;
		}
		.sentence {
			padding: 8px 12px 4px;
		}
		nav {
			flex-direction: row;
			overflow-x: auto;
			scrollbar-width: none;
		}
		nav a {
			white-space: nowrap;
			border-left: 0;
			border-bottom: 3px solid transparent;
		}
		nav [aria-current] {
			border-bottom-color: var(--moss);
		}
	}
</style>
