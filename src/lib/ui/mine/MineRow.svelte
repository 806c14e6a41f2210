<script lang="ts">
	import { waiting } from '$core/mine/groups';
	import type { MineCard, MineOf } from '$core/pages/mine';
	import type { RunningTimer } from '$core/pages/time';
	import { clockText } from '$core/capacity/hours-text';
	import { parseDay } from '$core/calendar/days';
	import type { Command, CommandInput } from '../../commands';
	import Answer from '../form/Answer.svelte';
	import Row from './Row.svelte';
	import { outbox } from '../outbox.svelte';
	import type { Refusal } from '../send';
	import { amount, blockedWords, daysSince, dueWords, figure, list, shortDate } from '../words';

	interface Props {
		card: MineCard;
		group: 'inHand' | 'asked' | 'next' | 'waits' | null;
		of: MineOf;
		today: string;
		me: string;
		/** The timer that runs on it. */
		timer: RunningTimer | null;
		/** Moves it on to the next column, over its limit where a reason is given. */
		onmove: (reason?: string) => Promise<Refusal | null>;
		ontimer: (runs: boolean) => void;
		onanswer: (text: string) => Promise<Refusal | null>;
		/** Does anything else with it, and says so. */
		tell: <C extends Command>(command: C, input: CommandInput<C>, done: string) => Promise<Refusal | null>;
	}
	/** A card of one's own: what it is, where it stands, and what is likely done with it next. */
	let { card, group, of, today, me, timer, onmove, ontimer, onanswer, tell }: Props = $props();
	const day = $derived(parseDay(today)!);
	const mayMove = $derived(card.board.role !== 'viewer' && card.next !== null && card.owners.includes(me));
	const full = $derived(card.next?.limit != null && card.next.standing >= card.next.limit);
	const due = $derived(card.due ? dueWords(card.due, day, null) : null);
	const age = $derived(
		card.clock === 'running' && card.started
			? Math.max(1, daysSince(card.started, day, card.board.timeZone))
			: null,
	);
	/** Where it stands and how far it is. */
	const about = $derived(
		[
			card.place ?? 'Backlog',
			age !== null ? `day ${age}` : '',
			card.board.unit === 'none' || card.parts
				? ''
				: card.size === null
					? 'not sized'
					: card.clock === 'none' || card.left === card.size
						? amount(card.size, card.board.unit)
						: `${figure(card.left)} of ${amount(card.size, card.board.unit)} left`,
			card.checks ? `${card.checks.done}/${card.checks.lines} ticked` : '',
			of === 'reviewing' && card.review?.due ? `review by ${shortDate(card.review.due)}` : '',
			card.others.length ? `${of === 'mine' ? 'with ' : ''}${list(card.others)}` : '',
		].filter(Boolean),
	);
	let answering = $state(false);
	/** What else can be done with it is shown. */
	let more = $state(false);
	/** A limit holds: it is let through with a reason. */
	let why = $state('');
	let asksWhy = $state('');
	const take = (element: HTMLElement) => element.querySelector<HTMLElement>('textarea, input')?.focus();

	async function move() {
		const refused = await onmove(asksWhy ? why.trim() : undefined);
		asksWhy = refused && /^(limit|left)\./.test(refused.code) ? refused.title : '';
	}
</script>

{#snippet box()}
	{#if mayMove}<button
			type="button"
			class="box"
			class:begun={card.clock === 'running'}
			aria-label="{card.key}: on to {card.next!.name}"
			title="On to {card.next!.name}{full
				? `, which is full (${card.next!.standing} of ${card.next!.limit})`
				: ''}"
			onclick={() => void move()}
		></button>{/if}
{/snippet}
{#snippet act()}
	{#if !answering && !asksWhy}
		{#if group === 'asked'}<button type="button" class="go" onclick={() => (answering = true)}>Answer</button>
		{:else if card.blocked || group === 'waits'}<button
				type="button"
				class="plain"
				onclick={() => (answering = true)}>Ask</button
			>
		{:else if group === 'inHand' && card.board.unit === 'hours' && card.board.role !== 'viewer'}<button
				type="button"
				class={timer ? 'go' : 'plain'}
				aria-label="{timer ? 'Stop' : 'Start'} the timer on {card.key}"
				onclick={() => ontimer(timer !== null)}>{timer ? `■ ${clockText(timer.hours)}` : '▶ Timer'}</button
			>
		{:else if group === 'next' && mayMove}<button
				type="button"
				class="plain"
				aria-label="Pull {card.key} into {card.next!.name}"
				onclick={() => void move()}>{full ? 'Pull, though full' : 'Pull'}</button
			>{/if}
	{/if}
{/snippet}
<Row href="/cards/{card.key}" of={card.key} title={card.title} {box} {act}>
	{#if group === 'asked' && card.asked}<p>{card.asked.who}: “{card.asked.text}”</p>{/if}
	<p>
		{#if card.blocked}<span class="warn">{blockedWords(card.blocked)}</span>
		{:else if waiting(card)}<span class="care">after {list(card.waits)}</span>{/if}
		{about.join(' · ')}{#if due}&nbsp;· <span class={due.tone}>{due.text}</span>{/if}
	</p>
	{#if outbox.about.has(card.id)}<p class="care">changed here, and waits to be sent</p>{/if}
	{#if asksWhy}
		<form
			onsubmit={(event) => {
				event.preventDefault();
				if (why.trim()) void move();
			}}
			{@attach take}
		>
			<input
				class="field"
				bind:value={why}
				maxlength={300}
				aria-label="Why it is let through"
				placeholder="Why it is let through"
			/>
			<button class="go" disabled={!why.trim()}>Let it through</button>
			<button type="button" class="plain" onclick={() => (asksWhy = '')}>Leave it</button>
		</form>
	{/if}
	{#if answering}
		<Answer
			label="What you say on {card.key}"
			onsay={async (text) => !(await onanswer(text))}
			onleave={() => (answering = false)}
		/>
	{/if}
	<button
		type="button"
		class="link open"
		aria-expanded={more}
		aria-label="{more ? 'Less of' : 'More with'} {card.key}"
		onclick={() => (more = !more)}>{more ? 'less' : 'more'}</button
	>
	{#if more}{#await import('./MineMore.svelte') then { default: MineMore }}<MineMore
				{card}
				{today}
				{tell}
			/>{/await}{/if}
</Row>

<style>
	.box {
		width: 30px;
		height: 30px;
		min-height: 0;
		margin: 7px;
		border: 2px dashed var(--faint);
		border-radius: 4px;
		background: none;
		position: relative;
	}
	/* The target is larger than what is drawn. */
	.box::after {
		content: '';
		position: absolute;
		inset: -9px;
	}
	.box.begun {
		border: 2px solid var(--moss);
	}
	button.box:hover {
		background: var(--sunk);
	}
	.late {
		color: var(--brick);
	}
	.soon {
		color: var(--ochre);
	}
	form {
		display: flex;
		flex-wrap: wrap;
		gap: 8px;
		padding: 6px 0 2px;
	}
	form :global(> :first-child) {
		flex-basis: 100%;
	}
	.field {
		font: inherit;
		color: var(--ink);
		background: var(--sheet);
		border: 1px solid var(--edge);
		border-radius: 4px;
		padding: 5px 9px;
	}
	.open {
		display: block;
		font-size: 0.9rem;
		min-height: max(26px, var(--touch, 0px));
		min-width: 44px;
		text-align: left;
	}
</style>
