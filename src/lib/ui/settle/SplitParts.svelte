<script lang="ts">
	import type { SettlePage } from '$core/pages/settling';
	import type { CardView, Unit } from '$core/pages/board';
	import { amount } from '../words';
	import type { Draft } from './settle-state.svelte';

	interface Props {
		card: CardView;
		draft: Draft;
		sprint: number;
		next: number | null;
		unit: Unit;
		lines: SettlePage['checklists'][string];
		onsay: (change: Partial<Draft>) => void;
	}
	/** What stays finished of a split card, and what the new card with the rest is. */
	let { card, draft, sprint, next, unit, lines, onsay }: Props = $props();
	const toggle = (id: string) =>
		onsay({
			lines: draft.lines.includes(id) ? draft.lines.filter((one) => one !== id) : [...draft.lines, id],
		});
</script>

<div class="parts">
	<label
		>Finished in sprint {sprint}
		<input
			value={draft.finished}
			maxlength="300"
			placeholder={card.title}
			oninput={(event) => onsay({ finished: event.currentTarget.value })}
		/></label
	>
	<label
		>New card, linked{card.size === null ? '' : `, ${amount(card.left, unit)}`}
		<input
			value={draft.title}
			maxlength="300"
			required
			aria-invalid={draft.title.trim() ? undefined : 'true'}
			oninput={(event) => onsay({ title: event.currentTarget.value })}
		/></label
	>
	<label class="to"
		>goes to <select
			value={draft.to}
			onchange={(event) => onsay({ to: event.currentTarget.value as Draft['to'] })}
		>
			{#if next !== null}<option value="next">sprint {next}</option>{/if}
			<option value="backlog">the backlog</option>
		</select></label
	>
	{#if lines.length}
		<fieldset>
			<legend>Checklist lines that go along</legend>
			{#each lines as line (line.id)}<label class="line"
					><input
						type="checkbox"
						checked={draft.lines.includes(line.id)}
						onchange={() => toggle(line.id)}
					/>{line.text}{line.done ? ' (done)' : ''}</label
				>{/each}
		</fieldset>
	{/if}
	<p>
		Its owners, labels, type and initiative go along; talk, files and history stay on {card.number} and are one
		link away.
	</p>
</div>

<style>
	.parts {
		display: grid;
		grid-template-columns: minmax(0, 1fr) minmax(0, 1fr) auto;
		gap: 6px 18px;
		align-items: end;
		margin: 0 8px 4px;
		padding: 8px 14px 10px;
		background: var(--sheet);
		border: 1px solid var(--rule);
		border-top: 0;
	}
	label {
		font-size: 12px;
		color: var(--soft);
	}
	input:not([type='checkbox']),
	select {
		display: block;
		width: 100%;
		font: 1rem var(--text);
		color: var(--ink);
		background-color: transparent;
		border: 0;
		border-bottom: 1px solid var(--ink);
		border-radius: 0;
		padding: 3px 0;
		min-height: max(28px, var(--touch, 0px));
	}
	select {
		padding-right: 26px;
	}
	fieldset {
		grid-column: 1 / -1;
		display: flex;
		flex-wrap: wrap;
		gap: 2px 16px;
	}
	legend {
		font-size: 12px;
		color: var(--soft);
		padding: 0;
	}
	.line {
		display: flex;
		gap: 6px;
		align-items: center;
		font-size: 0.95rem;
		color: var(--ink);
	}
	p {
		grid-column: 1 / -1;
		font-size: 0.93rem;
		color: var(--soft);
	}
	[type='checkbox'] {
		accent-color: var(--moss);
	}
	@media (max-width: 700px) {
		.parts {
			grid-template-columns: minmax(0, 1fr);
		}
	}
	@media (pointer: coarse) {
		.line {
			min-height: 44px;
		}
	}
</style>
