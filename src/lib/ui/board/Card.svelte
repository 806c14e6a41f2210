<script lang="ts">
	import type { CardView, PersonView, Unit } from '$core/pages/board';
	import type { Expectation } from '$core/flow/expectation';
	import type { Day } from '$core/calendar/zone';
	import { amount, blockedWords, count, dayOf, daysSince, dueWords, figure } from '../words';
	import AgeLine from './AgeLine.svelte';
	import NameTag from './NameTag.svelte';

	interface Props {
		card: CardView;
		people: ReadonlyMap<string, PersonView & { seed: number }>;
		unit: Unit;
		timeZone: string;
		today: Day;
		expectation: Expectation | null;
		carried?: number;
	}
	let { card, people, unit, timeZone, today, expectation, carried = 0 }: Props = $props();

	const due = $derived(
		card.due ? dueWords(card.due, today, card.finished ? dayOf(card.finished, timeZone) : null) : null,
	);
	const age = $derived(
		card.clock === 'running' && card.started ? Math.max(1, daysSince(card.started, today, timeZone)) : null,
	);
	const blockedDays = $derived(
		card.blocked ? Math.max(1, daysSince(card.blocked.since, today, timeZone)) : 0,
	);
	const left = $derived(
		card.parts
			? `${amount(card.parts.left, unit)} left in ${card.parts.cards - card.parts.done} of ${count(card.parts.cards, 'part')}`
			: card.size === null
				? 'not sized'
				: card.left === card.size
					? amount(card.size, unit)
					: `${figure(card.left)} of ${amount(card.size, unit)} left`,
	);
</script>

<span
	class="card"
	class:blocked={card.blocked}
	class:expedite={card.class === 'expedite'}
	class:background={card.class === 'background'}
>
	<span class="top">
		<span class="number">{card.number}</span>
		{#if card.class === 'expedite'}<span class="class">Expedite</span>{/if}
		{#if due}<span class={due.tone}>{due.text}</span>{/if}
	</span>
	<span class="title">{card.title}</span>
	{#if card.blocked}<span class="why">{blockedWords(card.blocked)}, {count(blockedDays, 'day')}</span>{/if}
	<span class="foot">
		{#each card.owners as owner (owner)}{@const person = people.get(owner)}{#if person}<NameTag
					{person}
					seed={person.seed}
				/>{/if}{/each}
		{#if unit !== 'none'}<span class:unsized={card.size === null && !card.parts}>{left}</span>{/if}
		{#if card.checks}<span>{card.checks.done}/{card.checks.lines} ticked</span>{/if}
		{#if carried}<span class="care">carried ×{carried}</span>{/if}
		{#if card.unplanned && card.class !== 'expedite'}<span>unplanned</span>{/if}
	</span>
	{#if age !== null}<AgeLine days={age} {expectation} />{/if}
</span>

<style>
	.card {
		position: relative;
		display: block;
		background: var(--sheet);
		border: 1px solid var(--rule);
		border-radius: 3px;
		padding: 7px 9px 8px;
		box-shadow: 0 1px 0 #0000000d;
		overflow-wrap: anywhere;
	}
	.top {
		display: flex;
		gap: 8px;
		font-weight: 600;
		font-size: 12px;
		color: var(--faint);
	}
	.number {
		flex: 1;
	}
	.late {
		color: var(--brick);
	}
	.soon {
		color: var(--ochre);
	}
	.class {
		color: var(--ink);
		font-weight: 700;
	}
	.title {
		display: block;
		font-weight: 560;
		line-height: 1.25;
		color: var(--ink);
	}
	.background .title {
		color: var(--soft);
		font-weight: 450;
	}
	.why {
		display: block;
		font-size: 0.9rem;
		color: var(--brick);
		margin-top: 3px;
	}
	.foot {
		display: flex;
		flex-wrap: wrap;
		gap: 3px 7px;
		align-items: center;
		margin-top: 6px;
		font-size: 0.9rem;
		color: var(--soft);
	}
	.unsized {
		color: var(--faint);
		font-style: italic;
	}
	.blocked {
		padding-left: 18px;
	}
	.blocked::before {
		content: '';
		position: absolute;
		inset: 0 auto 0 0;
		width: 9px;
		border-radius: 2px 0 0 2px;
		background: var(--hatch-brick);
	}
	.expedite {
		border-top: 4px double var(--ink);
		padding-top: 5px;
	}
</style>
