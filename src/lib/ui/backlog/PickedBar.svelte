<script lang="ts">
	import { uses } from '$core/board/used';
	import type { CardView, SprintView } from '$core/pages/board';
	import type { Ask } from '../board/ask';
	import type { BoardState } from '../board/board-state.svelte';
	import { amount, count } from '../words';

	interface Props {
		board: BoardState;
		cards: readonly CardView[];
		running: SprintView | undefined;
		onask: (ask: Ask) => void;
		/** Orders them in the backlog; left out where they stand elsewhere. */
		onplace?: (below: string | null | undefined) => void;
		/** Moves them to another column; left out where they wait. */
		onmove?: (column: string | null) => void;
		/** Pulls them into the first column; left out where a board has sprints. */
		onpull?: () => void;
		onend: () => void;
	}
	/** What can be done with all picked cards at once. */
	let { board, cards, running, onask, onplace, onmove, onpull, onend }: Props = $props();
	const head = $derived(board.head);
	const left = $derived(cards.reduce((sum, card) => sum + (card.parts ? 0 : card.left), 0));
	const coming = $derived(head.sprints.filter((sprint) => !sprint.startedAt));

	async function setAll(field: string, value: string | null): Promise<void> {
		await board.putAll(cards.map((card) => ({ card, change: { do: 'own', field, value } })));
	}

	/** A choice that does something and stands at its name again. */
	function choose(select: HTMLSelectElement, act: (value: string) => void): void {
		const { value } = select;
		select.value = '';
		if (value) act(value);
	}
</script>

<div class="bar" role="group" aria-label="What to do with the picked cards">
	<b>{count(cards.length, 'card')} picked{head.unit === 'none' ? '' : `, ${amount(left, head.unit)}`}</b>
	<button type="button" class="link" onclick={() => onask({ kind: 'owners', cards })}>Owners</button>
	<button type="button" class="link" onclick={() => onask({ kind: 'labels', cards })}>Labels</button>
	{#if uses(head, 'types')}<select
			class="choice"
			aria-label="Type"
			onchange={(event) =>
				choose(
					event.currentTarget,
					(type) => void board.changeCards(cards, { type: type === '-' ? '' : type }),
				)}
		>
			<option value="">Type</option>
			<option value="-">no type</option>
			{#each head.types as type (type.name)}<option>{type.name}</option>{/each}
		</select>{/if}
	<select
		class="choice"
		aria-label="Initiative"
		onchange={(event) =>
			choose(
				event.currentTarget,
				(name) => void board.changeCards(cards, { initiative: name === '-' ? null : name }),
			)}
	>
		<option value="">Initiative</option>
		<option value="-">no initiative</option>
		{#each head.initiatives as initiative (initiative)}<option>{initiative}</option>{/each}
	</select>
	{#if uses(head, 'classes')}<select
			class="choice"
			aria-label="Class"
			onchange={(event) =>
				choose(
					event.currentTarget,
					(name) => void board.changeCards(cards, { class: name as CardView['class'] }),
				)}
		>
			<option value="">Class</option>
			<option value="expedite">Expedite</option>
			<option value="fixed">Fixed date</option>
			<option value="standard">Standard</option>
			<option value="background">Background</option>
		</select>{/if}
	{#if head.lanes.length}<select
			class="choice"
			aria-label="Lane"
			onchange={(event) =>
				choose(
					event.currentTarget,
					(lane) => void board.changeCards(cards, { lane: lane === '-' ? null : lane }),
				)}
		>
			<option value="">Lane</option>
			<option value="-">no lane</option>
			{#each head.lanes as lane (lane.id)}<option value={lane.id}>{lane.name}</option>{/each}
		</select>{/if}
	<button
		type="button"
		class="link"
		onclick={() => void board.changeCards(cards, { ready: !cards.every((card) => card.ready) })}
		>{cards.every((card) => card.ready) ? 'Not ready' : 'Ready'}</button
	>
	{#each head.fields.filter(({ kind }) => kind === 'choice') as field (field.id)}<select
			class="choice"
			aria-label={field.name}
			onchange={(event) =>
				choose(event.currentTarget, (choice) => void setAll(field.id, choice === '-' ? null : choice))}
		>
			<option value="">{field.name}</option>
			<option value="-">none</option>
			{#each field.choices as choice (choice.id)}<option value={choice.id}>{choice.name}</option>{/each}
		</select>{/each}
	{#if onpull}<button type="button" class="link" onclick={onpull}>Pull into {head.columns[0]!.name}</button
		>{/if}
	{#if onplace}<button type="button" class="link" onclick={() => onplace(null)}>To the top</button>
		<button type="button" class="link" onclick={() => onask({ kind: 'position', cards })}
			>To a position</button
		>{/if}
	{#if onmove}<select
			class="choice"
			aria-label="Move to"
			onchange={(event) =>
				choose(event.currentTarget, (column) => onmove(column === 'backlog' ? null : column))}
		>
			<option value="">Move to</option>
			{#each head.columns.filter((column) => !column.hidden) as column (column.id)}<option value={column.id}
					>{column.name}</option
				>{/each}
			<option value="backlog">the backlog</option>
		</select>{/if}
	{#if head.sprintDays !== null}
		<select
			class="choice"
			aria-label="Sprint"
			onchange={(event) =>
				choose(
					event.currentTarget,
					(number) => void board.plan(cards, number === '-' ? null : Number(number)),
				)}
		>
			<option value="">Sprint</option>
			{#if running}<option value={running.number}>into running {running.number}, unplanned</option>{/if}
			{#each coming as sprint (sprint.number)}<option value={sprint.number}
					>on the list of {sprint.number}</option
				>{/each}
			<option value="-">off its list</option>
		</select>
	{/if}
	<button type="button" class="link" onclick={() => onask({ kind: 'field', cards })}>Any field</button>
	<button type="button" class="link" onclick={() => onask({ kind: 'copy', cards })}>Copy</button>
	<button type="button" class="link" onclick={() => onask({ kind: 'send', cards })}>To another board</button>
	<button type="button" class="link" onclick={() => onask({ kind: 'archive', cards })}>Archive</button>
	<button type="button" class="link" onclick={onend}>Let go</button>
</div>

<style>
	.bar {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 4px 14px;
		padding: 6px 10px;
		border-left: 4px solid var(--ink);
		background: var(--sheet);
	}
	.link {
		min-height: 26px;
	}
	@media (pointer: coarse) {
		.link {
			min-height: 44px;
		}
	}
</style>
