<script lang="ts">
	import { Checkbox, Input, Label, Select } from 'flowbite-svelte';
	import { readHours } from '$core/capacity/hours-text';
	import DateField from '../form/DateField.svelte';
	import { draftOf, keepDraft } from '../drafts';
	import Dialog from './Dialog.svelte';

	interface Time {
		hours: number;
		day: string;
		note: string;
		billable: boolean;
		person: string;
	}
	interface Props {
		title: string;
		sentence?: string;
		/** What stands there to begin with. */
		hours: number | null;
		/** Left out where the day is not a question. */
		day?: string;
		today?: string;
		note?: string;
		billable?: boolean;
		/** Whose time it may be; left out where it is one’s own. */
		people?: readonly { value: string; name: string }[];
		person?: string;
		/** A way on that logs no hours, by what its button says; without it hours are needed. */
		none?: { words: string; ontime: () => Promise<string> };
		/** What takes an entry back. */
		onremove?: () => Promise<string>;
		/** Gives what is wrong, in a sentence; empty when it was done. */
		ontime: (time: Time) => Promise<string>;
		/** Under what an unfinished entry is kept until it is sent; left out where it is not. */
		draft?: string;
		onclose: () => void;
	}
	let props: Props = $props();
	// svelte-ignore state_referenced_locally
	const begun = props.draft ? readDraft(props.draft) : null;
	function readDraft(of: string): { hours: string; note: string } | null {
		try {
			return JSON.parse(draftOf(of) ?? 'null');
		} catch {
			return null;
		}
	}
	// svelte-ignore state_referenced_locally
	let hours = $state(begun?.hours ?? (props.hours === null ? '' : String(props.hours)));
	// svelte-ignore state_referenced_locally
	let day = $state(props.day ?? '');
	// svelte-ignore state_referenced_locally
	let note = $state(begun?.note ?? props.note ?? '');
	// svelte-ignore state_referenced_locally
	let billable = $state(props.billable ?? false);
	// svelte-ignore state_referenced_locally
	let person = $state(props.person ?? '');
	$effect(() => {
		if (props.draft) keepDraft(props.draft, hours || note ? JSON.stringify({ hours, note }) : null);
	});
	let problem = $state('');
	let sending = $state(false);
	const take = (element: HTMLElement) => element.querySelector('input')?.select();

	async function keep(work: Promise<string>): Promise<void> {
		sending = true;
		problem = await work;
		sending = false;
		if (problem) return;
		if (props.draft) keepDraft(props.draft, null);
		props.onclose();
	}
	function submit(event: SubmitEvent) {
		event.preventDefault();
		const figure = readHours(hours);
		if (figure === null || figure <= 0)
			problem = 'Write the hours as 1.5, as 1:30 or as 90m; they must be above 0.';
		else if (figure > 24) problem = 'A day has at most 24 hours.';
		else if (props.day !== undefined && !day) problem = 'Say on which day it was worked.';
		else if (props.today && day > props.today)
			problem = 'That day is still to come: time is logged for today or for days before.';
		else void keep(props.ontime({ hours: figure, day, note: note.trim(), billable, person }));
	}
	async function remove(): Promise<void> {
		problem = await props.onremove!();
		if (!problem) props.onclose();
	}
</script>

<Dialog title={props.title} onclose={props.onclose}>
	<form onsubmit={submit}>
		{#if props.sentence}<p class="soft">{props.sentence}</p>{/if}
		<div class="two" {@attach take}>
			<div>
				<Label for="time-hours">Hours</Label>
				<Input
					id="time-hours"
					bind:value={hours}
					autocomplete="off"
					placeholder="1.5 or 1:30"
					aria-describedby="time-problem"
				/>
			</div>
			{#if props.day !== undefined}
				<div>
					<Label for="time-day">Day</Label>
					<DateField
						id="time-day"
						label="Day"
						bind:value={day}
						today={props.today ?? day}
						max={props.today}
					/>
				</div>
			{/if}
		</div>
		{#if props.people}
			<Label for="time-person" class="mt-2">Who worked</Label>
			<Select id="time-person" placeholder="" items={[...props.people]} bind:value={person} />
		{/if}
		<Label for="time-note" class="mt-2">Note</Label>
		<Input id="time-note" bind:value={note} maxlength={500} autocomplete="off" />
		<Checkbox class="mt-2" bind:checked={billable}>Billable</Checkbox>
		<p id="time-problem" class="warn" role="alert">{problem}</p>
		<div class="dialog-foot">
			{#if props.onremove}<button type="button" class="plain" onclick={() => void remove()}
					>Take it back</button
				>{/if}
			{#if props.none}<button type="button" class="plain" onclick={() => void keep(props.none!.ontime())}
					>{props.none.words}</button
				>{/if}
			<button type="button" class="plain" onclick={props.onclose}>Leave it</button>
			<button class="go" disabled={sending}>Keep</button>
		</div>
	</form>
</Dialog>

<style>
	.two {
		display: grid;
		grid-template-columns: 1fr 1fr;
		gap: 12px;
	}
	p {
		margin: 0 0 8px;
	}
	.warn {
		margin: 8px 0 0;
	}
	.warn:empty {
		display: none;
	}
</style>
