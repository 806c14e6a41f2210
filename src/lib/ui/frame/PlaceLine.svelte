<script lang="ts">
	import type { Snippet } from 'svelte';
	import { unfolded } from './unfolded.svelte';

	interface Props {
		label: string;
		places: readonly { name: string; to: string; here: boolean }[];
		/** What stands at the right of the places; on a phone it is shown when asked for. */
		children?: Snippet;
		/** Whether a ribbon stands above, which a phone shows when asked for. */
		ribbon?: boolean;
	}
	/** Places in one line, and what belongs to the one that is open at the right of it. */
	let { label, places, children, ribbon = false }: Props = $props();
	/** On a narrow screen the line scrolls: the place that is open is in sight. */
	function show(nav: HTMLElement): void {
		const here = nav.querySelector<HTMLElement>('[aria-current]');
		if (here) nav.scrollLeft = here.offsetLeft - nav.offsetLeft - 40;
	}
</script>

<div class="line screen-only">
	<nav aria-label={label} {@attach show}>
		{#each places as place (place.to)}<a href={place.to} aria-current={place.here ? 'page' : undefined}
				>{place.name}</a
			>{/each}
	</nav>
	{#if ribbon}<button
			type="button"
			class="fold"
			aria-expanded={unfolded.ribbon}
			onclick={() => (unfolded.ribbon = !unfolded.ribbon)}>Time</button
		>{/if}
	{#if children}
		<button
			type="button"
			class="fold"
			aria-expanded={unfolded.right}
			onclick={() => (unfolded.right = !unfolded.right)}>Show</button
		>
		<div class="right" class:unfolded={unfolded.right}>{@render children()}</div>
	{/if}
</div>

<style>
	.line {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		justify-content: space-between;
		gap: 2px 16px;
		min-height: max(37px, var(--touch, 0px));
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
		justify-content: center;
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
	.fold {
		display: none;
		border: 0;
		background: none;
		color: var(--moss);
		font: inherit;
		padding: 0 6px;
		min-height: 44px;
	}
	.fold[aria-expanded='true'] {
		font-weight: 650;
		text-decoration: underline;
		text-underline-offset: 3px;
	}
	@media (max-width: 700px) {
		.line {
			padding: 0 6px 0 12px;
			gap: 0 2px;
			flex-wrap: wrap;
		}
		nav {
			flex: 1;
		}
		.fold {
			display: block;
		}
		.right {
			display: none;
			flex-basis: 100%;
		}
		.right.unfolded {
			display: block;
		}
	}
</style>
