<script lang="ts">
	import { Input, Label, Select } from 'flowbite-svelte';
	import type { SetUpPage } from '$core/pages/settings';
	import type { BoardState } from '../board/board-state.svelte';
	import DateField from '../form/DateField.svelte';
	import { initiativeWords } from '../initiative-words';
	import { dateWords } from '../words';
	import Names from './Names.svelte';
	import { namesOf } from './names';

	let { board, setUp, today }: { board: BoardState; setUp: SetUpPage; today: string } = $props();
	const head = $derived(board.head);
	const lead = $derived(head.role === 'lead');
	/** The one whose settings are open. */
	let chosen = $state<string | null>(null);
	const open = $derived(chosen !== null && head.initiatives.includes(chosen) ? chosen : null);
	const settings = $derived(open === null ? null : (setUp.initiatives[open] ?? null));
	let problem = $state('');
	/** A budget as it was typed; undefined where it is none. */
	function figure(text: string): number | null | undefined {
		if (text.trim() === '') return null;
		const value = Number(text.replace(/[ ,](?=\d{3}(\D|$))/g, '').replace(',', '.'));
		return value > 0 ? value : undefined;
	}
	async function budget(field: 'hours' | 'money', input: HTMLInputElement) {
		const value = figure(input.value);
		problem = value === undefined ? 'A budget is a number above 0, or empty for none.' : '';
		if (value === undefined) return;
		const sent = await board.ask('ChangeBudget', { board: head.id, initiative: open!, [field]: value });
		problem = sent.ok ? '' : sent.refusal.title;
		if (sent.ok) board.tell({ tone: 'done', text: `The budget of ${open} is kept.`, undo: sent.answer.id });
	}
	async function change(what: { target?: string | null; lead?: string | null }, done: string) {
		const sent = await board.ask('ChangeInitiative', { board: head.id, initiative: open!, ...what });
		problem = sent.ok ? '' : sent.refusal.title;
		if (sent.ok) board.tell({ tone: 'done', text: done, undo: sent.answer.id });
	}
	const of = (event: Event) => event.currentTarget as HTMLInputElement;
</script>

<p class="warn" role="alert">{problem}</p>
<section aria-labelledby="set-initiatives">
	<h2 id="set-initiatives">Initiatives, their targets and budgets</h2>
	<Names
		kind="initiative"
		names={head.initiatives}
		retired={setUp.retired.initiative}
		carried={setUp.carried.initiative}
		says={(name) =>
			(setUp.initiatives[name] && initiativeWords(setUp.initiatives[name], head.people, today)) ||
			'no target, no budget'}
		onmore={(name) => (chosen = chosen === name ? null : name)}
		mayChange={lead}
		onchange={namesOf(board, 'initiative')}
	/>
	{#if lead && open && settings}
		{#key open}
			<div class="one" role="group" aria-label="What is set of {open}">
				<h3>{open}</h3>
				<div>
					<Label for="initiative-target">To be done by</Label>
					<DateField
						id="initiative-target"
						label="Target of {open}"
						none
						value={settings.target ?? ''}
						{today}
						onchange={(day) =>
							void change(
								{ target: day || null },
								day ? `${open} is to be done by ${dateWords(day, today)}.` : `${open} has no target.`,
							)}
					/>
				</div>
				<div>
					<Label for="initiative-lead">Led by</Label>
					<Select
						id="initiative-lead"
						placeholder=""
						value={settings.lead ?? ''}
						items={[
							{ value: '', name: 'nobody' },
							...head.people
								.filter((person) => (person.role !== 'viewer' && !person.gone) || person.id === settings.lead)
								.map((person) => ({ value: person.id, name: person.name })),
						]}
						onchange={(event: Event) =>
							void change({ lead: of(event).value || null }, `Who leads ${open} is kept.`)}
					/>
				</div>
				<div>
					<Label for="budget">Budget in hours; empty for none</Label>
					<Input
						id="budget"
						inputmode="decimal"
						value={String(settings.hours ?? '')}
						onchange={(event: Event) => void budget('hours', of(event))}
					/>
				</div>
				<div>
					<Label for="budget-money">Budget in money; empty for none</Label>
					<Input
						id="budget-money"
						inputmode="decimal"
						value={String(settings.money ?? '')}
						onchange={(event: Event) => void budget('money', of(event))}
					/>
				</div>
			</div>
		{/key}
	{/if}
</section>

<style>
	.one {
		display: grid;
		grid-template-columns: repeat(auto-fit, minmax(200px, 1fr));
		gap: 10px 16px;
		align-items: end;
		padding: 8px 0 0 14px;
		border-left: 4px solid var(--moss);
	}
	h3 {
		grid-column: 1 / -1;
		font-size: 1rem;
	}
</style>
