<script lang="ts">
	import { line } from 'd3-shape';
	import { scaleLinear } from 'd3-scale';
	import type { Following } from '$core/sprint/follow';
	import type { Unit } from '$core/board/view';
	import { dayText } from '$core/calendar/days';
	import { countScale } from '../chart/axes';
	import Figure from '../chart/Figure.svelte';
	import { amount, dateWords, figure, shortDate } from '../words';

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
	const days = $derived(to - from + 1);
	const x = $derived(scaleLinear([0, days], [38, Math.max(60, width - 14)]));
	const y = $derived(
		countScale(
			Math.max(
				following.committed,
				...following.days.flatMap((day, i) => {
					const before = following.days[i - 1]?.left ?? following.committed;
					return [before, before + stepOf(day)];
				}),
			),
			height,
		),
	);
	const stepOf = (day: Following['days'][number]) => {
		const { added, resized, splitOff, removed, dropped } = day.today;
		return added + resized - splitOff - removed - dropped;
	};
	/** Each day: what it began with, where a step of scope took it, and where it ended. */
	const points = $derived(
		following.days.map((day, i) => {
			const before = following.days[i - 1]?.left ?? following.committed;
			const at = day.day - from;
			return { day, at, before, stepped: before + stepOf(day), step: stepOf(day) };
		}),
	);
	const path = $derived(
		line<[number, number]>()
			.x(([at]) => x(at))
			.y(([, left]) => y(left))(
			points.flatMap((point): [number, number][] => [
				[point.at, point.before],
				[point.at, point.stepped],
				[point.at + 1, point.day.left],
			]),
		) ?? '',
	);
	const guide = $derived(
		line<{ day: number; left: number }>()
			.x((point) => x(point.day - from + 1))
			.y((point) => y(point.left))(following.guide) ?? '',
	);
	const every = $derived(Math.max(1, Math.ceil((days * 58) / (x.range()[1]! - x.range()[0]!))));
	const signed = (n: number) => `${n > 0 ? '+' : '−'}${figure(Math.abs(n))}`;
	const words = (point: (typeof points)[number]) =>
		`${dateWords(dayText(point.day.day))}: ${amount(point.day.left, unit)} left, ${amount(point.day.today.burned, unit)} burned${
			point.step ? `, scope ${signed(point.step)}` : ''
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
	<svg {width} height={height + 20} role="group" aria-label="Burndown">
		{#each y.ticks(4) as tick (tick)}
			<line class="grid" x1={x(0)} x2={x(days)} y1={y(tick)} y2={y(tick)} />
			<text class="axis" x="32" y={y(tick) + 4} text-anchor="end">{tick}</text>
		{/each}
		<path class="guide" d={guide} />
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
		<path class="burn" d={path} />
		{#each points as point (point.at)}
			<g
				role="button"
				tabindex="0"
				aria-label={words(point)}
				onclick={() => onpick(point.day.day)}
				onkeydown={(event) => event.key === 'Enter' && onpick(point.day.day)}
			>
				<rect class="reach" x={x(point.at)} y="0" width={x(1) - x(0)} {height} />
				<circle cx={x(point.at + 1)} cy={y(point.day.left)} r="3.5" />
				<title>{words(point)}</title>
			</g>
		{/each}
		<line class="base" x1={x(0)} x2={x(days)} y1={height} y2={height} />
		{#each Array.from({ length: days }, (_, i) => i).filter((i) => i % every === 0) as i (i)}
			<text class="axis" x={x(i + 0.5)} y={height + 15} text-anchor="middle"
				>{shortDate(dayText(from + i))}</text
			>
		{/each}
	</svg>
</Figure>

<style>
	.grid {
		stroke: var(--rule);
	}
	.base {
		stroke: var(--edge);
	}
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
		pointer-events: none;
	}
	circle {
		fill: var(--moss);
		pointer-events: none;
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
	g[role='button']:hover circle {
		fill: var(--ink);
	}
</style>
