<script lang="ts">
	import { tick, untrack, type Snippet } from 'svelte';
	import type { CardView, ColumnView } from '$core/pages/board';
	import AddCard from './AddCard.svelte';
	import { whenNear } from './near';
	import { Windowed } from './windowed.svelte';

	interface Props {
		column: ColumnView;
		/** The lane across whose columns it is one of; left out where a board has no lanes. */
		lane?: { key: string; name: string };
		/** What is shown: the cards that pass the filter. */
		cards: CardView[];
		tabbable: string | null;
		/** The board shows so many cards that only those near what is seen are drawn. */
		many: boolean;
		/** It is among those that are seen first. */
		first: boolean;
		/** Cards that are picked. */
		picked: ReadonlySet<string>;
		drop: { below: string | null } | null;
		renaming: string | null;
		adding: { below: string | null | undefined } | null;
		mayEdit: boolean;
		mayAdd: boolean;
		card: Snippet<[CardView]>;
		/** What stands below its face. */
		below?: Snippet<[CardView]>;
		done: Snippet<[CardView[]]>;
		rename: Snippet<[CardView]>;
		open: (card: CardView) => string;
		onadd: () => void;
		onadded: (title: string) => Promise<boolean>;
		onaddend: () => void;
	}
	/** The cards of a column, or of a lane within it. */
	let props: Props = $props();
	const { column, cards } = $derived(props);
	const inLane = $derived(props.lane !== undefined);
	const where = $derived(`${column.name}${props.lane ? `, ${props.lane.name}` : ''}`);

	/** Short lists are laid out by the page; of long ones only what is seen is drawn. */
	const LONG = 60;
	const done = $derived(column.kind === 'done');
	const long = $derived(cards.length > LONG && !done);
	const twoAbreast = $derived(column.kind === 'work');

	/** Where nothing in it can be come to with Tab, the list itself can, so that keys scroll it. */
	const scrollsByKey = $derived(done || !props.mayEdit);

	let body = $state<HTMLElement>();
	let wide = $state(true);
	const windowed = new Windowed();
	const focused = $derived(props.tabbable ? cards.findIndex((card) => card.id === props.tabbable) : -1);

	$effect(() => {
		if (!long || !body) return;
		let unmount: (() => void) | undefined;
		const mount = () => (unmount = windowed.mount(body!));
		const leave = untrack(() => (props.many ? whenNear(body!, mount) : void mount()));
		return () => {
			leave?.();
			unmount?.();
		};
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
		if (!long || !body) return;
		const seen = new ResizeObserver(([entry]) => (wide = entry!.contentRect.width > 260));
		seen.observe(body);
		return () => seen.disconnect();
	});

	/** Of many cards the first ones are drawn, and more of them each time that their end comes near. */
	const HANDFUL = 6;
	const cardPx = $derived(done ? 27 : 110);
	// Before the page is awake what stands on top is drawn, without knowing how much of it is seen.
	const asleep = typeof document === 'undefined' || !document.documentElement.dataset.awake;
	let near = $state(untrack(() => props.first) && asleep ? HANDFUL : 0);
	const atFirst = $derived(done ? LONG : props.many && !long ? 0 : cards.length);
	const drawn = $derived(cards.slice(0, Math.max(atFirst, near, focused + 1)));
	const more = () => (near = Math.max(HANDFUL, drawn.length * 2));

	/** Puts the focus on a card, drawing it first where it is out of sight. */
	export async function focusCard(id: string): Promise<void> {
		const index = cards.findIndex((card) => card.id === id);
		if (index < 0) return;
		if (long) windowed.reveal(index);
		else near = Math.max(near, index + 1);
		await tick();
		const find = () => body?.querySelector<HTMLElement>(`[data-card="${id}"] a`);
		find()?.focus({ preventScroll: long });
		find()?.scrollIntoView({ block: 'nearest', inline: 'nearest' });
	}

	export function scrollBy(pixels: number): void {
		body?.scrollBy(0, pixels);
	}
</script>

{#snippet rest()}
	{#if drawn.length < cards.length}
		{#key drawn.length}<svelte:element
				this={done ? 'div' : 'li'}
				class="to-come"
				aria-hidden="true"
				style:height="{(cards.length - drawn.length) * cardPx}px"
				{@attach (element: Element) => whenNear(element, more)}
			></svelte:element>{/key}
	{/if}
{/snippet}
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
		{@render props.below?.(card)}
		{#if props.mayEdit}<span class="grip" aria-hidden="true">⠿</span>{/if}
	{/if}
{/snippet}

<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
<div
	class="body"
	class:lane={inLane}
	class:long
	data-column={column.id}
	data-lane={props.lane?.key}
	bind:this={body}
	tabindex={cards.length ? (scrollsByKey ? 0 : undefined) : -1}
	aria-label={cards.length ? `Cards in ${where}` : `${where} is empty`}
	role="group"
>
	{#if props.drop && props.drop.below === null}<div class="line"></div>{/if}
	{#if props.adding && props.adding.below === null}<AddCard
			onadd={props.onadded}
			onend={props.onaddend}
		/>{/if}
	{#if done}
		{@render props.done(drawn)}
		{@render rest()}
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
						class:picked={props.picked.has(card.id)}
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
		<ul class="cards" class:two={twoAbreast}>
			{#each drawn as card, i (card.id)}
				<li
					data-card={card.id}
					aria-posinset={i + 1}
					aria-setsize={cards.length}
					class:marked={props.drop?.below === card.id}
					class:picked={props.picked.has(card.id)}
				>
					{@render item(card)}
					{#if props.adding?.below === card.id}<AddCard onadd={props.onadded} onend={props.onaddend} />{/if}
				</li>
			{/each}
			{@render rest()}
		</ul>
	{/if}
	{#if props.adding && (props.adding.below === undefined || (long && props.adding.below))}
		<AddCard onadd={props.onadded} onend={props.onaddend} />
	{:else if !done && props.mayAdd}
		<button type="button" class="add" onclick={props.onadd}>Add a card</button>
	{/if}
</div>

<style>
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
	/* Lanes scroll together: only what is long scrolls in its own cell. */
	.body.lane {
		flex: 1;
		min-height: 54px;
		margin: 0;
		padding: 6px 8px 6px 2px;
		overflow: visible;
	}
	.body.lane.long {
		max-height: 60vh;
		overflow-y: auto;
	}
	.lane .add {
		margin-top: 4px;
		padding: 3px 6px;
	}
	@media (hover: hover) {
		.lane .add:not(:focus-visible) {
			opacity: 0;
		}
		.lane:hover .add {
			opacity: 1;
		}
	}
	.cards {
		position: relative;
		list-style: none;
		margin: 0;
		padding: 0;
		display: grid;
		gap: 8px;
	}
	/* Two abreast where each has room; a container query would cost each of many cells a style pass of its own. */
	.two {
		grid-template-columns: repeat(auto-fill, minmax(max(134px, 50% - 4px), 1fr));
		align-items: start;
	}
	li {
		position: relative;
		min-width: 0;
	}
	.to-come {
		grid-column: 1 / -1;
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
	.picked :global(.card) {
		border-color: var(--ink);
		box-shadow: -4px 0 0 var(--ink);
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
		min-height: var(--touch, auto);
	}
	.add:hover,
	.add:focus-visible {
		border-color: var(--edge);
		color: var(--moss);
	}
	@media (pointer: coarse) {
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
</style>
