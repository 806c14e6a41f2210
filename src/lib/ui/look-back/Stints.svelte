<script lang="ts">
	import { fsum } from 'd3-array';
	import type { Ledger, Stint } from '$core/sprint/ledger';
	import type { Unit } from '$core/pages/board';
	import Gradual from '../frame/Gradual.svelte';
	import { figure } from '../words';

	interface Props {
		ledger: Omit<Ledger, 'moves'>;
		titles: Record<string, string>;
		unit: Unit;
		/** What became of a stint, in words. */
		ended: (stint: Stint) => string;
		open: (key: string) => string;
	}
	/** The whole ledger: every stint with what it came in with and what became of it, and their sums. */
	let { ledger, titles, unit, ended, open }: Props = $props();
	const signed = (n: number) => (n > 0 ? `+${figure(n, 2)}` : n < 0 ? `−${figure(-n, 2)}` : '');
	const some = (n: number) => (n ? figure(n, 2) : '');
	const exits = $derived(fsum(ledger.stints, (stint) => stint.exit));
</script>

{#snippet line(stint: Stint)}
	<tr>
		<th scope="row"
			><a href={open(stint.card)} data-sveltekit-noscroll data-sveltekit-keepfocus
				><b>{stint.card}</b> {titles[stint.card] ?? ''}</a
			></th
		>
		<td>{figure(stint.entry, 2)}{stint.kind === 'added' ? ' added' : ''}</td>
		<td>{signed(stint.resized)}</td>
		<td>{some(stint.burned)}</td>
		<td>{some(stint.splitOff)}</td>
		<td>{some(stint.exit)}</td>
		<td>{stint.worked ? `${figure(stint.worked, 2)} h` : ''}</td>
		<td>{ended(stint)}</td>
	</tr>
{/snippet}
<details>
	<summary>The whole ledger, stint by stint</summary>
	<div class="scroll">
		<table>
			<thead>
				<tr>
					<th scope="col">Card</th>
					<th scope="col">Came in</th>
					<th scope="col">Re-sized</th>
					<th scope="col">Burned</th>
					<th scope="col">Split off</th>
					<th scope="col">Went out</th>
					<th scope="col">Worked</th>
					<th scope="col">How it ended</th>
				</tr>
			</thead>
			<tbody>
				<Gradual list={ledger.stints} key={(stint) => stint.card + stint.opened} row={line} as="tr" px={32} />
			</tbody>
			<tfoot>
				<tr>
					<th scope="row">All, in {unit}</th>
					<td>{figure(ledger.committed + ledger.added, 2)}</td>
					<td>{signed(ledger.resized)}</td>
					<td>{some(ledger.burned)}</td>
					<td>{some(ledger.splitOff)}</td>
					<td>{some(exits)}</td>
					<td>{ledger.worked ? `${figure(ledger.worked, 2)} h` : ''}</td>
					<td>Came in {signed(ledger.resized) || '+0'} = burned + split off + went out</td>
				</tr>
			</tfoot>
		</table>
	</div>
</details>

<style>
	summary {
		cursor: pointer;
		width: max-content;
		min-height: max(24px, var(--touch, 0px));
		color: var(--soft);
	}
	.scroll {
		overflow-x: auto;
	}
	table {
		border-collapse: collapse;
		width: 100%;
	}
	th,
	td {
		padding: 4px 14px 4px 0;
		border-bottom: 1px dotted var(--rule);
		text-align: left;
		font-weight: 400;
		vertical-align: top;
	}
	thead th {
		font-size: 12px;
		color: var(--soft);
		white-space: nowrap;
		border-bottom: 2px solid var(--ink);
	}
	:is(td, thead th):nth-child(n + 2):nth-child(-n + 7) {
		text-align: right;
		white-space: nowrap;
	}
	tbody th {
		min-width: 180px;
	}
	tfoot :is(th, td) {
		font-weight: 650;
	}
	a {
		text-decoration: none;
		min-height: var(--touch, auto);
	}
	a:hover {
		color: var(--moss);
	}
	b {
		color: var(--soft);
		font-weight: 600;
	}
</style>
