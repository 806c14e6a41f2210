<script lang="ts">
	import type { DatesPage, DateTexts } from '$core/pages/dates';
	import { count, dateWords, list } from '../words';
	import Dialog from './Dialog.svelte';

	interface Props {
		number: number;
		follows: DatesPage;
		today: string;
		/** Moves all, this one only, or nothing. */
		onanswer: (moves: 'all' | 'one' | null) => void;
	}
	/** What would follow from other dates of a card, before anything is moved. */
	let { number, follows, today, onanswer }: Props = $props();
	const moved = $derived(follows.moved);
	const WHY = {
		begun: 'it has begun',
		over: 'it is done',
		'not-yours': 'it is not yours to move',
		'no-days': 'nobody there works so far on',
		'by-hand': 'as you put it',
	};
	const span = ({ start, due }: DateTexts) =>
		[start, due]
			.flatMap((day, i, both) => (day && day !== both[i - 1] ? dateWords(day, today) : []))
			.join(' to ');
	const title = $derived(
		moved.length ? `Card ${number} moves ${count(moved.length, 'other')}` : `Card ${number} and its dates`,
	);
</script>

<Dialog {title} wide onclose={() => onanswer(null)}>
	{#if moved.length}
		<p>What hangs on it moves along, as long as before:</p>
		<ul class="moved">
			{#each moved as { card, key, title: words, from, to, after } (card)}
				<li>
					<span><b>{key}</b> {words}</span>
					<span class="days"><s>{span(from)}</s> {span(to)}</span>
					<small>after {after}</small>
				</li>
			{/each}
		</ul>
	{/if}
	{#if follows.conflicts.length}
		<p class="care">
			{follows.conflicts.length === 1 ? 'This one stays, and starts' : 'These stay, and start'} before the end of
			what
			{follows.conflicts.length === 1 ? 'it waits' : 'they wait'} for:
		</p>
		<ul>
			{#each follows.conflicts as { key, title: words, after, why }, i (i)}
				<li>
					<span
						>{#if key}<b>{key}</b>
						{/if}{words}</span
					>
					<small>waits for {after}; {WHY[why]}</small>
				</li>
			{/each}
		</ul>
	{/if}
	{#each follows.sprints as { board, name, ends, keys }, i (i)}
		<p class="care">
			{name} of {board} ends on {dateWords(ends, today)}: {list(keys)} would end after it.
		</p>
	{/each}
	<div class="dialog-foot">
		<button type="button" class="plain" onclick={() => onanswer(null)}>Leave it</button>
		<button type="button" class={moved.length ? 'plain' : 'go'} onclick={() => onanswer('one')}
			>{moved.length ? 'Only this one' : 'Move it all the same'}</button
		>
		{#if moved.length}<button type="button" class="go" onclick={() => onanswer('all')}
				>Move all {moved.length + 1}</button
			>{/if}
	</div>
</Dialog>

<style>
	p {
		margin: 0 0 4px;
	}
	ul {
		list-style: none;
		margin: 0 0 12px;
		padding: 0;
		max-height: 40vh;
		overflow-y: auto;
	}
	li {
		display: grid;
		grid-template-columns: 1fr auto;
		gap: 0 14px;
		padding: 5px 0;
		border-bottom: 1px dotted var(--rule);
		content-visibility: auto;
		contain-intrinsic-size: auto 46px;
	}
	.days s {
		color: var(--faint);
		margin-right: 6px;
	}
	small {
		grid-column: 1 / -1;
		color: var(--soft);
	}
	@media (max-width: 700px) {
		li {
			grid-template-columns: 1fr;
		}
	}
</style>
