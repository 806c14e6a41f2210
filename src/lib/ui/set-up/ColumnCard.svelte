<script lang="ts">
	import type { ColumnView } from '$core/pages/board';
	import type { CommandInput } from '../../commands';
	import { count } from '../words';
	import SlotSteps from './SlotSteps.svelte';

	interface Props {
		column: ColumnView;
		standing: number;
		/** Whether a card has ever stood in it: then whether cards are done there is settled. */
		stood: boolean;
		mayChange: boolean;
		/** The one that is being carried. */
		carried: boolean;
		onchange: (
			change: Omit<CommandInput<'ChangeColumn'>, 'column' | 'version'>,
			done: string,
		) => Promise<boolean>;
		onmove: (by: -1 | 1) => void;
		onretire: () => void;
	}
	/** A column as it stands on the board, with all that is set of it, each changed in its place. */
	let { column, standing, stood, mayChange, carried, onchange, onmove, onretire }: Props = $props();
	const KINDS = [
		{ value: 'queue', name: 'wait' },
		{ value: 'work', name: 'are worked on' },
		{ value: 'done', name: 'are done' },
	] as const;
	const kinds = $derived(
		KINDS.filter(({ value }) =>
			value === column.kind || !stood ? true : column.kind !== 'done' && value !== 'done',
		),
	);
	const slots = (limit: number | null) =>
		onchange(
			{ limit },
			limit === null ? `${column.name} has no limit.` : `${column.name} has ${count(limit, 'slot')}.`,
		);

	async function rename(input: HTMLTextAreaElement) {
		const name = input.value.trim().replace(/\s+/g, ' ');
		if (!name || name === column.name) return void (input.value = column.name);
		if (!(await onchange({ name }, `${column.name} is called ${name}.`))) input.value = column.name;
	}
	function keys(event: KeyboardEvent) {
		const by = event.key === 'ArrowLeft' ? -1 : event.key === 'ArrowRight' ? 1 : 0;
		if (!by) return;
		event.preventDefault();
		onmove(by);
	}
</script>

<section
	class="column {column.kind}"
	class:carried
	class:hidden={column.hidden}
	data-set-column={column.id}
	aria-label="Column {column.name}"
