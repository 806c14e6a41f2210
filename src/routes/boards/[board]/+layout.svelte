<script lang="ts">
	import { goto } from '$app/navigation';
	import { page } from '$app/state';
	import { setContext, untrack } from 'svelte';
	import { parseDay } from '$core/calendar/days';
	import { worksOn } from '$core/calendar/workdays';
	import { BoardState } from '$lib/ui/board/board-state.svelte';
	import Bar from '$lib/ui/frame/Bar.svelte';
	import { count } from '$lib/ui/words';
	import Messages from '$lib/ui/frame/Messages.svelte';
	import Ribbon from '$lib/ui/frame/Ribbon.svelte';
	import { keys } from '$lib/ui/frame/keys.svelte';
	import { unfolded } from '$lib/ui/frame/unfolded.svelte';
	import Part from '$lib/ui/frame/Part.svelte';
	import { reread } from '$lib/ui/frame/reread';

	let { data, children } = $props();
	// The ribbon of a long history may come after the page: until then the last one of this board stands.
	let last = $state.raw<{ board: string; ribbon: Awaited<typeof data.ribbon> }>();
	let failed = $state.raw<unknown>();
	$effect(() => {
		const { head, ribbon } = data;
		Promise.resolve(ribbon).then(
			(drawn) => {
				// Unless another one has been asked for since.
				if (data.ribbon === ribbon) last = { board: head.id, ribbon: drawn };
			},
			() => (failed = ribbon),
		);
	});
	const ribbon = $derived.by(() => {
		if (!(data.ribbon instanceof Promise)) return data.ribbon;
		return last?.board === data.head.id ? last.ribbon : null;
	});
	const board = new BoardState(() => void reread('harrow:board'));
	setContext('board', board);
	// Known before anything is drawn, on the server too; then whenever the answer is a new one.
	const looks = $derived({
		today: parseDay(data.today)!,
		me: data.person!.id,
		carried: ribbon?.carried ?? {},
		works: worksOn(data.workdays),
	});
	untrack(() => board.know(data.head, data.now, looks));
	$effect.pre(() => board.know(data.head, data.now, looks));
	const id = $derived(data.head.id);
	$effect(() => {
		void id;
		return untrack(() => board.listen());
	});

	// The ribbon follows what happens on the board, though not every single change of it.
	const RIBBON_MS = 1500;
	$effect(() => {
		if (board.seq <= data.head.seq) return;
		const timer = setTimeout(() => void reread('harrow:ribbon'), RIBBON_MS);
		return () => clearTimeout(timer);
	});

	const others = $derived(board.here.who().filter((id) => id !== data.head.me));
	const card = $derived(page.url.searchParams.get('card'));
	const key = $derived(card && (/^\d+$/.test(card) ? `${data.head.key}-${card}` : card));

	async function close() {
		const url = new URL(page.url);
		url.searchParams.delete('card');
		await goto(url, { noScroll: true, keepFocus: true });
		const number = key?.split('-')[1];
		// Unless the person has gone on to something else meanwhile.
		if (document.activeElement === document.body)
			document.querySelector<HTMLElement>(`a[href*="card=${number}"]`)?.focus();
	}
</script>

<!-- Where what had the focus is gone, Escape closes the open card all the same. -->
<svelte:window
	onkeydown={(event) => {
		if (event.key === 'Escape' && key && document.activeElement === document.body) void close();
	}}
/>

<div class="board-page">
	<Bar person={data.person!} here={data.head} boards={data.head.boards} keysOn={keys.on}>
		{#snippet beside()}
			{#if others.length}{#await import('$lib/ui/board/HereTags.svelte') then { default: HereTags }}<span
						class="others"><HereTags who={others} people={data.head.people} where="this board" /></span
					>{/await}{/if}
		{/snippet}
	</Bar>
	<div class="ribbon" class:unfolded={unfolded.ribbon}>
		<Part name="The ribbon"
			><Ribbon
				segments={ribbon?.segments}
				failed={failed === data.ribbon}
				slug={data.head.slug}
				unit={data.head.unit}
				today={data.today}
				planning={page.data.plan?.sprint ?? null}
				reporting={page.data.report?.sprint.number ?? null}
				onmoment={(at) => void goto(`/boards/${data.head.slug}?at=${at}`)}
			/></Part
		>
	</div>
	<div class="beside">
		<main class:open={key}><Part name="This place">{@render children()}</Part></main>
		{#if key}
			{#await import('$lib/ui/card/CardPanel.svelte') then { default: CardPanel }}
				<Part name="The card"><CardPanel {board} cardKey={key} today={data.today} onclose={close} /></Part>
			{/await}
		{/if}
	</div>
	<Messages {board} />
</div>
{#if board.following}
	{@const { cards, page: follows, answer } = board.following}
	{#await import('$lib/ui/dialogs/DatesDialog.svelte') then { default: DatesDialog }}
		<DatesDialog
			called={cards.length > 1 ? count(cards.length, 'card') : `Card ${cards[0]!.number}`}
			given={cards.length}
			{follows}
			today={data.today}
			onanswer={answer}
		/>
	{/await}
{/if}
{#if board.through}
	{@const { sentence, over, answer } = board.through}
	{#await import('$lib/ui/dialogs/ReasonDialog.svelte') then { default: ReasonDialog }}
		<ReasonDialog
			title={over ? 'Let it through?' : 'Why so much?'}
			{sentence}
			label={over ? 'Why this goes over the limit' : 'Why it is so much more or less'}
			go={over ? 'Let it through' : 'Keep it'}
			onclose={() => answer(null)}
			onreason={answer}
		/>
	{/await}
{/if}

<style>
	/* A board fills the window; its columns scroll, the page does not. */
	:global(.whole:has(> .board-page)) {
		height: 100dvh;
		min-height: 420px;
	}
	.board-page {
		display: flex;
		flex-direction: column;
		flex: 1;
		min-height: 0;
	}
	.beside {
		display: flex;
		flex: 1;
		min-height: 0;
	}
	main {
		flex: 1;
		min-width: 0;
		min-height: 0;
		display: flex;
		flex-direction: column;
	}
	@media (max-width: 700px) {
		.others {
			display: none;
		}
		.ribbon:not(.unfolded) {
			display: none;
		}
	}
	@media (max-width: 900px) {
		main.open {
			display: none;
		}
	}
</style>
