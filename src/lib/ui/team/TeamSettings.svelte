<script lang="ts">
	import { Input, Label, Textarea } from 'flowbite-svelte';
	import { onMount, untrack } from 'svelte';
	import type { TeamPage } from '$core/pages/people';
	import { figure } from '../words';
	import type { Tell } from './tell';

	let { team, tell }: { team: TeamPage; tell: Tell } = $props();
	const DAYS = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'];
	const first = untrack(() => team);
	let name = $state(first.name);
	let zone = $state(first.timeZone);
	let week = $state(first.week.map((hours) => figure(hours, 2)));
	let stages = $state(first.stages.join('\n'));
	let zones = $state.raw<string[]>([]);
	onMount(() => (zones = Intl.supportedValuesOf('timeZone')));

	async function keep(event: SubmitEvent) {
		event.preventDefault();
		await tell(
			'ChangeTeam',
			{
				team: team.id,
				name: name.trim(),
				timeZone: zone.trim(),
				week: week.map((hours) => (hours.trim() ? Number(hours.replace(',', '.')) : 0)),
				stages: stages
					.split('\n')
					.map((stage) => stage.trim())
					.filter(Boolean),
			},
			'What is set of the team is kept.',
		);
	}
</script>

<section aria-labelledby="team-settings">
	<h2 id="team-settings">The team itself</h2>
	<form onsubmit={keep}>
		<div>
			<Label for="settings-name">Name</Label>
			<Input id="settings-name" required maxlength={80} bind:value={name} />
		</div>
		<div>
			<Label for="settings-zone">Time zone; days of every figure begin and end in it</Label>
			<Input id="settings-zone" required list="all-zones" maxlength={60} bind:value={zone} />
			<datalist id="all-zones"
				>{#each zones as one (one)}<option value={one}></option>{/each}</datalist
			>
		</div>
		<fieldset>
			<legend>Hours of a usual week; whoever comes in begins with it</legend>
			{#each DAYS as day, i (day)}<label
					>{day.slice(0, 2)}<input
						inputmode="decimal"
						aria-label="{day}, hours"
						bind:value={week[i]}
					/></label
				>{/each}
		</fieldset>
		<div>
			<Label for="settings-stages">Stages that initiatives go through, a line each</Label>
			<Textarea id="settings-stages" rows={3} class="w-full" bind:value={stages} />
		</div>
		<div class="acts">
			<button class="go">Keep it</button>
			<button
				type="button"
				class="plain"
				onclick={() =>
					void tell(
						'ChangeTeam',
						{ team: team.id, away: !team.away },
						team.away ? `${team.name} is back.` : `${team.name} is put away, and its boards with it.`,
					)}>{team.away ? 'Bring the team back' : 'Put the team away'}</button
			>
		</div>
	</form>
</section>

<style>
	h2 {
		font-size: 1.15rem;
		margin: 22px 0 6px;
	}
	form {
		display: grid;
		gap: 10px;
	}
	fieldset {
		display: flex;
		flex-wrap: wrap;
		gap: 4px;
	}
	legend {
		padding: 0 0 4px;
		font-size: 0.95rem;
		font-weight: 500;
	}
	fieldset label {
		display: grid;
		justify-items: center;
		font-size: 12px;
		color: var(--soft);
	}
	fieldset input {
		width: 46px;
		min-height: max(34px, var(--touch, 0px));
		text-align: center;
		font: inherit;
		font-size: 1rem;
		color: var(--ink);
		background: transparent;
		border: 1px solid var(--edge);
		border-radius: 4px;
		padding: 2px;
	}
	.acts {
		display: flex;
		gap: 10px;
	}
</style>
