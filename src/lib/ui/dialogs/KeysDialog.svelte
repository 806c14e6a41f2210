<script lang="ts">
	import Dialog from './Dialog.svelte';

	let {
		title,
		keys,
		on = $bindable(),
		onclose,
	}: { title: string; keys: [keys: string, does: string][]; on: boolean; onclose: () => void } = $props();
</script>

<Dialog {title} {onclose}>
	<dl>
		{#each keys as [key, does] (key)}
			<dt>
				{#each key.split(' ') as one (one)}<span class="key">{one}</span> &nbsp;{/each}
			</dt>
			<dd>{does}</dd>
		{/each}
	</dl>
	<label><input type="checkbox" bind:checked={on} /> Single keys work here</label>
</Dialog>

<style>
	dl {
		display: grid;
		grid-template-columns: auto 1fr;
		gap: 7px 14px;
		margin: 0 0 14px;
		align-items: baseline;
	}
	dt {
		white-space: nowrap;
		color: var(--ink);
	}
	dd {
		margin: 0;
		color: var(--ink);
	}
	label {
		color: var(--ink);
	}
</style>
