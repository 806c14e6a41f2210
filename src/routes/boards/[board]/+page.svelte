<script lang="ts">
	import { goto } from '$app/navigation';
	import { page } from '$app/state';
	import { getContext, untrack } from 'svelte';
	import type { CardView } from '$core/pages/board';
	import { parseDay } from '$core/calendar/days';
	import Board from '$lib/ui/board/Board.svelte';
	import type { BoardState } from '$lib/ui/board/board-state.svelte';
	import { readFilter, writeFilter } from '$core/board/filter';
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
	let keysShown = $state(false);

	const narrow = (next: typeof filter) =>
		void goto(writeFilter(page.url, next), { replaceState: true, keepFocus: true, noScroll: true });
	const open = (card: Pick<CardView, 'number'>) => cardAddress(page.url, card);
</script>

<Places board={board.head} here="board">
	<FilterLine {filter} people={board.head.people} onfilter={narrow} />
</Places>
<Sentence words={sentence} settle="/boards/{board.head.slug}/settle" {open} {filter} onfilter={narrow} />
<Board
	{board}
	{filter}
	{today}
	carried={data.ribbon.carried}
	keysOn={keys.on}
	{open}
	onkeys={() => (keysShown = true)}
/>

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
