<script lang="ts">
	import { Input } from 'flowbite-svelte';
	import { zoneOf } from '$core/calendar/zone';
	import { parseDay } from '$core/calendar/days';
	import { hourOf } from '$core/notices/hours';
	import type { CardPage, Reminder } from '$core/pages/card';
	import type { CommandInput } from '../../commands';
	import DateField from '../form/DateField.svelte';
	import { count, momentWords } from '../words';

	interface Props {
		card: Pick<CardPage, 'id' | 'reminders' | 'due' | 'start'>;
		today: string;
		timeZone: string;
		/** Whoever looks may remind the owners too. */
		mayRemind: boolean;
		onremind: (input: Omit<CommandInput<'RemindCard'>, 'card'>) => Promise<boolean>;
		ondrop: (reminder: string) => void;
	}
	/** Reminders on a card: one’s own, and where another is set. */
	let { card, today, timeZone, mayRemind, onremind, ondrop }: Props = $props();
	let open = $state(false);
	let before = $state<'due' | 'start' | ''>('due');
	let days = $state(1);
	let hour = $state(9);
	let day = $state('');
	let words = $state('');
	let owners = $state(false);
	const NAMED = { due: 'it is due', start: 'it starts' };
	const HOURS = Array.from({ length: 24 }, (_, n) => n);
	const clock = (n: number) => `${String(n).padStart(2, '0')}:00`;

	function when({ at, before, days, hour, moment }: Reminder): string {
		if (at) return momentWords(at, timeZone);
		const how = `${days ? `${count(days!, 'day')} before ${NAMED[before!]}` : `on the day ${NAMED[before!]}`}, at ${clock(hour!)}`;
		return moment ? `${how}: ${momentWords(moment, timeZone)}` : `${how}, once it has that date`;
	}
	async function set(event: SubmitEvent): Promise<void> {
		event.preventDefault();
		const at = before ? null : new Date(hourOf(zoneOf(timeZone), parseDay(day)!, hour)).toISOString();
		const ok = await onremind({
			owners,
			...(words.trim() ? { words: words.trim() } : {}),
			...(before ? { before, days, hour } : { at: at! }),
		});
		if (ok) [open, words, day, owners] = [false, '', '', false];
	}
</script>

<h3>
	Reminders <button type="button" class="link" aria-expanded={open} onclick={() => (open = !open)}
		>Remind me</button
	>
</h3>
{#if card.reminders.length}<ul>
		{#each card.reminders as reminder (reminder.id)}<li>
				<span
					>{reminder.owners ? 'The owners' : 'You'}, {when(reminder)}{reminder.words
						? `: ${reminder.words}`
						: ''}</span
				>
				<button type="button" class="link" onclick={() => ondrop(reminder.id)}
					>Take it off<span class="sr-only">: {when(reminder)}</span></button
				>
			</li>{/each}
	</ul>{/if}
{#if open}
	<form onsubmit={set} aria-label="Set a reminder">
		<p>
			{#if before}<select class="choice" aria-label="Days before" bind:value={days}
					>{#each [0, 1, 2, 3, 5, 7, 10, 14, 21, 30] as n (n)}<option value={n}
							>{n ? `${count(n, 'day')} before` : 'on the day'}</option
						>{/each}</select
				>{:else}on{/if}
			<select class="choice" aria-label="Before what" bind:value={before}
				><option value="due">it is due</option><option value="start">it starts</option><option value=""
					>a day of its own</option
				></select
			>
			{#if !before}<DateField
					id="reminder-day"
					label="The day"
					bind:value={day}
					{today}
					min={today}
					none
				/>{/if}
			at
			<select class="choice" aria-label="At which hour" bind:value={hour}
				>{#each HOURS as n (n)}<option value={n}>{clock(n)}</option>{/each}</select
			>
		</p>
		<Input
			aria-label="Of what"
			placeholder="Of what, if it needs saying"
			maxlength={300}
			bind:value={words}
		/>
		{#if mayRemind}<label><input type="checkbox" bind:checked={owners} />remind its owners, not me</label
			>{/if}
		<button class="plain" disabled={!before && !day}>Set it</button>
	</form>
{/if}

<style>
	h3 {
		display: flex;
		gap: 12px;
		align-items: baseline;
		font-size: 1rem;
		margin: 14px 0 4px;
	}
	li {
		display: flex;
		justify-content: space-between;
		gap: 12px;
		padding: 3px 0;
	}
	form {
		display: grid;
		gap: 8px;
		justify-items: start;
		padding: 6px 0;
	}
	p {
		display: flex;
		flex-wrap: wrap;
		gap: 6px 10px;
		align-items: center;
	}
	.link {
		min-height: var(--touch, auto);
	}
	label {
		display: flex;
		gap: 8px;
		align-items: center;
		min-height: var(--touch, auto);
	}
</style>
