<script lang="ts">
	import { fsum } from 'd3-array';
	import { goto } from '$app/navigation';
	import { page } from '$app/state';
	import { tick } from 'svelte';
	import type { TimesheetRow } from '$core/pages/account';
	import { dayText, parseDay } from '$core/calendar/days';
	import DateField from '$lib/ui/form/DateField.svelte';
	import TeamFrame from '$lib/ui/frame/TeamFrame.svelte';
	import CardPick from '$lib/ui/form/CardPick.svelte';
	import SheetTable from '$lib/ui/time/SheetTable.svelte';
	import { entriesOn, Week, type Entry } from '$lib/ui/time/week.svelte';
	import { amount, dateWords } from '$lib/ui/words';

	let { data } = $props();
	const sheet = $derived(data.sheet);
	const monday = $derived(parseDay(sheet.monday)!);
	const week = new Week(() => sheet);
	const mayEdit = $derived(sheet.role !== 'viewer' && (sheet.person === sheet.me || sheet.role === 'lead'));
	let asking = $state.raw<{ row: TimesheetRow; day: string; entry: Entry | null } | null>(null);
	let table = $state<ReturnType<typeof SheetTable>>();
	/** The cell that had the focus last: its note is one step away for a finger too. */
	let cell = $state.raw<{ row: TimesheetRow; day: string } | null>(null);

	const available = $derived(fsum(sheet.hours));
	const name = $derived(sheet.people.find((one) => one.id === sheet.person)?.name ?? '');
	function ask(change: Record<string, string>): void {
		const url = new URL(page.url);
		for (const [key, value] of Object.entries(change)) url.searchParams.set(key, value);
		week.leave();
		void goto(url, { keepFocus: true, noScroll: true });
	}
	const open = (row: TimesheetRow, day: string) =>
		(asking = { row, day, entry: entriesOn(row, day)[0] ?? null });
	async function openNote({ row, day }: NonNullable<typeof cell>): Promise<void> {
		const now = await week.settled(row);
		if (now) open(now, day);
	}

	async function addCard(found: { id: string; key: string; board: string; title: string }): Promise<boolean> {
		const { id: card, key, board: slug, title } = found;
		const at = week.add({ card, key, slug, title, done: false, entries: [] });
		await tick();
		table?.focus(at, 0);
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
			{sheet.person === sheet.me ? 'You have' : `${name} has`} logged <b>{amount(week.total, 'hours')}</b> of
			the {amount(available, 'hours')} of this week, {dateWords(sheet.monday, sheet.today)} to {dateWords(
				week.days[6]!,
				sheet.today,
			)}{week.billable ? `; ${amount(week.billable, 'hours')} of it billable` : ''}.
			<span class="soft">Type hours into a day; Enter opens its note and billable mark.</span>
		</h1>
		<p class="warn" role="alert">{week.problem}</p>
		<p class="sr-only" role="status">{week.said}</p>
		{#if week.rows.length}
			<SheetTable
				bind:this={table}
				{sheet}
				{week}
				{mayEdit}
				oncell={(row, day) => (cell = { row, day })}
				onask={open}
			/>
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
				? () => week.tell('RemoveTime', { card: row.card, entry: entry.id, version: entry.version })
				: undefined}
			ontime={({ hours, day: on, note, billable: marked }) =>
				entry
					? week.tell('ChangeTime', {
							card: row.card,
							entry: entry.id,
							version: entry.version,
							...(hours === entry.hours ? {} : { hours }),
							day: on,
							note,
							billable: marked,
						})
					: week.tell('LogTime', {
							card: row.card,
							hours,
							day: on,
							note,
							billable: marked,
							...week.whose,
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
	.other {
		display: flex;
		flex-wrap: wrap;
		gap: 8px;
		align-items: center;
		margin: 14px 0;
		max-width: 520px;
	}
	.other :global(input) {
		min-height: max(36px, var(--touch, 0px));
		padding: 4px 9px;
		font: inherit;
		color: var(--ink);
		background: var(--sheet);
		border: 1px solid var(--edge);
		border-radius: 4px;
	}
	@media (max-width: 700px) {
		main {
			padding: 0 10px 24px;
		}
	}
</style>
