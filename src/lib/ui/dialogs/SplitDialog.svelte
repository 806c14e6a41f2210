<script lang="ts">
	import { Checkbox, Input, Label } from 'flowbite-svelte';
	import type { CardView, Unit } from '$core/pages/board';
	import { restTitle } from '$core/sprint/left';
	import { amount, figure } from '../words';
	import Dialog from './Dialog.svelte';

	interface Props {
		card: CardView;
		unit: Unit;
		checklist: readonly { id: string; text: string; done: boolean }[];
		onsplit: (split: { title: string; part?: number; lines: string[] }) => void;
		onclose: () => void;
	}
	let { card, unit, checklist, onsplit, onclose }: Props = $props();
	// svelte-ignore state_referenced_locally
	let title = $state(restTitle(card.title));
	// svelte-ignore state_referenced_locally
	let part = $state(figure(card.left / 2));
	// svelte-ignore state_referenced_locally
	let lines = $state(checklist.filter((line) => !line.done).map((line) => line.id));
	let problem = $state('');
	const sized = $derived(card.size !== null && unit !== 'none');
	const take = (element: HTMLElement) => element.querySelector('input')?.select();

	function submit(event: SubmitEvent) {
		event.preventDefault();
		const text = part.trim().replace(',', '.');
		if (!title.trim()) problem = 'The new card needs a title.';
		else if (sized && !/^\d{1,4}(\.\d{1,2})?$/.test(text))
			problem = 'The part must be a number with at most two decimals.';
		else if (sized && Number(text) > card.left)
			problem = `Only ${amount(card.left, unit)} is left: no more can go to the new card.`;
		else onsplit({ title: title.trim(), ...(sized ? { part: Number(text) } : {}), lines });
	}
</script>

<Dialog title="Split {card.number}" {onclose}>
	<form onsubmit={submit}>
		<div {@attach take}>
			<Label for="split-title">The new card is called</Label>
			<Input id="split-title" bind:value={title} maxlength={300} autocomplete="off" />
		</div>
		{#if sized}
			<div>
				<Label for="split-part">What goes to it, of the {amount(card.left, unit)} left</Label>
				<Input id="split-part" bind:value={part} inputmode="decimal" autocomplete="off" />
			</div>
		{/if}
		{#if checklist.length}
			<fieldset>
				<legend>Checklist lines that go along</legend>
				{#each checklist as line (line.id)}<Checkbox value={line.id} bind:group={lines} class="text-base"
						><span class="name">{line.text}</span></Checkbox
					>{/each}
			</fieldset>
		{/if}
		<p class="soft">Owners, labels and initiative are the same; the two cards are linked.</p>
		<p class="warn" role="alert">{problem}</p>
		<div class="dialog-foot">
			<button type="button" class="plain" onclick={onclose}>Leave it</button>
			<button class="go">Split it</button>
		</div>
	</form>
</Dialog>

<style>
	form {
		display: grid;
		gap: 10px;
	}
	fieldset {
		display: grid;
		gap: 6px;
	}
	legend {
		margin-bottom: 4px;
	}
	.name {
		color: var(--ink);
	}
</style>
