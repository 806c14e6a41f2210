<script lang="ts">
	import { area, line } from 'd3-shape';
	import type { Following } from '$core/sprint/follow';
	import type { Unit } from '$core/pages/board';
	import { dayText } from '$core/calendar/days';
	import { countScale } from '../chart/axes';
	import Figure from '../chart/Figure.svelte';
	import { amount, dateWords, figure } from '../words';
	import DayChart from './DayChart.svelte';

	interface Props {
		following: Following;
		unit: Unit;
		width: number;
		says: string;
		from: number;
		to: number;
		onpick: (day: number) => void;
	}
	/** What was burned beside the whole scope; the distance between them is what is left. */
	let { following, unit, width, says, from, to, onpick }: Props = $props();
	const height = 180;
	const points = $derived([
		{ at: 0, burned: 0, scope: following.committed },
		...following.days.map((day) => ({ at: day.day - from + 1, burned: day.burned, scope: day.scope })),
	]);
	type Point = (typeof points)[number];
	const y = $derived(countScale(Math.max(...points.map((point) => point.scope)), height));
	const burned = (x: (at: number) => number) =>
		area<Point>()
			.x((point) => x(point.at))
			.y0(y(0))
			.y1((point) => y(point.burned))(points) ?? '';
	const scope = (x: (at: number) => number) =>
		line<Point>()
			.x((point) => x(point.at))
			.y((point) => y(point.scope))(points) ?? '';
	const last = $derived(points.at(-1)!);
	const words = (day: Following['days'][number]) =>
		`${dateWords(dayText(day.day))}: ${amount(day.burned, unit)} burned of ${amount(day.scope, unit)}`;
</script>

<Figure
	title="Burn-up"
	subtitle="burned, and the whole scope"
	{says}
	table={{
		head: ['Day', 'Burned', 'Scope', 'Left'],
		rows: following.days.map((day) => [
			dateWords(dayText(day.day)),
			figure(day.burned, 2),
			figure(day.scope, 2),
			figure(day.left, 2),
		]),
	}}
>
	<DayChart
		label="Burn-up"
		{width}
		{height}
		{from}
		{to}
		{y}
		days={following.days.map((day) => ({ day: day.day, words: words(day) }))}
		{onpick}
	>
		{#snippet children({ x })}
			<path class="burned" d={burned(x)} />
			<path class="scope" d={scope(x)} />
			<text class="name" x={x(last.at) - 6} y={y(last.scope) - 6} text-anchor="end"
				>scope {amount(last.scope, unit)}</text
			>
		{/snippet}
	</DayChart>
</Figure>

<style>
	.burned {
		fill: var(--moss);
		opacity: 0.75;
	}
	.scope {
		fill: none;
		stroke: var(--river);
		stroke-width: 2.5px;
	}
	.name {
		fill: var(--river);
		font: 600 12px var(--text);
	}
</style>
