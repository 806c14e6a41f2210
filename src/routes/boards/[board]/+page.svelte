<script lang="ts">
	import { goto } from '$app/navigation';
	import { page } from '$app/state';
	import { getContext, untrack } from 'svelte';
	import type { CardView } from '$core/pages/board';
	import { dayText } from '$core/calendar/days';
	import Board from '$lib/ui/board/Board.svelte';
	import { BoardState } from '$lib/ui/board/board-state.svelte';
	import { isNarrow, passing, readFilter, writeFilter } from '$core/board/filter';
	import { count, dayOf, momentWords } from '$lib/ui/words';
	import { arrangedWords } from '$core/board/field';
	import { readArrangement } from '$core/board/arrange';
	import { Described } from '$lib/ui/board/described.svelte';
	import { lensQuery } from '$core/board/lens';
	import Lenses from '$lib/ui/board/Lenses.svelte';
	import Layout from '$lib/ui/board/Layout.svelte';
	import FilterLine from '$lib/ui/board/FilterLine.svelte';
	import { boardSentence } from '$lib/ui/board/sentence';
	import Sentence from '$lib/ui/board/Sentence.svelte';
	import { cardAddress } from '$lib/ui/frame/card-address';
	import { keys } from '$lib/ui/frame/keys.svelte';
	import Places from '$lib/ui/frame/Places.svelte';

	let { data } = $props();
	const live = getContext<BoardState>('board');
	untrack(() => live.load(data.board));
	$effect.pre(() => {
		const { board: cards } = data;
		untrack(() => live.load(cards));
	});
	/** A moment of the past has a board of its own: nothing that happens changes it. */
	const stood = $derived.by(() => {
		if (!data.stood) return null;
		const { head, board: cards, at } = data.stood;
		return untrack(() => {
			const past = new BoardState(() => undefined);
			past.know(head, at, { ...live.looks, today: dayOf(at, head.timeZone), carried: {} });
			past.load(cards);
			return past;
		});
	});
	const board = $derived(stood ?? live);

	const today = $derived(board.looks.today);
	const day = $derived(dayText(today));
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
			past: data.stood !== null,
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
		...(data.stood
			? [
					{
						text: `As it stood on ${momentWords(data.stood.at, board.head.timeZone)}: `,
						tone: 'strong' as const,
					},
				]
			: []),
		...(arrangement.by && reading === 'cards'
			? [{ text: `${arrangedWords(arrangement.by, arrangement.lanes)}. ` }]
			: []),
		...sentence,
		...(isNarrow(filter) && cards.length < standing.length
			? [{ text: ` ${count(standing.length - cards.length, 'card')} not shown.`, tone: 'care' as const }]
			: []),
	]);
	let keysShown = $state(false);
	let facing = $state(false);
	let past = $state(false);
	/** Back to now, or asks for a moment of the past. */
	function lookBack(): void {
		if (data.stood) layOut({ at: null });
		else past = true;
	}

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

<div class="moment" class:past={data.stood}>
	<Places board={live.head} here="board">
		<div class="showing">
			<FilterLine {board} {filter} onfilter={narrow} />
			<Layout
				{board}
				{arrangement}
				{reading}
				onlayout={layOut}
				onface={() => (facing = true)}
				past={data.stood !== null}
				onpast={lookBack}
			/>
			<Lenses
				lenses={board.head.lenses}
				query={lensQuery(page.url.searchParams)}
				mayShare={board.head.role !== 'viewer'}
				lead={board.head.role === 'lead'}
				what="the board"
				whom="all who see the board"
				onkeep={async (lens) => {
					const sent = await board.ask('KeepLens', { board: board.head.id, ...lens });
					if (sent.ok)
						board.tell({ tone: 'done', text: `The lens ${lens.name} is kept.`, undo: sent.answer.id });
					return sent.ok;
				}}
				ondrop={({ id, name }) =>
					void board.ask('DropLens', { board: board.head.id, lens: id }).then((sent) => {
						if (sent.ok)
							board.tell({ tone: 'done', text: `The lens ${name} is let go.`, undo: sent.answer.id });
					})}
				onlens={(query) => void look(query)}
			/>
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
			carried={data.stood ? {} : board.looks.carried}
			keysOn={keys.on}
			{open}
			onkeys={() => (keysShown = true)}
			went={data.stood?.went}
			onpast={lookBack}
		/>
	{:else if reading === 'list'}
		{#await import('$lib/ui/readings/List.svelte') then { default: List }}
			<List {board} {cards} {arrangement} today={day} {open} onlayout={layOut} />
		{/await}
	{:else if reading === 'month'}
		{#await import('$lib/ui/readings/Month.svelte') then { default: Month }}
			<Month {board} {cards} days={data.days} today={day} {open} onlayout={layOut} />
		{/await}
	{:else}
		{#await import('$lib/ui/readings/Tally.svelte') then { default: Tally }}
			<Tally {board} {cards} {open} onlayout={layOut} />
		{/await}
	{/if}
</div>

{#if past}
	{#await import('$lib/ui/dialogs/PastDialog.svelte') then { default: PastDialog }}
		<PastDialog
			today={data.today}
			at={page.url.searchParams.get('at')}
			onmoment={(at) => {
				past = false;
				layOut({ at });
			}}
			onclose={() => (past = false)}
		/>
	{/await}
{/if}
{#if facing}
	{#await import('$lib/ui/dialogs/FaceDialog.svelte') then { default: FaceDialog }}
		<FaceDialog {board} onclose={() => (facing = false)} />
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
	.moment {
		display: contents;
	}
	/* The paper of the past is a shade cooler. */
	.past {
		display: flex;
		flex-direction: column;
		flex: 1;
		min-height: 0;
		background: light-dark(#ecf1f2, #1d2428);
		--paper: light-dark(#ecf1f2, #1d2428);
	}
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
