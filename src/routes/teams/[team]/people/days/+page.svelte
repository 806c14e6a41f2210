<script lang="ts">
	import { goto } from '$app/navigation';
	import { page } from '$app/state';
	import { dayText, parseDay } from '$core/calendar/days';
	import TeamFrame from '$lib/ui/frame/TeamFrame.svelte';
	import { followTeam } from '$lib/ui/frame/team-stream';
	import DayGrid, { type Chosen } from '$lib/ui/people/DayGrid.svelte';
	import PeopleLine from '$lib/ui/people/PeopleLine.svelte';
	import PutDown from '$lib/ui/people/PutDown.svelte';
	import UseTable from '$lib/ui/people/UseTable.svelte';
	import TeamKeys from '$lib/ui/team/TeamKeys.svelte';
	import Said from '$lib/ui/team/Said.svelte';
	import { Doing } from '$lib/ui/team/doing.svelte';
	import { calledAmong, count, dateWords, list } from '$lib/ui/words';

	let { data } = $props();
	const days = $derived(data.days);
	const team = $derived(days.team.id);
	const doing = new Doing('harrow:days');
	$effect(() => followTeam(team, 'harrow:days'));
	/** Only people with this title or skill. */
	const only = $derived(page.url.searchParams.get('with') ?? '');
	const titles = $derived([...new Set(days.people.map(({ title }) => title).filter(Boolean))].sort());
	const skills = $derived([...new Set(days.people.flatMap((one) => one.skills))].sort());
	const people = $derived(
		days.people.filter(({ title, skills: own }) => !only || title === only || own.includes(only)),
	);
	let chosen = $state.raw<Chosen | null>(null);
	function ask(change: Record<string, string | null>): void {
		const url = new URL(page.url);
		for (const [key, value] of Object.entries(change))
			if (value) url.searchParams.set(key, value);
			else url.searchParams.delete(key);
		void goto(url, { keepFocus: true, noScroll: true, replaceState: true });
	}
	const first = $derived(parseDay(days.from)!);
	const last = $derived(dayText(first + days.count - 1));
	const away = $derived(
		people.filter(({ absences }) =>
			absences.some((one) => !one.waits && one.from <= days.today && days.today <= one.to),
		),
	);
	const down = $derived(
		days.bookings.filter((one) => one.day === days.today && people.some(({ id }) => id === one.person)),
	);
	const waiting = $derived(
		days.people.flatMap((one) =>
			one.absences.filter(({ waits }) => waits).map((absence) => ({ ...absence, name: one.name })),
		),
	);
	const name = $derived(calledAmong(days.people));
	const lead = $derived(days.role === 'lead');
</script>

