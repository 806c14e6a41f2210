<script lang="ts">
	interface Props {
		/** The rows are drawn in hours, with a promise and what is kept back. */
		hours: boolean;
		surprises: boolean;
	}
	/** What the marks in the rows of a plan mean. */
	let { hours, surprises }: Props = $props();
</script>

<p>
	<span><i class="carried"></i> carried in: only what is left counts</span>
	{#if hours}<span><i class="line"></i> the promise</span>
		<span><i class="kept"></i> kept back for surprises</span>{/if}
	{#if surprises}<span><i class="surprise"></i> unplanned: drawn on what is kept back</span>{/if}
</p>

<style>
	p {
		display: flex;
		flex-wrap: wrap;
		gap: 4px 18px;
		margin: 14px 0 2px;
		font-size: 0.9rem;
		color: var(--soft);
	}
	i {
		display: inline-block;
		vertical-align: -2px;
		height: 13px;
	}
	.carried {
		width: 5px;
		background: var(--ochre-fill);
	}
	.line {
		width: 2.5px;
		background: var(--ink);
	}
	.kept {
		width: 22px;
		background: repeating-linear-gradient(135deg, var(--edge) 0 1.5px, transparent 1.5px 7px);
	}
	.surprise {
		width: 22px;
		border: 1px dashed var(--ink);
	}
</style>
