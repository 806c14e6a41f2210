<script lang="ts">
	import { Checkbox, Input, Label } from 'flowbite-svelte';
	import { untrack } from 'svelte';
	import DateField from '../form/DateField.svelte';
	import type { CommandInput, TeamCommand, TeamInput, TellTeam } from '../../commands';
	import type { PeoplePage, PersonHours } from '$core/pages/plan';
	import { amount, count, dateWords, figure } from '../words';
	import { aboutDay, rotaOf, WEEKDAYS, weekOn } from './day';
	import MonthCalendar from './MonthCalendar.svelte';

	interface Props {
		page: PeoplePage;
		person: PersonHours;
		monday: string | null;
		tell: TellTeam;
		onclose: () => void;
	}
	let { page, person, monday, tell, onclose }: Props = $props();

	const lead = $derived(page.role === 'lead');
	const mayAway = $derived(lead || person.id === page.me);
	const week = $derived(page.weeks.find((one) => one.person === person.id && one.monday === monday));
	const about = $derived(aboutDay(person, rotaOf(person, page.holidays), page.holidays));
	const coming = $derived(person.absences.filter((absence) => absence.to >= page.today));

	let from = $state('');
	let to = $state('');
	let part = $state(false);
	let hours = $state('');
	let note = $state('');
	let problem = $state('');
	let said = $state('');
	// Read once for each person whose panel is opened: what is typed here stays, whatever others change meanwhile.
	const first = untrack(() => ({ person, page }));
	let working = $state(weekOn(first.person, first.page.today).map((n) => figure(n, 2)));
	let shares = $state(first.page.boards.map((board) => figure((first.person.shares[board.id] ?? 0) * 100)));
	let since = $state(first.page.today);
	let rate = $state(first.person.rate === null ? '' : figure(first.person.rate, 2));
	let skills = $state(first.person.skills.join(', '));

	async function ask<C extends TeamCommand>(command: C, input: TeamInput<C>, done: string): Promise<boolean> {
		problem = await tell(command, { team: page.team.id, ...input } as CommandInput<C>);
		said = problem ? '' : done;
		return !problem;
	}
	const number = (text: string) =>
		/^\d{1,4}([.,]\d{1,2})?$/.test(text.trim()) ? Number(text.replace(',', '.')) : NaN;

	async function away(event: SubmitEvent) {
		event.preventDefault();
		if (!from || !to) return void (problem = 'Choose the days in the calendar, or write them.');
		if (to < from) return void (problem = 'The absence ends before it begins.');
		if (part && !(number(hours) > 0 && number(hours) <= 24))
			return void (problem = 'The hours away must be a number above 0 and at most 24.');
		const input = { person: person.id, from, to, ...(part ? { hours: number(hours) } : {}), note };
		if (await ask('AddAbsence', input, `${person.name} is away then.`))
			[from, to, note, hours] = ['', '', '', ''];
	}
	async function keepWeek(event: SubmitEvent) {
		event.preventDefault();
		const list = working.map((text) => (text.trim() ? number(text) : 0));
		if (list.some((n) => !(n >= 0 && n <= 24)))
			return void (problem = 'The hours of each weekday must be a number from 0 to 24.');
		await ask('ChangeWeek', { person: person.id, from: since, hours: list }, 'The working week is kept.');
	}
	async function keepShares(event: SubmitEvent) {
		event.preventDefault();
		const list = shares.map((text) => (text.trim() ? number(text) : 0));
		if (list.some((n) => !(n >= 0 && n <= 100)))
			return void (problem = 'Each share must be from 0 to 100 in a hundred.');
		const given = page.boards.flatMap((board, i) =>
			list[i]! > 0 ? [{ board: board.id, share: list[i]! / 100 }] : [],
		);
		await ask('ChangeShares', { person: person.id, from: since, shares: given }, 'The shares are kept.');
	}
	async function keepRate(event: SubmitEvent) {
		event.preventDefault();
		if (!(number(rate) >= 0)) return void (problem = 'The rate must be a number with at most two decimals.');
		await ask('ChangeRate', { person: person.id, from: since, rate: number(rate) }, 'The rate is kept.');
	}
	async function keepSkills(event: SubmitEvent) {
		event.preventDefault();
		const list = skills
			.split(/[;,]/)
			.map((skill) => skill.trim())
			.filter(Boolean);
		await ask('ChangeSkills', { person: person.id, skills: list }, 'The skills are kept.');
	}
	async function read(input: HTMLInputElement) {
		const file = input.files?.[0];
		input.value = '';
		if (!file) return;
		if (file.size > 1_000_000)
			return void (problem = `${file.name} has ${figure(file.size / 1e6)} MB. A calendar file may have at most 1 MB.`);
		await ask('ReadCalendar', { person: person.id, file: await file.text() }, `${file.name} was read.`);
	}
