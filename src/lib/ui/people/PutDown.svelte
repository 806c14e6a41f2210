<script lang="ts">
	import { Input, Label, Select } from 'flowbite-svelte';
	import { untrack } from 'svelte';
	import { mondayOf, dayText, parseDay } from '$core/calendar/days';
	import type { DaysPage } from '$core/pages/days';
	import type { DayPart } from '$core/people/bookings';
	import DateField from '../form/DateField.svelte';
	import type { Doing } from '../team/doing.svelte';
	import { count, dateWords, list } from '../words';
	import type { Chosen } from './DayGrid.svelte';

	interface Props {
		page: DaysPage;
		chosen: Chosen;
		doing: Doing;
		onchoose: (chosen: Chosen | null) => void;
	}
	/** Puts somebody down for the days that are chosen, says what stands in the way, and frees them again. */
	let { page, chosen, doing, onchoose }: Props = $props();
	const person = $derived(page.people.find(({ id }) => id === chosen.person)!);
	const may = $derived(page.role === 'lead' || (page.role === 'member' && chosen.person === page.me));
	const span = $derived(
		chosen.from === chosen.to
			? dateWords(chosen.from, page.today)
			: `${dateWords(chosen.from, page.today)} to ${dateWords(chosen.to, page.today)}`,
	);
	let what = $state('site');
	let site = $state('');
	let part = $state<DayPart>('day');
	let note = $state('');
	let problem = $state.raw<{ code: string; title: string } | null>(null);
	const there = $derived(
		page.bookings.filter(
			(one) => one.person === chosen.person && one.day >= chosen.from && one.day <= chosen.to,
		),
	);
	const clashes = $derived(there.filter((one) => part === 'day' || one.part === 'day' || one.part === part));
	const away = $derived(
		person.absences.filter((one) => !one.waits && one.from <= chosen.to && one.to >= chosen.from),
	);
	const cards = $derived(
		page.cards.filter(
			(card) => card.owners.includes(chosen.person) && card.start <= chosen.to && card.end >= chosen.from,
		),
	);
	const items = $derived([
		{ value: 'site', name: 'a site…' },
		...page.boards.map(({ id, name }) => ({ value: `board ${id}`, name })),
		...page.initiatives.map(({ id, name }) => ({ value: `initiative ${id}`, name })),
	]);

	async function put(flags: { anyway?: boolean; instead?: boolean } = {}): Promise<void> {
		const [kind, id] = what.split(' ');
		if (kind === 'site' && !site.trim()) return void (problem = { code: '', title: 'Say at which site.' });
		const of =
			kind === 'site' ? { site: site.trim() } : kind === 'board' ? { board: id! } : { initiative: id! };
		const sent = await doing.ask(
			'BookDays',
			{
				...{ team: page.team.id, person: chosen.person, from: chosen.from, to: chosen.to, part },
				...of,
				...(note.trim() ? { note: note.trim() } : {}),
				...{ anyway: false, instead: false, ...allowed, ...flags },
			},
			`${person.name} is put down for ${kind === 'site' ? site.trim() : items.find((one) => one.value === what)!.name}, ${span}.`,
			() => true,
		);
		if (sent.ok) return onchoose(null);
		problem = { code: sent.refusal.code, title: sent.refusal.title };
		allowed = { ...allowed, ...flags };
	}
	/** What was agreed to already on the way: another question may follow. */
	let allowed = $state.raw<{ anyway?: boolean; instead?: boolean }>({});
	$effect(() => {
		void [chosen, part, what];
		untrack(() => {
			problem = null;
			allowed = {};
		});
	});
	const free = (ids: string[]) =>
		doing.ask('DropBookings', { team: page.team.id, bookings: ids }, `${person.name} is free again.`);
	const monday = $derived(dayText(mondayOf(parseDay(chosen.from)!)));
	const noted = $derived(
		page.notes.find((one) => one.person === chosen.person && one.monday === monday)?.note ?? '',
	);
	const keepNote = (text: string) =>
		doing.ask(
			'NoteWeek',
			{ team: page.team.id, person: chosen.person, monday, note: text },
			text.trim() ? 'The note is kept.' : 'The note is taken away.',
		);
</script>

