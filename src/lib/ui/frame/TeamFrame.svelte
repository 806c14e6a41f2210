<script lang="ts">
	import type { Snippet } from 'svelte';
	import { page } from '$app/state';
	import type { BoardPlaces } from '$core/pages/board';
	import Bar from './Bar.svelte';
	import { keys } from './keys.svelte';
	import PlaceLine from './PlaceLine.svelte';
	import Places from './Places.svelte';

	interface Props {
		person: { name: string; initials: string };
		team: { id: string; name: string };
		boards: readonly { name: string; slug: string }[];
		here: 'Team' | 'People' | 'Panorama' | 'Timesheet' | 'Account';
		/** What stands at the right of the places. */
		right?: Snippet;
		children: Snippet;
	}
	/** The bar and the places of a team, above a page of its own. */
	let { person, team, boards, here, right, children }: Props = $props();
	/** The board that somebody came from: its places stay in sight. */
	const from = $derived(page.data.from as BoardPlaces | null);
	const places = $derived([
		{ name: 'Team', to: `/teams/${team.id}` },
		{ name: 'People', to: `/teams/${team.id}/people` },
		{ name: 'Panorama', to: `/teams/${team.id}/panorama` },
		{ name: 'Timesheet', to: `/teams/${team.id}/timesheet` },
		{ name: 'Account', to: `/teams/${team.id}/account` },
		...boards.map((board) => ({ name: board.name, to: `/boards/${board.slug}` })),
	]);
</script>

<div class="team-page">
	<Bar
		{person}
		here={{ team: team.name, name: here, teamId: team.id }}
		boards={boards.map((board) => ({ ...board, team: team.name }))}
		keysOn={keys.on}
	/>
	{#if from}<Places board={from} here={here.toLowerCase() as 'people'} children={right} />{:else}<PlaceLine
			label="Places of this team"
			places={places.map((place) => ({ ...place, here: place.name === here }))}
			children={right}
		/>{/if}
	{@render children()}
</div>

<style>
	:global(.whole:has(> .team-page)) {
		height: 100dvh;
		min-height: 420px;
	}
	.team-page {
		display: flex;
		flex-direction: column;
		flex: 1;
		min-height: 0;
	}
</style>
