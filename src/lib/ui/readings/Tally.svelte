<script lang="ts">
	import { fsum } from 'd3-array';
	import { page } from '$app/state';
	import { arrangeable, tally } from '$core/board/arrange';
	import { fieldNamed } from '$core/board/field';
	import type { CardView } from '$core/pages/board';
	import { leftOf, ownLeft } from '$core/board/left';
	import CardsBehind from '../behind/CardsBehind.svelte';
	import WithBehind from '../behind/WithBehind.svelte';
	import { amount, count } from '../words';
	import type { BoardState } from '../board/board-state.svelte';

	interface Props {
		board: BoardState;
		cards: CardView[];
		open: (card: CardView) => string;
		onlayout: (change: Record<string, string | null>) => void;
	}
	/** Cards, or what is left of them, by any two fields; each cell opens its cards. */
	let { board, cards, open, onlayout }: Props = $props();
	const head = $derived(board.head);
	const fields = $derived(arrangeable(board.fields));
	const named = (param: string, usual: string) =>
		fieldNamed(fields, page.url.searchParams.get(param) ?? usual) ?? fieldNamed(fields, usual)!;
	const down = $derived(named('rows', 'owners'));
	const across = $derived(named('across', 'column'));
	const byLeft = $derived(head.unit !== 'none' && page.url.searchParams.get('of') === 'left');
	const counted = $derived(tally(cards, down, across));
	const figure = (list: readonly CardView[]) => (byLeft ? leftOf(list) : list.length);
	const most = $derived(Math.max(1, ...counted.cells.flat().map(figure)));
	const shown = (list: readonly CardView[]) =>
		byLeft ? amount(figure(list), head.unit) : String(figure(list));
	/** Some cards stand in several rows or columns, so that sums of them are of each card once. */
	const several = $derived(fsum(counted.inRow, (row) => row.length) > counted.all.length);

	let behind = $state.raw<{ title: string; cards: string[] } | null>(null);
	const show = (title: string, list: readonly CardView[]) =>
		(behind = { title, cards: list.map(({ id }) => id) });
	const those = $derived(behind?.cards.flatMap((id) => board.cards.get(id) ?? []) ?? []);
	const keyOf = (card: CardView) => `${head.key}-${card.number}`;
</script>

