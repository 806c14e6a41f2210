<script lang="ts">
	import { getContext } from 'svelte';
	import { page } from '$app/state';
	import { NO_FILTER, withCondition, writeFilter } from '$core/board/filter';
	import type { BoardState } from '$lib/ui/board/board-state.svelte';
	import Places from '$lib/ui/frame/Places.svelte';
	import { initiativeWords } from '$lib/ui/initiative-words';
	import OwnPage from '$lib/ui/page/OwnPage.svelte';
	import { amount, count } from '$lib/ui/words';

	let { data } = $props();
	const board = getContext<BoardState>('board');
	const head = $derived(board.head);
	const one = $derived(data.initiative);
	let shifting = $state(false);
	/** Where its cards stand: on the board, and in the backlog. */
	const cards = $derived.by(() => {
		const filter = withCondition(NO_FILTER, 'initiative', [one.name]);
		const url = writeFilter(new URL(`/boards/${head.slug}`, page.url), filter);
		return url.pathname + url.search;
	});
	/** What is set of it, as a sentence: `To be done by Fri 18 Dec, led by Petra Lind.` */
	const set = $derived.by(() => {
		const words = initiativeWords({ ...one, hours: null }, head.people, data.today);
		return words && `${words[0]!.toUpperCase()}${words.slice(1)}.`;
	});
</script>

<Places board={head} here="about">
	<a class="link" href="/boards/{head.slug}/about">About {head.name}</a>
</Places>
<div class="page">
	<h2>{one.name}</h2>
	{#if one.retired}<p class="care">It is offered no more to new cards.</p>{/if}
	<p>
		{one.cards.all
			? `${one.cards.done} of ${count(one.cards.all, 'card')} ${one.cards.all === 1 ? 'is' : 'are'} done`
			: 'No card belongs to it yet'}{head.unit !== 'none' && one.cards.all
			? `, ${amount(one.left, head.unit)} left`
			: ''}{one.worked || one.hours !== null
			? `; ${amount(one.worked, 'hours')} worked${one.hours === null ? '' : ` of ${amount(one.hours, 'hours')}`}`
			: ''}.
		{set}
	</p>
	<p>
		<a class="link" href={cards}>Its cards on the board</a>
		<a class="link" href="/boards/{head.slug}/backlog?group=initiative">Its cards in the backlog</a>
		{#if head.role !== 'viewer' && !head.away && !head.off.includes('dates')}<button
				type="button"
				class="link"
				onclick={() => (shifting = true)}>Shift its dates</button
			>{/if}
	</p>
	<OwnPage {board} page={one.page} />
</div>
{#if shifting}
	{#await import('$lib/ui/dialogs/ShiftDialog.svelte') then { default: ShiftDialog }}
		<ShiftDialog
			{board}
			of="initiative"
			which={one.name}
			called={one.name}
			today={data.today}
			onclose={() => (shifting = false)}
		/>
	{/await}
{/if}

<style>
	.page {
		flex: 1;
		min-height: 0;
		overflow-y: auto;
		padding: 8px 20px 40px;
	}
	.page > :global(*) {
		max-width: 720px;
	}
	h2 {
		font-size: 1.4rem;
		margin: 6px 0;
	}
	p {
		margin: 0 0 8px;
	}
	.link {
		margin-right: 16px;
	}
	@media (max-width: 700px) {
		.page {
			padding: 8px 14px 30px;
		}
	}
</style>