>
	<header>
		{#if mayChange}<textarea
				class="name"
				rows="1"
				aria-label="Name of {column.name}"
				maxlength="40"
				value={column.name}
				onchange={(event) => void rename(event.currentTarget)}
				onkeydown={(event) => {
					if (event.key === 'Enter') event.preventDefault();
					if (event.key === 'Enter') event.currentTarget.blur();
					if (event.key === 'Escape') event.currentTarget.value = column.name;
				}}></textarea>
			<button
				type="button"
				class="handle"
				aria-label="Move {column.name}: left and right arrow"
				title="Drag it, or use the arrow keys"
				onkeydown={keys}><span aria-hidden="true">⠿</span></button
			>{:else}<b>{column.name}</b>{/if}
	</header>
	<h3>Cards here</h3>
	<div class="kinds" role="radiogroup" aria-label="Cards in {column.name}">
		{#each kinds as kind (kind.value)}<button
				type="button"
				role="radio"
				aria-checked={kind.value === column.kind}
				disabled={!mayChange}
				onclick={() =>
					kind.value !== column.kind &&
					void onchange({ kind: kind.value }, `In ${column.name} cards ${kind.name}.`)}>{kind.name}</button
			>{/each}
	</div>
	{#if column.kind !== 'done'}
		<h3>Slots</h3>
		<SlotSteps
			of={column.name}
			limit={column.limit}
			{standing}
			{mayChange}
			onchange={(limit) => void slots(limit)}
		/>
		{#if column.limit !== null}
			<h3>One more than that</h3>
			<select
				aria-label="One more than the slots of {column.name}"
				value={column.mode}
				disabled={!mayChange}
				onchange={(event) =>
					void onchange(
						{ mode: event.currentTarget.value as 'hold' },
						event.currentTarget.value === 'hold'
							? `One more in ${column.name} is held until a reason is given.`
							: `One more in ${column.name} is let in, and said so.`,
					)}
			>
				<option value="hold">is held until a reason is given</option>
				<option value="advise">is let in, and said so</option>
			</select>
		{/if}
	{/if}
	<h3>Policy</h3>
	{#if mayChange}<textarea
			aria-label="Policy of {column.name}"
			placeholder="none yet"
			maxlength="500"
			rows="1"
			value={column.policy}
			onchange={(event) =>
				void onchange({ policy: event.currentTarget.value.trim() }, `The policy of ${column.name} is kept.`)}
		></textarea>{:else}<p class:missing={!column.policy}>{column.policy || 'none'}</p>{/if}
	<h3>Now</h3>
	<p>
		{standing
			? `${count(standing, 'card')} ${standing === 1 ? 'stands' : 'stand'} here`
			: 'nothing stands here'}
	</p>
	{#if mayChange}<p class="acts">
			<button
				type="button"
				class="link"
				onclick={() =>
					void onchange(
						{ hidden: !column.hidden },
						column.hidden
							? `${column.name} is shown again.`
							: `${column.name} is hidden; its cards stay in it.`,
					)}>{column.hidden ? 'Show' : 'Hide'}</button
			>
			<button type="button" class="link" aria-label="Take away… {column.name}" onclick={onretire}
				>Take away…</button
			>
		</p>{/if}
</section>

<style>
	.column {
		flex: 1 0 148px;
		max-width: 240px;
		padding: 10px 12px 14px;
		border: 1px solid var(--ink);
		background: var(--sheet);
		min-width: 0;
	}
	.queue {
		border: 1px dashed var(--edge);
		background: none;
		flex-basis: 132px;
	}
	.done {
		border: 0;
		border-left: 4px solid var(--moss);
		background: none;
		flex-basis: 126px;
	}
	.hidden {
		opacity: 0.75;
	}
	.carried {
		outline: 2px solid var(--river);
	}
	header {
		display: flex;
		align-items: center;
		gap: 4px;
	}
	textarea,
	select {
		width: 100%;
		color: var(--ink);
		font: inherit;
		background-color: transparent;
		border: 1px solid transparent;
		border-bottom: 1px solid var(--moss);
		border-radius: 0;
		padding: 2px;
		box-shadow: none;
	}
	textarea {
		field-sizing: content;
		resize: none;
		border-bottom-color: var(--rule);
	}
	.name {
		flex: 1;
		min-width: 0;
		font: 650 1.1rem/1.2 var(--display);
		border-bottom-color: var(--moss);
	}
	textarea::placeholder,
	.missing {
		color: var(--ochre);
		font-style: italic;
		opacity: 1;
	}
	select {
		background-image: none;
		padding-right: 2px;
		white-space: normal;
		text-overflow: ellipsis;
	}
	.handle {
		border: 0;
		background: none;
		color: var(--soft);
		font-size: 1.1rem;
		min-width: max(28px, var(--touch, 0px));
		min-height: max(28px, var(--touch, 0px));
		cursor: grab;
		touch-action: none;
	}
	h3 {
		font: 400 12px var(--text);
		color: var(--soft);
		margin: 9px 0 2px;
		letter-spacing: 0;
	}
	.kinds {
		display: inline-flex;
		flex-wrap: wrap;
		border: 1px solid var(--rule);
		border-radius: 4px;
	}
	.kinds button {
		min-width: var(--touch, auto);
		border: 0;
		background: none;
		color: var(--ink);
		font: inherit;
		font-size: 0.93rem;
		padding: 3px 7px;
		min-height: max(26px, var(--touch, 0px));
	}
	.kinds [aria-checked='true'] {
		background: var(--ink);
		color: var(--paper);
		border-radius: 3px;
	}
	.acts {
		display: flex;
		flex-wrap: wrap;
		gap: 4px 12px;
		margin-top: 10px;
	}
	@media (max-width: 700px) {
		.column {
			max-width: none;
			flex: none;
		}
	}
</style>
