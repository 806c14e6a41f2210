<script lang="ts">
	import { fsum } from 'd3-array';
	import type { KindCell, PanoramaPage } from '$core/pages/panorama';
	import type { Asked } from '$core/panorama/asked';
	import { boardsMeant } from '$core/panorama/rows';
	import Slots from '../board/Slots.svelte';
	import CardsBehind from '../behind/CardsBehind.svelte';
	import WithBehind from '../behind/WithBehind.svelte';
	import { count } from '../words';
	import { cardAddress } from './words';

	let { page, asked }: { page: PanoramaPage; asked: Asked } = $props();
	const KINDS = { queue: 'Waiting', work: 'In hand', done: 'Done in two weeks' } as const;
	const rows = $derived(page.kinds?.rows.filter(({ board }) => boardsMeant(page, asked).has(board)) ?? []);
	const most = $derived(
		Math.max(1, ...rows.flatMap((row) => [row.queue, row.work, row.done].map((cell) => cell.cards.length))),
	);
	const boardOf = (id: string) => page.boards.find((one) => one.id === id)!;
	let picked = $state.raw<{ board: string; kind: keyof typeof KINDS } | null>(null);
	const open = (key: string) => cardAddress(page.boards, key);
	const cellOf = (row: (typeof rows)[number], kind: keyof typeof KINDS): KindCell => row[kind];
	const sum = (kind: keyof typeof KINDS) => fsum(rows, (row) => row[kind].cards.length);
</script>

{#snippet behind()}
	{@const row = picked && rows.find(({ board }) => board === picked!.board)}
	{#if picked && row}<CardsBehind
			title="{KINDS[picked.kind]} on {boardOf(row.board).name}"
			cards={cellOf(row, picked.kind).cards}
			titles={page.kinds!.titles}
			link={{ href: `/boards/${boardOf(row.board).slug}`, words: 'Look at the board' }}
			{open}
			onclose={() => (picked = null)}
		/>{/if}
{/snippet}

<div class="kinds">
	<WithBehind behind={picked ? behind : null}>
		<table>
			<caption class="sr-only">Boards by kind of column</caption>
			<thead>
				<tr>
					<th scope="col">Board</th>
					{#each Object.values(KINDS) as name (name)}<th scope="col">{name}</th>{/each}
				</tr>
			</thead>
			<tbody>
				{#each rows as row (row.board)}
					<tr>
						<th scope="row"><a href="/boards/{boardOf(row.board).slug}">{boardOf(row.board).name}</a></th>
						{#each Object.keys(KINDS) as kind (kind)}
							{@const cell = cellOf(row, kind as 'queue')}
							{@const n = cell.cards.length}
							<!-- What is narrowed says nothing of how full a column is. -->
							{@const slots = page.narrowed || asked.who ? null : cell.slots}
							<td>
								<button
									type="button"
									class={kind}
									class:over={slots !== null && n > slots}
									aria-pressed={picked?.board === row.board && picked.kind === kind}
									onclick={() => (picked = { board: row.board, kind: kind as 'queue' })}
								>
									<b>{n}</b>
									<span>{slots === null ? (n === 1 ? 'card' : 'cards') : `of ${count(slots, 'slot')}`}</span>
									{#if slots !== null && slots <= 12}<Slots limit={slots} standing={n} />{/if}
									<i aria-hidden="true" style:width="{(n / most) * 100}%"></i>
								</button>
							</td>
						{/each}
					</tr>
				{/each}
			</tbody>
			<tfoot>
				<tr>
					<th scope="row">All of them</th>
					{#each ['queue', 'work', 'done'] as const as kind (kind)}<td class="sum"
							>{count(sum(kind), 'card')}</td
						>{/each}
				</tr>
			</tfoot>
		</table>
	</WithBehind>
</div>

<style>
	.kinds {
		flex: 1;
		min-height: 0;
		overflow: auto;
		padding: 4px 20px 30px;
	}
	table {
		width: 100%;
		border-collapse: collapse;
		table-layout: fixed;
	}
	th {
		text-align: left;
		padding: 6px 10px 6px 0;
		font-weight: 650;
	}
	thead th {
		color: var(--soft);
		border-bottom: 1.5px solid var(--edge);
	}
	tbody th a {
		display: inline-block;
		min-height: max(24px, var(--touch, 0px));
		align-content: center;
	}
	td {
		padding: 5px 8px 5px 0;
		border-bottom: 1px dotted var(--rule);
	}
	button {
		position: relative;
		width: 100%;
		display: flex;
		flex-wrap: wrap;
		align-items: baseline;
		gap: 2px 8px;
		padding: 8px 10px 14px;
		border: 1.5px solid var(--edge);
		border-radius: 4px;
		background: none;
		color: var(--ink);
		font: inherit;
		text-align: left;
		min-height: 52px;
		overflow: hidden;
	}
	.queue {
		border-style: dashed;
	}
	.work {
		background: var(--sheet);
	}
	.done {
		border-color: transparent transparent var(--moss);
	}
	b {
		font: 650 1.4rem var(--display);
	}
	.over b {
		color: var(--brick);
	}
	button i {
		position: absolute;
		left: 0;
		bottom: 0;
		height: 6px;
		background: var(--river);
	}
	.queue i {
		background: var(--hatch-left);
	}
	.done i {
		background: var(--moss);
	}
	[aria-pressed='true'] {
		outline: 2px solid var(--ink);
		outline-offset: 1px;
	}
	.sum {
		color: var(--soft);
		border: 0;
	}
	@media (max-width: 700px) {
		.kinds {
			padding: 4px 14px 30px;
		}
		th:first-child {
			width: 84px;
			font-size: 0.93rem;
			overflow-wrap: anywhere;
		}
		button {
			padding: 6px 6px 12px;
		}
	}
</style>
