<script lang="ts">
	import { Label, Select } from 'flowbite-svelte';
	import type { BoardHead } from '$core/pages/board';
	import { list } from '$core/words';
	import type { Sent } from '../send';
	import { count } from '../words';
	import Dialog from './Dialog.svelte';

	interface Props {
		/** How many cards are moved. */
		cards: number;
		/** Other boards that the person may see. */
		boards: BoardHead['boards'];
		/** Moves them to a board; with `leave`, what does not fit there is left behind. */
		onsend: (board: string, leave: boolean) => Promise<Sent>;
		/** Told when they have gone. */
		ondone: () => void;
		onclose: () => void;
	}
	/** To which other board cards go on, and what of them does not fit there. */
	let { cards, boards, onsend, ondone, onclose }: Props = $props();
	// svelte-ignore state_referenced_locally
	let to = $state(boards[0]?.id ?? '');
	let unfit = $state.raw<string[] | null>(null);
	let problem = $state('');
	let busy = $state(false);
	const it = $derived(cards === 1 ? 'it' : 'they');
	const take = (element: HTMLElement) => element.querySelector('select')?.focus();

	async function submit(event: SubmitEvent): Promise<void> {
		event.preventDefault();
		if (busy) return;
		busy = true;
		problem = '';
		const sent = await onsend(to, unfit !== null);
		busy = false;
		if (sent.ok) return ondone();
		if (sent.refusal.code === 'card.unfit') unfit = (sent.refusal.unfit as string[] | undefined) ?? [];
		else problem = sent.refusal.title;
	}
</script>

<Dialog
	title={cards === 1 ? 'Move this card to another board' : `Move ${count(cards, 'card')} to another board`}
	{onclose}
>
	{#if !boards.length}
		<p>There is no other board that you may see.</p>
		<div class="dialog-foot"><button type="button" class="plain" onclick={onclose}>Close</button></div>
	{:else}
		<form onsubmit={(event) => void submit(event)}>
			<div {@attach take}>
				<Label for="send-to">The board</Label>
				<Select
					id="send-to"
					placeholder=""
					items={boards.map(({ id, name, team }) => ({ value: id, name: `${name}, ${team}` }))}
					bind:value={to}
					onchange={() => ([unfit, problem] = [null, ''])}
				/>
			</div>
			<p class="soft">
				There {it} wait{cards === 1 ? 's' : ''} at the end of the backlog, with talk, files, links and history;
				the old key leads there. Here {it} stand{cards === 1 ? 's' : ''} in the archive.
			</p>
			{#if unfit}<p class="care" role="alert">No place there for {list(unfit)}.</p>{/if}
			{#if problem}<p class="warn" role="alert">{problem}</p>{/if}
			<div class="dialog-foot">
				<button type="button" class="plain" onclick={onclose}>Leave {cards === 1 ? 'it' : 'them'} here</button
				>
				<button class="go" disabled={busy}>{unfit ? 'Move without that' : 'Move'}</button>
			</div>
		</form>
	{/if}
</Dialog>

<style>
	.soft {
		margin: 10px 0;
	}
</style>
