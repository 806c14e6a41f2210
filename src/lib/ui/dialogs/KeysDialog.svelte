<script lang="ts">
	import { KEYMAPS, type Place } from '../frame/keymap';
	import Dialog from './Dialog.svelte';

	let {
		title,
		place,
		on = $bindable(),
		onclose,
	}: { title: string; place: Place; on: boolean; onclose: () => void } = $props();
</script>

<Dialog {title} {onclose}>
	<dl>
		{#each KEYMAPS[place] as { shown, words } (`${shown} ${words}`)}
			<dt>
				{#each shown.split(' ') as one, i (i)}<span class="key">{one}</span> &nbsp;{/each}
			</dt>
			<dd>{words}</dd>
		{/each}
	</dl>
	<label><input type="checkbox" bind:checked={on} /> Single keys work here</label>
</Dialog>

<style>
	label {
		display: inline-flex;
		gap: 6px;
		align-items: center;
	}
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
		color: var(--ink);
	}
	label {
		color: var(--ink);
	}
</style>
