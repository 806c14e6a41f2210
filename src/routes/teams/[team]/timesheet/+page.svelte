<script lang="ts">
	import { fsum } from 'd3-array';
	import { goto } from '$app/navigation';
	import { page } from '$app/state';
	import { tick } from 'svelte';
	import type { TimesheetRow } from '$core/pages/account';
	import { dayText, parseDay } from '$core/calendar/days';
	import { readHours } from '$core/capacity/hours-text';
	import DateField from '$lib/ui/form/DateField.svelte';
	import type { Command, CommandInput } from '$lib/commands';
	import TeamFrame from '$lib/ui/frame/TeamFrame.svelte';
	import { reread } from '$lib/ui/frame/reread';
	import CardPick from '$lib/ui/form/CardPick.svelte';
	import { send } from '$lib/ui/send';
	import { WEEKDAYS } from '$lib/ui/people/day';
	import { amount, dateWords, figure, shortDate } from '$lib/ui/words';

	let { data } = $props();
	const sheet = $derived(data.sheet);
	const monday = $derived(parseDay(sheet.monday)!);
	const days = $derived(Array.from({ length: 7 }, (_, i) => dayText(monday + i)));
	const mayEdit = $derived(sheet.role !== 'viewer' && (sheet.person === sheet.me || sheet.role === 'lead'));
	/** Rows that were asked for beside those of the week. */
	let added = $state.raw<TimesheetRow[]>([]);
	const rows = $derived([
		...sheet.rows,
		...added.filter((row) => !sheet.rows.some((known) => known.card === row.card)),
	]);
	let problem = $state('');
	let said = $state('');
	let asking = $state.raw<{
		row: TimesheetRow;
		day: string;
		entry: TimesheetRow['entries'][number] | null;
	} | null>(null);
	let grid = $state<HTMLElement>();
	/** The cell that had the focus last: its note is one step away for a finger too. */
	let cell = $state.raw<{ row: TimesheetRow; day: string } | null>(null);

	const entriesOn = (row: TimesheetRow, day: string) => row.entries.filter((entry) => entry.day === day);
	const sumOn = (row: TimesheetRow, day: string) => fsum(entriesOn(row, day), (entry) => entry.hours);
	const dayTotal = (day: string) => fsum(rows, (row) => sumOn(row, day));
	const rowTotal = (row: TimesheetRow) => fsum(row.entries, (entry) => entry.hours);
	const total = $derived(fsum(rows, (row) => rowTotal(row)));
	const available = $derived(fsum(sheet.hours));
	const billable = $derived(
		fsum(rows, (row) => fsum(row.entries, (entry) => (entry.billable ? entry.hours : 0))),
	);
	const name = $derived(sheet.people.find((one) => one.id === sheet.person)?.name ?? '');
	const shown = (row: TimesheetRow, day: string) => {
		const sum = sumOn(row, day);
		return sum ? figure(sum, 2) : '';
	};

	function ask(change: Record<string, string>): void {
		const url = new URL(page.url);
		for (const [key, value] of Object.entries(change)) url.searchParams.set(key, value);
		added = [];
		void goto(url, { keepFocus: true, noScroll: true });
	}
	async function tell<C extends Command>(command: C, input: CommandInput<C>): Promise<string> {
		const sent = await send(command, input);
		if (!sent.ok) return sent.refusal.title;
		await reread('harrow:timesheet');
		return '';
	}

	/** What is being kept, cell by cell: what is typed into one waits until what was typed before is answered. */
	const queues = new Map<string, Promise<void>>();
	let keeping: Promise<void> = Promise.resolve();
	function keep({ card }: TimesheetRow, day: string, input: HTMLInputElement): Promise<void> {
		const at = `${card} ${day}`;
		const text = input.value.trim();
		const kept = (queues.get(at) ?? Promise.resolve()).then(() => keepNow(card, day, text, input));
		queues.set(at, kept);
		return (keeping = kept);
	}
	/** What was typed into a cell: a new entry, another figure for the one there is, or nothing any more. */
	async function keepNow(card: string, day: string, text: string, input: HTMLInputElement): Promise<void> {
		const row = rows.find((known) => known.card === card);
		if (!row || text === shown(row, day)) return;
		const entries = entriesOn(row, day);
		const hours = text === '' ? 0 : readHours(text);
		// What has been typed since stays.
		const show = (value: string) => input.value.trim() === text && (input.value = value);
		const refuse = (sentence: string) => {
			problem = `${row.key}, ${dateWords(day)}: ${sentence}`;
			show(shown(row, day));
		};
		if (hours === null) return refuse('write hours as 1.5, as 1:30 or as 90m.');
		if (entries.length > 1)
			return refuse('there are several entries on this day. Press Enter to correct one of them.');
		problem = '';
		const person = sheet.person === sheet.me ? {} : { person: sheet.person };
		const [entry] = entries;
		const refusal = !entry
			? hours
				? await tell('LogTime', { card, day, hours, ...person })
				: ''
			: hours
				? await tell('ChangeTime', { card, entry: entry.id, version: entry.version, hours })
				: await tell('RemoveTime', { card, entry: entry.id, version: entry.version });
		if (refusal) return refuse(refusal);
		said = hours
			? `${figure(hours, 2)} h on ${row.key}, ${dateWords(day)}.`
			: `Nothing on ${row.key}, ${dateWords(day)}.`;
		show(hours ? figure(hours, 2) : '');
	}

	async function openNote({ row: { card }, day }: NonNullable<typeof cell>): Promise<void> {
		await keeping;
		const row = rows.find((known) => known.card === card);
		if (row) asking = { row, day, entry: entriesOn(row, day)[0] ?? null };
	}

	function go(input: HTMLInputElement, rowBy: number, dayBy: number): void {
		const [row, day] = input.dataset.cell!.split('/').map(Number) as [number, number];
		const next = grid?.querySelector<HTMLInputElement>(
			`[data-cell="${Math.min(rows.length - 1, Math.max(0, row + rowBy))}/${Math.min(6, Math.max(0, day + dayBy))}"]`,
		);
		next?.focus();
		next?.select();
	}
	function onkeydown(event: KeyboardEvent, row: TimesheetRow, day: string): void {
		const input = event.currentTarget as HTMLInputElement;
		const whole = input.selectionStart === 0 && input.selectionEnd === input.value.length;
		const { key } = event;
		if (key === 'ArrowDown' || key === 'ArrowUp') go(input, key === 'ArrowDown' ? 1 : -1, 0);
		else if (key === 'ArrowLeft' && (whole || input.selectionStart === 0)) go(input, 0, -1);
		else if (key === 'ArrowRight' && (whole || input.selectionEnd === input.value.length)) go(input, 0, 1);
		else if (key === 'Escape') input.value = shown(row, day);
		else if (key === 'Enter') {
			if (input.value.trim() !== shown(row, day)) void keep(row, day, input);
			else asking = { row, day, entry: entriesOn(row, day)[0] ?? null };
		} else return;
		event.preventDefault();
	}

	async function addCard(found: { id: string; key: string; board: string; title: string }): Promise<boolean> {
		if (!rows.some((row) => row.card === found.id))
			added = [
				...added,
				{ card: found.id, key: found.key, slug: found.board, title: found.title, done: false, entries: [] },
			];
		await tick();
		grid
			?.querySelector<HTMLInputElement>(`[data-cell="${rows.findIndex((row) => row.card === found.id)}/0"]`)
			?.focus();
		return true;
	}
