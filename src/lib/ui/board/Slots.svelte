<script lang="ts">
	/** The slots of a limit: filled, free, and over it. */
	let { limit, standing }: { limit: number; standing: number } = $props();
	const shown = $derived(Math.min(limit, 12));
	const over = $derived(Math.min(Math.max(0, standing - limit), 4));
</script>

<span
	class="slots"
	role="img"
	aria-label="{standing} of {limit} slots taken{standing > limit ? `, ${standing - limit} over` : ''}"
>
	{#each { length: shown }, i (i)}<i class:filled={i < standing}></i>{/each}
	{#each { length: over }, i (i)}<i class="over"></i>{/each}
</span>

<style>
	.slots {
		display: inline-flex;
		gap: 3px;
		align-items: center;
	}
	i {
		width: 10px;
		height: 10px;
		border: 1.4px solid var(--moss);
		border-radius: 2px;
	}
	.filled {
		background: var(--moss);
	}
	.over {
		background: var(--brick-fill);
		border-color: var(--brick-fill);
		transform: rotate(45deg) scale(0.84);
	}
</style>
