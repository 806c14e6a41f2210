<script lang="ts">
	import { goto } from '$app/navigation';
	import { page } from '$app/state';
	import { getContext } from 'svelte';
	import type { BehindFlow, FlowCard } from '$core/pages/flow';
	import type { BoardState } from '$lib/ui/board/board-state.svelte';
	import { Behind } from '$lib/ui/behind/behind.svelte';
	import CardsBehind from '$lib/ui/behind/CardsBehind.svelte';
	import { countScale } from '$lib/ui/chart/axes';
	import Ageing from '$lib/ui/flow/Ageing.svelte';
	import CumulativeFlow from '$lib/ui/flow/CumulativeFlow.svelte';
	import CycleDots from '$lib/ui/flow/CycleDots.svelte';
	import FinishedWeeks from '$lib/ui/flow/FinishedWeeks.svelte';
	import RangeBar from '$lib/ui/flow/RangeBar.svelte';
	import { flowSentence, littlesWords } from '$lib/ui/flow/sentences';
	import WhereDaysGo from '$lib/ui/flow/WhereDaysGo.svelte';
	import { cardAddress } from '$lib/ui/frame/card-address';
	import DateField from '$lib/ui/form/DateField.svelte';
	import Places from '$lib/ui/frame/Places.svelte';
	import { reread } from '$lib/ui/frame/reread';
	import { count } from '$lib/ui/words';

	let { data } = $props();
	const board = getContext<BoardState>('board');
	const flow = $derived(data.flow);
	const says = $derived(flowSentence(flow));

	let width = $state(860);
	let side = $state(340);
	const DOTS = 210;
	// One scale of days for the dots on the left and the ages on the right.
	const y = $derived(
		countScale(
			Math.max(4, ...flow.dots.map((dot) => dot.took), ...flow.report.ageing.map((age) => age.ageDays)),
			DOTS,
		),
	);
	const opened = new Behind<FlowCard>((text) => board.tell({ tone: 'warn', text }));
	const picked = $derived(opened.figure);
	function pick(title: string, of: BehindFlow, which = ''): Promise<void> {
		const { from, to, days } = flow;
		const query = new URLSearchParams({ of, which, from, to, days });
		return opened.open(title, `/boards/${board.head.slug}/flow/cards?${query}`);
	}

	// Others' changes on the board move the figures: they are read again, though not for every single one.
	const known = $derived(board.cards);
	let first = true;
	$effect(() => {
		void known;
		if (first) return void (first = false);
		const timer = setTimeout(() => void reread('harrow:flow'), 800);
		return () => clearTimeout(timer);
	});

	function range(change: Record<string, string>) {
		const url = new URL(page.url);
		for (const [name, value] of Object.entries(change)) if (value) url.searchParams.set(name, value);
		void goto(url, { replaceState: true, keepFocus: true, noScroll: true });
	}
	const STAY = { keepFocus: true, noScroll: true };
	const open = (key: string) => cardAddress(page.url, { number: key.slice(key.lastIndexOf('-') + 1) });
	const csv = (figures: string) =>
		`/boards/${board.head.slug}/flow/figures?of=${figures}&from=${flow.from}&to=${flow.to}&days=${flow.days}`;
</script>

<Places board={board.head} here="flow">
	<form class="range" onsubmit={(event) => event.preventDefault()} aria-label="Range of every chart">
		<span
			>from <DateField
				id="flow-from"
				label="From"
				value={flow.from}
				max={flow.to}
				today={flow.today}
				onchange={(from) => range({ from })}
			/></span
		>
		<span
			>to <DateField
				id="flow-to"
				label="To"
				value={flow.to}
				min={flow.from}
				max={flow.today}
				today={flow.today}
				onchange={(to) => range({ to })}
			/></span
		>
		<span
			>in <select
				class="choice"
				aria-label="Days that count"
				value={flow.days}
				onchange={(event) => range({ days: event.currentTarget.value })}
				><option value="calendar">calendar days</option><option value="working">working days</option></select
			></span
		>
	</form>
