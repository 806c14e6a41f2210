<script lang="ts">
	import { fsum } from 'd3-array';
	import { stringify } from 'csv-stringify/browser/esm/sync';
	import { tick, untrack } from 'svelte';
	import { byValue, sorted, sortText, valuesAmong, type Arrangement } from '$core/board/arrange';
	import { cellOf, fieldNamed, type Change, type Field } from '$core/board/field';
	import { readTyped, typeable } from '$core/board/typed';
	import type { CardView } from '$core/pages/board';
	import { amount, count, dateWords } from '../words';
	import type { BoardState } from '../board/board-state.svelte';
	import { Windowed } from '../board/windowed.svelte';

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
	const USUAL = ['column', 'owners', 'size', 'left', 'due', 'labels', 'initiative'];
	const MOST_CELLS = 500;

	/** Fields that are shown beside number and title; kept for this person and board. */
	const stored = $derived(`list-fields-${head.id}`);
	let chosen = $state.raw<string[]>(USUAL);
	$effect(() => {
		const kept = localStorage.getItem(stored);
		chosen = kept === null ? USUAL : kept.split(' ').filter(Boolean);
	});
	function show(id: string, on: boolean): void {
		chosen = on ? [...chosen, id] : chosen.filter((one) => one !== id);
		localStorage.setItem(stored, chosen.join(' '));
	}
	const others = $derived(board.fields.filter(({ id }) => id !== 'number' && id !== 'title'));
	const columns = $derived([
		fieldNamed(board.fields, 'title')!,
		...chosen.flatMap((id) => fieldNamed(others, id) ?? []),
	]);

	type Row = { key: string; card: CardView } | { key: string; name: string; cards: CardView[] };
	const rows = $derived.by((): Row[] => {
		const inOrder = sorted(cards, arrangement.sort, board.fields);
		const { by } = arrangement;
		if (!by) return inOrder.map((card) => ({ key: card.id, card }));
		const groups = byValue(by, inOrder);
		return valuesAmong(by, inOrder).flatMap(({ key, name }) => {
			const there = groups.get(key);
			if (!there) return [];
			return [
				{ key: `group ${key}`, name, cards: there },
				...there.map((card) => ({ key: `${key} ${card.id}`, card })),
			];
		});
	});
	const leftOf = (list: readonly CardView[]) => fsum(list, (card) => (card.parts ? 0 : card.left));
	const sums = (list: readonly CardView[]) =>
		`${count(list.length, 'card')}${head.unit === 'none' ? '' : `, ${amount(leftOf(list), head.unit)} left`}`;

	/** Orders by a field, then the other way round, then no more; with Shift as one more key. */
	function sort(field: Field, more: boolean): void {
		const known = arrangement.sort.find((key) => key.field === field.id);
		const others = more ? arrangement.sort.filter((key) => key.field !== field.id) : [];
		const next = !known
			? [...others, { field: field.id, down: false }]
			: known.down
				? others
				: [...others, { field: field.id, down: true }];
		onlayout({ sort: sortText(next) || null });
	}
	const sortOf = (field: Field) => arrangement.sort.find((key) => key.field === field.id);
	const placeOf = (field: Field) => arrangement.sort.findIndex((key) => key.field === field.id) + 1;

	let list = $state<HTMLElement>();
	const windowed = new Windowed(33, 0);
	$effect(() => (list ? untrack(() => windowed.mount(list!)) : undefined));
	$effect(() => {
		if (!list) return;
		const shown = rows;
		windowed.update(shown.length, 1, (i) => shown[i]?.key ?? String(i), at ? at.row : null);
	});

	/** The cell in which somebody is, and whether they are typing in it. */
	let at = $state.raw<{ row: number; column: number } | null>(null);
	let typing = $state(false);
	let problem = $state('');

	async function focusCell(row: number, column: number): Promise<void> {
		const step = row > (at?.row ?? 0) ? 1 : -1;
		while (rows[row] && !('card' in rows[row]!)) row += step;
		if (!rows[row] || column < 0 || column >= columns.length) return;
		at = { row, column };
		windowed.reveal(row);
		await tick();
		list?.querySelector<HTMLElement>(`[data-cell="${row} ${column}"]`)?.focus({ preventScroll: false });
	}
	function keys(event: KeyboardEvent, row: number, column: number): void {
		if (typing || event.ctrlKey || event.metaKey || event.altKey) return;
		const to = {
			ArrowUp: [row - 1, column],
			ArrowDown: [row + 1, column],
			ArrowLeft: [row, column - 1],
			ArrowRight: [row, column + 1],
			Home: [row, 0],
			End: [row, columns.length - 1],
		}[event.key];
		if (to) {
			event.preventDefault();
			void focusCell(to[0]!, to[1]!);
		} else if ((event.key === 'Enter' || event.key === 'F2') && mayEdit && typeable(columns[column]!)) {
			event.preventDefault();
			[at, typing] = [{ row, column }, true];
		}
	}
	const take = (input: HTMLInputElement) => {
		input.focus();
		input.select();
	};
	const looking = $derived(board.looking);

	/** Keeps what was typed; gives whether that could be read. */
	function type(card: CardView, field: Field, input: HTMLInputElement): boolean {
		if (!typing) return true;
		const read = readTyped(field, board.latest(card), input.value, looking);
		problem = read.ok ? '' : `${field.name} of ${card.number}: ${read.reason}.`;
		if (!read.ok) return false;
		typing = false;
		if (read.change) void board.put(card, read.change);
		return true;
	}
	async function leave(): Promise<void> {
		const here = at;
		[typing, problem] = [false, ''];
		await tick();
		if (here) await focusCell(here.row, here.column);
	}

	/** Takes what was copied from a spreadsheet into the cells from this one on; all of it or nothing. */
	async function paste(event: ClipboardEvent, row: number, column: number): Promise<void> {
		if (typing || !mayEdit) return;
		event.preventDefault();
		const lines = (event.clipboardData?.getData('text/plain') ?? '').replace(/\r?\n$/, '').split(/\r?\n/);
		const cells = lines.map((line) => line.split('\t'));
		const wide = fsum(cells, (line) => line.length);
		if (wide > MOST_CELLS) {
			problem = `${wide.toLocaleString('en-GB')} cells were copied; at most ${MOST_CELLS} are pasted at once.`;
			return;
		}
		const changes: { card: CardView; change: Change }[] = [];
		/** Cards as they are with what stands before in the paste. */
		const then = new Map<string, CardView>();
		let to = row;
		for (const line of cells) {
			while (rows[to] && !('card' in rows[to]!)) to++;
			const there = rows[to++];
			if (!there || !('card' in there)) break;
			for (const [i, text] of line.entries()) {
				const field = columns[column + i];
				if (!field) break;
				const card = then.get(there.card.id) ?? board.latest(there.card);
				const read = readTyped(field, card, text, looking);
				if (!read.ok) {
					problem = `Nothing was pasted. ${field.name} of ${there.card.number}: ${read.reason}.`;
					return;
				}
				if (!read.change) continue;
				changes.push({ card: there.card, change: read.change });
				then.set(card.id, board.after(card, read.change));
			}
		}
		problem = '';
		if (!changes.length) return;
		// All of it is one step, and taken back as one.
		const sent = await board.putAll(changes);
		if (sent.ok)
			board.tell({ tone: 'done', text: `${count(changes.length, 'cell')} changed.`, undo: sent.answer.id });
	}

	/** What is shown, as a file that any spreadsheet opens. */
	function save(): void {
		const shown = rows.flatMap((row) => ('card' in row && !row.card.hidden ? [row.card] : []));
		const file = stringify(
			[
				['key', ...columns.map(({ name }) => name.toLowerCase())],
				...shown.map((card) => [
					`${head.key}-${card.number}`,
					...columns.map((field) => cellOf(field, card)),
				]),
			],
			{ escape_formulas: true },
		);
		const link = document.createElement('a');
		link.href = URL.createObjectURL(new Blob([file], { type: 'text/csv' }));
		link.download = `${head.slug}-${today}.csv`;
		link.click();
		URL.revokeObjectURL(link.href);
	}
	/** Widths that columns have at least, and their shares of what is free. */
	const WIDTHS: Record<string, [number, number]> = {
		title: [220, 3],
		labels: [110, 1.4],
		owners: [110, 1.2],
	};
	/** Widths that this person drew columns to, here. */
	const drawn = $derived(`list-widths-${head.id}`);
	let widths = $state.raw<Record<string, number>>({});
	$effect(() => {
		widths = JSON.parse(localStorage.getItem(drawn) ?? '{}');
	});
	const [NARROW, BROAD] = [50, 700];
	function widen({ id }: Field, to: number): void {
		widths = { ...widths, [id]: Math.round(Math.max(NARROW, Math.min(BROAD, to))) };
		localStorage.setItem(drawn, JSON.stringify(widths));
	}
	function drawWidth(event: PointerEvent, field: Field): void {
		const edge = event.currentTarget as HTMLElement;
		const from = event.clientX - edge.parentElement!.getBoundingClientRect().width;
		edge.setPointerCapture(event.pointerId);
		edge.onpointermove = (moved) => widen(field, moved.clientX - from);
		edge.onpointerup = () => (edge.onpointermove = null);
	}
	const widthOf = ({ id }: Field): [number, number] =>
		widths[id] ? [widths[id], 0] : (WIDTHS[id] ?? [86, 1]);
	/** A card in a field as the list reads it. */
	const shown = (field: Field, card: CardView) => {
		const text = field.text(card);
		return field.day && text ? dateWords(text, today) : text;
	};
	const template = $derived(
		`56px ${columns
			.map((field) => {
				const [least, part] = widthOf(field);
				return part ? `minmax(${least}px, ${part}fr)` : `${least}px`;
			})
			.join(' ')}`,
	);
