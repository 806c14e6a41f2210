<script lang="ts">
	import type { Doing } from './doing.svelte';

	/** What came of what was done on a page of a team, in a line below it. */
	let { doing }: { doing: Doing } = $props();
	const SHOWN_MS = 9000;
	$effect(() => {
		const { message } = doing;
		if (!message || message.tone === 'warn') return;
		const timer = setTimeout(() => doing.message === message && (doing.message = null), SHOWN_MS);
		return () => clearTimeout(timer);
	});
</script>

<div class="sr-only" role="status" aria-live="polite">{doing.spoken}</div>
{#if doing.message}
	{@const { text, tone, undo } = doing.message}
	<div class="said screen-only">
		{#await import('../frame/Message.svelte') then { default: Message }}<Message
				{text}
				{tone}
				onundo={undo ? () => void doing.undo(undo) : undefined}
				onclose={() => (doing.message = null)}
			/>{/await}
	</div>
{/if}

<style>
	.said {
		flex: none;
		display: grid;
		justify-items: center;
		padding: 6px 12px;
	}
</style>
