<script lang="ts">
	import type { Snippet } from 'svelte';

	interface Props {
		board: { slug: string; sprintDays: number | null; teamId: string; role: string };
		here: 'rounds' | 'board' | 'backlog' | 'plan' | 'settle' | 'look-back' | 'flow' | 'set-up';
		children?: Snippet;
	}
	let { board, here, children }: Props = $props();
	const to = $derived(`/boards/${board.slug}`);
	const places = $derived([
		{ name: 'Rounds', id: 'rounds', to: `${to}/rounds` },
		{ name: 'Board', id: 'board', to },
		{ name: 'Backlog', id: 'backlog', to: `${to}/backlog` },
		...(board.sprintDays === null
			? []
			: [
					{ name: 'Plan', id: 'plan', to: `${to}/plan` },
					{ name: 'Settle', id: 'settle', to: `${to}/settle` },
					{ name: 'Look back', id: 'look-back', to: `${to}/look-back` },
				]),
		{ name: 'Flow', id: 'flow', to: `${to}/flow` },
		{ name: 'People', id: 'people', to: `/teams/${board.teamId}/people` },
		...(board.role === 'lead' ? [{ name: 'Set-up', id: 'set-up', to: `${to}/set-up` }] : []),
	]);
</script>

<div class="line screen-only">
	<nav aria-label="Places of this board">
		{#each places as place (place.id)}<a href={place.to} aria-current={place.id === here ? 'page' : undefined}
				>{place.name}</a
			>{/each}
	</nav>
	{@render children?.()}
</div>

<style>
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
	@media (max-width: 700px) {
		.line {
			padding: 2px 12px;
		}
	}
</style>