<div class="tally">
	<p>
		<select
			class="choice"
			aria-label="Count"
			value={byLeft ? 'left' : 'cards'}
			onchange={({ currentTarget: { value } }) => onlayout({ of: value === 'left' ? 'left' : null })}
		>
			<option value="cards">Cards</option>
			{#if head.unit !== 'none'}<option value="left">What is left</option>{/if}
		</select>
		by
		<select
			class="choice"
			aria-label="Rows"
			value={down.id}
			onchange={({ currentTarget: { value } }) => onlayout({ rows: value })}
		>
			{#each fields as field (field.id)}<option value={field.id}>{field.name.toLowerCase()}</option>{/each}
		</select>
		and
		<select
			class="choice"
			aria-label="Columns"
			value={across.id}
			onchange={({ currentTarget: { value } }) => onlayout({ across: value })}
		>
			{#each fields as field (field.id)}<option value={field.id}>{field.name.toLowerCase()}</option>{/each}
		</select>
		{#if several}<span class="soft">A card of several stands under each; sums have it once.</span>{/if}
	</p>
	<WithBehind behind={behind ? list : null}>
		<div class="scroll">
			<table>
				<caption class="sr-only">{byLeft ? 'What is left' : 'Cards'} by {down.name} and {across.name}</caption
				>
				<thead>
					<tr>
						<td></td>
						{#each counted.columns as { key, name } (key)}<th scope="col">{name}</th>{/each}
						<th scope="col" class="sum">all</th>
					</tr>
				</thead>
				<tbody>
					{#each counted.rows as row, i (row.key)}
						<tr>
							<th scope="row">{row.name}</th>
							{#each counted.columns as column, j (column.key)}
								{@const there = counted.cells[i]![j]!}
								<td style:--share="{(figure(there) / most) * 100}%"
									>{#if there.length}<button
											type="button"
											aria-label="{row.name}, {column.name}: {shown(there)}"
											onclick={() => show(`${row.name}, ${column.name}`, there)}>{shown(there)}</button
										>{:else}<span class="soft">·</span>{/if}</td
								>
							{/each}
							<td class="sum"
								><button
									type="button"
									aria-label="{row.name}: {shown(counted.inRow[i]!)}"
									onclick={() => show(row.name, counted.inRow[i]!)}>{shown(counted.inRow[i]!)}</button
								></td
							>
						</tr>
					{/each}
				</tbody>
				<tfoot>
					<tr>
						<th scope="row">all</th>
						{#each counted.columns as column, j (column.key)}<td
								><button
									type="button"
									aria-label="{column.name}: {shown(counted.inColumn[j]!)}"
									onclick={() => show(column.name, counted.inColumn[j]!)}
									>{shown(counted.inColumn[j]!)}</button
								></td
							>{/each}
						<td class="sum"
							><button
								type="button"
								aria-label="All: {shown(counted.all)}"
								onclick={() => show('All', counted.all)}>{shown(counted.all)}</button
							></td
						>
					</tr>
				</tfoot>
			</table>
		</div>
		{#if !cards.length}<p class="soft" role="status">{count(0, 'card')}: no card here is like that.</p>{/if}
	</WithBehind>
</div>
{#snippet list()}
	<CardsBehind
		title={behind!.title}
		cards={those.map((card) => ({ card: keyOf(card), amount: byLeft ? ownLeft(card) : null }))}
		titles={Object.fromEntries(those.map((card) => [keyOf(card), card.title]))}
		unit={byLeft ? head.unit : 'none'}
		open={(key) => open(those.find((card) => keyOf(card) === key)!)}
		onclose={() => (behind = null)}
	/>
{/snippet}

<style>
	.tally {
		flex: 1;
		min-height: 0;
		overflow: auto;
		padding: 0 20px 30px;
	}
	p {
		margin: 0 0 8px;
	}
	.soft {
		color: var(--faint);
	}
	.scroll {
		overflow-x: auto;
	}
	table {
		border-collapse: collapse;
		font-variant-numeric: tabular-nums;
	}
	th {
		font-weight: 600;
		text-align: left;
		padding: 4px 14px 4px 0;
		max-width: 13rem;
		overflow-wrap: anywhere;
	}
	thead th {
		overflow-wrap: break-word;
		vertical-align: bottom;
		padding-left: 8px;
		border-bottom: 1.5px solid var(--edge);
	}
	td {
		position: relative;
		padding: 0;
		border-bottom: 1px dotted var(--rule);
		min-width: 72px;
		height: 34px;
		text-align: left;
		padding-left: 8px;
	}
	tbody td:not(.sum)::before {
		content: '';
		position: absolute;
		inset: 4px auto 4px 4px;
		width: calc((100% - 8px) * var(--share) / 100%);
		width: calc(var(--share) - 8px);
		max-width: calc(100% - 8px);
		background: var(--river-2, var(--moss-2));
		border-radius: 2px;
	}
	td button {
		position: relative;
		border: 0;
		background: none;
		color: inherit;
		font: inherit;
		padding: 0 4px;
		min-height: max(30px, var(--touch, 0px));
		min-width: max(30px, var(--touch, 0px));
		text-align: left;
	}
	td button:hover {
		text-decoration: underline;
		text-underline-offset: 3px;
	}
	td > span {
		padding-left: 4px;
	}
	.sum {
		font-weight: 650;
	}
	tfoot :is(th, td) {
		border-top: 1.5px solid var(--edge);
		border-bottom: 0;
		font-weight: 650;
	}
	@media (max-width: 700px) {
		.tally {
			padding: 0 14px 30px;
		}
	}
</style>
