<script lang="ts">
	import { page } from '$app/state';
	import { getContext, tick, untrack } from 'svelte';
	import type { CardView } from '$core/pages/board';
	import { DECISIONS, type Entry } from '$core/sprint/settle';
	import type { BoardState } from '$lib/ui/board/board-state.svelte';
	import { cardAddress } from '$lib/ui/frame/card-address';
	import { keys } from '$lib/ui/frame/keys.svelte';
	import { pressed, type Does } from '$lib/ui/frame/keymap';
	import { forPlace } from '$lib/ui/frame/place-keys';
	import Gradual from '$lib/ui/frame/Gradual.svelte';
	import Places from '$lib/ui/frame/Places.svelte';
	import { reread } from '$lib/ui/frame/reread';
	import CardsBehind from '$lib/ui/behind/CardsBehind.svelte';
	import SettleFoot from '$lib/ui/settle/SettleFoot.svelte';
	import SettleRow from '$lib/ui/settle/SettleRow.svelte';
	import { SettleState } from '$lib/ui/settle/settle-state.svelte';
	import SplitParts from '$lib/ui/settle/SplitParts.svelte';
	import { ENTRY_TITLES } from '$lib/ui/settle/words';
	import { amount, count, dateWords, list, momentWords } from '$lib/ui/words';

	let { data } = $props();
	const board = getContext<BoardState>('board');
	const settle = new SettleState(board);
	const takeOver = (given: typeof data.settle) => {
		board.load(given);
		settle.page = given;
	};
	untrack(() => takeOver(data.settle));
	$effect.pre(() => {
		const given = data.settle;
		untrack(() => takeOver(given));
	});
	// What was said before is known to this window alone.
	$effect(() => untrack(() => settle.restore()));

	const head = $derived(board.head);
	const sprint = $derived(settle.sprint);
	const over = $derived(sprint !== null && data.today > sprint.ends);
	const mayEdit = $derived(settle.page.maySettle);
	const cards = $derived(settle.cards);
	const decided = $derived(cards.length - settle.undecided.length);
	const current = $derived(cards.find((card) => card.id === settle.current) ?? cards[0] ?? null);
	const most = $derived(
		Math.max(
			1,
			...cards.map((card) => {
				const stint = settle.stints.get(card.number);
				const worked = head.unit === 'hours' ? (stint?.worked ?? 0) : (stint?.burned ?? 0);
				return Math.max(worked + card.left, stint?.entry ?? 0);
			}),
		) * 1.06,
	);
	const titles = $derived({
		...settle.page.titles,
		...Object.fromEntries(cards.map(({ number, title }) => [`${head.key}-${number}`, title])),
	});
	const next = $derived(settle.page.next?.number ?? null);
	const last = $derived(settle.page.last);

	// The ledger follows what happens on the board, though not every single change of it.
	$effect(() => {
		if (board.seq <= settle.page.seq) return;
		const timer = setTimeout(() => void reread('harrow:settle'), 600);
		return () => clearTimeout(timer);
	});

	let element = $state<HTMLElement>();
	let picked = $state.raw<Entry | null>(null);
	let closing = $state(false);
	let sending = $state(false);
	let keysShown = $state(false);

	async function hold(id: string): Promise<void> {
		settle.current = id;
		await tick();
		element?.querySelector(`[data-card="${id}"]`)?.scrollIntoView({ block: 'nearest' });
	}
	function step(by: number): void {
		const at = cards.findIndex((card) => card.id === current?.id);
		const to = cards[Math.min(cards.length - 1, Math.max(0, at + by))];
		if (to) void hold(to.id);
	}

	function onkeydown(event: KeyboardEvent): void {
		const typing = (event.target as HTMLElement).matches('input:not([type="checkbox"]), textarea, select');
		if (typing || closing || keysShown || !current) return;
		const does = pressed('settle', event, { single: keys.on, write: mayEdit });
		if (!does || does === 'find') return;
		const { key } = event;
		const by = { ArrowDown: 1, ArrowUp: -1, Home: -cards.length, End: cards.length }[key] ?? 0;
		const acts: Record<Exclude<Does<'settle'>, 'find'>, () => unknown> = {
			go: () => step(by),
			decide: () => decide(DECISIONS[Number(key) - 1]!),
			reason: () => void focusReason(),
			pick: () => settle.pick(current!),
			undo: () => void board.undo(),
			help: () => (keysShown = true),
		};
		event.preventDefault();
		acts[does]();
	}
	function decide(decision: (typeof DECISIONS)[number]): void {
		const changed = settle.say(current!, { decision });
		board.spoken = `${list(changed.map((card) => String(card.number)))}: ${decision}.`;
		if (!settle.draft(current!).reason) void focusReason();
	}
	async function focusReason(): Promise<void> {
		await tick();
		element?.querySelector<HTMLElement>('.current .reason')?.focus();
	}

	async function close(outcome: object): Promise<void> {
		closing = false;
		sending = true;
		const sent = await board.ask('SettleSprint', {
			board: head.id,
			sprint: sprint!.number,
			version: sprint!.version,
			decisions: settle.decisions(),
			...outcome,
		});
		sending = false;
		if (!sent.ok) {
			const { card, cards: several } = sent.refusal as { card?: string; cards?: string[] };
			const about = card ?? several?.[0];
			if (about) void hold(about);
			return void reread('harrow:settle');
		}
		const { done, carried, split, returned, dropped } = sent.answer.result;
		settle.forget();
		const parts = [
			`${done} done`,
			...(carried ? [`${carried} carried`] : []),
			...(split ? [`${split} split`] : []),
			...(returned ? [`${returned} back to the backlog`] : []),
			...(dropped ? [`${dropped} dropped`] : []),
		];
		board.tell({
			tone: 'done',
			text: `Sprint ${sprint!.number} is settled: ${list(parts)}.`,
			undo: sent.answer.id,
		});
		await reread('harrow:board');
	}
	async function start(): Promise<void> {
		const coming = head.sprints.find((known) => known.number === next)!;
		const sent = await board.ask('StartSprint', {
			board: head.id,
			sprint: coming.number,
			version: coming.version,
		});
		if (!sent.ok) return;
		board.tell({
			tone: sent.answer.advice ? 'care' : 'done',
			text: sent.answer.advice ?? `Sprint ${coming.number} has started.`,
			undo: sent.answer.id,
		});
		await reread('harrow:board');
	}
	const open = (key: string) => cardAddress(page.url, { number: key.slice(key.lastIndexOf('-') + 1) });
