<script lang="ts">
	import { Checkbox, Input, Label, Select, Textarea } from 'flowbite-svelte';
	import { getContext, untrack } from 'svelte';
	import type { BoardState } from '$lib/ui/board/board-state.svelte';
	import Names from '$lib/ui/set-up/Names.svelte';
	import { settingSentence } from '$core/board/setting-sentence';
	import Places from '$lib/ui/frame/Places.svelte';
	import { count, dateWords, momentWords } from '$lib/ui/words';

	let { data } = $props();
	const board = getContext<BoardState>('board');
	const head = $derived(board.head);
	const lead = $derived(head.role === 'lead');
	const WEEKDAYS = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'];

	const first = untrack(() => board.head);
	let sprints = $state(first.sprintDays !== null);
	let days = $state(String(first.sprintDays ?? 14));
	let weekday = $state(String(first.sprintWeekday));
	let name = $state(first.sprintName);
	let typeName = $state('');
	let typeLines = $state('');
	let membersSettle = $state(first.membersSettle);
	let doneDays = $state(String(first.doneDays));
	let budgetOf = $state(first.initiatives[0] ?? '');
	let budget = $state('');
	let problem = $state('');

	const setUp = $derived(data.setUp);
	const namesOf = (kind: 'type' | 'label' | 'initiative') => async (name: string, change: object) => {
		const sent = await board.ask('ChangeName', { board: head.id, [kind]: name, ...change });
		return sent.ok ? '' : sent.refusal.title;
	};
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
	async function type(event: SubmitEvent) {
		event.preventDefault();
		const lines = typeLines
			.split('\n')
			.map((line) => line.trim())
			.filter(Boolean);
		problem = typeName.trim() ? '' : 'A type needs a name.';
		if (problem) return;
		const sent = await board.ask('ChangeType', { board: head.id, name: typeName.trim(), checklist: lines });
		if (!sent.ok) return void (problem = sent.refusal.title);
		board.tell({
			tone: 'done',
			text: `Cards of the type ${typeName.trim()} begin with ${count(lines.length, 'checklist line')}.`,
		});
		[typeName, typeLines] = ['', ''];
	}
</script>

<Places board={head} here="set-up" />
<div class="page">
	<h1>
		{head.name} is sized in {head.unit === 'none' ? 'nothing' : head.unit} and
		{head.sprintDays === null
			? 'flows without sprints'
			: `has sprints of ${count(head.sprintDays, 'day')}, starting on a ${WEEKDAYS[head.sprintWeekday]}`}.
	</h1>
	<p class="warn" role="alert">{problem}</p>
	<div class="two">
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
						{dateWords(sprint.starts, data.today)} to {dateWords(sprint.ends, data.today)}{sprint.startedAt
							? ', running'
							: ''}
						<a class="link" href="/boards/{head.slug}/plan?sprint={sprint.number}">Plan</a>
					</li>
				{/each}
			</ul>
		</section>
		{#if head.sprintDays !== null}
			<section aria-labelledby="set-settling">
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
			</section>
		{/if}
		<section aria-labelledby="set-initiatives">
			<h2 id="set-initiatives">Initiatives and their budgets</h2>
			<Names
				kind="initiative"
				names={head.initiatives}
				retired={setUp.retired.initiative}
				mayChange={lead}
				onchange={namesOf('initiative')}
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
		<section aria-labelledby="set-types">
			<h2 id="set-types">Types of card</h2>
			<ul>
				{#each head.types as one (one.name)}
					<li>
						<b>{one.name}</b>
						{one.checklist.length ? `begins with: ${one.checklist.join('; ')}` : 'begins with no checklist'}
						{#if lead}<button
								type="button"
								class="link"
								aria-label="Change the type {one.name}"
								onclick={() => ([typeName, typeLines] = [one.name, one.checklist.join('\n')])}>Change</button
							>{/if}
					</li>
				{:else}<li>None yet.</li>{/each}
			</ul>
			<Names
				kind="type"
				names={head.types.map((one) => one.name)}
				retired={setUp.retired.type}
				mayChange={lead}
				onchange={namesOf('type')}
			/>
			{#if lead}
				<form onsubmit={type}>
					<div>
						<Label for="type-name">Name</Label><Input id="type-name" bind:value={typeName} maxlength={40} />
					</div>
					<div>
						<Label for="type-lines">Its checklist, a line each</Label>
						<Textarea id="type-lines" bind:value={typeLines} rows={4} class="w-full text-base" />
					</div>
					<button class="plain">Keep the type</button>
				</form>
			{/if}
		</section>
		<section aria-labelledby="set-labels">
			<h2 id="set-labels">Labels</h2>
			<Names
				kind="label"
				names={head.labels}
				retired={setUp.retired.label}
				mayChange={lead}
				onchange={namesOf('label')}
			/>
		</section>
		<section aria-labelledby="set-changes">
			<h2 id="set-changes">What was changed here lately</h2>
			<ol>
				{#each setUp.changes as change (change.seq)}
					<li class:undone={change.undone}>
						{settingSentence(change)}
						<small
							>{change.who ?? 'Someone'}, {momentWords(change.at, head.timeZone)}{change.undone
								? ', taken back'
								: ''}</small
						>
						{#if change.takeBack}{@const command = change.takeBack}<button
								type="button"
								class="link"
								onclick={() => void board.undo(command)}>Take it back</button
							>{/if}
					</li>
				{:else}<li>Nothing yet.</li>{/each}
			</ol>
		</section>
	</div>
</div>

<style>
	.page {
		overflow-y: auto;
		padding: 0 20px 30px;
		flex: 1;
		min-height: 0;
	}
	h1 {
		font: 1rem/1.4 var(--text);
		letter-spacing: 0;
		padding: 9px 0 8px;
	}
	h2 {
		font-size: 1.1rem;
		margin-bottom: 8px;
	}
	.two {
		display: grid;
		grid-template-columns: 1fr 1fr;
		gap: 32px;
	}
	form {
		display: grid;
		gap: 10px;
		margin-bottom: 16px;
		justify-items: start;
	}
	form > div {
		width: 100%;
	}
	.row {
		display: grid;
		grid-template-columns: repeat(3, 1fr);
		gap: 10px;
	}
	ul,
	ol {
		list-style: none;
		margin: 0 0 12px;
		padding: 0;
	}
	li {
		padding: 6px 0;
		border-bottom: 1px dotted var(--rule);
	}
	li .link {
		margin-left: 8px;
	}
	small {
		color: var(--soft);
	}
	.undone {
		color: var(--soft);
		text-decoration: line-through;
	}
	.name {
		color: var(--ink);
	}
	p {
		margin: 0 0 8px;
	}
	@media (pointer: coarse) {
		.link {
			min-height: 44px;
			display: inline-flex;
			align-items: center;
		}
	}
	@media (max-width: 800px) {
		.two,
		.row {
			grid-template-columns: 1fr;
		}
		.page {
			padding: 0 12px 30px;
		}
	}
</style>
