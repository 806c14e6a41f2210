<script lang="ts">
	import { fsum } from 'd3-array';
	import { page } from '$app/state';
	import { getContext } from 'svelte';
	import { dayText, parseDay } from '$core/calendar/days';
	import { tooLittle } from '$core/capacity/odds';
	import { REASONS } from '$core/events/reasons';
	import type { BEHIND_REPORT, ReportCard } from '$core/pages/look-back';
	import { sidesOf } from '$core/sprint/settle';
	import type { BoardState } from '$lib/ui/board/board-state.svelte';
	import { cardAddress } from '$lib/ui/frame/card-address';
	import Gradual from '$lib/ui/frame/Gradual.svelte';
	import Term from '$lib/ui/frame/Term.svelte';
	import Places from '$lib/ui/frame/Places.svelte';
	import { reread } from '$lib/ui/frame/reread';
	import Budgets from '$lib/ui/look-back/Budgets.svelte';
	import Burndown from '$lib/ui/look-back/Burndown.svelte';
	import BurnUp from '$lib/ui/look-back/BurnUp.svelte';
	import {
		burndownWords,
		burnUpWords,
		byCard,
		endedWords,
		MOVED,
		movedWords,
		percent,
		deliveredWords,
	} from '$lib/ui/look-back/sentences';
	import Action from '$lib/ui/retrospective/Action.svelte';
	import Stints from '$lib/ui/look-back/Stints.svelte';
	import Tally from '$lib/ui/look-back/Tally.svelte';
	import { OddsFinder } from '$lib/ui/plan/odds-finder.svelte';
	import { oddsWords } from '$lib/ui/plan/words';
	import { Behind } from '$lib/ui/behind/behind.svelte';
	import CardsBehind from '$lib/ui/behind/CardsBehind.svelte';
	import WithBehind from '$lib/ui/behind/WithBehind.svelte';
	import LedgerBars from '$lib/ui/settle/LedgerBars.svelte';
	import { ENTRY_TITLES } from '$lib/ui/settle/words';
	import { initiativeAddress } from '$lib/ui/initiative-words';
	import { amount, count, dateWords, momentWords } from '$lib/ui/words';

	let { data } = $props();
	const board = getContext<BoardState>('board');
	const head = $derived(board.head);
	const report = $derived(data.report);
	const unit = $derived(head.unit);
	const { sprint, ledger, following } = $derived(report);
	const sides = $derived(sidesOf(ledger));
	const number = $derived(sprint.number);
	const from = $derived(Math.min(parseDay(sprint.starts)!, following.days[0]?.day ?? Infinity));
	const to = $derived(Math.max(parseDay(sprint.ends)!, following.days.at(-1)?.day ?? -Infinity));
	const finished = $derived(report.finished);
	const past = $derived(!report.closed && data.today > sprint.ends);
	let width = $state(860);
	const ended = $derived(endedWords(report));
	interface Figure {
		title: string;
		cards: readonly { card: string; amount: number | null; note?: string }[];
	}
	/** A figure whose cards the page knows. */
	let known = $state.raw<Figure | null>(null);
	/** One whose cards are asked for. Their amounts are hours; what happened on a day is told in words, in the board's unit. */
	const asked = new Behind<ReportCard>((text) => board.tell({ tone: 'warn', text }));
	const picked = $derived(
		known
			? { ...known, unit, titles: report.titles }
			: asked.figure && {
					...asked.figure,
					cards: byCard(asked.figure.cards, unit),
					unit: 'hours' as const,
					titles: Object.fromEntries(asked.figure.cards.map(({ card, title }) => [card, title])),
				},
	);
	function close(): void {
		known = null;
		asked.close();
	}
	$effect(() => {
		void number;
		return close;
	});
	function pick(title: string, cards: Figure['cards']): void {
		asked.close();
		known = { title, cards };
	}
	function pickAsked(
		title: string,
		of: (typeof BEHIND_REPORT)[number],
		which: string,
		link?: { href: string; words: string },
	): void {
		known = null;
		const query = new URLSearchParams({ of, which });
		void asked.open(title, `/boards/${head.slug}/look-back/${number}/cards?${query}`, link);
	}
	const open = (key: string) =>
		key.startsWith(`${head.key}-`)
			? cardAddress(page.url, { number: key.slice(head.key.length + 1) })
			: `/cards/${key}`;
	const DECIDED = { carry: 'carried', split: 'split', backlog: 'back to the backlog', drop: 'dropped' };

	const scopeAmount = ({ kind, amount: by }: (typeof report.scope)[number]) =>
		kind === 'resized' ? `${by > 0 ? '+' : '−'}${amount(Math.abs(by), unit)}` : amount(by, unit);

	function pickDay(day: number): void {
		const on = dayText(day);
		const link =
			on < data.today
				? { href: `/boards/${head.slug}?at=${on}`, words: 'The board at the end of that day' }
				: undefined;
		const happened = following.days.find((one) => one.day === day)?.today ?? {};
		const words = movedWords(happened, unit) || 'nothing changed';
		pickAsked(`${dateWords(on)}: ${words}`, 'day', on, link);
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
	/** What was delivered; of a running sprint, what its done cards took off it so far. */
	const done = $derived.by(() => {
		const sum = (stints: typeof finished) => fsum(stints, (stint) => stint.burned);
		const kept = finished.filter((stint) => stint.kind === 'committed');
		const cards = (stints: readonly { card: string }[]) => new Set(stints.map((stint) => stint.card)).size;
		return {
			committed: ledger.committed,
			committedCards: cards(ledger.stints.filter((stint) => stint.kind === 'committed')),
			delivered: sum(finished),
			kept: sum(kept),
			cards: cards(finished),
			keptCards: cards(kept),
		};
	});
	const MET = { yes: 'The goal was met', partly: 'The goal was partly met', no: 'The goal was not met' };
	const file = (as: string) => `/boards/${head.slug}/look-back/${number}/file?as=${as}`;
</script>

{#snippet behind()}
	{#if picked}
		<CardsBehind {...picked} {open} onclose={close} />
	{/if}
{/snippet}

{#snippet called(card: string, more = '')}
	<a href={open(card)} data-sveltekit-noscroll data-sveltekit-keepfocus
		><b>{card}</b>
		{report.titles[card]}{#if more}<br /><span class="soft">{more}</span>{/if}</a
	>
{/snippet}
{#snippet finishedRow(stint: (typeof finished)[number])}
	<li>
		{@render called(stint.card)}<small>{amount(stint.burned, unit)}{stint.planned ? '' : ', unplanned'}</small
		>
	</li>
{/snippet}
{#snippet unfinishedRow(one: (typeof report.unfinished)[number])}
	<li>
		{@render called(one.card, one.reason === 'other' ? one.words : REASONS[one.reason])}<small
			>{DECIDED[one.decision]}{unit === 'none' ? '' : `, ${amount(one.left, unit)}`}</small
		>
	</li>
{/snippet}
{#snippet scopeRow(change: (typeof report.scope)[number])}
	<li>
		{@render called(
			change.card,
			`${momentWords(change.at, head.timeZone)}, ${change.who ?? 'someone'}`,
		)}<small>{MOVED[change.kind]} {scopeAmount(change)}</small>
	</li>
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
			: `: ${deliveredWords(done, unit)}`}.
		{#if says}<span class:stale={finder.looking}>{says.before}<b>{says.strong}</b>{says.after}</span>{/if}
	</p>
	<WithBehind behind={picked ? behind : null}
		><div bind:clientWidth={width}>
			{#if unit !== 'none'}
				<section class="ledger" id="ledger">
					<h2>Ledger</h2>
					<p>
						Both sides of the <Term
							word="ledger"
							says="The sprint’s account: what came in on one side, what became of it on the other. Here both are {amount(
								sides.total,
								unit,
							)}."
						/> are {amount(sides.total, unit)}; it is made of {count(ledger.stints.length, 'stint').replace(
							/ stints?$/,
							'',
						)}
						<Term
							word={ledger.stints.length === 1 ? 'stint' : 'stints'}
							says="A stint is one card’s stay in one sprint: what it came in with, what was worked, what it went out with. This sprint has {ledger
								.stints.length}."
						/>. Each part opens to its cards.
					</p>
					<LedgerBars
						{sides}
						{unit}
						onpick={(entry) =>
							pick(`${ENTRY_TITLES[entry.kind]}: ${amount(entry.amount, unit)}`, entry.cards)}
					/>
					<p>
						{amount(ledger.worked, 'hours')} worked{unit === 'hours' &&
						Math.abs(ledger.worked - ledger.burned) > 0.5
							? `; ${amount(ledger.burned, unit)} burned: the difference is what was finished for less or more than was left of it`
							: ''}.
					</p>
					<Stints {ledger} titles={report.titles} {unit} {ended} {open} />
				</section>
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
						pickAsked(
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
				<section id="finished">
					<h2>Finished</h2>
					{#if finished.length}<ul>
							<Gradual
								list={finished}
								key={(stint) => stint.card + stint.opened}
								row={finishedRow}
								as="li"
								px={27}
							/>
						</ul>{:else}<p>{report.closed ? 'Nothing was finished.' : 'Nothing yet.'}</p>{/if}
				</section>
				<section>
					<h2>Not finished</h2>
					{#if report.unfinished.length}<ul>
							<Gradual
								list={report.unfinished}
								key={({ card }) => card}
								row={unfinishedRow}
								as="li"
								px={48}
							/>
						</ul>{:else}<p>
							{report.closed ? 'Everything was finished.' : 'Decided when it is settled.'}
						</p>{/if}
				</section>
				<section>
					<h2>Changes of scope</h2>
					{#if report.scope.length}<ul>
							<Gradual list={report.scope} key={(_, place) => place} row={scopeRow} as="li" px={48} />
						</ul>{:else}<p>Its scope never changed.</p>{/if}
				</section>
				<section>
					{#if report.surprises}
						<h2>Surprises</h2>
						<p>
							<button
								type="button"
								class="link"
								disabled={!report.surprises.cards.length}
								onclick={() =>
									pick(
										'Unplanned cards',
										report.surprises!.cards.map((card) => ({ card, amount: null })),
									)}>{count(report.surprises.cards.length, 'unplanned card')}</button
							>
							took {amount(report.surprises.worked, 'hours')}{report.surprises.left
								? `, and ${amount(report.surprises.left, 'hours')} are left`
								: ''}; {amount(report.surprises.kept, 'hours')} were kept back.
							{#if report.surprises.worked + report.surprises.left > report.surprises.kept}<span class="warn"
									>That is more than was kept back.</span
								>{/if}
						</p>
					{/if}
					<h2>Use of hours</h2>
					<Tally
						look="river"
						rows={report.use.map((one) => ({
							name: one.name,
							value: one.raw ? one.worked / one.raw : 0,
							words: `${amount(one.worked, 'hours')} of ${amount(one.raw, 'hours')}${one.raw ? `, ${percent(one.worked / one.raw)}` : ''}`,
							onpick: one.cards
								? () =>
										pickAsked(
											`${one.name}: ${amount(one.worked, 'hours')} in this sprint`,
											'hours',
											one.person,
										)
								: undefined,
						}))}
					/>
				</section>
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
	h2 {
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
	.ledger {
		margin-bottom: 14px;
	}
	.ledger p {
		margin: 2px 0 8px;
		color: var(--soft);
	}
	.two {
		display: grid;
		grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
		gap: 4px 40px;
	}
	section p {
		margin: 2px 0;
	}
	li {
		display: flex;
		justify-content: space-between;
		gap: 12px;
		padding: 5px 0;
		border-top: 1px dotted var(--rule);
	}
	li a {
		text-decoration: none;
		min-width: 0;
		min-height: max(24px, var(--touch, 0px));
		overflow-wrap: anywhere;
	}
	li a:hover {
		color: var(--moss);
	}
	li b {
		color: var(--soft);
		font-weight: 600;
	}
	li small {
		flex: 0 0 auto;
		max-width: 45%;
		text-align: right;
		color: var(--soft);
		font-size: 0.93rem;
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
	@media (pointer: coarse) {
		.files .link {
			display: inline-flex;
			align-items: center;
		}
	}
</style>
