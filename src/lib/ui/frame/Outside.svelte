<script lang="ts">
	import type { Snippet } from 'svelte';

	/** What somebody reads who is not in Harrow yet, or has come by a link: one narrow column of words and fields. */
	let { children }: { children: Snippet } = $props();
</script>

<main>{@render children()}</main>

<style>
	main {
		width: min(460px, 100%);
		margin: 8vh auto 0;
		padding: 0 20px 40px;
	}
	main > :global(h1) {
		font-size: 1.7rem;
	}
	main :global(form) {
		display: grid;
		gap: 8px;
	}
	main :global(.go) {
		justify-self: start;
	}
	main :global(p) {
		margin: 8px 0;
	}
</style>
