<script lang="ts">
	import { tick, untrack } from 'svelte';
	import { sprintLines } from '$core/backlog/lines';
	import type { CardView, Unit } from '$core/pages/board';
	import { ownLeft } from '$core/board/left';
	import { Windowed } from '../board/windowed.svelte';
	import { amount } from '../words';

	interface Props {
		cards: readonly CardView[];
		unit: Unit;
		/** What the sprint can still take, and what a usual one delivers. */
		free: number;
		usual: number | null;
		picked: ReadonlySet<string>;
		current: string | null;
		dropping: boolean;
		open: (card: CardView) => string;
		onpick: (card: CardView) => void;
		mayEdit: boolean;
	}
	/** The backlog beside the plan: what waits, in order. */
	let props: Props = $props();
	const { cards } = $derived(props);
	let list = $state<HTMLElement>();
	const lines = $derived(
		new Map(
			(props.usual === null
				? []
				: sprintLines(
						cards.map((card) => (card.sprint !== null ? 0 : ownLeft(card))),
						props.free,
						props.usual,
					)
			).map((line) => [line.below + 1, line]),
		),
	);
	const index = $derived(
		Math.max(
			0,
			cards.findIndex((card) => card.id === props.current),
		),
	);
	const windowed = new Windowed(33, 0);
	$effect(() => {
		if (!list) return;
		return untrack(() => windowed.mount(list!));
	});
	$effect(() => {
		if (!list) return;
		const shown = cards;
		windowed.update(shown.length, 1, (i) => shown[i]?.id ?? String(i), shown.length ? index : null);
	});

	export async function focusCard(id: string): Promise<void> {
		const at = cards.findIndex((card) => card.id === id);
		if (at < 0) return;
		windowed.reveal(at);
		await tick();
		list?.querySelector<HTMLElement>(`li[data-card="${id}"] a`)?.focus({ preventScroll: true });
	}
</script>

<div
	class="waiting"
	class:dropping={props.dropping}
	bind:this={list}
	data-person="backlog"
	role="group"
	aria-label="Backlog, in order"
>
	{#if !cards.length}<p>Nothing waits in the backlog.</p>{/if}
	<ul style:height="{windowed.height}px">
		{#each windowed.items as item (item.key)}
			{@const card = cards[item.index]}
			{#if card}
				{@const line = lines.get(item.index)}
				<li
					data-card={card.id}
					data-index={item.index}
					aria-posinset={item.index + 1}
					aria-setsize={cards.length}
					class:picked={props.picked.has(card.id)}
					class:part={card.parent !== null}
					style:transform="translateY({item.start}px)"
					{@attach windowed.measure}
				>
					{#if line}<p class="line">
							{line.sprint === 1
								? line.holds > 0
									? `a usual sprint ends here, ${amount(line.holds, props.unit)} after this one is full`
									: 'this one is full'
								: `a usual sprint later, ${amount(line.holds, props.unit)}`}
						</p>{/if}
					<div class="row">
						<a
							href={props.open(card)}
							data-sveltekit-noscroll
							data-sveltekit-keepfocus
							draggable="false"
							tabindex={item.index === index ? 0 : -1}
							aria-describedby="plan-keys"
							><span class="number">{card.number}</span>
							<span class="title">{card.title}</span>
							{#if card.sprint !== null}<small>S{card.sprint}</small>{/if}
							{#if card.class === 'expedite'}<small class="expedite">Expedite</small>{/if}
							{#if props.unit !== 'none'}<b class:unsized={card.size === null}
									>{card.parts
										? `${amount(card.parts.left, props.unit)}`
										: card.size === null
											? 'not sized'
											: amount(card.left, props.unit)}</b
								>{/if}</a
						>
						{#if props.mayEdit}<input
								type="checkbox"
								tabindex="-1"
								checked={props.picked.has(card.id)}
								aria-label="Pick {card.number}"
								onchange={() => props.onpick(card)}
							/><span class="grip" aria-hidden="true">⠿</span>{/if}
					</div>
				</li>
			{/if}
		{/each}
	</ul>
</div>

<style>
	.waiting {
		flex: 1;
		min-height: 120px;
		overflow-y: auto;
		overscroll-behavior: contain;
		position: relative;
	}
	.dropping {
		outline: 2.5px solid var(--river);
		outline-offset: -2px;
	}
	ul {
		position: relative;
	}
	li {
		position: absolute;
		inset: 0 0 auto;
	}
	.row {
		display: flex;
		align-items: center;
		border-bottom: 1px dotted var(--rule);
		border-left: 4px solid transparent;
	}
	.picked .row {
		border-left-color: var(--ink);
		background: var(--sheet);
	}
	a {
		flex: 1;
		min-width: 0;
		display: flex;
		gap: 8px;
		align-items: baseline;
		padding: 6px 6px;
		text-decoration: none;
		user-select: none;
	}
	.part a {
		padding-left: 24px;
	}
	.number {
		min-width: 30px;
		color: var(--faint);
		font-size: 12px;
		font-weight: 600;
	}
	.title {
		flex: 1;
		min-width: 0;
		overflow: hidden;
		text-overflow: ellipsis;
		white-space: nowrap;
	}
	b {
		white-space: nowrap;
	}
	.unsized {
		font-weight: 450;
		font-style: italic;
		color: var(--soft);
	}
	small {
		font-size: 12px;
		color: var(--river);
		font-weight: 650;
	}
	.expedite {
		color: var(--ink);
		border-top: 3px double var(--ink);
	}
	.line {
		margin: 0;
		padding: 3px 6px 2px;
		border-top: 2px dashed var(--ink);
		font-size: 12px;
		color: var(--soft);
	}
	p {
		color: var(--soft);
	}
	input {
		width: 16px;
		height: 16px;
		margin-right: 6px;
		border: 1px solid var(--edge);
		border-radius: 2px;
		background-color: var(--sheet);
		color: var(--ink);
		flex: none;
	}
	.grip {
		display: none;
	}
	@media (pointer: coarse) {
		a {
			min-height: 44px;
			align-items: center;
		}
		input {
			width: 28px;
			height: 28px;
		}
		.grip {
			display: grid;
			place-items: center;
			width: 40px;
			height: 44px;
			color: var(--faint);
			touch-action: none;
		}
	}
</style>
