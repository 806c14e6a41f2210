<script lang="ts">
	import { Label, Textarea } from 'flowbite-svelte';
	import Dialog from './Dialog.svelte';

	interface Props {
		sprint: number;
		goal: string;
		/** What is closed, in a sentence. */
		sentence: string;
		onsettle: (outcome: { goalMet?: string; goalWords?: string }) => void;
		onclose: () => void;
	}
	let { sprint, goal, sentence, onsettle, onclose }: Props = $props();
	let met = $state('');
	let words = $state('');
	const CHOICES = [
		['yes', 'Yes'],
		['partly', 'Partly'],
		['no', 'No'],
	] as const;
	const take = (element: HTMLElement) => element.querySelector<HTMLElement>('input, .go')?.focus();

	function submit(event: SubmitEvent) {
		event.preventDefault();
		onsettle({ ...(met ? { goalMet: met } : {}), ...(words.trim() ? { goalWords: words } : {}) });
	}
</script>

<Dialog title="Close sprint {sprint}" {onclose}>
	<form onsubmit={submit} {@attach take}>
		<p>{sentence}</p>
		{#if goal}
			<fieldset>
				<legend>Was the goal met: <b>{goal}</b>?</legend>
				{#each CHOICES as [value, name] (value)}<label
						><input type="radio" name="met" {value} bind:group={met} /> {name}</label
					>{/each}
			</fieldset>
			<Label for="goal-words">In the team’s words</Label>
			<Textarea id="goal-words" class="w-full" rows={2} maxlength={1000} bind:value={words} />
		{/if}
		<p class="soft">It can be taken back until the next sprint has started.</p>
		<div class="dialog-foot">
			<button type="button" class="plain" onclick={onclose}>Not yet</button>
			<button class="go">Close sprint {sprint}</button>
		</div>
	</form>
</Dialog>

<style>
	p {
		margin: 0 0 10px;
	}
	.soft {
		margin: 8px 0 0;
	}
	fieldset {
		margin: 0 0 8px;
		display: flex;
		flex-wrap: wrap;
		gap: 4px 18px;
	}
	legend {
		padding: 0;
		margin-bottom: 4px;
	}
	label {
		display: flex;
		gap: 6px;
		align-items: center;
		min-height: max(28px, var(--touch, 0px));
	}
	input {
		accent-color: var(--moss);
	}
</style>
