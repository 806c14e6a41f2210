<script lang="ts">
	import { tick, untrack } from 'svelte';
	import type { Arrangement } from '$core/board/arrange';
	import type { Field } from '$core/board/field';
	import { typeable } from '$core/board/typed';
	import type { CardView } from '$core/pages/board';
	import { leftOf } from '$core/board/left';
	import { amount, count, dateWords } from '../words';
	import type { BoardState } from '../board/board-state.svelte';
	import { Windowed } from '../board/windowed.svelte';
	import { ListCells } from './list-cells.svelte';
	import { ListColumns } from './list-columns.svelte';
	import { saveCards } from './list-file';
	import { isCard, listRows } from './list-rows';
	import ListHead from './ListHead.svelte';

	interface Props {
		board: BoardState;
		cards: CardView[];
		arrangement: Arrangement;
		today: string;
		open: (card: CardView) => string;
		onlayout: (change: Record<string, string | null>) => void;
	}
	/** Cards as rows, chosen fields as columns; cells are typed into, and take a paste of many. */
	let { board, cards, arrangement, today, open, onlayout }: Props = $props();
	const head = $derived(board.head);
	const mayEdit = $derived(head.role !== 'viewer' && !head.away);

	const columns = new ListColumns(
		() => head.id,
		() => board.fields,
	);
	const rows = $derived(listRows(cards, arrangement, board.fields));
	const sums = (list: readonly CardView[]) =>
		`${count(list.length, 'card')}${head.unit === 'none' ? '' : `, ${amount(leftOf(list), head.unit)} left`}`;

	let list = $state<HTMLElement>();
	const windowed = new Windowed(33, 0);
	$effect(() => (list ? untrack(() => windowed.mount(list!)) : undefined));
	$effect(() => {
		if (!list) return;
		const shown = rows;
		windowed.update(shown.length, 1, (i) => shown[i]?.key ?? String(i), cells.at?.row ?? null);
	});

	async function show(row: number, column: number): Promise<void> {
		windowed.reveal(row);
		await tick();
		list?.querySelector<HTMLElement>(`[data-cell="${row} ${column}"]`)?.focus({ preventScroll: false });
	}
	const cells = new ListCells(() => ({ board, rows, columns: columns.shown, mayEdit, show }));
	const take = (input: HTMLInputElement) => {
		input.focus();
		input.select();
	};

	/** What is shown, as a file that any spreadsheet opens. */
	const save = () =>
		saveCards(
			head,
			rows.flatMap((row) => (isCard(row) && !row.card.hidden ? [row.card] : [])),
			columns.shown,
			today,
		);
	/** A card in a field as the list reads it. */
	const shown = (field: Field, card: CardView) => {
		const text = field.text(card);
		return field.day && text ? dateWords(text, today) : text;
	};
</script>

