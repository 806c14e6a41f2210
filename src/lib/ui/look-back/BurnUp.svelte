<script lang="ts">
	import { area, line } from 'd3-shape';
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
		from: number;
		to: number;
		onpick: (day: number) => void;
	}
	/** What was burned beside the whole scope; the distance between them is what is left. */
	let { following, unit, width, says, from, to, onpick }: Props = $props();
	const height = 180;
	const days = $derived(to - from + 1);
	const x = $derived(scaleLinear([0, days], [38, Math.max(60, width - 14)]));
	const y = $derived(
		countScale(Math.max(following.committed, ...following.days.map((day) => day.scope)), height),
	);
	const points = $derived([
		{ at: 0, burned: 0, scope: following.committed },
		...following.days.map((day) => ({ at: day.day - from + 1, burned: day.burned, scope: day.scope })),
	]);
	type Point = (typeof points)[number];
	const burned = $derived(
		area<Point>()
			.x((point) => x(point.at))
			.y0(y(0))
			.y1((point) => y(point.burned))(points) ?? '',
	);
	const scope = $derived(
		line<Point>()
			.x((point) => x(point.at))
			.y((point) => y(point.scope))(points) ?? '',
	);
	const every = $derived(Math.max(1, Math.ceil((days * 58) / (x.range()[1]! - x.range()[0]!))));
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
	<svg {width} height={height + 20} role="group" aria-label="Burn-up">
		{#each y.ticks(4) as tick (tick)}
			<line class="grid" x1={x(0)} x2={x(days)} y1={y(tick)} y2={y(tick)} />
			<text class="axis" x="32" y={y(tick) + 4} text-anchor="end">{tick}</text>
		{/each}
		<path class="burned" d={burned} />
		<path class="scope" d={scope} />
		{#each following.days as day (day.day)}
			<g
				role="button"
				tabindex="0"
				aria-label={words(day)}
				onclick={() => onpick(day.day)}
				onkeydown={(event) => event.key === 'Enter' && onpick(day.day)}
			>
				<rect class="reach" x={x(day.day - from)} y="0" width={x(1) - x(0)} {height} />
				<title>{words(day)}</title>
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
	.burned {
		fill: var(--moss);
		opacity: 0.75;
	}
	.scope {
		fill: none;
		stroke: var(--river);
		stroke-width: 2.5px;
	}
	g[role='button']:hover .reach {
		fill: var(--ink);
		opacity: 0.06;
	}
</style>
