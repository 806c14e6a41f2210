<script lang="ts">
	import type { Box } from './rectangle.svelte';

	interface Props {
		box: Box;
	}
	/** The rectangle that a mouse draws over cards to pick them. */
	let { box }: Props = $props();
</script>

<div
	style:left="{box.left}px"
	style:top="{box.top}px"
	style:width="{box.right - box.left}px"
	style:height="{box.bottom - box.top}px"
	aria-hidden="true"
></div>

<style>
	div {
		position: fixed;
		z-index: 30;
		border: 1.5px solid var(--river);
		background: color-mix(in srgb, var(--river) 14%, transparent);
		pointer-events: none;
	}
</style>
