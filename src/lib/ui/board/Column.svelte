<script lang="ts">
	import { tick, untrack, type Snippet } from 'svelte';
	import type { CardView, ColumnView } from '$core/pages/board';
	import AddCard from './AddCard.svelte';
	import Slots from './Slots.svelte';
	import { Windowed } from './windowed.svelte';

	interface Props {
		column: ColumnView;
		/** What is shown: the cards that pass the filter. */
		cards: CardView[];
		/** How many cards stand there, filtered or not. */
		standing: number;
		through: string | null;
		note: string;
		tabbable: string | null;
		drop: { below: string | null } | null;
		renaming: string | null;
		adding: { below: string | null | undefined } | null;
		mayChange: boolean;
		mayEdit: boolean;
		card: Snippet<[CardView]>;
		done: Snippet<[CardView[]]>;
		rename: Snippet<[CardView]>;
		open: (card: CardView) => string;
		onadd: () => void;
		onadded: (title: string) => Promise<boolean>;
		onaddend: () => void;
		onsettings: () => void;
		/** It is called otherwise; false when that was refused. */
		oncalled: (name: string) => Promise<boolean>;
	}
	let props: Props = $props();
	const { column, cards, standing } = $derived(props);

	/** Short lists are laid out by the page; of long ones only what is seen is drawn. */
	const LONG = 60;
	const long = $derived(cards.length > LONG && column.kind !== 'done');
	const twoAbreast = $derived(column.kind === 'work');

	/** Where nothing in it can be come to with Tab, the list itself can, so that keys scroll it. */
	const scrollsByKey = $derived(column.kind === 'done' || !props.mayEdit);

	/** Whether its name is being typed. */
	let naming = $state(false);
	async function call(input: HTMLInputElement): Promise<void> {
		const name = input.value.trim();
		if (!naming) return;
		if (!name || name === column.name || (await props.oncalled(name))) naming = false;
		else input.select();
	}
	const take = (input: HTMLInputElement) => input.select();

	let body = $state<HTMLElement>();
	let wide = $state(true);
	const windowed = new Windowed();
	const focused = $derived(props.tabbable ? cards.findIndex((card) => card.id === props.tabbable) : -1);

	$effect(() => {
		if (!long || !body) return;
		return untrack(() => windowed.mount(body!));
	});
	$effect(() => {
		if (!long || !body) return;
		const shown = cards;
		windowed.update(
			shown.length,
			twoAbreast && wide ? 2 : 1,
			(i) => shown[i]?.id ?? String(i),
			focused < 0 ? null : focused,
		);
	});
	$effect(() => {
		if (!body) return;
		const seen = new ResizeObserver(([entry]) => (wide = entry!.contentRect.width > 260));
		seen.observe(body);
		return () => seen.disconnect();
	});

	/** Puts the focus on a card, drawing it first where it is out of sight. */
	export async function focusCard(id: string): Promise<void> {
		const index = cards.findIndex((card) => card.id === id);
		if (index < 0) return;
		if (long) windowed.reveal(index);
		await tick();
		const find = () => body?.querySelector<HTMLElement>(`[data-card="${id}"] a`);
		find()?.focus({ preventScroll: long });
		find()?.scrollIntoView({ block: 'nearest', inline: 'nearest' });
	}

	export function scrollBy(pixels: number): void {
		body?.scrollBy(0, pixels);
	}
</script>

