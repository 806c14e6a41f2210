<script lang="ts">
	import { spentBy, PERIODS, type Period, type Spent } from '$core/account/spent';
	import { figure } from '../words';

	interface Props {
		spent: Spent[];
		people: Record<string, string>;
		onpick: (what: { title: string; cards: { card: string; amount: number }[] }) => void;
	}
	/** Who worked how much for an initiative in which month, quarter or sprint. */
	let { spent, people, onpick }: Props = $props();
	let by = $state<Period>('month');
	const table = $derived(spentBy(spent, by));
	const NAMES = { month: 'month', quarter: 'quarter', sprint: 'sprint' };
	const nameOf = (person: string) => (person ? (people[person] ?? 'Somebody') : 'Everyone');
	const called = (period: string) =>
		period === ''
			? 'no sprint'
			: by === 'month'
				? new Date(`${period}-15`).toLocaleDateString('en-GB', { month: 'short', year: 'numeric' })
				: by === 'quarter'
					? `${period.slice(5)} ${period.slice(0, 4)}`
					: period;
</script>

<h3>
	Who worked for it, by
	<select class="choice" aria-label="Work told apart by" bind:value={by}
		>{#each PERIODS as one (one)}<option value={one}>{NAMES[one]}</option>{/each}</select
	>
</h3>
<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
<div class="scroll" role="region" aria-label="Hours by person and {NAMES[by]}" tabindex="0">
	<table>
		<thead>
			<tr>
				<th scope="col">Hours</th>
				{#each table.periods as period (period)}<th scope="col">{called(period)}</th>{/each}
				<th scope="col">all</th>
			</tr>
		</thead>
		<tbody>
			{#each table.lines as line (line.person)}
				<tr class:everyone={!line.person}>
					<th scope="row">{nameOf(line.person)}</th>
					{#each line.cells as cell (cell.period)}<td
							>{#if cell.hours}<button
									type="button"
									aria-label="{nameOf(line.person)}, {called(cell.period)}: {figure(cell.hours, 2)} h"
									onclick={() =>
										onpick({ title: `${nameOf(line.person)}, ${called(cell.period)}`, cards: cell.cards })}
									>{figure(cell.hours, 1)}</button
								>{/if}</td
						>{/each}
					<td class="sum">{figure(line.hours, 1)}</td>
				</tr>
			{/each}
		</tbody>
	</table>
</div>

<style>
	h3 {
		font-size: 1.1rem;
		margin: 16px 0 4px;
	}
	.scroll {
		overflow-x: auto;
	}
	table {
		border-collapse: collapse;
	}
	th,
	td {
		padding: 2px 12px 2px 0;
		border-bottom: 1px dotted var(--rule);
		text-align: right;
		white-space: nowrap;
	}
	th {
		font-weight: 600;
		color: var(--soft);
		font-size: 0.93rem;
	}
	th:first-child {
		text-align: left;
		position: sticky;
		left: 0;
		background: var(--paper);
	}
	.everyone > * {
		font-weight: 700;
		color: var(--ink);
	}
	button {
		border: 0;
		background: none;
		color: inherit;
		font: inherit;
		min-height: max(26px, var(--touch, 0px));
		padding: 0 2px;
		text-decoration: underline dotted 1px;
		text-underline-offset: 3px;
	}
	.sum {
		font-weight: 650;
	}
</style>
