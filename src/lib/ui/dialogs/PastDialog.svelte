<script lang="ts">
	import { Input, Label } from 'flowbite-svelte';
	import DateField from '../form/DateField.svelte';
	import Dialog from './Dialog.svelte';

	interface Props {
		today: string;
		/** The moment that is looked at, `2026-11-05T14:00`; null for now. */
		at: string | null;
		onmoment: (at: string) => void;
		onclose: () => void;
	}
	/** A moment of the past at which a board is looked at. */
	let { today, at, onmoment, onclose }: Props = $props();
	// svelte-ignore state_referenced_locally
	let day = $state(at?.slice(0, 10) ?? today);
	// svelte-ignore state_referenced_locally
	let time = $state(at?.slice(11, 16) ?? '12:00');
	let problem = $state('');

	function submit(event: SubmitEvent): void {
		event.preventDefault();
		const typed = /^(\d{1,2})(?:[:.](\d{2}))?$/.exec(time.trim());
		const [hours, minutes] = [Number(typed?.[1] ?? NaN), Number(typed?.[2] ?? 0)];
		if (!(hours < 24 && minutes < 60)) return void (problem = 'A time is written as 14:00.');
		const two = (n: number) => String(n).padStart(2, '0');
		onmoment(`${day}T${two(hours)}:${two(minutes)}`);
	}
	const take = (element: HTMLElement) => element.querySelector('input')?.focus();
</script>

<Dialog title="As it stood" {onclose}>
	<form onsubmit={submit}>
		<div class="moment" {@attach take}>
			<div>
				<Label for="past-day">On</Label>
				<DateField id="past-day" label="The day" bind:value={day} {today} max={today} />
			</div>
			<div>
				<Label for="past-time">At</Label>
				<Input
					id="past-time"
					class="w-24 text-base"
					bind:value={time}
					inputmode="numeric"
					autocomplete="off"
					aria-describedby={problem ? 'past-problem' : undefined}
				/>
			</div>
		</div>
		{#if problem}<p id="past-problem" class="warn" role="alert">{problem}</p>{/if}
		<p class="soft">
			The board is shown as its history tells of that moment. Nothing on it can be changed there.
		</p>
		<div class="dialog-foot">
			<button type="button" class="plain" onclick={onclose}>Leave it</button>
			<button class="go">Look</button>
		</div>
	</form>
</Dialog>

<style>
	.moment {
		display: flex;
		gap: 20px;
	}
	.soft {
		margin: 10px 0;
	}
</style>
