<script lang="ts">
	import { Input, Label } from 'flowbite-svelte';
	import DateField from '../form/DateField.svelte';
	import type { CommandInput, TeamCommand, TeamInput, TellTeam } from '../../commands';
	import type { PeoplePage } from '$core/pages/plan';
	import { dateWords, figure } from '../words';

	interface Props {
		page: PeoplePage;
		tell: TellTeam;
	}
	/** The days on which nobody of the team works. */
	let { page, tell }: Props = $props();
	const lead = $derived(page.role === 'lead');
	const coming = $derived(page.holidays.filter((holiday) => holiday.day >= page.today));
	let day = $state('');
	let name = $state('');
	let problem = $state('');

	async function ask<C extends TeamCommand>(command: C, input: TeamInput<C>): Promise<boolean> {
		problem = await tell(command, { team: page.team.id, ...input } as CommandInput<C>);
		return !problem;
	}
	async function add(event: SubmitEvent) {
		event.preventDefault();
		if (!day) return void (problem = 'Choose the day.');
		if (await ask('SetHoliday', { day, name, holiday: true })) [day, name] = ['', ''];
	}
	async function read(input: HTMLInputElement) {
		const file = input.files?.[0];
		input.value = '';
		if (!file) return;
		if (file.size > 1_000_000)
			return void (problem = `${file.name} has ${figure(file.size / 1e6)} MB. A calendar file may have at most 1 MB.`);
		await ask('ReadCalendar', { person: null, file: await file.text() });
	}
</script>

<section aria-labelledby="holidays">
	<h2 id="holidays">Holidays of the team</h2>
	<p class="warn" role="alert">{problem}</p>
	<ul>
		{#each coming as holiday (holiday.day)}
			<li>
				{dateWords(holiday.day, page.today)}, {holiday.name}
				{#if lead}<button
						type="button"
						class="link"
						aria-label="Take back: {holiday.name} is a usual day"
						onclick={() => void ask('SetHoliday', { day: holiday.day, holiday: false })}>Take back</button
					>{/if}
			</li>
		{:else}<li class="soft">None from today on.</li>{/each}
	</ul>
	{#if lead}
		<form onsubmit={add}>
			<div>
				<Label for="holiday-day">Day</Label><DateField
					id="holiday-day"
					label="Day"
					bind:value={day}
					today={page.today}
				/>
			</div>
			<div>
				<Label for="holiday-name">Name</Label><Input id="holiday-name" bind:value={name} maxlength={80} />
			</div>
			<button class="plain">Make it a holiday</button>
			<label class="file"
				>or read them from a calendar file
				<input
					type="file"
					accept=".ics,text/calendar"
					onchange={(event) => void read(event.currentTarget)}
				/></label
			>
		</form>
	{/if}
</section>

<style>
	section {
		padding: 18px 0 30px;
	}
	h2 {
		font-size: 1.1rem;
	}
	ul {
		margin: 4px 0 8px;
		display: flex;
		flex-wrap: wrap;
		gap: 2px 26px;
	}
	li {
		display: flex;
		gap: 10px;
		min-height: max(28px, var(--touch, 0px));
		align-items: center;
	}
	form {
		display: flex;
		flex-wrap: wrap;
		gap: 8px 12px;
		align-items: end;
	}
	.file {
		display: grid;
		gap: 4px;
		color: var(--soft);
		font-size: 0.93rem;
	}
	.file input {
		max-width: 100%;
	}
	.link {
		min-height: var(--touch, auto);
	}
</style>
