<script lang="ts">
	import type { GridColumn } from './grid';

	interface Props {
		columns: readonly GridColumn[];
	}
	/** The columns of a board on a phone, where one is in sight: each leads to itself and says how many cards stand there. */
	let { columns }: Props = $props();

	function show(event: MouseEvent, id: string): void {
		event.preventDefault();
		document
			.querySelector(`[data-column="${CSS.escape(id)}"]`)
			?.scrollIntoView({ inline: 'start', block: 'nearest' });
	}
</script>

<nav aria-label="Columns">
	{#each columns as { view, all } (view.id)}
		<a
			href="#column-{view.id}"
			data-sveltekit-noscroll
			data-sveltekit-keepfocus
			onclick={(event) => show(event, view.id)}>{view.name} <b>{all.length}</b></a
		>
	{/each}
</nav>

<style>
	nav {
		display: none;
	}
	@media (max-width: 700px) {
		nav {
			display: flex;
			overflow-x: auto;
			gap: 2px;
			padding: 0 10px;
			flex: none;
		}
		a {
			flex: none;
			min-height: 44px;
			display: flex;
			align-items: center;
			gap: 5px;
			padding: 0 8px;
			text-decoration: none;
			color: var(--soft);
		}
	}
</style>
