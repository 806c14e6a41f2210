<script lang="ts">
	import { fsum } from 'd3-array';
	import type { Unit } from '$core/pages/board';
	import Gradual from '../frame/Gradual.svelte';
	import { amount, count } from '../words';

	interface Behind {
		card: string;
		amount: number | null;
		note?: string;
	}
	interface Props {
		title: string;
		/** Cards by their keys, with what each has of the figure; null where there is nothing to say. */
		cards: readonly Behind[];
		titles: Record<string, string>;
		/** What the amounts are in; left out where there are none. */
		unit?: Unit;
		/** Where more of it is to be seen. */
		link?: { href: string; words: string };
		open: (key: string) => string;
		onclose: () => void;
	}
	/** The cards behind a figure. */
	let { title, cards, titles, unit = 'none', link, open, onclose }: Props = $props();
	const take = (element: HTMLElement) => element.focus();
	const sum = $derived(fsum(cards, (card) => card.amount ?? 0));
	const summed = $derived(cards.some((card) => card.amount !== null));
</script>

{#snippet row({ card, amount: part, note = '' }: Behind)}
	<li>
		<a href={open(card)} data-sveltekit-noscroll data-sveltekit-keepfocus
			><b>{card}</b> {titles[card] ?? ''}</a
		>
		<small>{[note, part === null ? '' : amount(part, unit)].filter(Boolean).join(' · ')}</small>
	</li>
{/snippet}
<section aria-label="Cards behind the figure">
	<div class="top">
		<h2 tabindex="-1" {@attach take}>{title}</h2>
		<button type="button" class="plain" onclick={onclose}>Close</button>
	</div>
	<p>{count(cards.length, 'card')}{summed ? `, ${amount(sum, unit)}` : ''}</p>
	{#if link}<p><a class="link" href={link.href}>{link.words}</a></p>{/if}
	<ul class="amounts">
		<Gradual list={cards} key={(one) => one.card} {row} as="li" px={32} />
	</ul>
</section>

<style>
	section {
		background: var(--sheet);
		border: 1px solid var(--edge);
		border-radius: 4px;
		padding: 8px 14px;
	}
	.top {
		display: flex;
		justify-content: space-between;
		align-items: center;
		gap: 10px;
	}
	h2 {
		font-size: 1.05rem;
	}
	p {
		color: var(--soft);
	}
	ul {
		margin: 4px 0 0;
		max-height: 340px;
		overflow: auto;
	}
	small {
		white-space: nowrap;
		color: var(--soft);
		font-size: 0.93rem;
	}
</style>
