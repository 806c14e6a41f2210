<script lang="ts">
	import { fsum } from 'd3-array';
	import { goto } from '$app/navigation';
	import { page } from '$app/state';
	import { getContext, untrack } from 'svelte';
	import type { CardView } from '$core/pages/board';
	import { tooLittle } from '$core/capacity/odds';
	import type { BoardState } from '$lib/ui/board/board-state.svelte';
	import { cardAddress } from '$lib/ui/frame/card-address';
	import { keys } from '$lib/ui/frame/keys.svelte';
	import Term from '$lib/ui/frame/Term.svelte';
	import Places from '$lib/ui/frame/Places.svelte';
	import type { PlanAsk } from '$lib/ui/plan/ask';
	import { OddsFinder } from '$lib/ui/plan/odds-finder.svelte';
	import Plan from '$lib/ui/plan/Plan.svelte';
	import PlanFoot from '$lib/ui/plan/PlanFoot.svelte';
	import { PlanState } from '$lib/ui/plan/plan-state.svelte';
	import { oddsWords } from '$lib/ui/plan/words';
	import { amount, calledAmong, count, list } from '$lib/ui/words';

	let { data } = $props();
	const board = getContext<BoardState>('board');
	const plan = new PlanState(board);
	const take = (given: typeof data.plan) => {
		board.load(given);
		plan.page = given;
	};
	untrack(() => take(data.plan));
	$effect.pre(() => {
		const given = data.plan;
		untrack(() => take(given));
	});

	const head = $derived(board.head);
	const unit = $derived(head.unit);
	const sprint = $derived(plan.sprint);
	const finder = new OddsFinder();
	$effect(() => () => finder.stop());
	$effect(() => {
		const input = plan.oddsInput;
		if (unit === 'hours' && !tooLittle(input.past) && input.cards.length) finder.ask(input);
	});
	const says = $derived(
		sprint
			? oddsWords(
					finder.found,
					plan.page.past,
					plan.cards.length,
					plan.cards.filter((card) => !card.owners.length).length,
					sprint.ends,
					unit,
				)
			: null,
	);
	const called = $derived(calledAmong(head.people));
	const away = $derived(
		plan.rows.flatMap((row) =>
			row.person && row.hours?.away.length
				? [`${called(row.person.id)} is away ${count(row.hours.away.length, 'day')}`]
				: [],
		),
	);
	const over = $derived(
		plan.over.map((part) => {
			return `${called(part.person)} is ${amount(part.placed - part.promise, unit)} over`;
		}),
	);

	const promiseSays = $derived(
		unit === 'points'
			? `What people can take on, by what a person-day has delivered so far: ${amount(plan.promise, unit)} in this sprint.`
			: `What people can take on: ${amount(
					fsum(plan.parts, (part) => part.give),
					unit,
				)} to give, less the ${Math.round(plan.keepBack * 100)}% that is kept back for surprises.`,
	);

	let asking = $state.raw<PlanAsk | null>(null);
	let keysShown = $state(false);
	let shifting = $state(false);
	const open = $derived(head.sprints.filter((known) => !known.closedAt));

	const change = async (to: Record<string, unknown>): Promise<string> => {
		const sent = await board.ask('ChangeSprint', {
			board: head.id,
			sprint: sprint!.number,
			version: sprint!.version,
			...to,
		});
		return sent.ok ? '' : sent.refusal.title;
	};
	async function start(): Promise<void> {
		const sent = await board.ask('StartSprint', {
			board: head.id,
			sprint: sprint!.number,
			version: sprint!.version,
		});
		if (!sent.ok) return;
		const { committed, cards } = sent.answer.result;
		board.tell({
			tone: sent.answer.advice ? 'care' : 'done',
			text:
				sent.answer.advice ??
				`Sprint ${sprint!.number} has started with ${count(cards, 'card')}${unit === 'none' ? '' : `, ${amount(committed, unit)}`}.`,
			undo: sent.answer.id,
		});
		await goto(`/boards/${head.slug}`);
	}
	function choose(number: string): void {
		const url = new URL(page.url);
		url.searchParams.set('sprint', number);
		void goto(url, { keepFocus: true, noScroll: true });
	}
</script>

