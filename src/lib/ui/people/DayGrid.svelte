<script lang="ts">
	import { dayText, mondayOf, parseDay, weekday } from '$core/calendar/days';
	import type { BookingView, DaysPage } from '$core/pages/days';
	import type { PersonHours } from '$core/pages/plan';
	import { keys } from '../frame/keys.svelte';
	import { pressed } from '../frame/keymap';
	import NameTag from '../board/NameTag.svelte';
	import { dateWords, figure, list, shortDate } from '../words';
	import { aboutDay, rotaOf } from './day';

	/** Somebody's days that are chosen, both counted. */
	export interface Chosen {
		person: string;
		from: string;
		to: string;
	}
	interface Props {
		page: DaysPage;
		people: readonly PersonHours[];
		chosen: Chosen | null;
		onchoose: (chosen: Chosen) => void;
	}
	/** People as rows, thirty days across: away, down for something, on cards with dates, over. */
	let { page, people, chosen, onchoose }: Props = $props();
	const first = $derived(parseDay(page.from)!);
	const days = $derived(Array.from({ length: page.count }, (_, i) => dayText(first + i)));
	const booked = $derived.by(() => {
		const by = new Map<string, BookingView[]>();
		for (const one of page.bookings) {
			const key = `${one.person} ${one.day}`;
			by.set(key, [...(by.get(key) ?? []), one]);
		}
		return by;
	});
	const over = $derived(
		new Set(
			page.weeks.flatMap((week) => (week.standing === 'over' ? [`${week.person} ${week.monday}`] : [])),
		),
	);
	const onDay = (person: string, day: string) =>
		page.cards.filter((card) => card.owners.includes(person) && card.start <= day && day <= card.end);
	const noteOf = (person: string, day: string) =>
		page.notes.find((one) => one.person === person && one.monday === day)?.note ?? '';
	/** Over how many days in a row, from this one on, somebody is down for the same; 0 where that began earlier. */
	function runOf(one: BookingView, column: number): number {
		const same = (day: string | undefined) =>
			day !== undefined &&
			(booked.get(`${one.person} ${day}`) ?? []).some(
				(other) => other.called === one.called && other.part === one.part,
			);
		if (same(days[column - 1])) return 0;
		let run = 1;
		while (same(days[column + run])) run++;
		return run;
	}
	const isOver = (person: string, day: string) => over.has(`${person} ${dayText(mondayOf(parseDay(day)!))}`);

	function words(person: PersonHours, day: string, about: ReturnType<ReturnType<typeof aboutDay>>): string {
		const down = booked.get(`${person.id} ${day}`) ?? [];
		const cards = onDay(person.id, day);
		return [
			`${person.name}, ${dateWords(day, page.today)}`,
			about.note || `${figure(about.hours)} h`,
			...down.map(
				(one) =>
					`${one.part === 'day' ? '' : `${one.part}: `}${one.called}${one.note ? `, ${one.note}` : ''}`,
			),
			...(cards.length ? [`on ${list(cards.map(({ key }) => key))}`] : []),
			...(noteOf(person.id, day) ? [noteOf(person.id, day)] : []),
			...(about.hours && isOver(person.id, day) ? ['over the promise of the week'] : []),
		].join('; ');
	}

	/** The cell from which days are chosen, and whether the pointer draws on from it. */
	let anchor = $state.raw<{ person: string; day: string } | null>(null);
	let drawing = false;
	function choose(person: string, day: string, on: boolean): void {
		if (!on || anchor?.person !== person) anchor = { person, day };
		const [from, to] = [anchor!.day, day].sort() as [string, string];
		onchoose({ person, from, to });
	}
	let at = $state<[row: number, column: number]>([0, 0]);
	function onkeydown(event: KeyboardEvent): void {
		const does = pressed('days', event, { single: keys.on, write: true });
		const step = { ArrowLeft: [0, -1], ArrowRight: [0, 1], ArrowUp: [-1, 0], ArrowDown: [1, 0] }[event.key];
		const cell = (event.target as HTMLElement).closest<HTMLElement>('[data-cell]');
		if ((does !== 'go' && does !== 'choose') || !step || !cell) return;
		const [row, column] = cell.dataset.cell!.split(',').map(Number) as [number, number];
		const to = [row + step[0]!, column + step[1]!] as [number, number];
		const next = document.querySelector<HTMLElement>(`[data-cell="${to[0]},${to[1]}"]`);
		if (!next) return;
		event.preventDefault();
		at = to;
		next.focus();
		if (does === 'choose') {
			const [person, day] = [people[row]!.id, days[column]!];
			// From where it is now, unless it goes on from an end of what is chosen.
			if (chosen?.person !== person || ![chosen.from, chosen.to].includes(day)) anchor = { person, day };
			choose(people[row]!.id, days[to[1]]!, true);
		}
	}
	const isChosen = (person: string, day: string) =>
		chosen?.person === person && chosen.from <= day && day <= chosen.to;
