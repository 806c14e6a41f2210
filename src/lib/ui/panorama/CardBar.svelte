<script lang="ts">
	import { dayText } from '$core/calendar/days';
	import { spanOf } from '$core/dates/follow';
	import type { PanoramaPage, TimelineCard } from '$core/pages/panorama';
	import { datesOf } from '$core/panorama/rows';
	import { shortDate } from '../words';
	import type { Moving } from './moving.svelte';
	import type { Lie } from './scale';
	import { besideBar, cardWords } from './words';

	interface Props {
		page: PanoramaPage;
		card: TimelineCard;
		/** Its place among the cards of the page, and that of its row. */
		place: number;
		at: number;
		lie: Lie;
		moving: Moving;
		tabbable: boolean;
		onfocus: () => void;
	}
	/** The bar of a card of a timeline, and as an outline where it would come to lie. */
	let { page, card, place, at, lie, moving, tabbable, onfocus }: Props = $props();
	const span = $derived(spanOf(datesOf(card))!);
	const would = $derived(moving.would.get(place));
	const address = $derived(
		`/boards/${page.boards.find(({ id }) => id === card.board)?.slug ?? ''}?card=${card.number}`,
	);
	function onclickcapture(event: MouseEvent): void {
		if (!moving.dragged) return;
		event.preventDefault();
		event.stopPropagation();
	}
</script>

<a
	class="bar reach {card.clock}"
	class:unowned={!card.owners.length && card.clock === 'none'}
	class:held={moving.held !== null}
	class:taken={moving.held?.at === place}
	href={address}
	data-row={at}
	data-card={card.id}
	draggable="false"
	tabindex={tabbable ? 0 : -1}
	style:left="{lie.left(span.start)}px"
	style:width="{lie.wide(span.start, span.end)}px"
	aria-label={cardWords(page, card)}
	{onfocus}
	{onclickcapture}
></a>
<span class="beside" aria-hidden="true" style:left="{lie.left(span.end + 1) + 12}px"
	>{besideBar(page, card)}</span
>
{#if would}
	{@const to = spanOf(would)!}
	<i class="ghost" style:left="{lie.left(to.start)}px" style:width="{lie.wide(to.start, to.end)}px"></i>
	<span class="to" style:left="{lie.left(to.end + 1) + 6}px">{shortDate(dayText(to.end))}</span>
{/if}

<style>
	.beside,
	.to {
		position: absolute;
		white-space: nowrap;
		font-size: 0.9rem;
	}
	.bar {
		position: absolute;
		top: calc(50% - 9.5px);
		height: 18px;
		background: var(--river-2);
		border: 1.2px solid var(--river);
		touch-action: none;
		z-index: 1;
		cursor: grab;
	}
	.running {
		background: var(--sheet);
		border: 1.6px solid var(--ink);
	}
	.done {
		background: var(--moss);
		border-color: var(--moss);
	}
	.unowned {
		background: repeating-linear-gradient(135deg, var(--edge) 0 1.5px, var(--sunk) 1.5px 6px);
		border-color: var(--edge);
	}
	.taken {
		opacity: 0.55;
	}
	.held {
		cursor: grabbing;
	}
	.beside {
		top: calc(50% - 9.5px);
		color: var(--soft);
	}
	.ghost {
		position: absolute;
		top: calc(50% - 9.5px);
		height: 18px;
		border: 2px dashed var(--plum);
		z-index: 1;
		pointer-events: none;
	}
	.to {
		top: calc(50% - 9.5px);
		padding: 0 3px;
		background: var(--paper);
		color: var(--plum);
		font-weight: 650;
		z-index: 1;
	}
</style>
