<script lang="ts">
	import { historySentences } from '$core/board/history-sentences';
	import type { Unit } from '$core/pages/board';
	import type { CardPage } from '$core/pages/card';
	import { momentWords } from '../words';

	interface Props {
		events: CardPage['history'];
		unit: Unit;
		timeZone: string;
	}
	/** All that has happened to a card, in sentences, the latest first. */
	let { events, unit, timeZone }: Props = $props();
	const sentences = $derived(historySentences(events, unit).toReversed());
</script>

<h3>History</h3>
<ol>
	{#each sentences as { seq, at, text, undone } (seq)}
		<li class:undone>
			<time datetime={at}>{momentWords(at, timeZone)}</time>
			{text}{undone ? ' (taken back)' : ''}
		</li>
	{/each}
</ol>

<style>
	li {
		padding: 4px 0;
		border-top: 1px dotted var(--rule);
		font-size: 0.95rem;
		overflow-wrap: anywhere;
	}
	time {
		display: block;
		font-size: 12px;
		color: var(--faint);
	}
	.undone {
		color: var(--faint);
		text-decoration: line-through;
	}
</style>
