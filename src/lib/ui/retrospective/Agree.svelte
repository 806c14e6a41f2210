<script lang="ts">
	import { Input } from 'flowbite-svelte';
	import type { PersonView } from '$core/pages/board';
	import type { CommandInput } from '../../commands';
	import DateField from '../form/DateField.svelte';

	interface Props {
		people: readonly PersonView[];
		today: string;
		onagree: (agreed: Omit<CommandInput<'AgreeAction'>, 'board' | 'retrospective'>) => Promise<boolean>;
	}
	/** Where what is agreed is written, with who sees to it and by when. */
	let { people, today, onagree }: Props = $props();
	let words = $state('');
	let owner = $state('');
	let due = $state('');
	let card = $state(true);

	async function agree(event: SubmitEvent): Promise<void> {
		event.preventDefault();
		if (!words.trim()) return;
		if (await onagree({ words: words.trim(), owner: owner || null, due: due || null, asCard: card }))
			[words, owner, due] = ['', '', ''];
	}
</script>

<form onsubmit={agree} aria-label="Agree on something">
	<span class="what"
		><Input aria-label="What is agreed" placeholder="We agree to…" maxlength={300} bind:value={words} /></span
	>
	<label
		>seen to by
		<select class="choice" aria-label="Who sees to it" bind:value={owner}>
			<option value="">nobody yet</option>
			{#each people.filter((one) => !one.gone && one.role !== 'viewer') as person (person.id)}<option
					value={person.id}>{person.name}</option
				>{/each}
		</select></label
	>
	<span class="by">by <DateField id="agreed-due" label="By when" bind:value={due} {today} none /></span>
	<label><input type="checkbox" bind:checked={card} />as a card</label>
	<button class="plain" disabled={!words.trim()}>Agree</button>
</form>

<style>
	form {
		display: flex;
		flex-wrap: wrap;
		gap: 8px 16px;
		align-items: center;
		padding: 4px 0;
	}
	.what {
		flex: 1 1 260px;
	}
	label,
	.by {
		display: flex;
		gap: 8px;
		align-items: center;
	}
</style>