<div class="top">
	<details>
		<summary>Fields</summary>
		<div class="fields" role="group" aria-label="Fields that the list shows">
			{#each columns.others as field (field.id)}<label
					><input
						type="checkbox"
						checked={columns.has(field)}
						onchange={(event) => columns.show(field, event.currentTarget.checked)}
					/>
					{field.name}</label
				>{/each}
		</div>
	</details>
	<span class="soft">{sums(cards)}</span>
	<button type="button" class="link" onclick={save}>Save as CSV</button>
	<p class="warn" role="alert">{cells.problem}</p>
</div>
<div
	class="list"
	role="grid"
	aria-label="Cards as a list"
	aria-rowcount={rows.length + 1}
	bind:this={list}
	style:--template={columns.template}
	style:--least="{columns.least}px"
>
	<ListHead {columns} sort={arrangement.sort} onsort={(sort) => onlayout({ sort })} />
	{#if !cards.length}<p class="none" role="status">No card here is like that.</p>{/if}
	<div class="rows" style:height="{windowed.height}px" role="rowgroup">
		{#each windowed.items as item (item.key)}
			{@const row = rows[item.index]}
			{#if row}
				<div
					class="row"
					class:group={!isCard(row)}
					role="row"
					aria-rowindex={item.index + 2}
					data-index={item.index}
					style:transform="translateY({item.start}px)"
					{@attach windowed.measure}
				>
					{#if isCard(row)}
						{@const card = row.card}
						<span role="gridcell"
							><a
								href={open(card)}
								data-sveltekit-noscroll
								data-sveltekit-keepfocus
								tabindex="-1"
								aria-label="Open {card.number}">{card.number}</a
							></span
						>
						{#each columns.shown as field, column (field.id)}
							{#if cells.typing && cells.is(item.index, column)}
								<span role="gridcell"
									><input
										aria-label="{field.name} of {card.number}"
										value={field.text(card)}
										list={field.values?.put && !['due', 'start', 'owners', 'labels'].includes(field.id)
											? 'list-values'
											: undefined}
										{@attach take}
										onblur={(event) => cells.type(card, field, event.currentTarget)}
										onkeydown={(event) => {
											event.stopPropagation();
											if (event.key === 'Escape') void cells.leave();
											if (event.key === 'Enter' && cells.type(card, field, event.currentTarget))
												void cells.leave();
										}}
									/>
									{#if field.values}<datalist id="list-values"
											>{#each field.values.known as { key, name } (key)}<option value={name}
												></option>{/each}</datalist
										>{/if}</span
								>
							{:else}
								<span
									role="gridcell"
									data-cell="{item.index} {column}"
									tabindex={cells.is(item.index, column) ? 0 : -1}
									class:warn={field.id === 'blocked'}
									class:title={field.id === 'title'}
									aria-readonly={!mayEdit || !typeable(field)}
									onfocus={() => (cells.at = { row: item.index, column })}
									onkeydown={(event) => cells.keys(event, item.index, column)}
									ondblclick={() => void cells.begin(item.index, column)}
									onpaste={(event) => void cells.paste(event, item.index, column)}>{shown(field, card)}</span
								>
							{/if}
						{/each}
					{:else}<span role="gridcell" class="name">{row.name} <small>{sums(row.cards)}</small></span>{/if}
				</div>
			{/if}
		{/each}
	</div>
</div>

<style>
	.top {
		display: flex;
		flex-wrap: wrap;
		gap: 4px 20px;
		align-items: baseline;
		padding: 0 20px 6px;
		flex: none;
	}
	.top p {
		margin: 0;
	}
	details[open] {
		flex-basis: 100%;
	}
	.fields {
		display: flex;
		flex-wrap: wrap;
		gap: 2px 18px;
		padding: 6px 0;
	}
	.fields label {
		display: flex;
		gap: 6px;
		align-items: center;
		min-height: max(28px, var(--touch, 0px));
	}
	.fields input {
		width: 17px;
		height: 17px;
		accent-color: var(--moss);
		color: var(--moss);
		border: 1px solid var(--edge);
		border-radius: 2px;
	}
	summary {
		cursor: pointer;
		color: var(--moss);
	}
	.list {
		flex: 1;
		min-height: 160px;
		overflow: auto;
		overscroll-behavior: contain;
		margin: 0 12px;
		padding: 0 8px 20px;
	}
	.rows {
		position: relative;
	}
	.row {
		display: grid;
		grid-template-columns: var(--template);
		min-width: var(--least);
		min-height: max(33px, var(--touch, 0px));
		align-items: stretch;
		border-bottom: 1px dotted var(--rule);
	}
	.rows .row {
		position: absolute;
		inset: 0 0 auto;
	}
	.rows .row:hover {
		background: var(--sheet);
	}
	.row > span {
		padding: 5px 8px 5px 0;
		min-width: 0;
		overflow: hidden;
		text-overflow: ellipsis;
		white-space: nowrap;
	}
	.row > span.title {
		white-space: normal;
		overflow-wrap: anywhere;
		font-weight: 560;
	}
	.group {
		display: block;
		border-bottom: 1px solid var(--edge);
	}
	.group .name {
		display: block;
		padding: 12px 0 3px;
		font: 650 1.05rem var(--display);
	}
	.group .name::first-letter {
		text-transform: uppercase;
	}
	.group small {
		font: 400 0.9rem var(--text);
		color: var(--soft);
	}
	a {
		display: inline-block;
		min-width: var(--touch, auto);
		min-height: var(--touch, auto);
		align-content: center;
		color: var(--soft);
		font-weight: 600;
		text-decoration: none;
	}
	a:hover {
		color: var(--moss);
		text-decoration: underline;
	}
	.row input {
		width: 100%;
		font: inherit;
		color: var(--ink);
		background: var(--sheet);
		border: 1.5px solid var(--river);
		border-radius: 3px;
		padding: 2px 4px;
	}
	.none {
		color: var(--soft);
		padding: 16px 0;
	}
	@media (pointer: coarse) {
		.row {
			min-height: 44px;
			align-items: center;
		}
		.row > span:has(> a) {
			padding-block: 0;
		}
	}
	@media (max-width: 700px) {
		.top {
			padding: 0 14px 6px;
		}
		.list {
			margin: 0;
			padding: 0 6px 20px 14px;
		}
	}
</style>
