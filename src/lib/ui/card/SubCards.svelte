<script lang="ts">
	import { fsum } from 'd3-array';
	import type { BoardHead, PersonView } from '$core/pages/board';
	import type { SubCard } from '$core/pages/card';
	import NameTag from '../board/NameTag.svelte';
	import { amount, figure } from '../words';

	interface Props {
		cards: readonly SubCard[];
		head: BoardHead;
		mayEdit: boolean;
		/** More of them can be added. */
		mayAdd: boolean;
		href: (number: number) => string;
		/** Adds a sub-card with a title; gives whether it was made. */
		onpart: (title: string) => Promise<boolean>;
		onmove: (card: SubCard, column: string | null) => void;
		onleft: (card: SubCard, left: number) => void;
		onowners: (card: SubCard) => void;
	}
	/** What a card is made up of: each part with its place, what is left and who has it, changed where it stands. */
	let { cards, head, mayEdit, mayAdd, href, onpart, onmove, onleft, onowners }: Props = $props();
	let title = $state('');
	const people = $derived(
		new Map<string, PersonView & { seed: number }>(
			head.people.map((person, seed) => [person.id, { ...person, seed }]),
		),
	);
	const left = $derived(fsum(cards, (card) => card.left));

	async function part(event: SubmitEvent) {
		event.preventDefault();
		const text = title.trim();
		if (text && (await onpart(text))) title = '';
	}
	function correct(card: SubCard, input: HTMLInputElement): void {
		const text = input.value.trim().replace(',', '.');
		const typed = Number(text);
		if (!text || !(typed >= 0) || typed > 9999) return void (input.value = shown(card));
		if (text !== shown(card)) onleft(card, typed);
	}
	const shown = (card: SubCard) => (card.size === null && !card.left ? '' : figure(card.left, 2));
	const stop = (event: KeyboardEvent) => event.key !== 'Escape' && event.stopPropagation();
</script>

<h3>
	Sub-cards {#if cards.length}<small
			>{cards.filter((card) => card.done).length} of {cards.length} done{head.unit === 'none'
				? ''
				: `, ${amount(left, head.unit)} left`}</small
		>{/if}
</h3>
<ul>
	{#each cards as card (card.id)}
		<li>
			<a href={href(card.number)} class:done={card.done} data-sveltekit-noscroll data-sveltekit-keepfocus
				><b>{card.number}</b> {card.title}</a
			>
			<span class="in-place">
				{#if mayEdit}
					<select
						aria-label="{card.number} stands in"
						value={card.column ?? ''}
						onchange={(event) => onmove(card, event.currentTarget.value || null)}
					>
						<option value="">the backlog</option>
						{#each head.columns as column (column.id)}<option value={column.id}>{column.name}</option>{/each}
					</select>
					{#if head.unit !== 'none'}<label
							><input
								value={shown(card)}
								inputmode="decimal"
								aria-label="{card.number}: left"
								placeholder="not sized"
								disabled={card.done}
								onblur={(event) => correct(card, event.currentTarget)}
								onkeydown={(event) => {
									stop(event);
									if (event.key === 'Enter') event.currentTarget.blur();
								}}
							/>
							{head.unit === 'hours' ? 'h' : 'pt'} left</label
						>{/if}
					<button type="button" class="link" onclick={() => onowners(card)}
						><span class="sr-only">Owners of {card.number}:</span>
						{#each card.owners as owner (owner)}{@const person = people.get(owner)}{#if person}<NameTag
									{person}
									seed={person.seed}
								/>{/if}{:else}nobody{/each}</button
					>
				{:else}
					{head.columns.find(({ id }) => id === card.column)?.name ??
						'the backlog'}{#if head.unit !== 'none'},
						{card.size === null ? 'not sized' : `${amount(card.left, head.unit)} left`}{/if}
				{/if}
			</span>
		</li>
	{/each}
</ul>
{#if mayAdd}
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

<style>
	li {
		padding: 4px 0;
		border-bottom: 1px dotted var(--rule);
		overflow-wrap: anywhere;
	}
	a {
		display: block;
		min-height: max(24px, var(--touch, 0px));
		text-decoration: none;
	}
	a:hover {
		text-decoration: underline;
	}
	.done {
		color: var(--soft);
		text-decoration: line-through;
	}
	.in-place {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 2px 12px;
		font-size: 0.9rem;
		color: var(--soft);
	}
	.in-place select,
	.in-place input {
		border: 0;
		border-bottom: 1px solid var(--rule);
		border-radius: 0;
		background-color: transparent;
		color: var(--ink);
		font: inherit;
		min-height: max(26px, var(--touch, 0px));
		padding: 1px 18px 1px 0;
	}
	.in-place input {
		width: 62px;
		padding: 1px 4px;
		text-align: right;
	}
	.in-place .link {
		display: inline-flex;
		gap: 3px;
		align-items: center;
		min-height: max(26px, var(--touch, 0px));
	}
	form {
		margin-top: 6px;
	}
	form input {
		width: 100%;
		min-height: max(34px, var(--touch, 0px));
		padding: 3px 8px;
		border: 1px solid var(--rule);
		border-radius: 3px;
		background: var(--sheet);
		color: var(--ink);
		font: inherit;
	}
	input::placeholder {
		color: var(--faint);
		opacity: 1;
	}
</style>
