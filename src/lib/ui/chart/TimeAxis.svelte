<script lang="ts">
	let { ticks, y }: { ticks: { x: number; text: string }[]; y: number } = $props();
</script>

<g>
	{#each ticks as tick (tick.x)}
		<line x1={tick.x} x2={tick.x} y1={y} y2={y + 4} />
		<text x={tick.x + 2} y={y + 15}>{tick.text}</text>
	{/each}
</g>

<style>
	line {
		stroke: var(--edge);
	}
	text {
		fill: var(--soft);
		font: 12px var(--text);
	}
</style>
