<script lang="ts">
	import { count } from '../words';

	interface Props {
		title: string;
		cards: string[];
		titles: Record<string, string>;
		took: ReadonlyMap<string, number>;
		open: (key: string) => string;
		onclose: () => void;
	}
	/** The cards behind a figure. */
	let { title, cards, titles, took, open, onclose }: Props = $props();
	const take = (element: HTMLElement) => element.focus();
</script>

<section aria-label="Cards behind the figure">
	<div class="top">
		<h2 tabindex="-1" {@attach take}>{title}</h2>
		<button type="button" class="plain" onclick={onclose}>Close</button>
	</div>
	<p>{count(cards.length, 'card')}</p>
	<ul>
		{#each cards as card (card)}
			<li>
				<a href={open(card)} data-sveltekit-noscroll data-sveltekit-keepfocus
					><b>{card}</b> {titles[card] ?? ''}</a
				>
				{#if took.has(card)}<small>{count(took.get(card)!, 'day')}</small>{/if}
			</li>
		{/each}
	</ul>
</section>

<style>
	section {
		background: var(--sheet);
		border: 1px solid var(--edge);
		border-radius: 4px;
		padding: 8px 12px;
		margin-bottom: 14px;
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
		margin: 0;
		color: var(--soft);
	}
	ul {
		list-style: none;
		margin: 4px 0 0;
		padding: 0;
		max-height: 420px;
		overflow: auto;
	}
	li {
		display: flex;
		justify-content: space-between;
		gap: 10px;
		padding: 5px 0;
		border-top: 1px dotted var(--rule);
	}
	a {
		text-decoration: none;
		min-height: 24px;
	}
	a:hover {
		color: var(--moss);
	}
	b {
		color: var(--soft);
		font-weight: 600;
	}
	small {
		white-space: nowrap;
		color: var(--soft);
		font-size: 0.93rem;
	}
	@media (pointer: coarse) {
		a {
			min-height: 44px;
		}
	}
</style>