</script>

<TeamFrame person={data.person!} team={sheet.team} boards={sheet.team.boards} here="Timesheet">
	{#snippet right()}
		<span class="week">
			<a class="link" href="?week={dayText(monday - 7)}&person={sheet.person}">Week before</a>
			<span
				>Week of <DateField
					id="week-of"
					label="Week of"
					value={sheet.monday}
					today={sheet.today}
					onchange={(week) => ask({ week })}
				/></span
			>
			<a class="link" href="?week={dayText(monday + 7)}&person={sheet.person}">Week after</a>
			{#if sheet.role === 'lead'}<label
					>of <select
						class="choice"
						value={sheet.person}
						onchange={(event) => ask({ person: event.currentTarget.value, week: sheet.monday })}
						>{#each sheet.people as one (one.id)}<option value={one.id}>{one.name}</option>{/each}</select
					></label
				>{/if}
		</span>
	{/snippet}
	<main>
		<h1>
			{sheet.person === sheet.me ? 'You have' : `${name} has`} logged <b>{amount(total, 'hours')}</b> of the {amount(
				available,
				'hours',
			)} of this week, {dateWords(sheet.monday, sheet.today)} to {dateWords(days[6]!, sheet.today)}{billable
				? `; ${amount(billable, 'hours')} of it billable`
				: ''}.
			<span class="soft">Type hours into a day; Enter opens its note and billable mark.</span>
		</h1>
		<p class="warn" role="alert">{problem}</p>
		<p class="sr-only" role="status">{said}</p>
		{#if rows.length}
			<div class="scroll">
				<table bind:this={grid}>
					<thead>
						<tr>
							<th scope="col">Card</th>
							{#each days as day, i (day)}<th
									scope="col"
									class:today={day === sheet.today}
									class:free={!sheet.hours[i]}>{WEEKDAYS[i]}<br /><small>{shortDate(day)}</small></th
								>{/each}
							<th scope="col">Sum</th>
						</tr>
					</thead>
					<tbody>
						{#each rows as row, r (row.card)}
							<tr>
								<th scope="row"
									><a href="/boards/{row.slug}?card={row.key}"><b>{row.key}</b> {row.title}</a></th
								>
								{#each days as day, i (day)}
									{@const entries = entriesOn(row, day)}
									<td class:today={day === sheet.today} class:free={!sheet.hours[i]}>
										<input
											data-cell="{r}/{i}"
											value={shown(row, day)}
											inputmode="decimal"
											autocomplete="off"
											readonly={!mayEdit || day > sheet.today}
											class:several={entries.length > 1}
											class:noted={entries.some((entry) => entry.note)}
											class:billed={entries.some((entry) => entry.billable)}
											aria-label="{row.key}, {dateWords(day)}: {shown(row, day) || 'no'} hours{entries.some(
												(entry) => entry.billable,
											)
												? ', billable'
												: ''}"
											title={entries
												.map((entry) => entry.note)
												.filter(Boolean)
												.join('; ') || undefined}
											onfocus={(event) => {
												cell = { row, day };
												event.currentTarget.select();
											}}
											onchange={(event) => void keep(row, day, event.currentTarget)}
											onkeydown={(event) => onkeydown(event, row, day)}
											ondblclick={() => mayEdit && (asking = { row, day, entry: entries[0] ?? null })}
										/>
									</td>
								{/each}
								<td class="sum">{rowTotal(row) ? figure(rowTotal(row), 2) : ''}</td>
							</tr>
						{/each}
					</tbody>
					<tfoot>
						<tr>
							<th scope="row">All cards</th>
							{#each days as day, i (day)}<td class="sum" class:today={day === sheet.today}
									>{figure(dayTotal(day), 2)}<br /><small>of {figure(sheet.hours[i]!, 2)}</small></td
								>{/each}
							<td class="sum"><b>{figure(total, 2)}</b></td>
						</tr>
					</tfoot>
				</table>
			</div>
		{:else}
			<p>
				No card is in {sheet.person === sheet.me ? 'your' : 'their'} hands this week, and nothing is logged. Look
				for a card by its words to log time on it.
			</p>
		{/if}
		{#if mayEdit && cell && cell.day <= sheet.today}
			{@const at = cell}
			<p>
				<button type="button" class="plain" onclick={() => void openNote(at)}
					>Note and billable mark: {at.row.key}, {dateWords(at.day)}</button
				>
			</p>
		{/if}
		{#if mayEdit}
			<div class="other">
				<label for="other-card">Another card</label>
				<CardPick
					id="other-card"
					label="Another card"
					placeholder="words of its title, or its key"
					onpick={addCard}
				/>
			</div>
		{/if}
		<p class="legend">
			<span><i class="noted"></i> has a note</span><span><i class="billed"></i> billable</span><span
				><i class="several"></i> several entries</span
			>
		</p>
	</main>
</TeamFrame>

{#if asking}
	{@const { row, day, entry } = asking}
	{#await import('$lib/ui/dialogs/TimeDialog.svelte') then { default: TimeDialog }}
		<TimeDialog
			title="{row.key}, {dateWords(day)}"
			sentence={entriesOn(row, day).length > 1
				? `The first of ${entriesOn(row, day).length} entries of this day; the others stand on the card.`
				: row.title}
			hours={entry?.hours ?? null}
			{day}
			today={sheet.today}
			note={entry?.note}
			billable={entry?.billable}
			onclose={() => (asking = null)}
			onremove={entry
				? () => tell('RemoveTime', { card: row.card, entry: entry.id, version: entry.version })
				: undefined}
			ontime={({ hours, day: on, note, billable: marked }) =>
				entry
					? tell('ChangeTime', {
							card: row.card,
							entry: entry.id,
							version: entry.version,
							...(hours === entry.hours ? {} : { hours }),
							day: on,
							note,
							billable: marked,
						})
					: tell('LogTime', {
							card: row.card,
							hours,
							day: on,
							note,
							billable: marked,
							...(sheet.person === sheet.me ? {} : { person: sheet.person }),
						})}
		/>
	{/await}
{/if}

<style>
	main {
		flex: 1;
		min-height: 0;
		overflow-y: auto;
		padding: 0 20px 30px;
	}
	h1 {
		font: 1rem/1.4 var(--text);
		letter-spacing: 0;
		padding: 9px 0 8px;
	}
	.warn:empty {
		display: none;
	}
	.week {
		display: flex;
		flex-wrap: wrap;
		gap: 2px 14px;
		align-items: center;
		font-size: 0.93rem;
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
		min-height: 32px;
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
	.other {
		display: flex;
		flex-wrap: wrap;
		gap: 8px;
		align-items: center;
		margin: 14px 0;
		max-width: 520px;
	}
	.other :global(input) {
		min-height: 36px;
		padding: 4px 9px;
		font: inherit;
		color: var(--ink);
		background: var(--sheet);
		border: 1px solid var(--edge);
		border-radius: 4px;
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
		main {
			padding: 0 10px 24px;
		}
		tbody th {
			min-width: 128px;
			font-size: 0.93rem;
		}
	}
	@media (pointer: coarse) {
		td input,
		.link {
			min-height: 44px;
		}
		.link {
			display: inline-flex;
			align-items: center;
		}
	}
</style>
