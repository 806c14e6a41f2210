<script lang="ts">
	import { line } from 'd3-shape';
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
		/** The first and the last day of the picture. */
		from: number;
		to: number;
		onpick: (day: number) => void;
	}
	/** What was left at the end of each day beside the guide; added, removed, re-sized and split work are steps of their own. */
	let { following, unit, width, says, from, to, onpick }: Props = $props();
	const height = 220;
	const stepOf = ({ today }: Following['days'][number]) =>
		today.added + today.resized - today.splitOff - today.removed - today.dropped;
	/** Each day: what it began with, where a step of scope took it, and where it ended. */
	const points = $derived(
		following.days.map((day, i) => {
			const before = following.days[i - 1]?.left ?? following.committed;
			const step = stepOf(day);
			return { day, at: day.day - from, before, stepped: before + step, step };
		}),
	);
	const y = $derived(
		countScale(
			Math.max(following.committed, ...points.flatMap(({ before, stepped }) => [before, stepped])),
			height,
		),
	);
	const path = (x: (at: number) => number) =>
		line<[number, number]>()
			.x(([at]) => x(at))
			.y(([, left]) => y(left))(
			points.flatMap((point): [number, number][] => [
				[point.at, point.before],
				[point.at, point.stepped],
				[point.at + 1, point.day.left],
			]),
		) ?? '';
	const guide = (x: (at: number) => number) =>
		line<{ day: number; left: number }>()
			.x((point) => x(point.day - from + 1))
			.y((point) => y(point.left))(following.guide) ?? '';
	const signed = (n: number) => `${n > 0 ? '+' : '−'}${figure(Math.abs(n))}`;
	const words = ({ day, step }: (typeof points)[number]) =>
		`${dateWords(dayText(day.day))}: ${amount(day.left, unit)} left, ${amount(day.today.burned, unit)} burned${
			step ? `, scope ${signed(step)}` : ''
		}`;
</script>

<Figure
	title="Burndown"
	subtitle="left at the end of each day"
	{says}
	table={{
		head: ['Day', 'Left', 'Guide', 'Burned', 'Added', 'Re-sized', 'Split off', 'Removed', 'Dropped'],
		rows: following.days.map((day) => [
			dateWords(dayText(day.day)),
			figure(day.left, 2),
			figure(day.guide, 2),
			...(['burned', 'added', 'resized', 'splitOff', 'removed', 'dropped'] as const).map((kind) =>
				figure(day.today[kind], 2),
			),
		]),
	}}
>
	<DayChart
		label="Burndown"
		{width}
		{height}
		{from}
		{to}
		{y}
		days={points.map((point) => ({ day: point.day.day, words: words(point) }))}
		{onpick}
	>
		{#snippet children({ x })}
			<path class="guide" d={guide(x)} />
			{#each points as point (point.at)}
				{#if Math.abs(point.step) > 0.005}
					<line
						class={point.step > 0 ? 'up' : 'down'}
						x1={x(point.at)}
						x2={x(point.at)}
						y1={y(point.before)}
						y2={y(point.stepped)}
					/>
					<text class="step" x={x(point.at) + 5} y={Math.min(y(point.before), y(point.stepped)) - 5}
						>{signed(point.step)}</text
					>
				{/if}
			{/each}
			<path class="burn" d={path(x)} />
			{#each points as point (point.at)}<circle cx={x(point.at + 1)} cy={y(point.day.left)} r="3.5" />{/each}
		{/snippet}
	</DayChart>
</Figure>

<style>
	.guide {
		fill: none;
		stroke: var(--faint);
		stroke-width: 1.5px;
		stroke-dasharray: 5 4;
	}
	.burn {
		fill: none;
		stroke: var(--moss);
		stroke-width: 2.5px;
	}
	circle {
		fill: var(--moss);
	}
	.up,
	.down {
		stroke: var(--river);
		stroke-width: 6px;
	}
	.down {
		stroke: var(--ochre-fill);
	}
	.step {
		fill: var(--soft);
		font: 600 12px var(--text);
	}
</style>
