<script lang="ts">
	import { Input, Label, Select, Textarea } from 'flowbite-svelte';
	import type { FieldKind, OwnField } from '$core/fields/own';
	import type { SetUpPage } from '$core/pages/settings';
	import type { CommandInput } from '../../commands';
	import type { BoardState } from '../board/board-state.svelte';

	let { board, setUp }: { board: BoardState; setUp: SetUpPage } = $props();
	const head = $derived(board.head);
	const KINDS: { value: FieldKind; name: string }[] = [
		{ value: 'text', name: 'text' },
		{ value: 'number', name: 'a number' },
		{ value: 'date', name: 'a day' },
		{ value: 'choice', name: 'one of some choices' },
		{ value: 'yes-no', name: 'yes or no' },
	];
	let name = $state('');
	let kind = $state<FieldKind>('text');
	let choices = $state('');
	let problem = $state('');

	const lines = (text: string) =>
		text
			.split('\n')
			.map((line) => line.trim())
			.filter(Boolean);
	async function change(
		field: string,
		what: Omit<CommandInput<'ChangeField'>, 'board' | 'field'>,
		done: string,
	) {
		const sent = await board.ask('ChangeField', { board: head.id, field, ...what });
		problem = sent.ok ? '' : sent.refusal.title;
		if (sent.ok)
			board.tell({ tone: 'done', text: done, undo: sent.answer.undoable ? sent.answer.id : undefined });
		return sent.ok;
	}
	async function add(event: SubmitEvent) {
		event.preventDefault();
		const sent = await board.ask('AddField', {
			board: head.id,
			name: name.trim(),
			kind,
			...(kind === 'choice' ? { choices: lines(choices) } : {}),
		});
		problem = sent.ok ? '' : sent.refusal.title;
		if (!sent.ok) return;
		board.tell({ tone: 'done', text: `Cards have the field ${name.trim()}.`, undo: sent.answer.id });
		[name, choices] = ['', ''];
	}
	async function rename(field: OwnField, input: HTMLInputElement) {
		const to = input.value.trim();
		if (!to || to === field.name || !(await change(field.id, { name: to }, `${field.name} is called ${to}.`)))
			input.value = field.name;
	}
	async function renameChoice(field: OwnField, choice: string, input: HTMLInputElement) {
		const to = input.value.trim();
		const known = field.choices.find(({ id }) => id === choice)!;
		if (!to || to === known.name) return void (input.value = known.name);
		const list = field.choices.map((one) => (one.id === choice ? { id: one.id, name: to } : one));
		if (!(await change(field.id, { choices: list }, `${known.name} is called ${to}; cards keep it.`)))
			input.value = known.name;
	}
	async function addChoice(field: OwnField, input: HTMLInputElement) {
		const to = input.value.trim();
		if (to && (await change(field.id, { choices: [...field.choices, { name: to }] }, `${to} can be chosen.`)))
			input.value = '';
	}
	const enter = (event: KeyboardEvent) => {
		if (event.key === 'Enter') (event.currentTarget as HTMLElement).blur();
	};
</script>

<p class="warn" role="alert">{problem}</p>
<section aria-labelledby="set-fields">
	<h2 id="set-fields">Fields that cards of this board have beside the usual ones</h2>
	<ul>
		{#each head.fields as field, i (field.id)}
			<li>
				<div class="line">
					<input
						class="name"
						aria-label="Name of the field {field.name}"
						maxlength="40"
						value={field.name}
						onchange={(event) => void rename(field, event.currentTarget)}
						onkeydown={enter}
					/>
					<small>{KINDS.find(({ value }) => value === field.kind)!.name}</small>
					<span class="space"></span>
					{#if i}<button
							type="button"
							class="link"
							aria-label="Up: {field.name}"
							onclick={() => void change(field.id, { place: i - 1 }, 'The order is kept.')}>Up</button
						>{/if}
					<button
						type="button"
						class="link"
						aria-label="Retire {field.name}"
						onclick={() =>
							void change(field.id, { retired: true }, `${field.name} is retired; what cards hold stays.`)}
						>Retire</button
					>
				</div>
				{#if field.kind === 'choice'}<div class="choices">
						{#each field.choices as choice (choice.id)}<input
								aria-label="Choice {choice.name} of {field.name}"
								maxlength="60"
								value={choice.name}
								onchange={(event) => void renameChoice(field, choice.id, event.currentTarget)}
								onkeydown={enter}
							/>{/each}
						<input
							placeholder="another choice"
							aria-label="Another choice of {field.name}"
							maxlength="60"
							onchange={(event) => void addChoice(field, event.currentTarget)}
							onkeydown={enter}
						/>
					</div>{/if}
			</li>
		{:else}<li>None yet.</li>{/each}
	</ul>
	{#if setUp.retiredFields.length}<p class="soft">
			Retired: {#each setUp.retiredFields as field, i (field.id)}{i ? ', ' : ''}{field.name}
				<button
					type="button"
					class="link"
					aria-label="Offer {field.name} again"
					onclick={() => void change(field.id, { retired: false }, `${field.name} is offered again.`)}
					>Offer again</button
				>{/each}
		</p>{/if}
	<form onsubmit={add}>
		<div>
			<Label for="field-name">A new field, called</Label>
			<Input id="field-name" required maxlength={40} autocomplete="off" bind:value={name} />
		</div>
		<div>
			<Label for="field-kind">It holds</Label>
			<Select id="field-kind" placeholder="" items={KINDS} bind:value={kind} />
		</div>
		{#if kind === 'choice'}<div>
				<Label for="field-choices">What can be chosen, a line each</Label>
				<Textarea id="field-choices" rows={4} class="w-full" required bind:value={choices} />
			</div>{/if}
		<button class="go">Add the field</button>
	</form>
</section>

<style>
	.line,
	.choices {
		display: flex;
		flex-wrap: wrap;
		gap: 6px 12px;
		align-items: center;
	}
	.choices {
		padding: 4px 0 0 12px;
	}
	.space {
		flex: 1;
	}
	small {
		color: var(--soft);
	}
	input {
		font: inherit;
		color: var(--ink);
		background: transparent;
		border: 0;
		border-bottom: 1px solid var(--rule);
		border-radius: 0;
		padding: 2px 4px;
		min-height: max(30px, var(--touch, 0px));
		width: 150px;
	}
	.name {
		font-weight: 650;
		border-bottom-color: var(--moss);
		width: 200px;
	}
</style>
