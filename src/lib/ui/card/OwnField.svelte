<script lang="ts">
	import { Input, Select } from 'flowbite-svelte';
	import { shownValue, type FieldValue, type OwnField } from '$core/fields/own';
	import DateField from '../form/DateField.svelte';
	import { dateWords } from '../words';

	interface Props {
		field: OwnField;
		value: FieldValue | undefined;
		today: string;
		mayEdit: boolean;
		onchange: (value: FieldValue | null) => void;
	}
	/** What a card holds in a field that its board has added, changed in its place. */
	let { field, value, today, mayEdit, onchange }: Props = $props();
	const id = $derived(`field-${field.id}`);
	const small = { select: 'py-1 px-2 text-base' };
	let problem = $state('');

	function number(input: HTMLInputElement) {
		const text = input.value.trim().replace(',', '.');
		problem = text && !/^[+-]?\d+(\.\d{1,4})?$/.test(text) ? 'a number with at most four decimals' : '';
		if (problem) return;
		if (text !== String(value ?? '')) onchange(text === '' ? null : Number(text));
	}
</script>

{#if !mayEdit}{field.kind === 'date' && value
		? dateWords(String(value), today)
		: shownValue(field, value) || 'nothing'}
{:else if field.kind === 'choice'}<Select
		{id}
		placeholder=""
		classes={small}
		items={[
			{ value: '', name: 'nothing' },
			...field.choices.map((choice) => ({ value: choice.id, name: choice.name })),
		]}
		value={String(value ?? '')}
		onchange={(event: Event) => onchange((event.currentTarget as HTMLSelectElement).value || null)}
	/>
{:else if field.kind === 'yes-no'}<Select
		{id}
		placeholder=""
		classes={small}
		items={[
			{ value: '', name: 'nothing' },
			{ value: 'yes', name: 'yes' },
			{ value: 'no', name: 'no' },
		]}
		value={shownValue(field, value)}
		onchange={(event: Event) => {
			const { value: chosen } = event.currentTarget as HTMLSelectElement;
			onchange(chosen ? chosen === 'yes' : null);
		}}
	/>
{:else if field.kind === 'date'}<DateField
		{id}
		label={field.name}
		none
		value={String(value ?? '')}
		{today}
		onchange={(day) => onchange(day || null)}
	/>
{:else}<Input
		{id}
		class="px-2 py-1 text-base"
		maxlength={field.kind === 'text' ? 500 : 20}
		inputmode={field.kind === 'number' ? 'decimal' : undefined}
		autocomplete="off"
		value={String(value ?? '')}
		aria-invalid={problem ? 'true' : undefined}
		onkeydown={(event: KeyboardEvent) => {
			event.stopPropagation();
			if (event.key === 'Enter') (event.currentTarget as HTMLElement).blur();
		}}
		onchange={(event: Event) => {
			const input = event.currentTarget as HTMLInputElement;
			if (field.kind === 'number') number(input);
			else if (input.value.trim() !== (value ?? '')) onchange(input.value.trim() || null);
		}}
	/>{#if problem}<span class="warn" role="alert">{problem}</span>{/if}{/if}
