<script lang="ts">
	import type { Field } from '$core/board/field';
	import type { CardView, Face, FaceMore, PersonView, Unit } from '$core/pages/board';
	import type { Expectation } from '$core/flow/expectation';
	import type { Day } from '$core/calendar/zone';
	import {
		amount,
		blockedWords,
		count,
		dateWords,
		dayOf,
		daysSince,
		dueWords,
		figure,
		momentWords,
	} from '../words';
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
		face: Face;
		/** Of these fields those that stand on it by their name. */
		plain: readonly Field[];
		/** What was asked for because the face wants it. */
		more?: FaceMore;
		/** Of a moment of the past: where it stands now, where that is elsewhere. */
		went?: string;
	}
	let {
		card,
		people,
		unit,
		timeZone,
		today,
		expectation,
		carried = 0,
		face,
		plain,
		more,
		went,
	}: Props = $props();
	const wants = (id: string) => face.fields.includes(id);

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
	/** A description as it reads without its marks. */
	const plainText = (text: string) =>
		text
			.replace(/!?\[([^\]]*)\]\([^)]*\)/g, '$1')
			.replace(/[*_`#>|~-]+/g, ' ')
			.replace(/\s+/g, ' ')
			.trim();
</script>

<span
	class="card"
	class:blocked={card.blocked}
	class:expedite={card.class === 'expedite'}
	class:background={card.class === 'background'}
	class:hidden={card.hidden}
	class:compact={face.spacing === 'compact'}
	class:roomy={face.spacing === 'roomy'}
>
	{#if card.picture && wants('picture')}<img
			src="/api/files/{card.picture}"
			alt=""
			loading="lazy"
			decoding="async"
			draggable="false"
		/>{/if}
	<span class="top">
		<span class="number">{card.number}</span>
		{#if card.class === 'expedite'}<span class="class">Expedite</span>{/if}
		{#if went}<span class="went" title="Now in {went}">→ {went}</span>{/if}
		{#if card.private}<span class="private">private</span>{/if}
		{#if due && (wants('due') || due.tone)}<span class={due.tone}>{due.text}</span>{/if}
	</span>
	<span class="title">{card.title}</span>
	{#if card.blocked}<span class="why">{blockedWords(card.blocked)}, {count(blockedDays, 'day')}</span>{/if}
	{#if card.waits.length && wants('waits')}<span class="waits">waits for {card.waits.join(', ')}</span>{/if}
	{#if wants('description') && more?.description}<span class="description">{plainText(more.description)}</span
		>{/if}
	{#each plain as field (field.id)}{@const text = field.text(card)}{#if text}<span class="said"
				><i>{field.name}</i> {field.day ? dateWords(text) : text}</span
			>{/if}{/each}
	<span class="foot">
		{#each card.owners as owner (owner)}{@const person = people.get(owner)}{#if person}<NameTag
					{person}
					seed={person.seed}
				/>{/if}{/each}
		{#if unit !== 'none' && wants('left')}<span class:unsized={card.size === null && !card.parts}>{left}</span
			>{/if}
		{#if card.checks && wants('checks')}<span>{card.checks.done}/{card.checks.lines} ticked</span>{/if}
		{#if card.files && wants('files')}<span>{count(card.files, 'file')}</span>{/if}
		{#if carried && wants('carried')}<span class="care">carried ×{carried}</span>{/if}
		{#if card.unplanned && card.class !== 'expedite'}<span>unplanned</span>{/if}
	</span>
	{#if wants('changed') && more?.at}<span class="said"
			>{more.by ?? 'Someone'}, {momentWords(more.at, timeZone)}</span
		>{/if}
	{#if age !== null}<AgeLine days={age} {expectation} />{/if}
</span>

<style>
	.card {
		position: relative;
		display: block;
		min-height: var(--touch, auto);
		background: var(--sheet);
		border: 1px solid var(--rule);
		border-radius: 3px;
		padding: 7px 9px 8px;
		box-shadow: 0 1px 0 #0000000d;
		overflow-wrap: anywhere;
	}
	.compact {
		padding: 3px 7px 5px;
	}
	.compact .foot {
		margin-top: 2px;
	}
	.roomy {
		padding: 11px 13px 13px;
	}
	.roomy .foot {
		margin-top: 10px;
	}
	.hidden .title {
		color: var(--faint);
		font-style: italic;
	}
	.went {
		color: var(--river);
	}
	.private {
		color: var(--plum);
	}
	img {
		display: block;
		width: 100%;
		max-height: 130px;
		object-fit: cover;
		border-radius: 2px;
		margin-bottom: 6px;
	}
	.waits,
	.description,
	.said {
		display: block;
		margin-top: 3px;
		font-size: 0.9rem;
		color: var(--soft);
	}
	.waits {
		color: var(--ochre);
	}
	.description {
		display: -webkit-box;
		-webkit-line-clamp: 3;
		line-clamp: 3;
		-webkit-box-orient: vertical;
		overflow: hidden;
	}
	.said i {
		font-style: normal;
		color: var(--faint);
	}
	.top {
		display: flex;
		flex-wrap: wrap;
		gap: 0 8px;
		font-weight: 600;
		font-size: 12px;
		color: var(--faint);
	}
	.number {
		flex: 1;
		white-space: nowrap;
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
