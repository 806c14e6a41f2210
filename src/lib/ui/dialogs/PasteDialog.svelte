<script lang="ts">
	import { fsum } from 'd3-array';
	import { Textarea } from 'flowbite-svelte';
	import { readPaste, type PastedCard } from '$core/backlog/paste';
	import type { Unit } from '$core/pages/board';
	import { amount, count } from '../words';
	import Dialog from './Dialog.svelte';

	interface Props {
		text: string;
		unit: Unit;
		onadd: (cards: PastedCard[]) => void;
		onclose: () => void;
	}
	let { text: given, unit, onadd, onclose }: Props = $props();
	// svelte-ignore state_referenced_locally
	let text = $state(given);
	const cards = $derived(readPaste(text, unit));
	const all = $derived(fsum(cards, (card) => 1 + card.children.length));
	const long = $derived(
		cards.flatMap((card) => [card, ...card.children]).find((card) => card.title.length > 300),
	);
	const problem = $derived(
		all > 1000
			? `At most 1,000 cards can be made at once; these are ${all}.`
			: long
				? `“${long.title.slice(0, 40)}…” is longer than 300 characters.`
				: '',
	);
</script>

<Dialog title="Add {count(all, 'card')} from lines" wide {onclose}>
	<div class="two">
		<div>
			<label for="paste-lines">Lines</label>
			<Textarea id="paste-lines" bind:value={text} rows={14} class="w-full text-base" />
		</div>
		<div>
			<h3>What is made of them</h3>
			<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
			<ul class="made" tabindex="0" aria-label="What is made of them">
				{#each cards as card, i (i)}
					{@render one(card)}
					{#each card.children as child, j (j)}<li class="part">{@render inside(child)}</li>{/each}
				{:else}<li>Nothing yet: every line is a card.</li>{/each}
			</ul>
		</div>
	</div>
	<p class="soft">
		An indented line is a sub-card of the line above. A line such as “- [ ] call the harbour” is a checklist
		line.
		{#if unit !== 'none'}A size such as “{unit === 'hours' ? '8h' : '5 pt'}” may end a line.{/if}
	</p>
	<p class="warn" role="alert">{problem}</p>
	<div class="dialog-foot">
		<button type="button" class="plain" onclick={onclose}>Leave it</button>
		<button type="button" class="go" disabled={!all || Boolean(problem)} onclick={() => onadd(cards)}
			>Add {count(all, 'card')}</button
		>
	</div>
</Dialog>

{#snippet one(card: PastedCard)}<li>{@render inside(card)}</li>{/snippet}
{#snippet inside(card: Omit<PastedCard, 'children'>)}
	<span class="title">{card.title}</span>
	{#if card.size !== null}<b>{amount(card.size, unit)}</b>{/if}
	{#if card.checklist.length}<small>{count(card.checklist.length, 'checklist line')}</small>{/if}
{/snippet}

<style>
	.two {
		display: grid;
		grid-template-columns: 1fr 1fr;
		gap: 14px;
	}
	label,
	h3 {
		font: 600 0.95rem var(--text);
	}
	.made {
		list-style: none;
		margin: 0;
		padding: 0;
		max-height: 320px;
		overflow-y: auto;
	}
	li {
		display: flex;
		flex-wrap: wrap;
		gap: 2px 8px;
		padding: 4px 0;
		border-bottom: 1px dotted var(--rule);
	}
	.part {
		padding-left: 20px;
	}
	.title {
		flex: 1;
		min-width: 0;
		overflow-wrap: anywhere;
	}
	small {
		color: var(--soft);
	}
	p {
		margin: 8px 0 0;
	}
	@media (max-width: 700px) {
		.two {
			grid-template-columns: 1fr;
		}
	}
</style>
