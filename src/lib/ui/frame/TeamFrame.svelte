<script lang="ts">
	import type { Snippet } from 'svelte';
	import Bar from './Bar.svelte';
	import { keys } from './keys.svelte';

	interface Props {
		person: { name: string; initials: string };
		team: { id: string; name: string };
		boards: readonly { name: string; slug: string }[];
		here: 'People' | 'Timesheet' | 'Account';
		/** What stands at the right of the places. */
		right?: Snippet;
		children: Snippet;
	}
	/** The bar and the places of a team, above a page of its own. */
	let { person, team, boards, here, right, children }: Props = $props();
	const places = $derived([
		{ name: 'People', to: `/teams/${team.id}/people` },
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
	<div class="line screen-only">
		<nav aria-label="Places of this team">
			{#each places as place (place.to)}<a
					href={place.to}
					aria-current={place.name === here ? 'page' : undefined}>{place.name}</a
				>{/each}
		</nav>
		{@render right?.()}
	</div>
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
	.line {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		justify-content: space-between;
		gap: 2px 16px;
		min-height: 37px;
		padding: 2px 20px;
		border-bottom: 1px solid var(--rule);
		flex: none;
	}
	nav {
		display: flex;
		gap: 4px;
		min-width: 0;
		overflow-x: auto;
		scrollbar-width: none;
	}
	a {
		padding: 4px 11px;
		border-radius: 4px;
		color: var(--soft);
		font-weight: 560;
		text-decoration: none;
		white-space: nowrap;
	}
	a:hover {
		color: var(--ink);
	}
	a[aria-current] {
		background: var(--ink);
		color: var(--paper);
	}
	@media (pointer: coarse) {
		a {
			min-height: 44px;
			display: grid;
			place-items: center;
		}
	}
	@media (max-width: 900px) {
		.line {
			padding: 2px 12px;
		}
	}
</style>
