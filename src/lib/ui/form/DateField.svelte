<script lang="ts">
	import { tick } from 'svelte';
	import { parseDay, dayText } from '$core/calendar/days';
	import MonthCalendar from '../people/MonthCalendar.svelte';
	import { dateWords } from '../words';

	interface Props {
		id: string;
		/** What day it is, for the field and its calendar. */
		label: string;
		/** `2026-12-04`; empty for none. */
		value: string;
		today: string;
		min?: string;
		max?: string;
		/** Whether there may be none. */
		none?: boolean;
		disabled?: boolean;
		onchange?: (day: string) => void;
	}
	/** A day, typed as people write it (`4 dec`, `fri`, `+2w`, `04.12.`) or chosen from a month. */
	let {
		id,
		label,
		value = $bindable(),
		today,
		min,
		max,
		none = false,
		disabled = false,
		onchange,
	}: Props = $props();
	const shown = $derived(value ? dateWords(value, today) : '');
	let text = $state.raw<string | null>(null);
	let problem = $state('');
	let open = $state(false);
	let box = $state<HTMLElement>();

	/** How days are read is fetched when somebody comes to the field. */
	let reader: typeof import('$core/calendar/typed-day') | undefined;
	const load = async () => (reader = await import('$core/calendar/typed-day'));

	function set(day: string): void {
		problem = '';
		if (day && min && day < min) return void (problem = `Not before ${dateWords(min, today)}.`);
		if (day && max && day > max) return void (problem = `Not after ${dateWords(max, today)}.`);
		text = null;
		if (day === value) return;
		value = day;
		onchange?.(day);
	}
	async function read(): Promise<void> {
		if (text === null) return;
		const typed = text.trim();
		if (typed === shown) return void (text = null);
		if (!typed) {
			if (none) return set('');
			return void (text = null);
		}
		// A date in full needs nobody to read it; by the time that one leaves the field the reader is there.
		const day = parseDay(typed) ?? (reader ?? (await load())).typedDay(typed, parseDay(today)!);
		if (day === null) problem = 'Write a day, such as 4 dec, fri, +2w or 04.12.';
		else set(dayText(day));
	}
	/** A day that is being read, while what reads days is still on its way. */
	let reading: Promise<void> | null = null;
	function readNow(): void {
		const mine = read().finally(() => reading === mine && (reading = null));
		reading = mine;
	}

	/** A form that is sent meanwhile goes on once the day is read, and not where it is none. */
	function holdForm(element: Element): (() => void) | undefined {
		const form = element.closest('form');
		if (!form) return;
		const hold = async (event: SubmitEvent) => {
			if (!reading) return;
			event.preventDefault();
			event.stopImmediatePropagation();
			await reading;
			await tick();
			if (!problem) form.requestSubmit(event.submitter);
		};
		form.addEventListener('submit', hold, true);
		return () => form.removeEventListener('submit', hold, true);
	}
	function oninput(event: Event): void {
		text = (event.currentTarget as HTMLInputElement).value;
		problem = '';
		if (parseDay(text.trim()) !== null) void read();
	}
	function onkeydown(event: KeyboardEvent): void {
		if (event.key === 'Enter') {
			// A form goes on once the day is read.
			if (text === null) return;
			event.preventDefault();
			event.stopPropagation();
			readNow();
		} else if (event.key === 'Escape' && (open || text !== null)) {
			event.stopPropagation();
			event.preventDefault();
			[open, text, problem] = [false, null, ''];
		} else if (event.key === 'ArrowDown' && event.altKey) {
			event.preventDefault();
			open = true;
		} else if (event.key !== 'Escape') event.stopPropagation();
	}
	function leave(event: FocusEvent): void {
		if (!box?.contains(event.relatedTarget as Node | null)) open = false;
	}
</script>

<span class="date" bind:this={box} {@attach holdForm} onfocusout={leave}>
	<input
		{id}
		value={text ?? shown}
		{disabled}
		aria-label={label}
		aria-invalid={problem ? 'true' : undefined}
		aria-describedby="{id}-problem"
		placeholder={none ? 'no date' : 'a day'}
		autocomplete="off"
		size="13"
		{oninput}
		onfocus={() => void load()}
		onblur={readNow}
		{onkeydown}
	/><button
		type="button"
		class="opens"
		{disabled}
		aria-label="Choose from a month"
		aria-expanded={open}
		onclick={() => (open = !open)}
		><svg width="14" height="14" viewBox="0 0 14 14" aria-hidden="true"
			><path
				d="M1 3h12v10H1zM1 6h12M4 1v3M10 1v3"
				fill="none"
				stroke="currentColor"
				stroke-width="1.4"
			/></svg
		></button
	>
	{#if open}
		<!-- svelte-ignore a11y_no_static_element_interactions -->
		<span
			class="month aloft"
			{@attach (month) => month.scrollIntoView({ block: 'nearest' })}
			onkeydown={(event) => event.key === 'Escape' && (event.stopPropagation(), (open = false))}
		>
			<MonthCalendar
				{today}
				begin={value || today}
				from={value}
				to={value}
				onchoose={(day) => {
					set(day);
					open = false;
				}}
			/>
			{#if none && value}<button type="button" class="link" onclick={() => (set(''), (open = false))}
					>No date</button
				>{/if}
		</span>
	{/if}
	<span id="{id}-problem" class="warn" role="alert">{problem}</span>
</span>

<style>
	.date {
		position: relative;
		display: inline-flex;
		flex-wrap: wrap;
		align-items: center;
	}
	input {
		min-height: max(30px, var(--touch, 0px));
		padding: 2px 30px 2px 8px;
		font: inherit;
		color: var(--ink);
		background: var(--sheet);
		border: 1px solid var(--edge);
		border-radius: 4px;
	}
	/* Among the fields of a dialog it stands as they do. */
	:global(dialog) input {
		min-height: max(39px, var(--touch, 0px));
		background: var(--paper);
	}
	.opens {
		margin-left: -28px;
		width: 26px;
		height: 26px;
		display: grid;
		place-items: center;
		border: 0;
		background: none;
		color: var(--soft);
		cursor: pointer;
	}
	.month {
		position: absolute;
		inset: calc(100% + 3px) auto auto 0;
		z-index: 45;
		width: 260px;
		padding: 8px;
	}
	.warn {
		flex-basis: 100%;
		font-size: 12px;
	}
	.warn:empty {
		display: none;
	}
	@media (pointer: coarse) {
		input {
			min-height: 44px;
			padding-right: 46px;
		}
		.opens {
			width: 44px;
			height: 44px;
			margin-left: -44px;
		}
	}
</style>
