<script lang="ts">
	import { page } from '$app/state';
	import { getContext } from 'svelte';
	import { dayText, parseDay } from '$core/calendar/days';
	import { tooLittle } from '$core/capacity/odds';
	import { deliveredOf } from '$core/sprint/delivered';
	import type { BoardState } from '$lib/ui/board/board-state.svelte';
	import { cardAddress } from '$lib/ui/frame/card-address';
	import Places from '$lib/ui/frame/Places.svelte';
	import { reread } from '$lib/ui/frame/reread';
	import Budgets from '$lib/ui/look-back/Budgets.svelte';
	import Burndown from '$lib/ui/look-back/Burndown.svelte';
	import BurnUp from '$lib/ui/look-back/BurnUp.svelte';
	import HoursUsed from '$lib/ui/look-back/HoursUsed.svelte';
	import LedgerPart from '$lib/ui/look-back/LedgerPart.svelte';
	import { ReportFigures } from '$lib/ui/look-back/report-figures.svelte';
	import ReportCards from '$lib/ui/look-back/ReportCards.svelte';
	import { burndownWords, burnUpWords, movedWords, deliveredWords } from '$lib/ui/look-back/sentences';
	import Action from '$lib/ui/retrospective/Action.svelte';
	import { OddsFinder } from '$lib/ui/plan/odds-finder.svelte';
	import { oddsWords } from '$lib/ui/plan/words';
	import CardsBehind from '$lib/ui/behind/CardsBehind.svelte';
	import WithBehind from '$lib/ui/behind/WithBehind.svelte';
	import { initiativeAddress } from '$lib/ui/initiative-words';
	import { amount, count, dateWords } from '$lib/ui/words';

	let { data } = $props();
	const board = getContext<BoardState>('board');
	const head = $derived(board.head);
	const report = $derived(data.report);
	const unit = $derived(head.unit);
	const { sprint, ledger, following } = $derived(report);
	const number = $derived(sprint.number);
	const from = $derived(Math.min(parseDay(sprint.starts)!, following.days[0]?.day ?? Infinity));
	const to = $derived(Math.max(parseDay(sprint.ends)!, following.days.at(-1)?.day ?? -Infinity));
	const finished = $derived(report.finished);
	const past = $derived(!report.closed && data.today > sprint.ends);
	let width = $state(860);
	const figures = new ReportFigures(
		() => data.report,
		() => board.head.unit,
		() => board.head.slug,
		(text) => board.tell({ tone: 'warn', text }),
	);
	const picked = $derived(figures.picked);
	$effect(() => {
		void number;
		return figures.close;
	});
	const open = (key: string) =>
		key.startsWith(`${head.key}-`)
			? cardAddress(page.url, { number: key.slice(head.key.length + 1) })
			: `/cards/${key}`;
	function pickDay(day: number): void {
		const on = dayText(day);
		const link =
			on < data.today
				? { href: `/boards/${head.slug}?at=${on}`, words: 'The board at the end of that day' }
				: undefined;
		const happened = following.days.find((one) => one.day === day)?.today ?? {};
		const words = movedWords(happened, unit) || 'nothing changed';
		figures.ask(`${dateWords(on)}: ${words}`, 'day', on, link);
	}

	// While it runs the report follows the board.
	$effect(() => {
		if (report.closed || board.seq <= head.seq) return;
		const timer = setTimeout(() => void reread('harrow:report'), 1200);
		return () => clearTimeout(timer);
	});

	const finder = new OddsFinder();
	$effect(() => () => finder.stop());
	$effect(() => {
		const { odds } = report;
		if (odds && !tooLittle(odds.past) && odds.cards.length) finder.ask(odds);
	});
	const says = $derived(
		report.odds
			? oddsWords(
					finder.found,
					report.odds.past,
					report.odds.cards.length,
					report.odds.cards.filter((card) => !card.owners.length).length,
					sprint.ends,
					unit,
				)
			: null,
	);
	const MET = { yes: 'The goal was met', partly: 'The goal was partly met', no: 'The goal was not met' };
	const file = (as: string) => `/boards/${head.slug}/look-back/${number}/file?as=${as}`;
</script>