<TeamFrame person={data.person!} team={days.team} boards={days.boards} here="People">
	{#snippet right()}<PeopleLine {team} here="days" />{/snippet}
	<div class="beside">
		<main class:open={chosen}>
			<h1>
				{dateWords(days.from, days.today)} to {dateWords(last, days.today)}:
				<b
					>{away.length
						? `${list(away.map(({ id }) => name(id)))} ${away.length === 1 ? 'is' : 'are'} away today`
						: 'nobody is away today'}</b
				>{#if down.length}; {list(
						down.map(
							(one) =>
								`${name(one.person)} is at ${one.called}${one.part === 'day' ? '' : ` in the ${one.part}`}`,
						),
					)}{/if}. {count(
					new Set(days.bookings.map((one) => `${one.person} ${one.day}`)).size,
					'day is',
					'days are',
				)} put down for something without a card.
			</h1>
			<p class="line screen-only">
				<button type="button" class="plain" onclick={() => ask({ day: dayText(first - 28) })}
					>Four weeks back</button
				>
				<button type="button" class="plain" onclick={() => ask({ day: null })}>From this week</button>
				<button type="button" class="plain" onclick={() => ask({ day: dayText(first + 28) })}
					>Four weeks on</button
				>
				<span
					>people with <select
						class="choice"
						aria-label="People with"
						value={only}
						onchange={(event) => ask({ with: event.currentTarget.value || null })}
						><option value="">any title or skill</option>{#each titles as one (one)}<option value={one}
								>{one}</option
							>{/each}{#each skills.filter((one) => !titles.includes(one)) as one (one)}<option value={one}
								>{one}, a skill</option
							>{/each}</select
					></span
				>
				{#if lead}<label
						><input
							type="checkbox"
							checked={days.agree}
							onchange={(event) => {
								const agree = event.currentTarget.checked;
								void doing.ask(
									'ChangeTeam',
									{ team, agreeAbsences: agree },
									agree
										? 'Absences that members enter wait for a lead from now on.'
										: 'Absences count as soon as they are entered.',
								);
							}}
						/> a lead agrees to absences</label
					>{/if}
			</p>
			{#if waiting.length}
				<section class="waiting" aria-label="Absences that wait">
					<h2>{count(waiting.length, 'absence waits', 'absences wait')} for a lead</h2>
					<ul>
						{#each waiting as one (one.id)}
							<li>
								<span
									><b>{one.name}</b>, {one.from === one.to
										? dateWords(one.from, days.today)
										: `${dateWords(one.from, days.today)} to ${dateWords(one.to, days.today)}`}{one.hours ===
									null
										? ''
										: `, ${one.hours} h a day`}{one.note ? `: ${one.note}` : ''}</span
								>
								{#if lead}
									<button
										type="button"
										class="go"
										onclick={() =>
											void doing.ask(
												'AgreeAbsence',
												{ team, absence: one.id, agreed: true },
												`${one.name} is away then.`,
											)}>Agree</button
									>
									<button
										type="button"
										class="plain"
										onclick={() =>
											void doing.ask(
												'AgreeAbsence',
												{ team, absence: one.id, agreed: false },
												`${one.name} is not away then.`,
											)}>Do not agree</button
									>
								{/if}
							</li>
						{/each}
					</ul>
				</section>
			{/if}
			<DayGrid page={days} {people} {chosen} onchoose={(to) => (chosen = to)} />
			<p class="legend">
				<span><i class="down"></i> down for something</span><span
					><i class="away"></i> away, or a holiday</span
				><span><i class="over"></i> over the promise of the week</span><span
					><b>2</b> cards with dates then</span
				><span><i class="note"></i> a note on the week</span>
			</p>
			<UseTable page={days} {people} />
		</main>
		{#if chosen}{#key chosen.person}<PutDown
					page={days}
					{chosen}
					{doing}
					onchoose={(to) => (chosen = to)}
				/>{/key}{/if}
	</div>
	<Said {doing} />
	<TeamKeys place="days" title="Keys of the days" {doing} onleave={() => (chosen = null)} />
</TeamFrame>

<style>
	.beside {
		display: flex;
		flex: 1;
		min-height: 0;
	}
	main {
		flex: 1;
		min-width: 0;
		overflow-y: auto;
		padding: 0 20px 30px;
	}
	h1 {
		font: 1rem/1.4 var(--text);
		letter-spacing: 0;
		padding: 9px 0 6px;
	}
	.line {
		display: flex;
		flex-wrap: wrap;
		gap: 6px 12px;
		align-items: center;
		margin: 0 0 8px;
	}
	.waiting h2 {
		font-size: 1.05rem;
	}
	.waiting ul {
		list-style: none;
		margin: 4px 0 10px;
		padding: 0;
	}
	.waiting li {
		display: flex;
		flex-wrap: wrap;
		gap: 4px 12px;
		align-items: center;
		padding: 3px 0;
	}
	.legend {
		display: flex;
		flex-wrap: wrap;
		gap: 4px 18px;
		margin: 8px 0 0;
		font-size: 0.9rem;
		color: var(--soft);
	}
	.legend i {
		display: inline-block;
		vertical-align: -1px;
		width: 20px;
		height: 11px;
	}
	.legend .down {
		background: var(--river-2);
		border-left: 3px solid var(--river);
	}
	.legend .away {
		background: repeating-linear-gradient(135deg, var(--edge) 0 1.5px, var(--sunk) 1.5px 6px);
	}
	.legend .over {
		border-bottom: 3px solid var(--brick-fill);
	}
	.legend .note {
		width: 0;
		height: 0;
		border: 5px solid var(--ochre-fill);
		border-right-color: transparent;
		border-bottom-color: transparent;
	}
	@media (max-width: 900px) {
		main.open {
			display: none;
		}
		main {
			padding: 0 12px 30px;
		}
	}
	@media (pointer: coarse) {
		label {
			min-height: 44px;
			align-content: center;
		}
	}
</style>
