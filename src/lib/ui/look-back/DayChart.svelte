<script lang="ts">
	import { scaleLinear, type ScaleLinear } from 'd3-scale';
	import type { Snippet } from 'svelte';
	import { dayText } from '$core/calendar/days';
	import { shortDate } from '../words';

	interface Scales {
		/** Where a moment lies, in days after the first day began. */
		x: (days: number) => number;
		y: (amount: number) => number;
	}
	interface Props {
		label: string;
		width: number;
		height: number;
		/** The first and the last day of the picture. */
		from: number;
		to: number;
		y: ScaleLinear<number, number>;
		/** Each day that can be opened, with what it says. */
		days: readonly { day: number; words: string }[];
		onpick: (day: number) => void;
		/** What is drawn over the grid. */
		children: Snippet<[Scales]>;
	}
	/** The days of a sprint from left to right over amounts of work; each day opens. */
	let { label, width, height, from, to, y, days, onpick, children }: Props = $props();
	const all = $derived(to - from + 1);
	const x = $derived(scaleLinear([0, all], [38, Math.max(60, width - 14)]));
	const every = $derived(Math.max(1, Math.ceil((all * 58) / (x.range()[1]! - x.range()[0]!))));
</script>

<svg {width} height={height + 20} role="group" aria-label={label}>
	{#each y.ticks(4) as tick (tick)}
		<line class="grid" x1={x(0)} x2={x(all)} y1={y(tick)} y2={y(tick)} />
		<text class="axis" x="32" y={y(tick) + 4} text-anchor="end">{tick}</text>
	{/each}
	{@render children({ x, y })}
	{#each days as { day, words } (day)}
		<g
			role="button"
			tabindex="0"
			aria-label={words}
			onclick={() => onpick(day)}
			onkeydown={(event) => event.key === 'Enter' && onpick(day)}
		>
			<rect class="reach" x={x(day - from)} y="0" width={x(1) - x(0)} {height} />
			<title>{words}</title>
		</g>
	{/each}
	<line class="base" x1={x(0)} x2={x(all)} y1={height} y2={height} />
	{#each Array.from({ length: all }, (_, i) => i).filter((i) => i % every === 0) as i (i)}
		<text class="axis" x={x(i + 0.5)} y={height + 15} text-anchor="middle"
			>{shortDate(dayText(from + i))}</text
		>
	{/each}
</svg>

<style>
	.grid {
		stroke: var(--rule);
	}
	.base {
		stroke: var(--edge);
	}
	g[role='button']:hover .reach {
		fill: var(--ink);
		opacity: 0.06;
	}
</style>
