<script lang="ts">
	import type { CardView, Unit } from '$core/pages/board';
	import { REASONS, type Reason } from '$core/events/reasons';
	import type { Stint } from '$core/sprint/ledger';
	import { DECISIONS, type Decision } from '$core/sprint/settle';
	import WorkBar from '../chart/WorkBar.svelte';
	import { amount } from '../words';
	import type { Draft } from './settle-state.svelte';
	import { decisionWords, reasonWords } from './words';

	interface Props {
		card: CardView;
		stint: Stint | undefined;
		draft: Draft;
		missing: string;
		unit: Unit;
		carried: number;
		/** The longest bar of the page, in the board's unit. */
		most: number;
		current: boolean;
		picked: boolean;
		mayEdit: boolean;
		href: string;
		onhold: () => void;
		onpick: () => void;
		onsay: (change: Partial<Draft>) => void;
	}
	let props: Props = $props();
	const { card, stint, draft, unit, current } = $derived(props);
	const planned = $derived(stint?.entry ?? card.size ?? 0);
	/** On a board in points hours say nothing of how far it is: then what was burned of it does. */
	const worked = $derived(unit === 'hours' ? (stint?.worked ?? 0) : (stint?.burned ?? 0));
	const NAMES: Record<Decision, string> = {
		carry: 'Carry',
		split: 'Split',
		backlog: 'Backlog',
		drop: 'Drop',
	};
	const name = (decision: Decision) =>
		decision === 'carry' && card.size !== null ? `Carry ${amount(card.left, unit)}` : NAMES[decision];
	const says = $derived(
		unit === 'none'
			? ''
			: card.size === null
				? 'not sized'
				: unit === 'hours'
					? `worked ${amount(worked, unit)}, left ${amount(card.left, unit)}, planned ${amount(planned, unit)}`
					: `left ${amount(card.left, unit)}, planned ${amount(planned, unit)}${stint?.worked ? `, ${amount(stint.worked, 'hours')} worked` : ''}`,
	);
</script>

<div
	class="row"
	class:current
	class:picked={props.picked}
	role="group"
	aria-label="{card.number} {card.title}: {says}; {decisionWords(card, draft, unit) || 'undecided'}"
	data-card={card.id}
>
	<div class="what">
		<span class="top">
			{#if props.mayEdit}<input
					type="checkbox"
					checked={props.picked}
					tabindex="-1"
					aria-label="Pick {card.number}"
					onchange={props.onpick}
				/>{/if}
			<span class="number">{card.number}</span>
			{#if props.carried}<span class="care">carried ×{props.carried}</span>{/if}
			{#if card.blocked}<span class="warn">blocked</span>{/if}
			{#if card.unplanned}<span class="soft">unplanned</span>{/if}
		</span>
		<a href={props.href} data-sveltekit-noscroll data-sveltekit-keepfocus tabindex={current ? 0 : -1}
			>{card.title}</a
		>
	</div>
	<div class="picture">
		{#if unit !== 'none'}
			<WorkBar {worked} left={card.left} mark={planned} most={props.most} />
		{/if}
		<small>{says}</small>
	</div>
	{#if current && props.mayEdit}
		<div class="choices" role="group" aria-label="What happens to {card.number}">
			{#each DECISIONS as decision, i (decision)}<button
					type="button"
					class="decide"
					aria-pressed={draft.decision === decision}
					onclick={() => props.onsay({ decision })}
					><span class="key" aria-hidden="true">{i + 1}</span> {name(decision)}</button
				>{/each}
		</div>
		<div class="why">
			<select
				class="reason"
				aria-label="Why {card.number} was not finished"
				value={draft.reason}
				onchange={(event) => props.onsay({ reason: event.currentTarget.value as Reason })}
			>
				<option value="">Choose a reason</option>
				{#each Object.entries(REASONS) as [code, words] (code)}<option value={code}>{words}</option>{/each}
			</select>
			{#if draft.reason === 'other'}<input
					class="words"
					aria-label="The reason in words"
					placeholder="in words"
					maxlength="300"
					value={draft.words}
					oninput={(event) => props.onsay({ words: event.currentTarget.value })}
				/>{/if}
		</div>
	{:else}
		<button
			type="button"
			class="decided"
			class:open={!draft.decision}
			tabindex="-1"
			disabled={!props.mayEdit}
			onclick={props.onhold}>{decisionWords(card, draft, unit) || 'undecided'}</button
		>
		<span class="why" class:warn={draft.decision && props.missing}
			>{reasonWords(draft) || (draft.decision ? props.missing : '')}</span
		>
	{/if}
</div>

<style>
	.row {
		display: grid;
		grid-template-columns: minmax(190px, 288px) minmax(180px, 318px) minmax(360px, 1fr) 200px;
		gap: 4px 18px;
		align-items: center;
		padding: 8px;
		border: 2px solid transparent;
		border-bottom: 1px solid var(--rule);
		border-radius: 4px;
		min-height: 54px;
	}
	.current {
		background: var(--sheet);
		border: 2px solid var(--ink);
	}
	.picked {
		background: var(--moss-2);
	}
	.top {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 2px 7px;
		font-size: 12px;
	}
	.number {
		color: var(--soft);
	}
	input[type='checkbox'] {
		width: max(15px, var(--touch, 0px) - 20px);
		height: max(15px, var(--touch, 0px) - 20px);
		accent-color: var(--moss);
	}
	a {
		display: inline-block;
		min-height: var(--touch, auto);
		align-content: center;
		font-weight: 650;
		text-decoration: none;
		overflow-wrap: anywhere;
	}
	a:hover {
		color: var(--moss);
	}
	small {
		color: var(--soft);
	}
	.choices {
		display: flex;
		flex-wrap: wrap;
		gap: 6px;
	}
	.decide {
		border: 1px solid var(--edge);
		border-radius: 4px;
		background: var(--sheet);
		color: var(--ink);
		padding: 3px 9px;
		min-height: max(30px, var(--touch, 0px));
		white-space: nowrap;
	}
	.decide[aria-pressed='true'] {
		background: var(--ink);
		border-color: var(--ink);
		color: var(--paper);
	}
	.decided {
		background: none;
		border: 0;
		padding: 4px 0;
		text-align: left;
		color: var(--ink);
	}
	.decided.open {
		color: var(--soft);
	}
	.decided:disabled {
		cursor: default;
	}
	.why {
		min-width: 0;
	}
	.reason,
	.words {
		width: 100%;
		min-height: max(32px, var(--touch, 0px));
		padding: 3px 28px 3px 9px;
		font: inherit;
		border: 1px solid var(--edge);
		border-radius: 4px;
		background-color: var(--sheet);
		color: var(--ink);
	}
	.words {
		margin-top: 4px;
		padding-right: 9px;
	}
	@media (max-width: 1060px) {
		.row {
			grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
		}
	}
	@media (max-width: 700px) {
		.row {
			grid-template-columns: minmax(0, 1fr);
		}
	}
</style>
