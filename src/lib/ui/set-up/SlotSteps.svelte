<script lang="ts">
	interface Props {
		/** What has the slots, as a sentence names it. */
		of: string;
		limit: number | null;
		/** How many stand there now: the first limit is no lower. */
		standing: number;
		mayChange: boolean;
		onchange: (limit: number | null) => void;
	}
	/** The slots of a limit, drawn, with one less and one more. */
	let { of, limit, standing, mayChange, onchange }: Props = $props();
</script>

<div class="slots">
	{#if limit === null}any number{:else}
		{#if mayChange}<button
				type="button"
				aria-label="One slot less in {of}"
				onclick={() => onchange(limit === 1 ? null : limit - 1)}>−</button
			>{/if}
		<span role="img" aria-label="{limit} slots"
			>{#if limit > 12}{limit}{:else}{#each { length: limit }, i (i)}<i></i>{/each}{/if}</span
		>
	{/if}
	{#if mayChange}<button
			type="button"
			aria-label="One slot more in {of}"
			onclick={() => onchange((limit ?? Math.max(0, standing - 1)) + 1)}>+</button
		>{/if}
</div>

<style>
	.slots {
		display: flex;
		align-items: center;
		gap: 6px;
		color: var(--soft);
	}
	span {
		display: inline-flex;
		flex-wrap: wrap;
		gap: 3px;
	}
	i {
		width: 9px;
		height: 9px;
		background: var(--moss);
		border-radius: 1.5px;
	}
	button {
		border: 1px solid var(--rule);
		border-radius: 4px;
		background: none;
		color: var(--ink);
		min-width: max(26px, var(--touch, 0px));
		min-height: max(26px, var(--touch, 0px));
		padding: 0;
		font: 600 1rem var(--text);
	}
</style>
