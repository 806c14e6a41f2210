<script lang="ts">
	import type { Unit } from '$core/pages/board';
	import CardPick from '../form/CardPick.svelte';
	import { amount } from '../words';
	import type { CardPage } from '$core/pages/card';

	interface Props {
		card: CardPage;
		unit: Unit;
		/** The last part of the board’s address. */
		slug: string;
		mayEdit: boolean;
		href: (number: number) => string;
		/** Adds a sub-card with a title; gives whether it was made. */
		onpart: (title: string) => Promise<boolean>;
		/** `part`: it becomes a sub-card of the other one. */
		onlink: (kind: 'blocks' | 'relates' | 'part', to: number) => Promise<boolean>;
		onunlink: (link: CardPage['links'][number]) => void;
		/** Lets the card stand by itself again. */
		onfree: () => void;
	}
	/** What a card is part of, its own parts, and its links to other cards. */
	let { card, unit, slug, mayEdit, href, onpart, onlink, onunlink, onfree }: Props = $props();
	let title = $state('');
	let kind = $state<'blocks' | 'relates' | 'part'>('blocks');

	const words = (link: CardPage['links'][number]) =>
		link.kind === 'blocks'
			? link.comes
				? 'waits for'
				: 'blocks'
			: link.kind === 'split'
				? link.comes
					? 'was split off'
					: 'was split into'
				: 'relates to';

	async function part(event: SubmitEvent) {
		event.preventDefault();
		const text = title.trim();
		if (text && (await onpart(text))) title = '';
	}
	const stop = (event: KeyboardEvent) => event.key !== 'Escape' && event.stopPropagation();
</script>

{#if card.parentCard}
	<p class="parent">
		Part of <a href={href(card.parentCard.number)} data-sveltekit-noscroll data-sveltekit-keepfocus
			>{card.parentCard.number}
			{card.parentCard.title}</a
		>
		{#if mayEdit}<button type="button" class="link" onclick={onfree}>Let it stand by itself</button>{/if}
	</p>
{:else}
	<h3>
		Sub-cards {#if card.children.length}<small
				>{card.children.filter((child) => child.done).length} of {card.children.length} done{unit === 'none'
					? ''
					: `, ${amount(
							card.children.reduce((sum, child) => sum + child.left, 0),
							unit,
						)} left`}</small
			>{/if}
	</h3>
	<ul>
		{#each card.children as child (child.id)}
			<li>
				<a href={href(child.number)} class:done={child.done} data-sveltekit-noscroll data-sveltekit-keepfocus
					><b>{child.number}</b> {child.title}</a
				>
				{#if unit !== 'none'}<span>{child.size === null ? 'not sized' : amount(child.left, unit)}</span>{/if}
			</li>
		{/each}
	</ul>
	{#if mayEdit && !card.archived}
		<form onsubmit={part}>
			<input
				bind:value={title}
				maxlength={300}
				aria-label="A new sub-card"
				placeholder="A new sub-card, then Enter"
				onkeydown={stop}
			/>
		</form>
	{/if}
{/if}
<h3>Links</h3>
<ul>
	{#each card.links as one (`${one.kind}${one.number}${one.comes}`)}
		<li>
			<a href={href(one.number)} class:done={one.done} data-sveltekit-noscroll data-sveltekit-keepfocus
				><em>{words(one)}</em> <b>{one.number}</b> {one.title}</a
			>
			{#if mayEdit}<button
					type="button"
					class="link"
					aria-label="Take away the link to {one.number}"
					onclick={() => onunlink(one)}>×</button
				>{/if}
		</li>
	{/each}
</ul>
{#if mayEdit}
	<div class="linking">
		<select bind:value={kind} aria-label="How it is linked">
			<option value="blocks">blocks</option>
			<option value="relates">relates to</option>
			{#if !card.parentCard && !card.children.length}<option value="part">is part of</option>{/if}
		</select>
		<CardPick
			id="link-to"
			label="The other card"
			placeholder="words of its title, or its number"
			board={slug}
			but={[card.key]}
			onpick={(other) => onlink(kind, Number(other.key.replace(/^.*-/, '')))}
		/>
	</div>
{/if}

<style>
	h3 {
		font-size: 1.05rem;
		margin: 18px 0 5px;
	}
	small {
		font: 400 0.9rem var(--text);
		color: var(--soft);
	}
	ul {
		list-style: none;
		margin: 0;
		padding: 0;
	}
	li {
		display: flex;
		justify-content: space-between;
		gap: 10px;
		padding: 4px 0;
		border-bottom: 1px dotted var(--rule);
		overflow-wrap: anywhere;
	}
	li span {
		white-space: nowrap;
	}
	a {
		text-decoration: none;
	}
	a:hover {
		text-decoration: underline;
	}
	.done {
		color: var(--soft);
		text-decoration: line-through;
	}
	em {
		font-style: normal;
		color: var(--soft);
	}
	.parent {
		margin: 14px 0 0;
	}
	.parent .link {
		margin-left: 8px;
	}
	form {
		margin-top: 6px;
	}
	input,
	select {
		min-height: 34px;
		padding: 3px 8px;
		border: 1px solid var(--rule);
		border-radius: 3px;
		background: var(--sheet);
		color: var(--ink);
		font: inherit;
	}
	select {
		background-image: none;
	}
	form input {
		width: 100%;
	}
	input::placeholder {
		color: var(--faint);
		opacity: 1;
	}
	.linking {
		display: grid;
		grid-template-columns: auto 1fr auto;
		gap: 6px;
	}
	p {
		margin: 2px 0 0;
	}
	li .link {
		min-width: 24px;
	}
	@media (pointer: coarse) {
		li a,
		li .link,
		input,
		select {
			min-height: 44px;
		}
	}
</style>
