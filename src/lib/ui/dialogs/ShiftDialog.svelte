<script lang="ts">
	import { Input, Label } from 'flowbite-svelte';
	import type { ShiftOf, ShiftPage } from '$core/pages/dates';
	import type { BoardState } from '../board/board-state.svelte';
	import DateField from '../form/DateField.svelte';
	import { ask } from '../send';
	import { count } from '../words';
	import Dialog from './Dialog.svelte';
	import Following from './Following.svelte';

	interface Props {
		board: BoardState;
		of: ShiftOf;
		/** The number of the sprint, or the name of the initiative. */
		which?: string;
		/** What is shifted, in words. */
		called: string;
		today: string;
		onclose: () => void;
	}
	/** Shifts the dates of many cards from a day on by so many working days: shown first, and done in one step. */
	let { board, of, which = '', called, today, onclose }: Props = $props();
	// svelte-ignore state_referenced_locally
	let from = $state(today);
	let days = $state('5');
	let page = $state.raw<ShiftPage | null>(null);
	let problem = $state('');
	let sending = $state(false);

	let asked = 0;
	async function look(): Promise<void> {
		const mine = ++asked;
		const query = new URLSearchParams({ of, which, from, days: String(Number(days)) });
		const found = await ask<ShiftPage>(`/api/boards/${board.head.slug}/shift?${query}`);
		if (mine !== asked) return;
		page = found.ok ? found.answer : null;
		problem = found.ok ? '' : found.refusal.title;
	}
	$effect(() => {
		void [from, days];
		void look();
	});
	const all = $derived(page ? page.shifted.length + page.moved.length : 0);
	async function shift(): Promise<void> {
		if (!page || !all) return;
		sending = true;
		const dated = ({ card, version, to }: ShiftPage['moved'][number]) => ({ card, version, ...to });
		const sent = await board.ask('MoveDates', {
			team: board.head.teamId,
			cards: page.shifted.map(dated),
			followers: page.moved.map(dated),
		});
		sending = false;
		if (sent.ok) {
			board.tell({ tone: 'done', text: `${count(all, 'card')} moved.`, undo: sent.answer.id });
			return onclose();
		}
		await look();
		problem = sent.refusal.title;
	}
</script>

<Dialog title="Shift the dates of {called}" wide {onclose}>
	<form
		onsubmit={(event) => {
			event.preventDefault();
			void shift();
		}}
	>
		<div class="two">
			<div>
				<Label for="shift-from">All that begins from</Label>
				<DateField id="shift-from" label="All that begins from" bind:value={from} {today} />
			</div>
			<div>
				<Label for="shift-days">By so many working days</Label>
				<Input id="shift-days" inputmode="numeric" autocomplete="off" bind:value={days} />
			</div>
		</div>
		<p class="soft">Back with a minus before it. What has begun or is done stays.</p>
		<p class="warn" role="alert">{problem}</p>
		{#if page}
			{#if all}<Following shifted={page.shifted} follows={page} {today} />
			{:else}<p>No card that waits begins from then on.</p>{/if}
			{#if page.stay}<p class="soft">
					{count(page.stay, 'card')} from then on {page.stay === 1 ? 'stays' : 'stay'}.
				</p>{/if}
		{/if}
		<div class="dialog-foot">
			<button type="button" class="plain" onclick={onclose}>Leave it</button>
			<button class="go" disabled={!all || sending}>{all ? `Move ${count(all, 'card')}` : 'Move them'}</button
			>
		</div>
	</form>
</Dialog>

<style>
	.two {
		display: grid;
		grid-template-columns: 1fr 1fr;
		gap: 12px;
	}
	p {
		margin: 6px 0;
	}
	.warn:empty {
		display: none;
	}
</style>
