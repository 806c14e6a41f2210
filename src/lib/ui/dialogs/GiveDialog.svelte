<script lang="ts">
	import type { Unit } from '$core/pages/board';
	import type { CardView } from '$core/pages/board';
	import { leftWithParts } from '$core/board/left';
	import { amount, count, list } from '../words';
	import type { PlanRow } from '../plan/plan-state.svelte';
	import Dialog from './Dialog.svelte';

	interface Props {
		cards: readonly CardView[];
		sprint: number;
		rows: readonly PlanRow[];
		unit: Unit;
		/** A person's id, or `nobody`. */
		ongive: (to: string) => void;
		onclose: () => void;
	}
	let { cards, sprint, rows, unit, ongive, onclose }: Props = $props();
	const left = $derived(leftWithParts(cards));
	const asks = $derived([...new Set(cards.flatMap((card) => card.labels))]);
	const take = (element: HTMLElement) => element.querySelector('button')?.focus();

	function onkeydown(event: KeyboardEvent): void {
		if (event.key !== 'ArrowDown' && event.key !== 'ArrowUp') return;
		event.preventDefault();
		const buttons = [...(event.currentTarget as HTMLElement).querySelectorAll('button')];
		const at = buttons.indexOf(document.activeElement as HTMLButtonElement);
		buttons[(at + (event.key === 'ArrowDown' ? 1 : buttons.length - 1)) % buttons.length]?.focus();
	}
</script>

<Dialog
	title="Give {cards.length === 1 ? cards[0]!.number : count(cards.length, 'card')} in sprint {sprint} to…"
	{onclose}
>
	<!-- svelte-ignore a11y_no_noninteractive_element_interactions -->
	<ul {@attach take} {onkeydown}>
		{#each rows as row (row.person?.id ?? '')}
			{@const knows = row.person?.skills.filter((skill) => asks.includes(skill)) ?? []}
			{@const after = row.part ? row.part.placed + left : 0}
			<li>
				<button type="button" onclick={() => ongive(row.person?.id ?? 'nobody')}>
					<b>{row.person?.name ?? 'Nobody yet'}</b>
					<span>
						{#if knows.length}<small class="knows">knows {list(knows)}</small>{/if}
						{#if row.part}<small class:warn={after > row.part.promise + 1e-9}
								>{amount(row.part.placed, unit)} of {amount(row.part.promise, unit)}, then {amount(
									after,
									unit,
								)}</small
							>{/if}
					</span>
				</button>
			</li>
		{/each}
	</ul>
</Dialog>

<style>
	ul {
		max-height: 60vh;
		overflow-y: auto;
	}
	button {
		width: 100%;
		min-height: max(40px, var(--touch, 0px));
		display: flex;
		flex-wrap: wrap;
		justify-content: space-between;
		align-items: center;
		gap: 2px 12px;
		padding: 4px 8px;
		border: 0;
		border-bottom: 1px dotted var(--rule);
		background: none;
		color: var(--ink);
		font: inherit;
		text-align: left;
	}
	button:hover,
	button:focus-visible {
		background: var(--moss-2);
		outline-offset: -3px;
	}
	small {
		font-size: 0.9rem;
		color: var(--soft);
	}
	button:is(:hover, :focus-visible) small {
		color: var(--ink);
	}
	small.warn {
		color: var(--brick);
	}
	.knows {
		color: var(--river);
		margin-right: 8px;
	}
	@media (pointer: coarse) {
		button {
			min-height: 48px;
		}
	}
</style>
