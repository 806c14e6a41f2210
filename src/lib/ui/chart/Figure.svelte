<script lang="ts">
	import type { Snippet } from 'svelte';
	import { handOver } from '../hand-over';
	import { svgText } from './keep-picture';

	interface Props {
		title: string;
		/** What it is, in a few words. */
		subtitle: string;
		/** What it shows now, in one sentence. */
		says: string;
		/** The figures behind it, for those who do not see it. */
		table: { head: string[]; rows: (string | number)[][] };
		children: Snippet;
	}
	let { title, subtitle, says, table, children }: Props = $props();
	let element = $state<HTMLElement>();

	function keep() {
		const svg = element?.querySelector('svg');
		if (svg)
			handOver(`${title.toLowerCase().replaceAll(/[^a-z0-9]+/g, '-')}.svg`, 'image/svg+xml', svgText(svg));
	}
</script>

<figure bind:this={element}>
	<figcaption>
		<h2>{title} <small>{subtitle}</small></h2>
		<p>{says}</p>
	</figcaption>
	{@render children()}
	<div class="behind screen-only">
		<details>
			<summary aria-label="Figures of {title}">Figures</summary>
			<div class="scroll">
				<table>
					<thead
						><tr
							>{#each table.head as name (name)}<th scope="col">{name}</th>{/each}</tr
						></thead
					>
					<tbody>
						{#each table.rows as row, i (i)}<tr
								>{#each row as cell, j (j)}<td>{cell}</td>{/each}</tr
							>{/each}
					</tbody>
				</table>
			</div>
		</details>
		<button type="button" class="link" aria-label="Picture of {title}" onclick={keep}>Picture</button>
	</div>
</figure>

<style>
	figure {
		position: relative;
		container-type: inline-size;
		margin: 0 0 14px;
		min-width: 0;
	}
	h2 {
		font-size: 1.12rem;
	}
	small {
		font: 400 0.93rem var(--text);
		color: var(--soft);
		margin-left: 6px;
	}
	p {
		margin: 1px 0 4px;
		color: var(--soft);
	}
	.behind {
		position: absolute;
		top: 2px;
		right: 0;
		display: flex;
		align-items: baseline;
		gap: 4px 14px;
		font-size: 0.9rem;
		color: var(--soft);
	}
	.behind .link {
		min-height: max(24px, var(--touch, 0px));
	}
	summary {
		cursor: pointer;
		min-height: max(24px, var(--touch, 0px));
	}
	.scroll {
		position: absolute;
		right: 0;
		z-index: 5;
		max-height: 300px;
		overflow: auto;
		padding: 6px 12px;
		background: var(--sheet);
		border: 1px solid var(--edge);
		border-radius: 4px;
	}
	@container (max-width: 560px) {
		.behind {
			position: static;
		}
	}
	table {
		border-collapse: collapse;
	}
	th,
	td {
		text-align: left;
		padding: 2px 12px 2px 0;
		border-bottom: 1px dotted var(--rule);
		font-weight: 400;
	}
	th {
		font-weight: 650;
	}
	/* What every chart draws with; a chart's own rules come before these. */
	:global(:where(figure svg)) {
		display: block;
		overflow: visible;
	}
	:global(:where(figure svg :is(.axis, .label))) {
		fill: var(--soft);
		font: 12px var(--text);
	}
	:global(:where(figure svg :is(.mark, .lead))) {
		fill: none;
		stroke: var(--river);
		pointer-events: none;
	}
	:global(:where(figure svg .reach)) {
		fill: transparent;
	}
	:global(:where(figure svg g[role='button'])) {
		cursor: pointer;
		outline: none;
	}
	:global(:where(figure svg g[role='button']:focus-visible .reach)) {
		stroke: var(--river);
		stroke-width: 2.5px;
	}
</style>
