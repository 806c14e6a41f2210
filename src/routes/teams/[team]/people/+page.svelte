<script lang="ts">
	import { fsum } from 'd3-array';
	import { goto } from '$app/navigation';
	import { page } from '$app/state';
	import type { Command, CommandInput } from '$lib/commands';
	import TeamFrame from '$lib/ui/frame/TeamFrame.svelte';
	import { reread } from '$lib/ui/frame/reread';
	import { followTeam } from '$lib/ui/frame/team-stream';
	import Holidays from '$lib/ui/people/Holidays.svelte';
	import PeopleLine from '$lib/ui/people/PeopleLine.svelte';
	import PersonPanel from '$lib/ui/people/PersonPanel.svelte';
	import WeekGrid from '$lib/ui/people/WeekGrid.svelte';
	import { send } from '$lib/ui/send';
	import { calledAmong, count, figure, list, shortDate } from '$lib/ui/words';

	let { data } = $props();
	const people = $derived(data.people);
	const chosen = $derived(
		people.people.find((one) => one.id === page.url.searchParams.get('person')) ?? null,
	);
	const monday = $derived(page.url.searchParams.get('week'));
	const sum = (of: (week: (typeof people.weeks)[number]) => number) => fsum(people.weeks, of);
	const called = $derived(calledAmong(people.people));
	const over = $derived.by(() => {
		const weeks = people.weeks.filter((week) => week.standing === 'over');
		return [...new Set(weeks.map((week) => week.person))].map((id) => {
			const mine = weeks.filter((week) => week.person === id);
			return `${called(id)} in ${mine.length === 1 ? `the week of ${shortDate(mine[0]!.monday)}` : count(mine.length, 'week')}`;
		});
	});
	const free = $derived.by(() => {
		const next = people.weeks.filter(
			(week) => week.monday === people.weeks[1]?.monday && week.promise - week.placed > 0,
		);
		const most = next.sort((a, b) => b.promise - b.placed - (a.promise - a.placed))[0];
		return most
			? `${called(most.person)} has most room next week, ${figure(most.promise - most.placed, 0)} h.`
			: '';
	});

	function pick(person: string | null, week: string | null): void {
		const url = new URL(page.url);
		for (const [name, value] of [
			['person', person],
			['week', week],
		] as const)
			if (value) url.searchParams.set(name, value);
			else url.searchParams.delete(name);
		void goto(url, { replaceState: true, keepFocus: true, noScroll: true });
	}
	async function tell<C extends Command>(command: C, input: CommandInput<C>): Promise<string> {
		const sent = await send(command, input);
		if (!sent.ok) return sent.refusal.title;
		await reread('harrow:people');
		return '';
	}

	const team = $derived(people.team.id);
	$effect(() => followTeam(team, 'harrow:people'));
	const again = () => document.visibilityState === 'visible' && void reread('harrow:people');
</script>

<svelte:document onvisibilitychange={again} />

<TeamFrame person={data.person!} team={people.team} boards={people.boards} here="People">
	{#snippet right()}<PeopleLine {team} here="weeks" />{/snippet}
	<div class="beside">
		<main class:open={chosen}>
			<h1>
				{#if !people.boards.length}{count(people.people.length, 'person')}{#if people.role === 'lead'}, and no
						board yet that their hours could go into.
						<a class="link" href="/teams/{team}/new-board">Make a board</a>
					{:else}; you see no board that their hours go into.{/if}
				{:else}Over eight weeks {count(people.people.length, 'person has', 'people have')}
					<b
						>{figure(
							sum((week) => week.give),
							0,
						)} h to give</b
					>, {figure(
						sum((week) => week.promise),
						0,
					)} h of it to promise;
					<b
						>{figure(
							sum((week) => week.placed),
							0,
						)} h</b
					>
					are placed.
					{#if over.length}<span class="warn"
							>Over: {list([
								...over.slice(0, 3),
								...(over.length > 3 ? [`${over.length - 3} more`] : []),
							])}.</span
						>{/if}
					{free}{/if}
			</h1>
			<WeekGrid page={people} person={chosen?.id ?? null} {monday} onpick={pick} />
			<p class="legend">
				<span><i class="placed"></i> placed</span><span><i class="promise"></i> the promise</span><span
					><i class="give"></i> hours to give</span
				>
			</p>
			<Holidays page={people} {tell} />
		</main>
		{#if chosen}
			{#key chosen.id}<PersonPanel
					page={people}
					person={chosen}
					{monday}
					{tell}
					onclose={() => pick(null, null)}
				/>{/key}
		{/if}
	</div>
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
		padding: 0 20px;
	}
	h1 {
		font: 1rem/1.4 var(--text);
		letter-spacing: 0;
		padding: 9px 0 10px;
	}
	.legend {
		display: flex;
		flex-wrap: wrap;
		gap: 4px 18px;
		margin: 10px 0 0;
		font-size: 0.9rem;
		color: var(--soft);
	}
	.legend i {
		display: inline-block;
		vertical-align: -1px;
		width: 20px;
		height: 11px;
	}
	.legend .placed {
		background: var(--river-2);
		border: 1px solid var(--river);
	}
	.legend .promise {
		width: 2px;
		background: var(--ink);
	}
	.legend .give {
		background: repeating-linear-gradient(135deg, var(--edge) 0 1px, var(--sunk) 1px 5px);
	}
	@media (max-width: 900px) {
		main.open {
			display: none;
		}
		main {
			padding: 0 12px;
		}
	}
</style>
