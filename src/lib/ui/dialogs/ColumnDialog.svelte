<script lang="ts">
	import { Input, Label, Radio, Textarea } from 'flowbite-svelte';
	import type { ColumnView } from '$core/pages/board';
	import Dialog from './Dialog.svelte';

	interface Props {
		column: ColumnView;
		onchange: (change: { limit: number | null; mode: 'advise' | 'hold'; policy: string }) => void;
		/** Archives all that is done there; left out where nothing is. */
		onarchive?: () => void;
		onclose: () => void;
	}
	let { column, onchange, onarchive, onclose }: Props = $props();
	// svelte-ignore state_referenced_locally
	let limit = $state(column.limit === null ? '' : String(column.limit));
	// svelte-ignore state_referenced_locally
	let mode = $state(column.mode);
	// svelte-ignore state_referenced_locally
	let policy = $state(column.policy);
	let problem = $state('');

	function submit(event: SubmitEvent) {
		event.preventDefault();
		const text = limit.trim();
		if (text && !/^[1-9]\d{0,2}$/.test(text))
			problem = 'The limit must be a whole number from 1 to 999, or empty for none.';
		else if (policy.length > 500) problem = 'The policy may have at most 500 characters.';
		else onchange({ limit: text ? Number(text) : null, mode, policy });
	}
</script>

<Dialog title="Limit and policy of {column.name}" {onclose}>
	<form onsubmit={submit}>
		<Label for="limit">How many cards may stand here (empty: any number)</Label>
		<Input
			id="limit"
			bind:value={limit}
			inputmode="numeric"
			autocomplete="off"
			aria-describedby="limit-problem"
			class="max-w-24"
		/>
		<fieldset>
			<legend>One more than that</legend>
			<Radio name="mode" bind:group={mode} value="advise">is let in, and said so</Radio>
			<Radio name="mode" bind:group={mode} value="hold">is held until someone gives a reason</Radio>
		</fieldset>
		<Label for="policy">Policy: what must be true before a card comes here</Label>
		<Textarea id="policy" bind:value={policy} rows={2} class="w-full" />
		<p id="limit-problem" class="warn" role="alert">{problem}</p>
		{#if onarchive}<p>
				<button type="button" class="link" onclick={onarchive}>Archive all that is done here…</button>
			</p>{/if}
		<div class="dialog-foot">
			<button type="button" class="plain" onclick={onclose}>Leave it</button>
			<button class="go">Keep</button>
		</div>
	</form>
</Dialog>

<style>
	fieldset {
		margin: 12px 0;
		display: grid;
		gap: 6px;
	}
	legend {
		margin-bottom: 4px;
	}
	p {
		margin: 8px 0 0;
	}
</style>
