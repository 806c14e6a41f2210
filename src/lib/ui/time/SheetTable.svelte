<script lang="ts">
	import type { TimesheetPage, TimesheetRow } from '$core/pages/account';
	import { WEEKDAYS } from '../people/day';
	import { dateWords, figure, shortDate } from '../words';
	import { entriesOn, shownOn, type Entry, type Week } from './week.svelte';

	interface Props {
		sheet: TimesheetPage;
		week: Week;
		mayEdit: boolean;
		/** Told of the cell that got the focus. */
		oncell: (row: TimesheetRow, day: string) => void;
		/** Asks for the note and the billable mark of a day. */
		onask: (row: TimesheetRow, day: string) => void;
	}
	/** A week of hours by card and day: each cell is typed into where it stands. */
	let { sheet, week, mayEdit, oncell, onask }: Props = $props();
	let grid = $state<HTMLElement>();

	/** Gives a cell the focus, by its places among rows and days. */
	export function focus(row: number, day: number): void {
		const next = grid?.querySelector<HTMLInputElement>(`[data-cell="${row}/${day}"]`);
		next?.focus();
		next?.select();
	}
	function go(input: HTMLInputElement, rowBy: number, dayBy: number): void {
		const [row, day] = input.dataset.cell!.split('/').map(Number) as [number, number];
		const within = (at: number, last: number) => Math.min(last, Math.max(0, at));
		focus(within(row + rowBy, week.rows.length - 1), within(day + dayBy, 6));
	}
	function onkeydown(event: KeyboardEvent, row: TimesheetRow, day: string): void {
		const input = event.currentTarget as HTMLInputElement;
		const { key } = event;
		if (key === 'ArrowDown' || key === 'ArrowUp') go(input, key === 'ArrowDown' ? 1 : -1, 0);
		else if (key === 'ArrowLeft' && input.selectionStart === 0) go(input, 0, -1);
		else if (key === 'ArrowRight' && input.selectionEnd === input.value.length) go(input, 0, 1);
		else if (key === 'Escape') input.value = shownOn(row, day);
		else if (key === 'Enter') {
			if (input.value.trim() !== shownOn(row, day)) void week.keep(row, day, input);
			else onask(row, day);
		} else return;
		event.preventDefault();
	}
	const nameOf = (row: TimesheetRow, day: string, entries: readonly Entry[]) =>
		`${row.key}, ${dateWords(day)}: ${shownOn(row, day) || 'no'} hours${
			entries.some(({ billable }) => billable) ? ', billable' : ''
		}`;
	const notesOf = (entries: readonly Entry[]) =>
		entries
			.map(({ note }) => note)
			.filter(Boolean)
			.join('; ') || undefined;
</script>

<div class="scroll">
	<table bind:this={grid}>
		<thead>
			<tr>
				<th scope="col">Card</th>
				{#each week.days as day, i (day)}<th
						scope="col"
						class:today={day === sheet.today}
						class:free={!sheet.hours[i]}>{WEEKDAYS[i]}<br /><small>{shortDate(day)}</small></th
					>{/each}
				<th scope="col">Sum</th>
			</tr>
		</thead>
		<tbody>
			{#each week.rows as row, r (row.card)}
				{@const sum = week.ofRow(row)}
				<tr>
					<th scope="row"><a href="/boards/{row.slug}?card={row.key}"><b>{row.key}</b> {row.title}</a></th>
					{#each week.days as day, i (day)}
						{@const entries = entriesOn(row, day)}
						<td class:today={day === sheet.today} class:free={!sheet.hours[i]}>
							<input
								data-cell="{r}/{i}"
								value={shownOn(row, day)}
								inputmode="decimal"
								autocomplete="off"
								readonly={!mayEdit || day > sheet.today}
								class:several={entries.length > 1}
								class:noted={entries.some(({ note }) => note)}
								class:billed={entries.some(({ billable }) => billable)}
								aria-label={nameOf(row, day, entries)}
								title={notesOf(entries)}
								onfocus={(event) => {
									oncell(row, day);
									event.currentTarget.select();
								}}
								onchange={(event) => void week.keep(row, day, event.currentTarget)}
								onkeydown={(event) => onkeydown(event, row, day)}
								ondblclick={() => mayEdit && onask(row, day)}
							/>
						</td>
					{/each}
					<td class="sum">{sum ? figure(sum, 2) : ''}</td>
				</tr>
			{/each}
		</tbody>
		<tfoot>
			<tr>
				<th scope="row">All cards</th>
				{#each week.days as day, i (day)}<td class="sum" class:today={day === sheet.today}
						>{figure(week.ofDay(day), 2)}<br /><small>of {figure(sheet.hours[i]!, 2)}</small></td
					>{/each}
				<td class="sum"><b>{figure(week.total, 2)}</b></td>
			</tr>
		</tfoot>
	</table>
</div>
<p class="legend">
	<span><i class="noted"></i> has a note</span><span><i class="billed"></i> billable</span><span
		><i class="several"></i> several entries</span
	>
</p>

<style>
	.scroll {
		overflow-x: auto;
	}
	table {
		border-collapse: collapse;
		width: 100%;
	}
	th,
	td {
		padding: 2px 4px;
		border-bottom: 1px solid var(--rule);
		text-align: left;
		font-weight: 400;
	}
	thead th {
		vertical-align: bottom;
		font-weight: 650;
		border-bottom: 2px solid var(--ink);
		padding: 4px 10px;
	}
	thead small {
		font-weight: 400;
		color: var(--soft);
	}
	tbody th {
		min-width: 180px;
	}
	tbody a {
		display: inline-block;
		min-height: var(--touch, auto);
		align-content: center;
		text-decoration: none;
	}
	tbody a:hover {
		color: var(--moss);
	}
	tbody b {
		color: var(--soft);
		font-weight: 600;
	}
	td input {
		width: 100%;
		min-width: 54px;
		min-height: max(32px, var(--touch, 0px));
		padding: 3px 8px;
		font: inherit;
		font-variant-numeric: tabular-nums;
		color: var(--ink);
		background: var(--sheet);
		border: 1px solid var(--rule);
		border-radius: 2px;
	}
	td input[readonly] {
		background: transparent;
		border-color: transparent;
	}
	.free input {
		background: transparent;
	}
	.today {
		background: var(--moss-2);
	}
	.noted {
		box-shadow: inset 0 -3px 0 var(--river);
	}
	.billed {
		box-shadow: inset 4px 0 0 var(--moss);
	}
	.noted.billed {
		box-shadow:
			inset 4px 0 0 var(--moss),
			inset 0 -3px 0 var(--river);
	}
	.several {
		font-style: italic;
		border-style: double;
		border-width: 3px;
		border-color: var(--edge);
	}
	.sum {
		padding: 4px 12px;
		white-space: nowrap;
	}
	.sum small {
		color: var(--soft);
	}
	.legend {
		display: flex;
		flex-wrap: wrap;
		gap: 4px 18px;
		font-size: 0.9rem;
		color: var(--soft);
	}
	.legend .several {
		border: 3px double var(--edge);
	}
	.legend i {
		display: inline-block;
		vertical-align: -3px;
		width: 22px;
		height: 16px;
		border: 1px solid var(--rule);
	}
	@media (max-width: 700px) {
		tbody th {
			min-width: 128px;
			font-size: 0.93rem;
		}
	}
</style>
