<script lang="ts">
	import '../app.css';
	import { page } from '$app/state';

	let { data, children } = $props();
	// Says that the page answers to clicks and keys from here on.
	$effect(() => void (document.documentElement.dataset.awake = 'yes'));
</script>

<svelte:head><title>{page.data.title ? `${page.data.title} · Harrow` : 'Harrow'}</title></svelte:head>

<div class="whole">
	{#if data.demo}<p class="demo screen-only">
			Demonstration: everything here is made up, and anyone can sign in as anyone.
		</p>{/if}
	{@render children()}
</div>

<style>
	.whole {
		display: flex;
		flex-direction: column;
		min-height: 100dvh;
	}
	.demo {
		margin: 0;
		padding: 2px 20px;
		background: var(--wheat);
		color: #2a1f10;
		font-size: 12px;
		text-align: center;
		flex: none;
	}
</style>
