<script lang="ts">
	import { Input, Select } from 'flowbite-svelte';
	import type { Change, Field, Looking } from '$core/board/field';
	import type { CardView } from '$core/pages/board';
	import DateField from '../form/DateField.svelte';
	import { dateWords } from '../words';

	interface Props {
		field: Field;
		card: CardView;
		looking: Looking;
		today: string;
		mayEdit: boolean;
		/** What stands where it holds nothing. */
		none?: string;
		onchange: (change: Change) => void;
	}
	/** What a card holds in a field, changed in its place: chosen from its values, as a day, or typed. */
	let { field, card, looking, today, mayEdit, none = 'nothing', onchange }: Props = $props();
	const id = $derived(`field-${field.id}`);
	const text = $derived(field.text(card));
	const value = $derived(field.values?.of(card)[0] ?? '');
	/** What it has may be among its values no more. */
	const items = $derived.by(() => {
		const known = field.values?.known ?? [];
		const all = known.some(({ key }) => key === value)
			? known
			: [...known, { key: value, name: field.values!.name(value) }];
		return all.map(({ key, name }) => ({ value: key, name: key ? name : none }));
	});
	let problem = $state('');

	function choose(event: Event): void {
		const change = field.values!.put!(card, (event.currentTarget as HTMLSelectElement).value, value);
		if (change) onchange(change);
	}
	/** What is typed is read as it is in the list. */
	async function type(input: HTMLInputElement): Promise<void> {
		const { readTyped } = await import('$core/board/typed');
		const read = readTyped(field, card, input.value, looking);
		problem = read.ok ? '' : read.reason;
		if (read.ok && read.change) onchange(read.change);
	}
</script>

{#if !mayEdit}{field.day && text ? dateWords(text, today) : text || none}
{:else if field.day}<DateField
		{id}
		label={field.name}
		none
		bind:value={
			() => text,
			(day) => {
				const change = field.day!(card, day || null);
				if (change) onchange(change);
			}
		}
		{today}
	/>
{:else if field.values?.put}<Select
		{id}
		{items}
		placeholder=""
		classes={{ select: 'py-1 px-2 text-base' }}
		{value}
		onchange={choose}
	/>
{:else}<Input
		{id}
		class="px-2 py-1 text-base"
		value={text}
		maxlength={500}
		aria-invalid={problem ? 'true' : undefined}
		aria-describedby={problem ? `${id}-problem` : undefined}
		onblur={(event: FocusEvent) => void type(event.currentTarget as HTMLInputElement)}
		onkeydown={(event: KeyboardEvent) => {
			if (event.key === 'Escape') (event.currentTarget as HTMLInputElement).value = text;
			else event.stopPropagation();
			if (event.key === 'Enter') void type(event.currentTarget as HTMLInputElement);
		}}
	/>{#if problem}<span id="{id}-problem" class="warn" role="alert">{problem}</span>{/if}{/if}
