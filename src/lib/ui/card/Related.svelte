<script lang="ts">
	import type { CardLink, CardPage } from '$core/pages/card';
	import CardPick from '../form/CardPick.svelte';

	interface Props {
		card: CardPage;
		mayEdit: boolean;
		href: (key: string | number) => string;
		/** `part`: it becomes a sub-card of the other one. */
		onlink: (kind: 'blocks' | 'waits' | 'relates' | 'part', to: string) => Promise<boolean>;
		onunlink: (link: CardLink) => void;
		/** Lets the card stand by itself again. */
		onfree: () => void;
	}
	/** What a card is part of, and its links to other cards, on whatever board. */
	let { card, mayEdit, href, onlink, onunlink, onfree }: Props = $props();
	let kind = $state<'blocks' | 'waits' | 'relates' | 'part'>('blocks');

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

	/** How the other card stands, where that says something. */
	const standing = ({ done, archived, blocked, place }: CardLink) =>
		done ? 'done' : archived ? 'archived' : blocked ? `blocked, in ${place}` : `in ${place}`;
</script>

{#if card.parentCard}
	<p class="parent">
		Part of <a href={href(card.parentCard.number)} data-sveltekit-noscroll data-sveltekit-keepfocus
			>{card.parentCard.number}
			{card.parentCard.title}</a
		>
		{#if mayEdit}<button type="button" class="link" onclick={onfree}>Let it stand by itself</button>{/if}
	</p>
{/if}
<h3>Links</h3>
<ul>
	{#each card.links as one, i (i)}
		<li>
			<span class="other"
				>{#if one.key}<a
						href={one.board === card.board
							? href(one.key.replace(/^.*-/, ''))
							: `/boards/${one.board}?card=${one.key}`}
						class:done={one.done}
						data-sveltekit-noscroll
						data-sveltekit-keepfocus
						><em>{words(one)}</em> <b>{one.board === card.board ? one.key.replace(/^.*-/, '') : one.key}</b>
						{one.title}</a
					>{:else}<em>{words(one)}</em> {one.title}{/if}
				<small class:warn={one.comes && one.kind === 'blocks' && !one.done}>{standing(one)}</small></span
			>
			{#if mayEdit && one.key}<button
					type="button"
					class="link"
					aria-label="Take away the link to {one.key.replace(/^.*-/, '')}"
					onclick={() => onunlink(one)}>×</button
				>{/if}
		</li>
	{/each}
</ul>
{#if mayEdit}
	<div class="linking">
		<select bind:value={kind} aria-label="How it is linked">
			<option value="blocks">blocks</option>
			<option value="waits">waits for</option>
			<option value="relates">relates to</option>
			{#if !card.parentCard && !card.children.length}<option value="part">is part of</option>{/if}
		</select>
		<CardPick
			id="link-to"
			label="The other card"
			placeholder="words of its title, or its number"
			board={kind === 'part' ? card.board : undefined}
			but={[card.key]}
			onpick={(other) => onlink(kind, other.key)}
		/>
	</div>
{/if}

<style>
	li {
		display: flex;
		justify-content: space-between;
		gap: 10px;
		padding: 4px 0;
		border-bottom: 1px dotted var(--rule);
		overflow-wrap: anywhere;
	}
	.other {
		min-width: 0;
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
	select {
		min-height: max(34px, var(--touch, 0px));
		padding: 3px 8px;
		border: 1px solid var(--rule);
		border-radius: 3px;
		background: var(--sheet);
		color: var(--ink);
		font: inherit;
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
		min-width: max(24px, var(--touch, 0px));
	}
	li a {
		display: inline-block;
		min-height: var(--touch, auto);
		align-content: center;
	}
</style>
