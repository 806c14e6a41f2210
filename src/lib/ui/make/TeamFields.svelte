<script lang="ts">
	import { Input, Label } from 'flowbite-svelte';
	import { onMount } from 'svelte';

	interface Props {
		name: string;
		zone: string;
		/** Of each weekday, Monday first, whether the team works on it. */
		days: boolean[];
	}
	/** What a team is: its name, its time zone and the days on which it works. */
	let { name = $bindable(), zone = $bindable(), days = $bindable() }: Props = $props();
	const DAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'];
	const LONG = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'];
	let zones = $state.raw<string[]>([]);
	onMount(() => {
		zones = Intl.supportedValuesOf('timeZone');
		zone ||= Intl.DateTimeFormat().resolvedOptions().timeZone;
	});
</script>

<div>
	<Label for="team-name">What the team is called</Label>
	<Input id="team-name" name="team" required maxlength={80} bind:value={name} />
</div>
<div>
	<Label for="team-zone">Its time zone</Label>
	<Input
		id="team-zone"
		name="zone"
		required
		list="zones"
		maxlength={60}
		bind:value={zone}
		autocomplete="off"
	/>
	<datalist id="zones"
		>{#each zones as one (one)}<option value={one}></option>{/each}</datalist
	>
</div>
<fieldset>
	<legend>Days on which it works, eight hours each to begin with</legend>
	{#each DAYS as day, i (day)}<label
			><input type="checkbox" name="day-{i}" aria-label={LONG[i]} bind:checked={days[i]} /><span>{day}</span
			></label
		>{/each}
</fieldset>

<style>
	div,
	fieldset {
		min-width: 0;
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
	label {
		cursor: pointer;
	}
	input[type='checkbox'] {
		position: absolute;
		opacity: 0;
	}
	span {
		display: grid;
		place-items: center;
		min-width: 41px;
		min-height: max(36px, var(--touch, 0px));
		padding: 0 4px;
		border: 1px solid var(--edge);
		border-radius: 4px;
	}
	input:checked + span {
		background: var(--ink);
		color: var(--paper);
	}
	input:focus-visible + span {
		outline: 2.5px solid var(--river);
		outline-offset: 2px;
	}
</style>