</script>

<!-- svelte-ignore a11y_no_noninteractive_element_interactions -->
<div
	class="scroll"
	role="region"
	aria-label="People and days"
	tabindex="-1"
	{onkeydown}
	onpointerup={() => (drawing = false)}
	onpointerleave={() => (drawing = false)}
>
	<table style:--days={page.count}>
		<thead>
			<tr class="months" aria-hidden="true">
				<td></td>
				{#each days as day, i (day)}<td
						>{i === 0 || day.endsWith('-01') ? shortDate(day).split(' ')[1] : ''}</td
					>{/each}
			</tr>
			<tr>
				<th scope="col">Who</th>
				{#each days as day (day)}
					<th
						scope="col"
						class:monday={weekday(parseDay(day)!) === 0}
						class:today={day === page.today}
						title={page.holidays.find((one) => one.day === day)?.name ?? dateWords(day, page.today)}
						><span class="sr-only">{dateWords(day, page.today)}</span><span aria-hidden="true"
							>{Number(day.slice(8))}</span
						></th
					>
				{/each}
			</tr>
		</thead>
		<tbody>
			{#each people as person, row (person.id)}
				{@const aboutOf = aboutDay(person, rotaOf(person, page.holidays), page.holidays)}
				<tr>
					<th scope="row"
						><span class="who"
							><NameTag {person} seed={row} /><span>{person.name}<small>{person.title}</small></span></span
						></th
					>
					{#each days as day, column (day)}
						{@const about = aboutOf(day)}
						{@const down = booked.get(`${person.id} ${day}`) ?? []}
						{@const cards = onDay(person.id, day)}
						{@const note = noteOf(person.id, day)}
						<td class:monday={weekday(parseDay(day)!) === 0}>
							<button
								type="button"
								class="cell {about.kind}"
								class:over={about.hours > 0 && isOver(person.id, day)}
								class:today={day === page.today}
								data-cell="{row},{column}"
								tabindex={at[0] === row && at[1] === column ? 0 : -1}
								aria-pressed={isChosen(person.id, day)}
								title={words(person, day, about)}
								onfocus={() => (at = [row, column])}
								onclick={(event) => choose(person.id, day, event.shiftKey)}
								onpointerdown={(event) => {
									if (event.pointerType !== 'mouse' || event.shiftKey) return;
									drawing = true;
									choose(person.id, day, false);
								}}
								onpointerenter={() => drawing && anchor?.person === person.id && choose(person.id, day, true)}
								><span class="sr-only">{words(person, day, about)}</span>
								{#each down as one (one.id)}{@const run = runOf(one, column)}<span
										class="down {one.part}"
										class:long={run > 1}
										class:on={!run}
										>{#if run}<em aria-hidden="true" style:width="calc({run} * (100% + 4px) - 8px)"
												>{one.called}</em
											>{/if}</span
									>{/each}
								{#if cards.length && about.hours && !down.length}<i class="cards" aria-hidden="true"
										>{cards.length}</i
									>{/if}
								{#if note}<i class="note" aria-hidden="true"></i>{/if}
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
		border-bottom: 1px solid var(--rule);
		user-select: none;
	}
	table {
		border-collapse: collapse;
		table-layout: fixed;
		width: 100%;
		min-width: calc(150px + var(--days) * 35px);
	}
	th {
		font-size: 12px;
		font-weight: 500;
		color: var(--soft);
		text-align: left;
		padding: 3px 2px;
		white-space: nowrap;
		overflow: visible;
	}
	thead th:not(:first-child) {
		text-align: center;
	}
	.months td {
		height: auto;
		border: 0;
		padding: 0 4px;
		font-size: 12px;
		font-weight: 650;
		white-space: nowrap;
	}
	.months td:first-child {
		width: 150px;
	}
	th:first-child {
		position: sticky;
		left: 0;
		z-index: 2;
		width: 150px;
		background: var(--paper);
		overflow: hidden;
		text-overflow: ellipsis;
	}
	th.today {
		color: var(--brick);
		font-weight: 700;
	}
	th.monday {
		border-left: 1px solid var(--edge);
		font-weight: 650;
		color: var(--ink);
	}
	.who {
		display: flex;
		gap: 7px;
		align-items: center;
		font-size: 1rem;
		font-weight: 600;
		color: var(--ink);
	}
	.who small {
		display: block;
		color: var(--soft);
		font-weight: 450;
	}
	td {
		padding: 1px;
		border-top: 1px dotted var(--rule);
		height: 44px;
	}
	td.monday {
		border-left: 1px solid var(--edge);
	}
	.cell {
		position: relative;
		display: grid;
		grid-template-rows: 1fr 1fr;
		width: 100%;
		height: 42px;
		padding: 0;
		border: 1px solid transparent;
		border-radius: 3px;
		background: none;
		color: var(--ink);
		touch-action: pan-x pan-y;
	}
	.cell.free {
		background: color-mix(in srgb, var(--sunk) 60%, transparent);
	}
	.cell:is(.away, .holiday) {
		background: repeating-linear-gradient(135deg, var(--edge) 0 1.5px, var(--sunk) 1.5px 6px);
	}
	.cell.part {
		background: linear-gradient(0deg, transparent 50%, var(--sunk) 50%);
	}
	.cell.over {
		border-bottom: 3px solid var(--brick-fill);
	}
	.cell:hover {
		border-color: var(--edge);
	}
	.cell[aria-pressed='true'] {
		border: 2px solid var(--ink);
	}
	.down {
		grid-row: 1 / 3;
		position: relative;
		display: block;
		min-width: 0;
		background: var(--river-2);
		border-left: 3px solid var(--river);
		font-size: 12px;
		line-height: 1.25;
		text-align: left;
	}
	.down.on {
		border-left: 0;
		margin-left: -4px;
	}
	.down em {
		position: absolute;
		z-index: 1;
		top: 1px;
		left: 2px;
		font-style: normal;
		white-space: nowrap;
		overflow: hidden;
	}
	.down:not(.long) em {
		white-space: normal;
		max-height: 31px;
	}
	.down:is(.morning, .afternoon) em {
		white-space: nowrap;
	}
	.down.morning {
		grid-row: 1;
	}
	.down.afternoon {
		grid-row: 2;
	}
	.cards {
		position: absolute;
		right: 3px;
		bottom: 1px;
		font: 600 12px var(--text);
		color: var(--soft);
	}
	.note {
		position: absolute;
		top: 0;
		left: 0;
		border: 5px solid var(--ochre-fill);
		border-right-color: transparent;
		border-bottom-color: transparent;
	}
	@media (max-width: 700px) {
		.months td:first-child,
		th:first-child {
			width: 104px;
		}
		.who :global(.tag) {
			display: none;
		}
		table {
			min-width: calc(104px + var(--days) * 46px);
		}
	}
</style>