</Places>
{#if data.clock}<p class="would" role="status">
		As flow would be if a card’s clock started in {data.clock}. Nothing of it is kept.
		<a class="link" href="/boards/{board.head.slug}/set-up?part=columns">Back to the columns</a>
	</p>{/if}
<div class="page">
	<h1>
		{#if says.finished}<b>{says.range}: {says.finished},</b>
			{says.steady}.{:else}<b>{says.range}: no card was finished.</b>{/if}
		{says.balance}.
		{#if says.waiting !== null && says.waiting >= 0.005}A card spends <span class="care"
				>{Math.round(says.waiting * 100)}% of its time waiting or blocked</span
			>{says.most ? `, most of it in ${says.most}` : ''}.{/if}
	</h1>
	<div class="charts">
		<div class="left" bind:clientWidth={width}>
			<div class="bar">
				<RangeBar {flow} today={flow.today} onrange={(from, to) => range({ from, to })} />
			</div>
			{#if flow.dots.length || flow.report.ageing.length}
				<CycleDots {flow} {width} height={DOTS} {y} onpick={pick} />
				<CumulativeFlow {flow} {width} onpick={pick} />
				<FinishedWeeks {flow} {width} onpick={pick} />
			{:else}
				<p>
					Nothing was in hand or finished in this range. Move a card into a work column and its figures begin
					here.
				</p>
			{/if}
		</div>
		<div class="right" bind:clientWidth={side}>
			{#if picked}<div class="behind">
					<CardsBehind
						title={picked.title}
						cards={picked.cards.map(({ card, took }) => ({
							card,
							amount: null,
							note: took === null ? '' : count(took, 'day'),
						}))}
						titles={Object.fromEntries(picked.cards.map(({ card, title }) => [card, title]))}
						{open}
						onclose={opened.close}
					/>
				</div>{/if}
			<Ageing
				{flow}
				titles={flow.titles}
				width={side}
				height={DOTS}
				{y}
				onpick={(card) => goto(open(card), STAY)}
			/>
			<WhereDaysGo {flow} onpick={pick} />
			<p class="balance">
				{#if flow.expectation}<b>{flow.expectation.percentile}% in {flow.expectation.days} days</b> is what
					can be told to others, from {flow.expectation.n} cards of the last 90 days.{:else}Fewer than ten
					cards were finished in 90 days: too few to promise anything by.{/if}
				{littlesWords(flow)}
			</p>
			<p>
				Figures as CSV: <a class="link" download href={csv('cards')}>cards</a> ·
				<a class="link" download href={csv('days')}>days</a>
				· <a class="link" download href={csv('weeks')}>weeks</a>
			</p>
		</div>
	</div>
</div>

<style>
	.would {
		margin: 0;
		padding: 6px 20px;
		background: var(--river-2);
		flex: none;
	}
	h1 {
		font: 1rem/1.4 var(--text);
		letter-spacing: 0;
		padding: 9px 0 8px;
	}
	.charts {
		display: grid;
		grid-template-columns: minmax(0, 1fr) 340px;
		gap: 30px;
	}
	.left,
	.right {
		min-width: 0;
	}
	.bar {
		margin: 0 112px 10px 38px;
	}
	.range {
		display: flex;
		flex-wrap: wrap;
		gap: 2px 12px;
		color: var(--soft);
		font-size: 0.93rem;
	}
	.behind {
		margin-bottom: 14px;
	}
	.balance {
		margin: 14px 0 6px;
	}
	@media (max-width: 900px) {
		.charts {
			grid-template-columns: minmax(0, 1fr);
			gap: 10px;
		}
		.right {
			order: 2;
		}
	}
	@media (max-width: 700px) {
		.page {
			padding: 0 14px 30px;
		}
		.bar {
			margin: 0 0 10px;
		}
	}
</style>