<aside class="panel screen-only" aria-label="Days of {person.name}">
	<div class="top">
		<h2>{person.name}, {span}</h2>
		<button type="button" class="plain" onclick={() => onchoose(null)}>Close</button>
	</div>
	{#if away.length}<p class="care">
			Away {away[0]!.from === away[0]!.to
				? dateWords(away[0]!.from, page.today)
				: `${dateWords(away[0]!.from, page.today)} to ${dateWords(away[0]!.to, page.today)}`}{away[0]!.note
				? `: ${away[0]!.note}`
				: ''}.
		</p>{/if}
	{#if there.length}
		<h3>Down for</h3>
		<ul>
			{#each there as one (one.id)}
				<li>
					<span
						>{dateWords(one.day, page.today)}{one.part === 'day' ? '' : `, ${one.part}`}:
						<b>{one.called}</b>{one.note ? `, ${one.note}` : ''}</span
					>
					{#if may}<button
							type="button"
							class="link"
							aria-label="Free {dateWords(one.day, page.today)} of {one.called}"
							onclick={() => void free([one.id])}>Free it</button
						>{/if}
				</li>
			{/each}
		</ul>
		{#if may && there.length > 1}<button
				type="button"
				class="plain"
				onclick={() => void free(there.map(({ id }) => id))}>Free {count(there.length, 'day')}</button
			>{/if}
	{/if}
	{#if cards.length}
		<h3>Cards with dates then</h3>
		<ul>
			{#each cards as card (card.key)}
				<li>
					<a href="/boards/{card.slug}?card={card.number}"><b>{card.key}</b> {card.title}</a>
					<small>{dateWords(card.start, page.today)} to {dateWords(card.end, page.today)}</small>
				</li>
			{/each}
		</ul>
	{/if}
	{#if may}
		<h3>Put down for</h3>
		<form
			onsubmit={(event) => {
				event.preventDefault();
				void put();
			}}
		>
			<div class="two">
				<div>
					<Label for="down-from">From</Label>
					<DateField
						id="down-from"
						label="From"
						value={chosen.from}
						today={page.today}
						onchange={(from) => onchoose({ ...chosen, from, to: from > chosen.to ? from : chosen.to })}
					/>
				</div>
				<div>
					<Label for="down-to">to</Label>
					<DateField
						id="down-to"
						label="to"
						value={chosen.to}
						min={chosen.from}
						today={page.today}
						onchange={(to) => onchoose({ ...chosen, to })}
					/>
				</div>
			</div>
			<div class="two">
				<div>
					<Label for="down-what">What</Label>
					<Select id="down-what" placeholder="" bind:value={what} {items} />
				</div>
				<div>
					<Label for="down-part">Part of the day</Label>
					<Select
						id="down-part"
						placeholder=""
						bind:value={part}
						items={[
							{ value: 'day', name: 'the whole day' },
							{ value: 'morning', name: 'the morning' },
							{ value: 'afternoon', name: 'the afternoon' },
						]}
					/>
				</div>
			</div>
			{#if what === 'site'}
				<div>
					<Label for="down-site">Site</Label>
					<Input id="down-site" list="down-sites" maxlength={80} autocomplete="off" bind:value={site} />
					<datalist id="down-sites"
						>{#each page.sites as one (one)}<option value={one}></option>{/each}</datalist
					>
				</div>
			{/if}
			<div><Label for="down-note">Note</Label><Input id="down-note" maxlength={200} bind:value={note} /></div>
			{#if clashes.length && !problem}<p class="care" role="status">
					This would lie on {list([...new Set(clashes.map(({ called }) => called))])}.
				</p>{/if}
			{#if problem}<p class="warn" role="alert">{problem.title}</p>{/if}
			<div class="acts">
				{#if problem?.code === 'booking.taken'}<button
						type="button"
						class="go"
						onclick={() => void put({ instead: true })}>Let it take the place</button
					>{:else if problem?.code === 'booking.away'}<button
						type="button"
						class="go"
						onclick={() => void put({ anyway: true })}>Put down all the same</button
					>{:else}<button class="go">Put down</button>{/if}
			</div>
		</form>
	{/if}
	{#if may || noted}
		<h3>To be known of the week of {dateWords(monday, page.today)}</h3>
		{#if may}{#key `${chosen.person} ${monday} ${noted}`}<Input
					aria-label="Note on the week of {dateWords(monday, page.today)}"
					maxlength={300}
					value={noted}
					onchange={(event: Event) => void keepNote((event.currentTarget as HTMLInputElement).value)}
				/>{/key}{:else}<p>{noted}</p>{/if}
	{/if}
</aside>

<style>
	.panel {
		width: 360px;
		flex: none;
		overflow-y: auto;
		padding: 10px 20px 30px;
		border-left: 1px solid var(--rule);
		background: var(--sheet);
	}
	.top {
		display: flex;
		justify-content: space-between;
		gap: 10px;
		align-items: flex-start;
	}
	h2 {
		font-size: 1.15rem;
	}
	h3 {
		font-size: 1rem;
		margin: 14px 0 4px;
	}
	ul {
		margin: 0 0 6px;
	}
	li {
		display: flex;
		flex-wrap: wrap;
		justify-content: space-between;
		gap: 2px 10px;
		padding: 4px 0;
		border-bottom: 1px dotted var(--rule);
	}
	li a {
		text-decoration: none;
		min-height: max(24px, var(--touch, 0px));
	}
	.link {
		min-height: max(24px, var(--touch, 0px));
	}
	small {
		color: var(--soft);
	}
	form {
		display: grid;
		gap: 8px;
	}
	.two {
		display: grid;
		grid-template-columns: 1fr 1fr;
		gap: 10px;
	}
	p {
		margin: 4px 0;
	}
	.acts {
		display: flex;
		gap: 10px;
	}
	@media (max-width: 900px) {
		.panel {
			width: 100%;
			border-left: 0;
		}
	}
	@media (pointer: coarse) {
		li a {
			min-height: 44px;
			align-content: center;
		}
	}
</style>
