<script lang="ts">
	import { Input, Label, Select } from 'flowbite-svelte';
	import { untrack } from 'svelte';
	import type { PanoramaPage } from '$core/pages/panorama';
	import type { CommandInput } from '../../commands';
	import CardPick from '../form/CardPick.svelte';
	import DateField from '../form/DateField.svelte';
	import type { Doing } from '../team/doing.svelte';
	import { count, dateWords } from '../words';
	import Dialog from './Dialog.svelte';

	interface Props {
		page: PanoramaPage;
		doing: Doing;
		/** The milestone that is open; null for a new one. */
		milestone: string | null;
		onclose: () => void;
	}
	/** A day that matters, and what must be done before it. */
	let { page, doing, milestone, onclose }: Props = $props();
	const one = $derived(page.milestones.find(({ id }) => id === milestone) ?? null);
	const lead = $derived(page.role === 'lead');
	let name = $state(untrack(() => one?.name ?? ''));
	let day = $state(untrack(() => one?.day ?? ''));
	let board = $state(untrack(() => one?.board ?? ''));
	let initiative = $state('');
	const input = () => ({ team: page.team.id, name: name.trim(), day, board: board || null });
	const on = $derived(day ? dateWords(day, page.today) : '');

	async function keep(event: SubmitEvent): Promise<void> {
		event.preventDefault();
		if (!name.trim() || !day) return;
		const sent = one
			? await doing.ask('ChangeMilestone', { ...input(), milestone: one.id }, `${name.trim()} is on ${on}.`)
			: await doing.ask('AddMilestone', input(), `${name.trim()} is on ${on}.`);
		if (sent.ok) onclose();
	}
	async function change(
		what: Pick<
			CommandInput<'ChangeMilestone'>,
			'cards' | 'initiatives' | 'withoutCards' | 'withoutInitiatives'
		>,
	): Promise<boolean> {
		const sent = await doing.ask(
			'ChangeMilestone',
			{ team: page.team.id, milestone: one!.id, ...what },
			`What comes before ${one!.name} is kept.`,
		);
		return sent.ok;
	}
	async function drop(): Promise<void> {
		const sent = await doing.ask(
			'DropMilestone',
			{ team: page.team.id, milestone: one!.id },
			`${one!.name} was taken away.`,
		);
		if (sent.ok) onclose();
	}
	const lateBy = (what: string) => one?.late.find((late) => late.what === what)?.days ?? 0;
	const nameOf = (id: string) => page.initiatives.find((known) => known.id === id)?.name ?? 'an initiative';
</script>

{#snippet before(what: string, more: string, off: () => void)}
	<li>
		<span><b>{what}</b> {more}</span>
		{#if lateBy(what)}<span class="warn">{count(lateBy(what), 'day')} after it</span>{/if}
		{#if lead}<button type="button" class="link" aria-label="Take off {what}" onclick={off}>Take off</button
			>{/if}
	</li>
{/snippet}

<Dialog title={one?.name ?? 'A new milestone'} wide {onclose}>
	{#if lead}
		<form onsubmit={keep}>
			<div>
				<Label for="milestone-name">Name</Label>
				<Input id="milestone-name" required maxlength={80} bind:value={name} />
			</div>
			<div>
				<Label for="milestone-day">Day</Label>
				<DateField id="milestone-day" label="Day of the milestone" bind:value={day} today={page.today} />
			</div>
			<div>
				<Label for="milestone-board">Of</Label>
				<Select
					id="milestone-board"
					placeholder=""
					bind:value={board}
					items={[
						{ value: '', name: 'the whole team' },
						...page.boards.map(({ id, name: called }) => ({ value: id, name: called })),
					]}
				/>
			</div>
			<button class="go" disabled={!name.trim() || !day}>{one ? 'Keep it' : 'Add it'}</button>
		</form>
	{:else if one}<p>{dateWords(one.day, page.today)}</p>{/if}
	{#if one}
		<h3>What must be done before it</h3>
		<ul>
			{#each one.cards as { key, title, due, done } (key)}
				{@render before(
					key,
					`${title}, ${done ? 'done' : due ? `by ${dateWords(due, page.today)}` : 'without a date'}`,
					() => void change({ withoutCards: [key] }),
				)}
			{/each}
			{#each one.initiatives as id (id)}
				{@render before(nameOf(id), '', () => void change({ withoutInitiatives: [id] }))}
			{/each}
		</ul>
		{#if !one.cards.length && !one.initiatives.length}<p class="soft">Nothing yet.</p>{/if}
		{#if lead}
			<div class="add">
				<CardPick
					id="milestone-card"
					label="A card that must be done before it"
					placeholder="a card, by words or key"
					but={one.cards.map(({ key }) => key)}
					onpick={({ key }) => change({ cards: [key] })}
				/>
				<select
					class="choice"
					aria-label="An initiative that must be done before it"
					bind:value={initiative}
					onchange={() => {
						if (initiative) void change({ initiatives: [initiative] });
						initiative = '';
					}}
				>
					<option value="">an initiative…</option>
					{#each page.initiatives.filter(({ id }) => !one.initiatives.includes(id)) as { id, name: called } (id)}<option
							value={id}>{called}</option
						>{/each}
				</select>
			</div>
			<div class="dialog-foot">
				<button type="button" class="plain" onclick={() => void drop()}>Take the milestone away</button>
			</div>
		{/if}
	{/if}
</Dialog>

<style>
	form {
		display: grid;
		grid-template-columns: 2fr 1.4fr 1.4fr auto;
		gap: 10px;
		align-items: end;
	}
	h3 {
		font-size: 1rem;
		margin: 16px 0 4px;
		color: var(--ink);
	}
	ul {
		color: var(--ink);
	}
	li {
		display: flex;
		flex-wrap: wrap;
		justify-content: space-between;
		gap: 2px 12px;
		padding: 5px 0;
		border-bottom: 1px dotted var(--rule);
	}
	li .link {
		min-height: max(24px, var(--touch, 0px));
	}
	.add {
		display: flex;
		gap: 14px;
		margin-top: 10px;
		align-items: flex-start;
	}
	.soft {
		margin: 0;
	}
	@media (max-width: 700px) {
		form {
			grid-template-columns: 1fr;
		}
		.add {
			flex-direction: column;
			align-items: stretch;
		}
		.add .choice {
			align-self: flex-start;
		}
	}
</style>