<Places board={head} here="plan">
	{#if sprint}
		<label class="which"
			>Planning <select
				class="choice"
				value={String(sprint.number)}
				onchange={(event) => choose(event.currentTarget.value)}
			>
				{#each open as known (known.number)}<option value={String(known.number)}
						>{head.sprintName.toLowerCase()} {known.number}{known.startedAt ? ', running' : ''}</option
					>{/each}
			</select>{unit === 'none' ? '' : ` in ${unit}`}</label
		>
		{#if head.role !== 'viewer' && !head.away && !head.off.includes('dates')}<button
				type="button"
				class="link"
				onclick={() => (shifting = true)}>Shift its dates</button
			>{/if}
	{/if}
</Places>
{#if sprint && says}
	<h1 class="sentence">
		Sprint {sprint.number} holds
		{#if unit === 'none'}<b>{count(plan.cards.length, 'card')}</b>.
		{:else if plan.promise > 0}<b>{amount(plan.held, unit)}</b> of the <b>{amount(plan.promise, unit)}</b>
			<Term word="promise" says={promiseSays} />.
		{:else}<b>{amount(plan.held, unit)}</b>; nothing can be promised{unit === 'points' &&
			plan.page.learned.perDay === null
				? ' until three sprints are closed'
				: ': nobody has hours for it'}.{/if}
		{#if plan.surprises}<span class="care">{amount(plan.surprises, unit)} came in unplanned.</span>{/if}
		{#if over.length}<span class="warn">{list(over)}.</span>{/if}
		{#if away.length}{list(away.slice(0, 4))}.{/if}
		{#if says.strong && finder.found}<button
				type="button"
				class="link odds"
				onclick={() => (asking = { kind: 'odds' })}
				>{says.before}<b class:stale={finder.looking}>{says.strong}</b>{says.after}</button
			>{:else}<span class="soft">{says.before}</span>{/if}
	</h1>
	<Plan
		{board}
		{plan}
		carried={board.looks.carried}
		keysOn={keys.on}
		open={(card) => cardAddress(page.url, card)}
		onask={(ask) => (asking = ask)}
		onkeys={() => (keysShown = true)}
	/>
	<PlanFoot
		{board}
		{plan}
		today={data.today}
		onsprint={() => (asking = { kind: 'sprint' })}
		onstart={() => void start()}
	/>
{:else}
	<div class="none">
		<p>
			This board has no sprints to plan. <a class="link" href="/boards/{head.slug}/flow">How its cards go</a> is
			on its flow page.
		</p>
	</div>
{/if}

{#if asking?.kind === 'give'}
	{@const { cards } = asking}
	{#await import('$lib/ui/dialogs/GiveDialog.svelte') then { default: GiveDialog }}
		<GiveDialog
			{cards}
			sprint={sprint!.number}
			rows={plan.rows}
			{unit}
			onclose={() => (asking = null)}
			ongive={(to) => {
				// Taken before the dialog closes: with it goes what it was about.
				const given = cards;
				asking = null;
				void board.plan(given, sprint!.number, to === 'nobody' ? [] : [to]);
			}}
		/>
	{/await}
{:else if asking?.kind === 'share'}
	{#await import('$lib/ui/dialogs/ShareDialog.svelte') then { default: ShareDialog }}
		<ShareDialog
			rows={plan.rows}
			cards={plan.cards.filter((card: CardView) => !card.owners.length)}
			skills={plan.page.skills}
			{unit}
			onclose={() => (asking = null)}
			onshare={(gifts) => {
				asking = null;
				void board.shareOut(gifts).then((sent) => {
					if (sent.ok)
						board.tell({
							tone: 'done',
							text: `${count(gifts.length, 'card')} given out.`,
							undo: sent.answer.id,
						});
				});
			}}
		/>
	{/await}
{:else if asking?.kind === 'odds' && finder.found}
	{@const odds = finder.found}
	{#await import('$lib/ui/dialogs/OddsDialog.svelte') then { default: OddsDialog }}
		<OddsDialog
			{odds}
			input={plan.oddsInput}
			{finder}
			cards={plan.cards}
			{unit}
			sprint={sprint!.number}
			mayEdit={head.role !== 'viewer'}
			onclose={() => (asking = null)}
			ontakeoff={(cards) => {
				asking = null;
				void board.plan(cards, null).then((sent) => {
					if (sent.ok)
						board.tell({
							tone: 'done',
							text: `${count(cards.length, 'card')} taken off sprint ${sprint!.number}.`,
							undo: sent.answer.id,
						});
				});
			}}
		/>
	{/await}
{:else if asking?.kind === 'sprint' && sprint}
	{@const one = sprint}
	{#await import('$lib/ui/dialogs/SprintDialog.svelte') then { default: SprintDialog }}
		<SprintDialog
			sprint={one}
			today={data.today}
			learned={plan.page.learned}
			hours={unit === 'hours'}
			later={head.sprints.filter((known) => known.starts > one.starts && !known.startedAt).length}
			onclose={() => (asking = null)}
			onchange={change}
		/>
	{/await}
{/if}
{#if shifting && sprint}
	{#await import('$lib/ui/dialogs/ShiftDialog.svelte') then { default: ShiftDialog }}
		<ShiftDialog
			{board}
			of="sprint"
			which={String(sprint.number)}
			called="{head.sprintName.toLowerCase()} {sprint.number}"
			today={data.today}
			onclose={() => (shifting = false)}
		/>
	{/await}
{/if}
{#if keysShown}
	{#await import('$lib/ui/dialogs/KeysDialog.svelte') then { default: KeysDialog }}
		<KeysDialog title="Keys of the plan" place="plan" bind:on={keys.on} onclose={() => (keysShown = false)} />
	{/await}
{/if}

<style>
	.sentence {
		font: 1rem/1.4 var(--text);
		letter-spacing: 0;
		padding: 9px 20px 8px;
		flex: none;
	}
	.odds {
		color: var(--ink);
		text-align: left;
		text-decoration-color: var(--moss);
		min-height: var(--touch, auto);
	}
	.stale {
		opacity: 0.5;
	}
	.which {
		font-size: 0.93rem;
		color: var(--soft);
	}
	.none {
		padding: 20px;
		color: var(--soft);
	}
	@media (max-width: 700px) {
		.sentence {
			padding: 8px 14px 4px;
		}
	}
</style>
