<script lang="ts">
	import type { PeoplePage, PersonWeekView } from '$core/pages/plan';
	import { count, figure, shortDate } from '../words';
	import NameTag from '../board/NameTag.svelte';

	interface Props {
		page: PeoplePage;
		person: string | null;
		monday: string | null;
		onpick: (person: string, monday: string | null) => void;
	}
	/** People as rows, the coming weeks as columns: hours promised as a line, what is placed as a bar. */
	let { page, person, monday, onpick }: Props = $props();
	const mondays = $derived([...new Set(page.weeks.map((week) => week.monday))]);
	const most = $derived(Math.max(1, ...page.weeks.map((week) => Math.max(week.give, week.placed))));
	const of = $derived(new Map(page.weeks.map((week) => [`${week.person}/${week.monday}`, week])));
	const wide = (n: number) => `${Math.min(100, (n / most) * 100)}%`;
	/** In whole hours, but where those would hide that somebody is over. */
	const words = ({ give, placed, promise, standing, away }: PersonWeekView) => {
		if (give === 0 && placed === 0) return away ? 'away' : page.boards.length ? 'no hours' : 'no board';
		const places = standing === 'over' && Math.round(placed) <= Math.round(promise) ? 1 : 0;
		return `${figure(placed, places)} of ${figure(promise, places)}`;
	};
	const label = (name: string, week: PersonWeekView) =>
		`${name}, week of ${shortDate(week.monday)}: ${words(week)}${week.standing === 'over' ? ' over' : ''}; ${figure(week.placed)} h placed of ${figure(week.promise)} h promised, ${figure(week.give)} h to give${week.away ? `, away ${count(week.away, 'day')}` : ''}${week.standing === 'room' ? ', has room' : ''}`;

	function onkeydown(event: KeyboardEvent): void {
		const step = { ArrowLeft: [0, -1], ArrowRight: [0, 1], ArrowUp: [-1, 0], ArrowDown: [1, 0] }[event.key];
		const cell = (event.target as HTMLElement).closest<HTMLElement>('[data-cell]');
		if (!step || !cell) return;
		event.preventDefault();
		const [row, column] = cell.dataset.cell!.split(',').map(Number) as [number, number];
		document.querySelector<HTMLElement>(`[data-cell="${row + step[0]!},${column + step[1]!}"]`)?.focus();
	}
</script>

<!-- svelte-ignore a11y_no_noninteractive_element_interactions -->
<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
<div class="scroll" role="region" aria-label="Hours by person and week" tabindex="0" {onkeydown}>
	<table>
		<thead>
			<tr>
				<th scope="col">Hours</th>
				{#each mondays as day, i (day)}<th scope="col">{i === 0 ? 'rest of this week' : shortDate(day)}</th
					>{/each}
			</tr>
		</thead>
		<tbody>
			{#each page.people as one, row (one.id)}
				<tr class:chosen={person === one.id}>
					<th scope="row">
						<button type="button" class="name" onclick={() => onpick(one.id, null)}
							><NameTag person={one} seed={row} /><span>{one.name}<small>{one.title}</small></span></button
						>
					</th>
					{#each mondays as day, column (day)}
						{@const week = of.get(`${one.id}/${day}`)!}
						<td>
							<button
								type="button"
								class="week {week.standing}"
								class:none={week.give === 0 && week.placed === 0}
								data-cell="{row},{column}"
								tabindex={(person === one.id && monday === day) ||
								(monday === null && row === 0 && column === 0)
									? 0
									: -1}
								aria-pressed={person === one.id && monday === day}
								aria-label={label(one.name, week)}
								onclick={() => onpick(one.id, day)}
							>
								<span class="figures">{words(week)}{week.standing === 'over' ? ' over' : ''}</span>
								<span class="bar" aria-hidden="true">
									<i class="give" style:width={wide(week.give)}></i>
									{#if week.placed > 0}<i class="placed" style:width={wide(week.placed)}></i>{/if}
									<i class="promise" style:left={wide(week.promise)}></i>
								</span>
							</button>
						</td>
					{/each}
				</tr>
			{/each}
		</tbody>
	</table>
</div>

<style>
	.scroll {
		overflow-x: auto;
		outline-offset: -2px;
	}
	table {
		border-collapse: collapse;
		width: 100%;
		min-width: 1000px;
		table-layout: fixed;
	}
	th {
		text-align: left;
		font-weight: 600;
		font-size: 0.93rem;
		color: var(--soft);
		padding: 4px 8px 6px 7px;
	}
	th:first-child {
		width: 160px;
		position: sticky;
		left: 0;
		padding-left: 0;
		background: var(--paper);
		z-index: 1;
	}
	td {
		padding: 2px 6px 2px 0;
		border-top: 1px dotted var(--rule);
	}
	tbody th {
		border-top: 1px dotted var(--rule);
		padding: 2px 6px 2px 0;
	}
	button {
		font: inherit;
		color: var(--ink);
		background: none;
		border: 1px solid transparent;
		border-radius: 3px;
		text-align: left;
		width: 100%;
	}
	.name {
		display: flex;
		gap: 8px;
		align-items: center;
		padding: 4px 2px;
		min-height: 44px;
		font-weight: 600;
	}
	.name small {
		display: block;
		font-size: 12px;
		font-weight: 450;
		color: var(--soft);
	}
	.chosen .name {
		border-left: 4px solid var(--ink);
	}
	.week {
		min-height: 44px;
		padding: 4px 6px;
		display: grid;
		gap: 4px;
		font-size: 0.93rem;
	}
	.week:hover {
		background: var(--sheet);
	}
	.week[aria-pressed='true'] {
		border: 2px solid var(--ink);
		background: var(--sheet);
	}
	.figures {
		white-space: nowrap;
	}
	.over .figures {
		color: var(--brick);
		font-weight: 700;
	}
	.room .figures {
		color: var(--soft);
	}
	.none .figures {
		color: var(--faint);
		font-style: italic;
	}
	.bar {
		position: relative;
		display: block;
		height: 10px;
	}
	.bar i {
		position: absolute;
		inset: 0 auto 0 0;
	}
	.give {
		background: repeating-linear-gradient(135deg, var(--edge) 0 1px, var(--sunk) 1px 5px);
	}
	.placed {
		background: var(--river-2);
		border: 1px solid var(--river);
	}
	.over .placed {
		border: 2px solid var(--brick-fill);
	}
	.bar .promise {
		width: 2px;
		top: -2px;
		bottom: -2px;
		background: var(--ink);
	}
	.none .bar {
		visibility: hidden;
	}
</style>
