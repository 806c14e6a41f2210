<script lang="ts">
	import type { DatesPage, DateTexts, FollowedCard } from '$core/pages/dates';
	import { dateWords, list } from '../words';

	interface Props {
		/** Cards that are given other dates themselves, where there are many. */
		shifted?: readonly FollowedCard[];
		/** How many cards are given other dates themselves. */
		given?: number;
		follows: DatesPage;
		today: string;
	}
	/** What would follow from other dates: what moves along, what stays, and which sprints are passed. */
	let { shifted = [], given = shifted.length, follows, today }: Props = $props();
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
</script>

{#snippet rows(cards: readonly FollowedCard[])}
	<ul>
		{#each cards as { card, key, title, from, to, after } (card)}
			<li>
				<span><b>{key}</b> {title}</span>
				<span class="days"><s>{span(from)}</s> {span(to)}</span>
				{#if after}<small>after {after}</small>{/if}
			</li>
		{/each}
	</ul>
{/snippet}

{#if shifted.length}{@render rows(shifted)}{/if}
{#if moved.length}
	<p>What hangs on {given > 1 ? 'them' : 'it'} moves along, as long as before:</p>
	{@render rows(moved)}
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

{#each follows.milestones as { name, day, missed }, i (i)}
	<p class={missed.length ? 'warn' : ''}>
		{missed.length
			? `${list(missed)} would end after ${name} on ${dateWords(day, today)}.`
			: `${name} on ${dateWords(day, today)} is still met.`}
	</p>
{/each}

<style>
	p {
		margin: 0 0 4px;
	}
	ul {
		margin: 0 0 12px;
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
