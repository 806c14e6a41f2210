<script lang="ts">
	import { Input, Label, Select } from 'flowbite-svelte';
	import type { Change, Field } from '$core/board/field';
	import { readTyped, typeable } from '$core/board/typed';
	import type { CardView } from '$core/pages/board';
	import type { BoardState } from '../board/board-state.svelte';
	import { count } from '../words';
	import Dialog from './Dialog.svelte';

	interface Props {
		board: BoardState;
		cards: readonly CardView[];
		onchanges: (changes: { card: CardView; change: Change }[]) => void;
		onclose: () => void;
	}
	/** Gives several cards one value of any field, in one step. */
	let { board, cards, onchanges, onclose }: Props = $props();
	// Each card has a title and a place of its own.
	const ALONE = ['title', 'column'];
	const fields = $derived(board.fields.filter((field) => typeable(field) && !ALONE.includes(field.id)));
	let chosen = $state('due');
	let text = $state('');
	let problem = $state('');
	const field = $derived<Field>(fields.find(({ id }) => id === chosen) ?? fields[0]!);
	const known = $derived(field.values && !field.day ? field.values.known : []);
	const take = (element: HTMLElement) => element.querySelector('select')?.focus();

	function submit(event: SubmitEvent): void {
		event.preventDefault();
		const changes: { card: CardView; change: Change }[] = [];
		for (const card of cards.map((one) => board.latest(one))) {
			const read = readTyped(field, card, text, board.looking);
			if (!read.ok) return void (problem = `Card ${card.number}: ${read.reason}.`);
			if (read.change) changes.push({ card, change: read.change });
		}
		if (changes.length) onchanges(changes);
		else onclose();
	}
</script>

<Dialog title="Change {count(cards.length, 'card')}" {onclose}>
	<form onsubmit={submit}>
		<div {@attach take}>
			<Label for="any-field">Field</Label>
			<Select
				id="any-field"
				placeholder=""
				items={fields.map(({ id, name }) => ({ value: id, name }))}
				bind:value={chosen}
				onchange={() => ([text, problem] = ['', ''])}
			/>
		</div>
		<Label for="any-value" class="mt-3">Is from now on</Label>
		<Input
			id="any-value"
			bind:value={text}
			list={known.length ? 'any-known' : undefined}
			placeholder={field.day ? '4 dec, fri, +2w; empty for none' : 'empty for none'}
			aria-describedby={problem ? 'any-problem' : undefined}
			maxlength={500}
			autocomplete="off"
		/>
		<datalist id="any-known">
			{#each known.filter(({ key }) => key) as one (one.key)}<option value={one.name}></option>{/each}
		</datalist>
		{#if problem}<p id="any-problem" class="warn" role="alert">{problem}</p>{/if}
		<div class="dialog-foot">
			<button type="button" class="plain" onclick={onclose}>Leave it</button>
			<button class="go">Change {count(cards.length, 'card')}</button>
		</div>
	</form>
</Dialog>
