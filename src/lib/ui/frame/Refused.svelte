<script lang="ts">
	import { outbox } from '../outbox.svelte';
	import type { Told } from '../told';

	/** What was refused after somebody had gone on: what they wanted, and what stands there now. */
	let { told }: { told: Told } = $props();
	function again(): void {
		outbox.heard(told);
		told.again?.();
	}
</script>

<div class="refused" role="status">
	<p>{told.sentence}</p>
	{#each told.both as { mine, now }, i (i)}
		<dl>
			<div>
				<dt>You wrote</dt>
				<dd>{mine}</dd>
			</div>
			{#if now}<div>
					<dt>There stands now</dt>
					<dd>{now}</dd>
				</div>{/if}
		</dl>
	{/each}
	<p class="acts">
		{#if told.again}<button type="button" class="link" onclick={again}>Put mine there all the same</button
			>{/if}
		<button type="button" class="link" onclick={() => outbox.heard(told)}>Close</button>
	</p>
</div>

<style>
	.refused {
		max-width: 560px;
		padding: 8px 14px;
		background: var(--sheet);
		border: 1px solid var(--edge);
		border-left: 4px solid var(--ochre);
		border-radius: 4px;
		overflow-wrap: anywhere;
	}
	dl {
		display: grid;
		grid-template-columns: repeat(auto-fit, minmax(180px, 1fr));
		gap: 4px 18px;
		margin: 6px 0;
	}
	dt {
		font-size: 12px;
		color: var(--soft);
	}
	.acts {
		display: flex;
		gap: 16px;
	}
	.acts .link {
		min-height: max(26px, var(--touch, 0px));
	}
</style>