{#snippet item(card: CardView)}
	{#if props.renaming === card.id}
		{@render props.rename(card)}
	{:else}
		<a
			href={props.open(card)}
			data-sveltekit-noscroll
			data-sveltekit-keepfocus
			draggable="false"
			tabindex={props.tabbable === card.id ? 0 : -1}
			aria-describedby="board-keys"
		>
			{@render props.card(card)}
		</a>
		{#if props.mayEdit}<span class="grip" aria-hidden="true">⠿</span>{/if}
	{/if}
{/snippet}

<section
	class="column {column.kind}"
	class:commitment={column.commitment}
	data-column={column.id}
	aria-labelledby="column-{column.id}"
>
	<header>
		{#if naming}<input
				class="naming"
				aria-label="Name of {column.name}"
				maxlength="40"
				value={column.name}
				{@attach take}
				onblur={(event) => void call(event.currentTarget)}
				onkeydown={(event) => {
					event.stopPropagation();
					if (event.key === 'Enter') event.currentTarget.blur();
					if (event.key === 'Escape') naming = false;
				}}
			/>{/if}
		<h2 id="column-{column.id}" class:sr-only={naming} ondblclick={() => (naming = props.mayChange)}>
			{column.name}
		</h2>
		{#if column.limit !== null}<Slots limit={column.limit} {standing} />{/if}
		<small>{props.note}</small>
		{#if props.mayChange}
			<button
				type="button"
				class="settings"
				onclick={props.onsettings}
				onkeydown={(event) => {
					if (event.key !== 'F2') return;
					event.preventDefault();
					naming = true;
				}}
				aria-label="Limit and policy of {column.name}"
				title="Limit and policy; F2 renames it">⋯</button
			>
		{/if}
	</header>
	{#if props.through}<p class="through">let through: {props.through}</p>{/if}
	{#if column.policy}<p class="policy" title={column.policy}>{column.policy}</p>{/if}
	<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
	<div
		class="body"
		bind:this={body}
		tabindex={cards.length ? (scrollsByKey ? 0 : undefined) : -1}
		aria-label={cards.length ? `Cards in ${column.name}` : `${column.name} is empty`}
		role="group"
	>
		{#if props.drop && props.drop.below === null}<div class="line"></div>{/if}
		{#if props.adding && props.adding.below === null}<AddCard
				onadd={props.onadded}
				onend={props.onaddend}
			/>{/if}
		{#if column.kind === 'done'}
			{@render props.done(cards)}
		{:else if long}
			<ul class="cards" style:height="{windowed.height}px">
				{#each windowed.items as place (place.key)}
					{@const card = cards[place.index]}
					{#if card}
						<li
							data-card={card.id}
							data-index={place.index}
							aria-posinset={place.index + 1}
							aria-setsize={cards.length}
							class="placed"
							class:half={twoAbreast && wide}
							class:marked={props.drop?.below === card.id}
							style:transform="translateY({place.start}px)"
							style:left={place.lane ? 'calc(50% + 4px)' : '0'}
							{@attach windowed.measure}
						>
							{@render item(card)}
						</li>
					{/if}
				{/each}
			</ul>
		{:else}
			<ul class="cards" class:two={twoAbreast && wide}>
				{#each cards as card, i (card.id)}
					<li
						data-card={card.id}
						aria-posinset={i + 1}
						aria-setsize={cards.length}
						class:marked={props.drop?.below === card.id}
					>
						{@render item(card)}
						{#if props.adding?.below === card.id}<AddCard onadd={props.onadded} onend={props.onaddend} />{/if}
					</li>
				{/each}
			</ul>
		{/if}
		{#if props.adding && (props.adding.below === undefined || (long && props.adding.below))}
			<AddCard onadd={props.onadded} onend={props.onaddend} />
		{:else if column.kind !== 'done' && props.mayEdit}
			<button type="button" class="add" onclick={props.onadd}>Add a card</button>
		{/if}
	</div>
</section>

<style>
	.naming {
		flex: 1;
		min-width: 60px;
		font: 650 1.1rem var(--display);
		color: var(--ink);
		background: var(--sheet);
		border: 0;
		border-bottom: 2px solid var(--moss);
		padding: 0 2px;
	}
	.column {
		display: flex;
		flex-direction: column;
		min-width: 0;
		min-height: 0;
		padding: 4px 0 0 10px;
		border-left: 1px solid var(--rule);
	}
	.queue {
		border-left: 1px dashed var(--faint);
	}
	.column:first-child {
		border-left: 0;
		padding-left: 0;
	}
	header {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 2px 8px;
		padding-right: 34px;
		position: relative;
	}
	h2 {
		font-size: 1.1rem;
		overflow-wrap: anywhere;
	}
	small {
		font-size: 12px;
		color: var(--faint);
	}
	.settings {
		border: 0;
		background: none;
		color: var(--soft);
		font-weight: 700;
		min-width: 24px;
		min-height: 24px;
		padding: 0 4px;
		position: absolute;
		top: -1px;
		right: 8px;
	}
	.through,
	.policy {
		margin: 2px 10px 0 0;
		font-size: 12px;
		color: var(--faint);
	}
	.through {
		color: var(--brick);
	}
	.policy {
		display: -webkit-box;
		-webkit-line-clamp: 2;
		line-clamp: 2;
		-webkit-box-orient: vertical;
		overflow: hidden;
	}
	.body {
		position: relative;
		flex: 1;
		min-height: 120px;
		margin-top: 8px;
		padding: 2px 8px 20px 2px;
		margin-left: -2px;
		overflow-y: auto;
		overscroll-behavior: contain;
	}
	.cards {
		position: relative;
		list-style: none;
		margin: 0;
		padding: 0;
		display: grid;
		gap: 8px;
	}
	.two {
		grid-template-columns: 1fr 1fr;
		align-items: start;
	}
	li {
		position: relative;
		min-width: 0;
	}
	.placed {
		position: absolute;
		top: 0;
		width: 100%;
	}
	.half {
		width: calc(50% - 4px);
	}
	a {
		display: block;
		text-decoration: none;
		-webkit-user-drag: none;
		user-select: none;
	}
	a:hover :global(.card) {
		border-color: var(--edge);
	}
	.grip {
		display: none;
	}
	.line,
	.marked::after {
		height: 3px;
		border-radius: 2px;
		background: var(--river);
	}
	.line {
		margin-bottom: 5px;
	}
	.marked::after {
		content: '';
		position: absolute;
		inset: auto 0 -6px;
		z-index: 2;
	}
	.add {
		width: 100%;
		margin-top: 8px;
		padding: 6px;
		border: 1px dashed transparent;
		border-radius: 3px;
		background: none;
		color: var(--soft);
		text-align: left;
	}
	.add:hover,
	.add:focus-visible {
		border-color: var(--edge);
		color: var(--moss);
	}
	@media (pointer: coarse) {
		.add {
			min-height: 44px;
		}
		header {
			min-height: 44px;
			padding-right: 52px;
		}
		.settings {
			min-width: 44px;
			min-height: 44px;
		}
		.grip {
			position: absolute;
			display: grid;
			place-items: end;
			right: 0;
			bottom: 0;
			width: 44px;
			height: 44px;
			padding: 8px;
			color: var(--faint);
			touch-action: none;
		}
	}
	@media (max-width: 700px) {
		.column,
		.column:first-child {
			border-left: 0;
			padding: 4px 6px 0 14px;
		}
	}
</style>