</script>

<aside class="panel screen-only" aria-label={person.name}>
	<div class="top">
		<h2>{person.name}</h2>
		<button type="button" class="plain" onclick={onclose}>Close</button>
	</div>
	<p class="warn" role="alert">{problem}</p>
	<p class="soft" role="status">{said}</p>
	{#if week}
		<h3>Week of {dateWords(week.monday, page.today)}</h3>
		<p>
			{figure(week.hours)} h of work, {figure(week.give)} h to give, {figure(week.promise)} h promised,
			<b class:warn={week.standing === 'over'}>{figure(week.placed)} h placed</b>{week.away
				? `; away ${count(week.away, 'day')}`
				: ''}.
		</p>
		<ul class="cards">
			{#each week.cards as { card, hours } (card)}
				{@const known = page.titles[card]}
				<li>
					<a href="/boards/{known?.slug}?card={known?.number}"><b>{card}</b> {known?.title}</a>
					<span>{amount(hours, 'hours')}</span>
				</li>
			{:else}<li class="soft">Nothing lies on this week.</li>{/each}
		</ul>
	{/if}
	<h3>Days</h3>
	<MonthCalendar today={page.today} {about} {from} {to} onchoose={(a, b) => ([from, to] = [a, b])} />
	{#if mayAway}
		<form onsubmit={away}>
			<div class="two">
				<div>
					<Label for="away-from">Away from</Label><DateField
						id="away-from"
						label="Away from"
						bind:value={from}
						today={page.today}
					/>
				</div>
				<div>
					<Label for="away-to">to</Label><DateField
						id="away-to"
						label="to"
						bind:value={to}
						today={page.today}
					/>
				</div>
			</div>
			<Checkbox bind:checked={part} class="text-base"
				><span class="name">only some hours of each day</span></Checkbox
			>
			{#if part}<div>
					<Label for="away-hours">Hours away a day</Label><Input
						id="away-hours"
						bind:value={hours}
						inputmode="decimal"
					/>
				</div>{/if}
			<div><Label for="away-note">Note</Label><Input id="away-note" bind:value={note} maxlength={200} /></div>
			<button class="go">Say away</button>
		</form>
		<label class="file"
			>Read absences from a calendar file (iCalendar)
			<input
				type="file"
				accept=".ics,text/calendar"
				onchange={(event) => void read(event.currentTarget)}
			/></label
		>
	{/if}
	<h3>Absences</h3>
	<ul>
		{#each coming as absence (absence.id)}
			<li>
				<span
					>{absence.from === absence.to
						? dateWords(absence.from, page.today)
						: `${dateWords(absence.from, page.today)} to ${dateWords(absence.to, page.today)}`}{absence.hours ===
					null
						? ''
						: `, ${figure(absence.hours)} h a day`}{absence.note ? `, ${absence.note}` : ''}{absence.waits
						? '; waits for a lead'
						: ''}</span
				>
				{#if lead && absence.waits}<button
						type="button"
						class="link"
						onclick={() => void ask('AgreeAbsence', { absence: absence.id, agreed: true }, 'Agreed.')}
						>Agree</button
					>{/if}
				{#if mayAway}<button
						type="button"
						class="link"
						onclick={() => void ask('WithdrawAbsence', { absence: absence.id }, 'Taken back.')}
						>Take back</button
					>{/if}
			</li>
		{:else}<li class="soft">None from today on.</li>{/each}
	</ul>
	{#if mayAway}
		<form onsubmit={keepSkills}>
			<h3><label for="skills">Skills, as labels of cards</label></h3>
			<Input id="skills" bind:value={skills} autocomplete="off" />
			<button class="plain">Keep skills</button>
		</form>
	{/if}
	{#if lead}
		<form onsubmit={keepWeek}>
			<h3>Working week</h3>
			<div class="seven">
				{#each WEEKDAYS as name, i (name)}<div>
						<Label for="hours-{i}">{name}</Label><Input
							id="hours-{i}"
							bind:value={working[i]}
							inputmode="decimal"
							class="px-1"
						/>
					</div>{/each}
			</div>
			<div>
				<Label for="since">from</Label><DateField
					id="since"
					label="from"
					bind:value={since}
					today={page.today}
				/>
			</div>
			<button class="plain">Keep the week</button>
		</form>
		<form onsubmit={keepShares}>
			<h3>Share of each board, in a hundred</h3>
			{#each page.boards as board, i (board.id)}<div class="share">
					<Label for="share-{i}">{board.name}</Label><Input
						id="share-{i}"
						bind:value={shares[i]}
						inputmode="decimal"
					/>
				</div>{/each}
			<p class="soft">From the day above on.</p>
			<button class="plain">Keep the shares</button>
		</form>
		<form onsubmit={keepRate}>
			<h3><label for="rate">What an hour costs</label></h3>
			<Input id="rate" bind:value={rate} inputmode="decimal" autocomplete="off" />
			<p class="soft">From the day above on. Only leads see it.</p>
			<button class="plain">Keep the rate</button>
		</form>
		{#if person.id !== page.me}<p>
				<button
					type="button"
					class="link"
					onclick={() => void ask('RemoveMember', { person: person.id }, `${person.name} left the team.`)}
					>{person.name} leaves the team</button
				>
			</p>{/if}
	{/if}
</aside>

<style>
	.panel {
		flex: 0 0 340px;
		min-width: 0;
		overflow-y: auto;
		padding: 10px 18px 30px;
		border-left: 1px solid var(--edge);
		background: var(--sheet);
	}
	.top {
		display: flex;
		justify-content: space-between;
		align-items: center;
	}
	h3 {
		font-size: 1.05rem;
		margin: 16px 0 5px;
	}
	p {
		margin: 4px 0;
	}
	form {
		display: grid;
		gap: 8px;
		margin-top: 10px;
	}
	form .go,
	form .plain {
		justify-self: start;
	}
	.two {
		display: grid;
		grid-template-columns: 1fr 1fr;
		gap: 8px;
	}
	.seven {
		display: grid;
		grid-template-columns: repeat(7, 1fr);
		gap: 4px;
	}
	.share {
		display: grid;
		grid-template-columns: 1fr 80px;
		align-items: center;
		gap: 8px;
	}
	li {
		display: flex;
		justify-content: space-between;
		gap: 10px;
		padding: 5px 0;
		border-bottom: 1px dotted var(--rule);
	}
	.cards a {
		text-decoration: none;
		min-height: var(--touch, auto);
	}
	.cards span {
		white-space: nowrap;
		font-weight: 650;
	}
	.name {
		color: var(--ink);
	}
	.file {
		display: grid;
		gap: 4px;
		margin-top: 12px;
		color: var(--soft);
		font-size: 0.93rem;
	}
	.file input {
		max-width: 100%;
	}
	.link {
		min-height: var(--touch, auto);
	}
	@media (max-width: 900px) {
		.panel {
			flex: 1;
			border-left: 0;
		}
	}
</style>