{#snippet behind()}
	{#if picked}
		<CardsBehind {...picked} {open} onclose={figures.close} />
	{/if}
{/snippet}

<Places board={head} here="look-back">
	<span class="files">
		{#if report.before !== null}<a class="link" href="/boards/{head.slug}/look-back/{report.before}"
				>Sprint {report.before}</a
			>{/if}
		{#if report.after !== null}<a class="link" href="/boards/{head.slug}/look-back/{report.after}"
				>Sprint {report.after}</a
			>{/if}
		<a class="link" download href={file('md')}>Markdown</a>
		<a class="link" download href={file('csv')}>CSV</a>
		<button type="button" class="link" onclick={() => window.print()}>Print</button>
	</span>
</Places>
<div class="page report">
	<h1>{head.name}, {head.sprintName.toLowerCase()} {number}{sprint.goal ? `: ${sprint.goal}` : ''}</h1>
	<p class="sentence">
		{dateWords(sprint.starts, data.today)} to {dateWords(sprint.ends, data.today)}.
		{#if past}<b class="warn">It is over and not settled:</b>
			<a class="link" href="/boards/{head.slug}/settle">settle it</a>.{/if}
		{#if report.goalMet}<b>{MET[report.goalMet]}.</b> {report.goalWords}{/if}
		<b>{count(finished.length, 'card')}</b>
		{report.closed ? 'finished' : 'finished so far'}{unit === 'none'
			? ''
			: `: ${deliveredWords(deliveredOf(ledger, finished), unit)}`}.
		{#if says}<span class:stale={finder.looking}>{says.before}<b>{says.strong}</b>{says.after}</span>{/if}
	</p>
	<WithBehind behind={picked ? behind : null}
		><div bind:clientWidth={width}>
			{#if unit !== 'none'}
				<LedgerPart {report} {unit} {open} onpick={(title, cards) => figures.pick(title, cards)} />
				<Burndown
					{following}
					{unit}
					{width}
					{from}
					{to}
					says={burndownWords(report, unit)}
					onpick={pickDay}
				/>
				<BurnUp {following} {unit} {width} {from} {to} says={burnUpWords(report, unit)} onpick={pickDay} />
			{/if}
			{#if report.budgets.length}
				<Budgets
					budgets={report.budgets}
					{unit}
					onpick={(one) =>
						figures.ask(
							`${one.initiative}: ${amount(one.worked, 'hours')} worked so far`,
							'budget',
							one.initiative,
							{ href: initiativeAddress(head.slug, one.initiative), words: 'Its page' },
						)}
				/>
			{/if}
			{#if report.retrospective}<section id="agreed">
					<h2>
						<a class="link" href="/boards/{head.slug}/retrospectives/{report.retrospective.number}"
							>Agreed in the retrospective</a
						>
					</h2>
					{#if report.retrospective.actions.length}<ul>
							{#each report.retrospective.actions as action (action.id)}<Action
									{action}
									slug={head.slug}
									today={data.today}
									changes={false}
								/>{/each}
						</ul>{:else}<p>Nothing yet.</p>{/if}
				</section>{/if}
			<div class="two">
				<ReportCards {report} {unit} {open} timeZone={head.timeZone} />
				<HoursUsed {report} {figures} />
			</div>
		</div>
	</WithBehind>
</div>

<style>
	.page {
		flex: 1;
		min-height: 0;
		overflow-y: auto;
		padding: 12px 20px 30px;
	}
	h1 {
		font-size: 1.5rem;
	}
	h2,
	.two :global(h2) {
		font-size: 1.12rem;
		margin: 14px 0 2px;
	}
	.sentence {
		margin: 4px 0 6px;
		max-width: 900px;
	}
	.files {
		display: flex;
		flex-wrap: wrap;
		gap: 2px 14px;
		font-size: 0.93rem;
	}
	.two {
		display: grid;
		grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
		gap: 4px 40px;
	}
	section p {
		margin: 2px 0;
	}
	.stale {
		opacity: 0.5;
	}
	@media (max-width: 900px) {
		.two {
			grid-template-columns: minmax(0, 1fr);
		}
	}
	@media (max-width: 700px) {
		.page {
			padding: 10px 14px 30px;
		}
	}
	.files .link {
		min-height: var(--touch, auto);
	}
</style>
