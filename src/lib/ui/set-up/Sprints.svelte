<script lang="ts">
	import { Checkbox, Input, Label, Select } from 'flowbite-svelte';
	import { untrack } from 'svelte';
	import type { BoardState } from '../board/board-state.svelte';
	import { dateWords } from '../words';

	let { board, today }: { board: BoardState; today: string } = $props();
	const head = $derived(board.head);
	const lead = $derived(head.role === 'lead');
	const WEEKDAYS = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'];
	const first = untrack(() => board.head);
	let sprints = $state(first.sprintDays !== null);
	let days = $state(String(first.sprintDays ?? 14));
	let weekday = $state(String(first.sprintWeekday));
	let name = $state(first.sprintName);
	let membersSettle = $state(first.membersSettle);
	let doneDays = $state(String(first.doneDays));
	let problem = $state('');

	async function cadence(event: SubmitEvent) {
		event.preventDefault();
		const length = Number(days);
		problem =
			sprints && !(Number.isInteger(length) && length >= 1 && length <= 90)
				? 'The length of a sprint must be a whole number of days, 1 to 90.'
				: '';
		if (problem) return;
		const sent = await board.ask('ChangeCadence', {
			board: head.id,
			days: sprints ? length : null,
			weekday: Number(weekday),
			name: name.trim() || 'Sprint',
		});
		if (sent.ok) board.tell({ tone: 'done', text: 'The cadence is kept; the next sprints are there.' });
		else problem = sent.refusal.title;
	}
	async function settling(event: SubmitEvent) {
		event.preventDefault();
		const length = Number(doneDays);
		problem =
			Number.isInteger(length) && length >= 0 && length <= 90
				? ''
				: 'Done cards stay for a whole number of days, 0 to 90.';
		if (problem) return;
		const sent = await board.ask('ChangeSettling', { board: head.id, membersSettle, doneDays: length });
		if (sent.ok) board.tell({ tone: 'done', text: 'How sprints are settled is kept.' });
		else problem = sent.refusal.title;
	}
</script>

<p class="warn" role="alert">{problem}</p>
<section aria-labelledby="set-sprints">
	<h2 id="set-sprints">Sprints</h2>
	{#if lead}
		<form onsubmit={cadence}>
			<Checkbox bind:checked={sprints} class="text-base"
				><span class="name">This board has sprints</span></Checkbox
			>
			{#if sprints}
				<div class="row">
					<div>
						<Label for="cadence-days">Days from start to start</Label><Input
							id="cadence-days"
							bind:value={days}
							inputmode="numeric"
						/>
					</div>
					<div>
						<Label for="cadence-weekday">Starting on</Label>
						<Select
							id="cadence-weekday"
							bind:value={weekday}
							placeholder=""
							items={WEEKDAYS.map((day, i) => ({ value: String(i), name: day }))}
						/>
					</div>
					<div>
						<Label for="cadence-name">One is called</Label><Input
							id="cadence-name"
							bind:value={name}
							maxlength={40}
						/>
					</div>
				</div>
			{/if}
			<button class="go">Keep the cadence</button>
		</form>
	{/if}
	<ul>
		{#each head.sprints.filter((sprint) => !sprint.closedAt) as sprint (sprint.number)}
			<li>
				<b>{head.sprintName} {sprint.number}</b>
				{dateWords(sprint.starts, today)} to {dateWords(sprint.ends, today)}{sprint.startedAt
					? ', running'
					: ''}
				<a class="link" href="/boards/{head.slug}/plan?sprint={sprint.number}">Plan</a>
			</li>
		{/each}
	</ul>
</section>
{#if head.sprintDays !== null}<section aria-labelledby="set-settling">
		<h2 id="set-settling">Settling</h2>
		{#if lead}
			<form onsubmit={settling}>
				<Checkbox bind:checked={membersSettle} class="text-base"
					><span class="name">Members settle sprints too, not only leads</span></Checkbox
				>
				<div>
					<Label for="done-days">Days that done cards stay on the board after closing</Label><Input
						id="done-days"
						bind:value={doneDays}
						inputmode="numeric"
					/>
				</div>
				<button class="plain">Keep this</button>
			</form>
		{/if}
	</section>{/if}

<style>
	.name {
		color: var(--ink);
	}
	.row {
		display: grid;
		grid-template-columns: repeat(3, 1fr);
		gap: 10px;
	}
	@media (max-width: 800px) {
		.row {
			grid-template-columns: 1fr;
		}
	}
</style>