</script>

<svelte:window onkeydown={(event) => forPlace(event) && onkeydown(event)} />
{#snippet cardRow(card: CardView)}
	{@const draft = settle.draft(card)}
	<SettleRow
		{card}
		stint={settle.stints.get(card.number)}
		{draft}
		missing={settle.missing(card)}
		unit={head.unit}
		carried={board.looks.carried[card.number] ?? 0}
		{most}
		current={card.id === current?.id}
		picked={settle.picked.has(card.id)}
		{mayEdit}
		href={cardAddress(page.url, card)}
		onhold={() => void hold(card.id)}
		onpick={() => settle.pick(card)}
		onsay={(change) => settle.say(card, change)}
	/>
	{#if draft.decision === 'split' && card.id === current?.id && mayEdit}
		<SplitParts
			{card}
			{draft}
			sprint={sprint!.number}
			{next}
			unit={head.unit}
			lines={settle.page.checklists[card.id] ?? []}
			onsay={(change) => settle.only(card, change)}
		/>
	{/if}
{/snippet}
<Places board={head} here="settle">
	{#if sprint}<span class="also"
			>Also <a class="link" href="/boards/{head.slug}/look-back/{sprint.number}#finished">what is done</a>
			· <a class="link" href="/boards/{head.slug}/look-back/{sprint.number}#ledger">the whole ledger</a></span
		>{/if}
</Places>
{#if sprint}
	<h1 class="sentence">
		{#if over}<b>{head.sprintName} {sprint.number} is over.</b>{:else}<b
				>{head.sprintName} {sprint.number} runs until {dateWords(sprint.ends, data.today)}.</b
			>{/if}
		{settle.done} of {count(settle.done + cards.length, 'card')}
		{settle.done === 1 ? 'is' : 'are'} done{#if cards.length}, {cards.length}
			{cards.length === 1 ? 'is' : 'are'} not{mayEdit ? ': decide each' : ''}. Work already done stays with
			sprint {sprint.number}; only what is left moves on. {#if mayEdit}<b>{decided} of {cards.length}</b> decided.{/if}{:else}:
			nothing is left to decide.{/if}
		{#if !mayEdit}<span class="care"
				>{head.membersSettle ? 'Leads and members settle' : 'Only leads settle'} on this board.</span
			>{/if}
	</h1>
	<div class="page" bind:this={element}>
		<div class="heads" aria-hidden="true">
			<span>Unfinished card</span><span>Worked, left, and what was planned <i></i></span><span
				>What happens to it</span
			><span>Why it was not finished</span>
		</div>
		<Gradual
			list={cards}
			key={({ id }) => id}
			row={cardRow}
			as="div"
			px={52}
			reach={current ? cards.indexOf(current) : -1}
		/>
		{#if picked}
			<div class="behind screen-only">
				<CardsBehind
					title="{ENTRY_TITLES[picked.kind]}: {amount(picked.amount, head.unit)}"
					cards={picked.cards}
					{titles}
					unit={head.unit}
					{open}
					onclose={() => (picked = null)}
				/>
			</div>
		{/if}
	</div>
	<SettleFoot
		{settle}
		people={head.people}
		{mayEdit}
		{sending}
		onpick={(entry) => (picked = entry)}
		onclose={() => (closing = true)}
	/>
{:else}
	<div class="none">
		{#if last}
			<h1>{head.sprintName} {last.number} is settled.</h1>
			<p>
				It was closed {momentWords(last.closedAt, head.timeZone)}{last.by ? ` by ${last.by}` : ''}. Its
				<a class="link" href="/boards/{head.slug}/look-back/{last.number}">report</a> has the ledger, the burndown
				and every reason.
			</p>
			<p class="buttons">
				{#if next !== null && head.role === 'lead'}<button
						type="button"
						class="go"
						onclick={() => void start()}>Start sprint {next}</button
					>{/if}
				{#if next !== null}<a class="link" href="/boards/{head.slug}/plan?sprint={next}"
						>Look at its plan first</a
					>{/if}
				{#if last.undo}<button
						type="button"
						class="link"
						onclick={() => void board.undo(last.undo!).then(() => reread('harrow:board'))}
						>Take the closing back</button
					>{/if}
			</p>
		{:else if head.sprintDays === null}
			<h1>This board has no sprints.</h1>
			<p>
				There is nothing to settle. <a class="link" href="/boards/{head.slug}/flow">How its cards go</a> is on its
				flow page.
			</p>
		{:else}
			<h1>No sprint has started yet.</h1>
			<p>
				There is nothing to settle. <a class="link" href="/boards/{head.slug}/plan">Plan the first one</a>.
			</p>
		{/if}
	</div>
{/if}

{#if closing && sprint}
	{#await import('$lib/ui/dialogs/CloseDialog.svelte') then { default: CloseDialog }}
		<CloseDialog
			sprint={sprint.number}
			goal={sprint.goal}
			sentence="{count(settle.done, 'card')} done, {count(cards.length, 'card')} decided.{over
				? ''
				: ` It ends before its last day, ${dateWords(sprint.ends, data.today)}.`}"
			onclose={() => (closing = false)}
			onsettle={(outcome) => void close(outcome)}
		/>
	{/await}
{/if}
{#if keysShown}
	{#await import('$lib/ui/dialogs/KeysDialog.svelte') then { default: KeysDialog }}
		<KeysDialog
			title="Keys of settling"
			place="settle"
			bind:on={keys.on}
			onclose={() => (keysShown = false)}
		/>
	{/await}
{/if}

<style>
	.sentence {
		font: 1rem/1.4 var(--text);
		letter-spacing: 0;
		padding: 9px 20px 8px;
		flex: none;
	}
	.page {
		padding: 0 20px 12px;
	}
	.heads {
		display: grid;
		grid-template-columns: minmax(190px, 288px) minmax(180px, 318px) minmax(360px, 1fr) 200px;
		gap: 18px;
		padding: 4px 10px 6px;
		border-bottom: 2px solid var(--ink);
		font-size: 12px;
		color: var(--soft);
		position: sticky;
		top: 0;
		background: var(--paper);
		z-index: 2;
	}
	.heads i {
		display: inline-block;
		width: 2px;
		height: 14px;
		margin-left: 4px;
		vertical-align: -2px;
		background: var(--ink);
	}
	.also {
		font-size: 0.93rem;
		color: var(--soft);
	}
	.behind {
		position: sticky;
		bottom: 8px;
		max-width: 620px;
		margin-top: 12px;
		z-index: 3;
	}
	.none {
		padding: 24px 20px;
		max-width: 640px;
	}
	.none h1 {
		font-size: 1.6rem;
	}
	.buttons {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 8px 18px;
	}
	@media (max-width: 1060px) {
		.heads {
			display: none;
		}
	}
	@media (max-width: 700px) {
		.also {
			display: none;
		}
		.sentence {
			padding: 8px 14px 4px;
		}
		.page {
			padding: 0 8px 12px;
		}
	}
</style>
