<script lang="ts">
	import { goto } from '$app/navigation';
	import { Input, Label, Select, Textarea } from 'flowbite-svelte';
	import type { CommandInput } from '$lib/commands';
	import { draftOf, keepDraft } from '$lib/ui/drafts';
	import Bar from '$lib/ui/frame/Bar.svelte';
	import { keys } from '$lib/ui/frame/keys.svelte';
	import DateField from '$lib/ui/form/DateField.svelte';
	import Markdown from '$lib/ui/form/Markdown.svelte';
	import { send } from '$lib/ui/send';

	let { data } = $props();
	const form = $derived(data.form);
	const stored = $derived(`ask-${form.board.slug}`);
	interface Asked {
		title: string;
		description: string;
		due: string;
		type: string;
		labels: string[];
		initiative: string;
		own: Record<string, string>;
	}
	const EMPTY: Asked = { title: '', description: '', due: '', type: '', labels: [], initiative: '', own: {} };
	let asked = $state<Asked>(structuredClone(EMPTY));
	// What was begun stays in this browser until it is sent.
	$effect(() => {
		const kept = draftOf(stored);
		if (kept) asked = { ...EMPTY, ...(JSON.parse(kept) as Asked) };
	});
	const keep = () => keepDraft(stored, JSON.stringify(asked));
	const asks = (field: (typeof form.fields)[number]) => form.fields.includes(field);
	let problem = $state<{ field?: string; text: string } | null>(null);
	let sending = $state(false);
	const named = (names: string[]) => [
		{ value: '', name: 'none' },
		...names.map((name) => ({ value: name, name })),
	];

	function inputOf(): CommandInput<'AskForCard'> {
		const fields: Record<string, string | number | boolean> = {};
		for (const { id, kind } of form.own) {
			const text = (asked.own[id] ?? '').trim();
			if (text)
				fields[id] =
					kind === 'number' ? Number(text.replace(',', '.')) : kind === 'yes-no' ? text === 'yes' : text;
		}
		return {
			board: form.board.id,
			title: asked.title.trim(),
			...(asks('description') && asked.description.trim() ? { description: asked.description } : {}),
			...(asks('due') && asked.due ? { due: asked.due } : {}),
			...(asks('type') && asked.type ? { type: asked.type } : {}),
			...(asks('labels') && asked.labels.length ? { labels: asked.labels } : {}),
			...(asks('initiative') && asked.initiative ? { initiative: asked.initiative } : {}),
			...(Object.keys(fields).length ? { fields } : {}),
		};
	}
	async function ask(event: SubmitEvent): Promise<void> {
		event.preventDefault();
		if (sending) return;
		sending = true;
		const sent = await send('AskForCard', inputOf());
		sending = false;
		problem = sent.ok ? null : { field: sent.refusal.field, text: sent.refusal.title };
		if (!sent.ok) return;
		keepDraft(stored, null);
		await goto(`/asked/${sent.answer.result.key}`);
	}
</script>

<Bar person={data.person!} keysOn={keys.on} />
<main>
	<h1>Ask {form.board.name}</h1>
	<p class="soft">{form.board.team}. You are told how it goes, and can add to what is said of it.</p>
	{#if form.words}<Markdown text={form.words} />{/if}
	<form onsubmit={ask} oninput={keep} onchange={keep}>
		<div>
			<Label for="ask-title">What do you ask for?</Label>
			<Input id="ask-title" required maxlength={300} autocomplete="off" bind:value={asked.title} />
		</div>
		{#if asks('description')}<div>
				<Label for="ask-description">What should the team know?</Label>
				<Textarea
					id="ask-description"
					class="w-full"
					rows={5}
					maxlength={20000}
					bind:value={asked.description}
				/>
			</div>{/if}
		{#if asks('due')}<div>
				<Label for="ask-due">By when, if it matters</Label>
				<DateField
					id="ask-due"
					label="By when"
					bind:value={asked.due}
					today={data.today}
					none
					onchange={keep}
				/>
			</div>{/if}
		{#if asks('type') && form.types.length}<div>
				<Label for="ask-type">Kind</Label>
				<Select id="ask-type" placeholder="" items={named(form.types)} bind:value={asked.type} />
			</div>{/if}
		{#if asks('initiative') && form.initiatives.length}<div>
				<Label for="ask-initiative">It belongs to</Label>
				<Select
					id="ask-initiative"
					placeholder=""
					items={named(form.initiatives)}
					bind:value={asked.initiative}
				/>
			</div>{/if}
		{#if asks('labels') && form.labels.length}<fieldset>
				<legend>Labels</legend>
				{#each form.labels as label (label)}<label
						><input type="checkbox" value={label} bind:group={asked.labels} />{label}</label
					>{/each}
			</fieldset>{/if}
		{#each form.own as field (field.id)}<div>
				<Label for="ask-{field.id}">{field.name}</Label>
				{#if field.kind === 'choice'}<Select
						id="ask-{field.id}"
						placeholder=""
						items={[
							{ value: '', name: 'none' },
							...field.choices.map(({ id, name }) => ({ value: id, name })),
						]}
						bind:value={asked.own[field.id]}
					/>
				{:else if field.kind === 'yes-no'}<Select
						id="ask-{field.id}"
						placeholder=""
						items={named(['yes', 'no'])}
						bind:value={asked.own[field.id]}
					/>
				{:else if field.kind === 'date'}<DateField
						id="ask-{field.id}"
						label={field.name}
						value={asked.own[field.id] ?? ''}
						today={data.today}
						none
						onchange={(day) => {
							asked.own[field.id] = day;
							keep();
						}}
					/>
				{:else}<Input
						id="ask-{field.id}"
						inputmode={field.kind === 'number' ? 'decimal' : undefined}
						autocomplete="off"
						bind:value={asked.own[field.id]}
					/>{/if}
			</div>{/each}
		<p class="warn" role="alert">{problem?.text ?? ''}</p>
		<button class="go" disabled={sending || !asked.title.trim()}>Ask for it</button>
	</form>
	<p><a class="link" href="/asked">What you asked for</a></p>
</main>

<style>
	main {
		width: min(620px, 100%);
		margin: 0 auto;
		padding: 20px 20px 60px;
	}
	h1 {
		font-size: 1.7rem;
	}
	.soft {
		margin: 4px 0 14px;
	}
	form {
		display: grid;
		gap: 14px;
		margin: 16px 0;
	}
	fieldset {
		display: flex;
		flex-wrap: wrap;
		gap: 4px 18px;
	}
	legend {
		font-weight: 600;
		padding: 0;
	}
	fieldset label {
		display: flex;
		gap: 8px;
		align-items: center;
		min-height: max(30px, var(--touch, 0px));
	}
	.go {
		justify-self: start;
	}
	.warn {
		margin: 0;
	}
</style>
