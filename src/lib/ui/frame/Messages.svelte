<script lang="ts">
	import type { BoardState } from '../board/board-state.svelte';
	import { outbox } from '../outbox.svelte';

	let { board }: { board: BoardState } = $props();
	const SHOWN_MS = 9000;

	$effect(() => {
		const { message } = board;
		if (!message) return;
		const timer = setTimeout(() => board.message === message && (board.message = null), SHOWN_MS);
		return () => clearTimeout(timer);
	});
</script>

<div class="sr-only" role="status" aria-live="polite">{board.spoken}</div>
<div class="messages screen-only">
	{#if board.connection === 'lost' || outbox.waiting}
		<p class="lost">{outbox.says}</p>
	{/if}
	{#each outbox.told as told, i (i)}
		{#await import('./Refused.svelte') then { default: Refused }}<Refused {told} />{/await}
	{/each}
	{#if board.message}
		{@const { text, tone, undo } = board.message}
		{#await import('./Message.svelte') then { default: Message }}<Message
				{text}
				{tone}
				onundo={undo ? () => void board.undo(undo) : undefined}
				onclose={() => (board.message = null)}
			/>{/await}
	{/if}
</div>

<style>
	/* Below everything else, in a line of its own: a message never lies over what is to be pressed next. */
	.messages {
		flex: none;
		display: grid;
		justify-items: center;
		gap: 6px;
		padding: 0 12px;
	}
	.messages > :global(*) {
		margin: 6px 0;
	}
	.lost {
		margin: 0;
		padding: 8px 14px;
		border-radius: 4px;
		background: var(--ink);
		color: var(--paper);
	}
</style>
