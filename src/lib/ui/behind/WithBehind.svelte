<script lang="ts">
	import type { Snippet } from 'svelte';

	interface Props {
		/** The cards behind a figure; none while no figure is open. */
		behind: Snippet | null;
		children: Snippet;
	}
	/** A page of figures, with the cards behind the one that is open beside it: above it where there is little room. */
	let { behind, children }: Props = $props();
</script>

<div class="columns" class:one={!behind}>
	<div class="figures">{@render children()}</div>
	{#if behind}<div class="behind screen-only">{@render behind()}</div>{/if}
</div>

<style>
	.columns {
		display: grid;
		grid-template-columns: minmax(0, 1fr) 340px;
		gap: 26px;
		align-items: start;
	}
	.one {
		grid-template-columns: minmax(0, 1fr);
	}
	.figures {
		min-width: 0;
	}
	.behind {
		position: sticky;
		top: 0;
	}
	@media (max-width: 900px) {
		.columns {
			grid-template-columns: minmax(0, 1fr);
		}
		.behind {
			order: -1;
			position: static;
		}
	}
</style>
