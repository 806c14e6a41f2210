<script lang="ts">
	import { goto } from '$app/navigation';
	import { page } from '$app/state';
	import { getContext, untrack } from 'svelte';
	import type { CardView } from '$core/pages/board';
	import { parseDay } from '$core/calendar/days';
	import Board from '$lib/ui/board/Board.svelte';
	import type { BoardState } from '$lib/ui/board/board-state.svelte';
	import { isNarrow, passing, readFilter, writeFilter } from '$core/board/filter';
	import { count } from '$lib/ui/words';
	import { arrangedWords } from '$core/board/fields';
	import { readArrangement } from '$core/board/arrange';
	import { Described } from '$lib/ui/board/described.svelte';
	import Lenses from '$lib/ui/board/Lenses.svelte';
	import Layout from '$lib/ui/board/Layout.svelte';
	import FilterLine from '$lib/ui/board/FilterLine.svelte';
	import { boardSentence } from '$lib/ui/board/sentence';
	import Sentence from '$lib/ui/board/Sentence.svelte';
	import { cardAddress } from '$lib/ui/frame/card-address';
	import { keys } from '$lib/ui/frame/keys.svelte';
	import Places from '$lib/ui/frame/Places.svelte';

	let { data } = $props();
	const board = getContext<BoardState>('board');
	untrack(() => board.load(data.board));
	$effect.pre(() => {
		const { board: cards } = data;
		untrack(() => board.load(cards));
	});

	const today = $derived(parseDay(data.today)!);
	const filter = $derived(readFilter(page.url.searchParams));
	const arrangement = $derived(readArrangement(page.url.searchParams, board.fields));
	const READINGS = ['cards', 'list', 'month', 'tally'] as const;
	const reading = $derived(READINGS.find((one) => one === page.url.searchParams.get('as')) ?? 'cards');
	const described = new Described(
		() => board.head.slug,
		() => filter.text,
	);
	const sprint = $derived(board.head.sprints.find((known) => known.startedAt && !known.closedAt));
	const sentence = $derived(
		boardSentence({
			columns: board.head.columns,
			lanes: board.head.lanes,
			standing: new Map([...board.columns].map(([id, cards]) => [id, cards.length])),
			cards: [...board.columns.values()].flat(),
			expectation: board.expectation,
			sprint,
			unit: board.head.unit,
			today,
			timeZone: board.head.timeZone,
			backlog: data.board.backlog,
			at: `/boards/${board.head.slug}`,
			invite: board.head.role === 'lead' ? `/teams/${board.head.teamId}?from=${board.head.slug}` : null,
			unstarted: board.head.sprintDays !== null && !board.head.sprints.some((known) => known.startedAt),
			mayEdit: board.head.role !== 'viewer',
		}),
	);
	const passes = $derived(passing(filter, board.fields, sprint?.number, described.cards));
	/** All cards of the board's columns in their order, and of them those that are shown. */
	const standing = $derived([...board.columns.values()].flat());
	const cards = $derived(standing.filter(passes));
	const said = $derived([
		...(arrangement.by && reading === 'cards'
			? [{ text: `${arrangedWords(arrangement.by, arrangement.lanes)}. ` }]
			: []),
		...sentence,
		...(isNarrow(filter) && cards.length < standing.length
			? [{ text: ` ${count(standing.length - cards.length, 'card')} not shown.`, tone: 'care' as const }]
			: []),
	]);
	let keysShown = $state(false);

	/** Changes how the address says that cards are laid out. */
	function layOut(change: Record<string, string | null>): void {
		const url = new URL(page.url);
		for (const [name, value] of Object.entries(change))
			if (value === null) url.searchParams.delete(name);
			else url.searchParams.set(name, value);
		void goto(url, { replaceState: true, keepFocus: true, noScroll: true });
	}
	/** Looks through a lens; without one, at the board as it is. An open card stays open. */
	function look(query: string): Promise<void> {
		const next = new URLSearchParams(query);
		const card = page.url.searchParams.get('card');
		if (card) next.set('card', card);
		return goto(`?${next}`, { keepFocus: true, noScroll: true });
	}
	const narrow = (next: typeof filter) =>
		void goto(writeFilter(page.url, next), { replaceState: true, keepFocus: true, noScroll: true });
	const open = (card: Pick<CardView, 'number'>) => cardAddress(page.url, card);
</script>

<Places board={board.head} here="board">
	<div class="showing">
		<FilterLine {board} {filter} onfilter={narrow} />
		<Layout {board} {arrangement} {reading} onlayout={layOut} />
		<Lenses {board} params={page.url.searchParams} onlens={(query) => void look(query)} />
	</div>
</Places>
<Sentence words={said} settle="/boards/{board.head.slug}/settle" {open} {filter} onfilter={narrow} />
{#if reading === 'cards'}
	<Board
		{board}
		{filter}
		{arrangement}
		described={described.cards}
		{today}
		carried={data.ribbon.carried}
		keysOn={keys.on}
		{open}
		onkeys={() => (keysShown = true)}
	/>
{:else if reading === 'list'}
	{#await import('$lib/ui/readings/List.svelte') then { default: List }}
		<List {board} {cards} {arrangement} today={data.today} {open} onlayout={layOut} />
	{/await}
{:else if reading === 'month'}
	{#await import('$lib/ui/readings/Month.svelte') then { default: Month }}
		<Month {board} {cards} days={data.days} today={data.today} {open} onlayout={layOut} />
	{/await}
{:else}
	{#await import('$lib/ui/readings/Tally.svelte') then { default: Tally }}
		<Tally {board} {cards} {open} onlayout={layOut} />
	{/await}
{/if}

{#if keysShown}
	{#await import('$lib/ui/dialogs/KeysDialog.svelte') then { default: KeysDialog }}
		<KeysDialog
			title="Keys on the board"
			place="board"
			bind:on={keys.on}
			onclose={() => (keysShown = false)}
		/>
	{/await}
{/if}

<style>
	.showing {
		display: flex;
		flex-wrap: wrap;
		justify-content: flex-end;
		gap: 2px 6px;
	}
	@media (max-width: 700px) {
		.showing {
			justify-content: flex-start;
		}
	}
</style>
