<script lang="ts">
	import { Input, Label, Select } from 'flowbite-svelte';
	import { untrack } from 'svelte';
	import type { SetUpPage } from '$core/pages/settings';
	import type { BoardState } from '../board/board-state.svelte';
	import Names from './Names.svelte';
	import { namesOf } from './names';

	let { board, setUp }: { board: BoardState; setUp: SetUpPage } = $props();
	const head = $derived(board.head);
	const lead = $derived(head.role === 'lead');
	let budgetOf = $state(untrack(() => board.head.initiatives[0] ?? ''));
	let budget = $state('');
	let problem = $state('');

	async function keepBudget(event: SubmitEvent) {
		event.preventDefault();
		const hours = budget.trim() === '' ? null : Number(budget.replace(',', '.'));
		problem =
			hours !== null && !(hours > 0)
				? 'A budget is a number of hours above 0; left empty, there is none.'
				: '';
		if (problem) return;
		const sent = await board.ask('ChangeBudget', { board: head.id, initiative: budgetOf, hours });
		if (!sent.ok) return void (problem = sent.refusal.title);
		board.tell({ tone: 'done', text: `The budget of ${budgetOf} is kept.` });
		budget = '';
	}
</script>

<p class="warn" role="alert">{problem}</p>
<section aria-labelledby="set-initiatives">
	<h2 id="set-initiatives">Initiatives and their budgets</h2>
	<Names
		kind="initiative"
		names={head.initiatives}
		retired={setUp.retired.initiative}
		carried={setUp.carried.initiative}
		mayChange={lead}
		onchange={namesOf(board, 'initiative')}
	/>
	{#if Object.keys(head.budgets).length}<p>
			{#each Object.entries(head.budgets) as [one, hours] (one)}<b>{one}</b> has {hours} h.&nbsp;
			{/each}
		</p>{/if}
	{#if lead && head.initiatives.length}
		<form onsubmit={keepBudget}>
			<div>
				<Label for="budget-of">Initiative</Label>
				<Select
					id="budget-of"
					bind:value={budgetOf}
					placeholder=""
					items={head.initiatives.map((one) => ({ value: one, name: one }))}
				/>
			</div>
			<div>
				<Label for="budget">Hours; empty for none</Label><Input
					id="budget"
					bind:value={budget}
					inputmode="decimal"
				/>
			</div>
			<button class="plain">Keep the budget</button>
		</form>
	{/if}
</section>
