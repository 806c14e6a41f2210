<script lang="ts">
	import type { CardView, SprintView } from '$core/pages/board';
	import { leftWithParts } from '$core/board/left';
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
		/** Moves them to another column; left out where they are pulled. */
		onmove?: (column: string | null) => void;
		/** Pulls them into the first column; left out where a board has sprints. */
		onpull?: () => void;
		onend: () => void;
	}
	/** What can be done with all picked cards at once. */
	let { board, cards, running, onask, onplace, onmove, onpull, onend }: Props = $props();
	const head = $derived(board.head);
	const left = $derived(leftWithParts(cards));
	const coming = $derived(head.sprints.filter((sprint) => !sprint.startedAt));

	/** Fields one value of which is chosen here; what has a place of its own in the bar is not among them. */
	const AMONG = ['type', 'initiative', 'class', 'lane'];
	const choices = $derived(
		board.fields.filter(
			({ id }) => AMONG.includes(id) || head.fields.some((own) => own.id === id && own.kind === 'choice'),
		),
	);

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
	{#each choices as field (field.id)}<select
			class="choice"
			aria-label={field.name}
			onchange={(event) =>
				choose(
					event.currentTarget,
					(i) => void board.choose(cards, field, field.values!.known[Number(i)]!.key),
				)}
		>
			<option value="">{field.name}</option>
			{#each field.values!.known as { key, name }, i (key)}<option value={String(i)}>{name}</option>{/each}
		</select>{/each}
	<button
		type="button"
		class="link"
		onclick={() => void board.changeCards(cards, { ready: !cards.every((card) => card.ready) })}
		>{cards.every((card) => card.ready) ? 'Not ready' : 'Ready'}</button
	>
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
		min-height: max(26px, var(--touch, 0px));
	}
</style>