</script>

<div class="top">
	<details>
		<summary>Fields</summary>
		<div class="fields" role="group" aria-label="Fields that the list shows">
			{#each others as field (field.id)}<label
					><input
						type="checkbox"
						checked={chosen.includes(field.id)}
						onchange={(event) => show(field.id, event.currentTarget.checked)}
					/>
					{field.name}</label
				>{/each}
		</div>
	</details>
	<span class="soft">{sums(cards)}</span>
	<button type="button" class="link" onclick={save}>Save as CSV</button>
	<p class="warn" role="alert">{problem}</p>
</div>
<div
	class="list"
	role="grid"
	aria-label="Cards as a list"
	aria-rowcount={rows.length + 1}
	bind:this={list}
	style:--template={template}
	style:--least="{56 + fsum(columns, (field) => widthOf(field)[0])}px"
>
	<div class="row head" role="row">
		<span role="columnheader">Nr.</span>
		{#each columns as field (field.id)}
			<span
				role="columnheader"
				aria-label="{field.name}{sortOf(field)
					? ` ${sortOf(field)!.down ? '↓' : '↑'}${arrangement.sort.length > 1 ? placeOf(field) : ''}`
					: ''}"
				aria-sort={sortOf(field) ? (sortOf(field)!.down ? 'descending' : 'ascending') : 'none'}
				><button
					type="button"
					title="Order by it; with Shift after the others"
					onclick={(event) => sort(field, event.shiftKey)}
					>{field.name}{#if sortOf(field)}<small
							>{sortOf(field)!.down ? '↓' : '↑'}{arrangement.sort.length > 1 ? placeOf(field) : ''}</small
						>{/if}</button
				>
				<!-- svelte-ignore a11y_no_noninteractive_tabindex, a11y_no_noninteractive_element_interactions -->
				<span
					class="edge"
					role="separator"
					aria-orientation="vertical"
					aria-label="Width of {field.name}"
					aria-valuenow={Math.round(widths[field.id] ?? widthOf(field)[0])}
					tabindex="0"
					title="Draw it wider or narrower"
					onpointerdown={(event) => drawWidth(event, field)}
					onkeydown={(event) => {
						if (event.key !== 'ArrowLeft' && event.key !== 'ArrowRight') return;
						event.preventDefault();
						const wide = (event.currentTarget as HTMLElement).parentElement!.getBoundingClientRect().width;
						widen(field, wide + (event.key === 'ArrowLeft' ? -20 : 20));
					}}
				></span></span
			>
		{/each}
	</div>
	{#if !cards.length}<p class="none" role="status">No card here is like that.</p>{/if}
	<div class="rows" style:height="{windowed.height}px" role="rowgroup">
		{#each windowed.items as item (item.key)}
			{@const row = rows[item.index]}
			{#if row}
				<div
					class="row"
					class:group={!('card' in row)}
					role="row"
					aria-rowindex={item.index + 2}
					data-index={item.index}
					style:transform="translateY({item.start}px)"
					{@attach windowed.measure}
				>
					{#if 'card' in row}
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
						{#each columns as field, column (field.id)}
							{#if typing && at?.row === item.index && at.column === column}
								<span role="gridcell"
									><input
										aria-label="{field.name} of {card.number}"
										value={field.text(card)}
										list={field.values?.put && !['due', 'start', 'owners', 'labels'].includes(field.id)
											? 'list-values'
											: undefined}
										{@attach take}
										onblur={(event) => type(card, field, event.currentTarget)}
										onkeydown={(event) => {
											event.stopPropagation();
											if (event.key === 'Escape') void leave();
											if (event.key === 'Enter' && type(card, field, event.currentTarget)) void leave();
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
									tabindex={(
										at ? at.row === item.index && at.column === column : item.index === 0 && column === 0
									)
										? 0
										: -1}
									class:warn={field.id === 'blocked'}
									class:title={field.id === 'title'}
									aria-readonly={!mayEdit || !typeable(field)}
									onfocus={() => (at = { row: item.index, column })}
									onkeydown={(event) => keys(event, item.index, column)}
									ondblclick={() => {
										if (mayEdit && typeable(field)) [at, typing] = [{ row: item.index, column }, true];
									}}
									onpaste={(event) => void paste(event, item.index, column)}>{shown(field, card)}</span
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
		min-height: 28px;
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
		min-height: 33px;
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
	.head {
		position: sticky;
		top: 0;
		z-index: 2;
		background: var(--paper);
		border-bottom: 1.5px solid var(--edge);
		color: var(--soft);
	}
	.head > span {
		position: relative;
	}
	.edge {
		position: absolute;
		inset: 4px 0 4px auto;
		width: 9px;
		border-right: 2px solid var(--rule);
		cursor: col-resize;
		touch-action: none;
	}
	.edge:hover,
	.edge:focus-visible {
		border-right-color: var(--river);
	}
	.head button {
		border: 0;
		background: none;
		color: inherit;
		font: 600 0.93rem var(--text);
		padding: 0;
		min-height: 30px;
		text-align: left;
	}
	.head small {
		margin-left: 4px;
		color: var(--moss);
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
