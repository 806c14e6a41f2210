<script lang="ts">
	import { Input, Label, Select, Textarea } from 'flowbite-svelte';
	import { goto } from '$app/navigation';
	import { page } from '$app/state';
	import type { InitiativePage } from '$core/pages/own-page';
	import type { Command, CommandInput } from '../../commands';
	import type { BoardState } from '../board/board-state.svelte';
	import DateField from '../form/DateField.svelte';
	import { reread } from '../frame/reread';
	import { initiativeAddress } from '../initiative-words';

	let { board, data, today }: { board: BoardState; data: InitiativePage; today: string } = $props();
	const head = $derived(board.head);
	const one = $derived(data.figures);
	const of = $derived({ board: head.id, initiative: one.name });
	const team = $derived({ team: head.teamId, initiative: one.id });
	/** An address can ask for it to be open. */
	let open = $state(page.url.searchParams.has('set'));
	let problem = $state('');
	/** A stage that is full: why it is let through is asked. */
	let full = $state<string | null>(null);
	let reason = $state('');

	async function ask<C extends Command>(command: C, input: CommandInput<C>, done: string) {
		const sent = await board.ask(command, input);
		problem = sent.ok ? '' : sent.refusal.title;
		if (sent.ok) board.tell({ tone: 'done', text: done, undo: sent.answer.id });
		await reread('harrow:board');
		return sent;
	}
	const change = (what: Omit<CommandInput<'ChangeInitiative'>, 'board' | 'initiative'>) =>
		ask('ChangeInitiative', { ...of, ...what }, `What is set of ${one.name} is kept.`);
	async function stage(to: string | null, why?: string): Promise<void> {
		const sent = await ask(
			'StageInitiative',
			{ ...team, stage: to, ...(why ? { reason: why } : {}) },
			`${one.name} stands ${to === null ? 'in no stage' : `in ${to}`} now.`,
		);
		full = !sent.ok && sent.refusal.code === 'stage.full' ? to : null;
		reason = '';
	}
	function budget(field: 'hours' | 'money', event: Event): void {
		const said = (event.currentTarget as HTMLInputElement).value.trim();
		const value = said === '' ? null : Number(said.replace(/[ ,](?=\d{3}(\D|$))/g, '').replace(',', '.'));
		if (value !== null && !(value > 0))
			return void (problem = 'A budget is a number above 0, or empty for none.');
		void ask('ChangeBudget', { ...of, [field]: value }, `The budget of ${one.name} is kept.`);
	}
	async function rename(event: Event): Promise<void> {
		const name = (event.currentTarget as HTMLInputElement).value.trim();
		if (!name || name === one.name) return;
		const sent = one.wide
			? await ask('ShareInitiative', { ...team, wide: true, name }, `It is called ${name} now.`)
			: await ask('ChangeName', { ...of, to: name }, `It is called ${name} now.`);
		if (sent.ok) await goto(initiativeAddress(head.slug, name), { replaceState: true });
	}
	const said = (event: Event) => (event.currentTarget as HTMLInputElement).value;
</script>

<details bind:open>
	<summary>What is set of it</summary>
	<p class="warn" role="alert">{problem}</p>
	{#if full !== null}
		<form
			class="let"
			onsubmit={(event) => {
				event.preventDefault();
				if (reason.trim()) void stage(full, reason.trim());
			}}
		>
			<Label for="let-through">Why it goes there all the same</Label>
			<Input id="let-through" maxlength={200} bind:value={reason} />
			<button class="go" disabled={!reason.trim()}>Let it through</button>
		</form>
	{/if}
	<div class="fields">
		<div>
			<Label for="of-name">Name</Label>
			<Input id="of-name" maxlength={80} value={one.name} onchange={(event: Event) => void rename(event)} />
		</div>
		<div>
			<Label for="of-stage">Stage</Label>
			<Select
				id="of-stage"
				placeholder=""
				value={one.stage ?? ''}
				items={[{ value: '', name: 'none' }, ...data.stages.map(({ name }) => ({ value: name, name }))]}
				onchange={(event: Event) => void stage(said(event) || null)}
			/>
		</div>
		<div>
			<Label for="of-lead">Led by</Label>
			<Select
				id="of-lead"
				placeholder=""
				value={one.lead ?? ''}
				items={[
					{ value: '', name: 'nobody' },
					...head.people
						.filter((person) => (person.role !== 'viewer' && !person.gone) || person.id === one.lead)
						.map((person) => ({ value: person.id, name: person.name })),
				]}
				onchange={(event: Event) => void change({ lead: said(event) || null })}
			/>
		</div>
		<div>
			<Label for="of-start">Begins</Label>
			<DateField
				id="of-start"
				label="The start"
				none
				value={one.start ?? ''}
				{today}
				onchange={(day) => void change({ start: day || null })}
			/>
		</div>
		<div>
			<Label for="of-target">To be done by</Label>
			<DateField
				id="of-target"
				label="The target"
				none
				value={one.target ?? ''}
				{today}
				onchange={(day) => void change({ target: day || null })}
			/>
		</div>
		<div>
			<Label for="of-hours">Budget in hours</Label>
			<Input
				id="of-hours"
				inputmode="decimal"
				value={String(one.hours ?? '')}
				onchange={(event: Event) => budget('hours', event)}
			/>
		</div>
		<div>
			<Label for="of-money">Budget in money</Label>
			<Input
				id="of-money"
				inputmode="decimal"
				value={String(one.money ?? '')}
				onchange={(event: Event) => budget('money', event)}
			/>
		</div>
		<label class="wide"
			><input
				type="checkbox"
				checked={one.wide}
				onchange={(event) => {
					const wide = event.currentTarget.checked;
					void ask(
						'ShareInitiative',
						{ ...team, wide },
						wide
							? `Cards of all boards may belong to ${one.name}.`
							: `${one.name} is one of ${head.name} only.`,
					);
				}}
			/> Cards of all boards of the team may belong to it</label
		>
		<div class="purpose">
			<Label for="of-purpose">What it is for</Label>
			<Textarea
				id="of-purpose"
				rows={2}
				maxlength={2000}
				class="w-full"
				value={one.purpose}
				onchange={(event: Event) => void change({ purpose: said(event) })}
			/>
		</div>
	</div>
</details>

<style>
	summary {
		color: var(--moss);
		cursor: pointer;
		min-height: max(26px, var(--touch, 0px));
	}
	.fields {
		display: grid;
		grid-template-columns: repeat(auto-fit, minmax(180px, 1fr));
		gap: 10px 16px;
		align-items: end;
		padding: 8px 0 8px 14px;
		border-left: 4px solid var(--moss);
	}
	.purpose,
	.wide {
		grid-column: 1 / -1;
	}
	.let {
		display: grid;
		gap: 6px;
		max-width: 420px;
		margin-bottom: 10px;
	}
	.warn {
		margin: 4px 0;
	}
	.warn:empty {
		display: none;
	}
</style>
