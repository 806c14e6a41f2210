<script lang="ts">
	import { scaleLinear, scaleTime } from 'd3-scale';
	import { area, curveStepAfter, line } from 'd3-shape';
	import { parseISO } from 'date-fns';
	import { passedIn, type SpentPoint } from '$core/account/spent';
	import Figure from '../chart/Figure.svelte';
	import { dateWords, shortDate } from '../words';

	interface Props {
		title: string;
		points: SpentPoint[];
		budget: number | null;
		/** What is left of it, on top of what was spent; null where nothing says. */
		left: number | null;
		/** By when that will be done, or is to be; null for neither. */
		end: string | null;
		today: string;
		words: (amount: number) => string;
		onpick: (point: SpentPoint) => void;
	}
	/** What was spent for an initiative over time, beside its budget: what passes it is brick. */
	let { title, points, budget, left, end, today, words, onpick }: Props = $props();
	let width = $state(640);
	const height = 170;
	const spent = $derived(points.at(-1)?.spent ?? 0);
	const until = $derived(end && end > today ? end : today);
	const passed = $derived(budget === null ? null : passedIn(points, budget));
	const x = $derived(
		scaleTime([parseISO(points[0]?.week ?? today), parseISO(until)], [46, Math.max(120, width - 16)]),
	);
	const most = $derived(Math.max(1, spent + (left ?? 0), budget ?? 0) * 1.08);
	const y = $derived(scaleLinear([0, most], [height, 8]));
	/** The end of each week, when its work is all there; the last one goes on to today. */
	const at = (point: SpentPoint) => x(parseISO(point.week));
	const drawn = $derived([...points, ...(points.length ? [{ ...points.at(-1)!, week: today }] : [])]);
	const shape = $derived(
		area<SpentPoint>()
			.curve(curveStepAfter)
			.x(at)
			.y0(y(0))
			.y1((point) => y(point.spent))(drawn) ?? '',
	);
	const top = $derived(
		line<SpentPoint>()
			.curve(curveStepAfter)
			.x(at)
			.y((point) => y(point.spent))(drawn) ?? '',
	);
	const ticks = $derived(x.ticks(Math.max(2, Math.floor(width / 110))));
	const iso = (date: Date) => date.toISOString().slice(0, 10);
	const id = $props.id();
	const says = $derived(
		budget === null
			? `${words(spent)} so far; no budget is set.`
			: passed
				? `${words(spent)} so far: the budget of ${words(budget)} was passed in the week of ${dateWords(passed, today)}.`
				: left !== null && spent + left > budget
					? `${words(spent)} so far, and ${words(left)} left: the budget of ${words(budget)} will be passed by ${words(spent + left - budget)}.`
					: `${words(spent)} so far of ${words(budget)}${left === null ? '' : `, and ${words(left)} left`}.`,
	);
</script>

<div bind:clientWidth={width}>
	<Figure
		{title}
		subtitle="what was worked so far"
		{says}
		table={{
			head: ['Week of', 'So far'],
			rows: points.map((point) => [dateWords(point.week, today), words(point.spent)]),
		}}
	>
		<svg {width} height={height + 20} role="group" aria-label={title}>
			<defs>
				<clipPath id="{id}-over"
					><rect x="0" y="0" {width} height={budget === null ? 0 : y(budget)} /></clipPath
				>
			</defs>
			{#each y.ticks(4) as tick (tick)}
				<line class="grid" x1="46" x2={width - 16} y1={y(tick)} y2={y(tick)} />
				<text class="axis" x="40" y={y(tick) + 4} text-anchor="end">{tick.toLocaleString('en-GB')}</text>
			{/each}
			<path class="spent" d={shape} />
			{#if budget !== null}<path class="over" d={shape} clip-path="url(#{id}-over)" />{/if}
			<path class="top" d={top} />
			{#if left}<line
					class="ahead"
					class:late={budget !== null && spent + left > budget}
					x1={x(parseISO(today))}
					y1={y(spent)}
					x2={x(parseISO(until))}
					y2={y(spent + left)}
				/>{/if}
			{#if budget !== null}
				<line class="budget" x1="46" x2={width - 16} y1={y(budget)} y2={y(budget)} />
				<text class="name" x="50" y={y(budget) - 5}>budget {words(budget)}</text>
			{/if}
			<line class="now" x1={x(parseISO(today))} x2={x(parseISO(today))} y1="0" y2={height} />
			{#each points as point, i (point.week)}
				{@const next = points[i + 1]}
				{@const wide = Math.max(3, (next ? at(next) : x(parseISO(today))) - at(point))}
				<g
					role="button"
					tabindex="0"
					aria-label="Week of {dateWords(point.week, today)}: {words(point.spent)} so far"
					onclick={() => onpick(point)}
					onkeydown={(event) => event.key === 'Enter' && onpick(point)}
				>
					<rect class="reach" x={at(point)} y="0" width={wide} {height} />
					<title>Week of {dateWords(point.week, today)}: {words(point.spent)} so far</title>
				</g>
			{/each}
			<line class="base" x1="46" x2={width - 16} y1={height} y2={height} />
			{#each ticks as tick (tick.getTime())}<text
					class="axis"
					x={x(tick)}
					y={height + 15}
					text-anchor="middle">{shortDate(iso(tick))}</text
				>{/each}
		</svg>
	</Figure>
</div>

<style>
	.grid {
		stroke: var(--rule);
	}
	.base {
		stroke: var(--edge);
	}
	.axis {
		fill: var(--soft);
		font: 12px var(--text);
	}
	.spent {
		fill: var(--moss-2);
	}
	.over {
		fill: var(--brick-2);
	}
	.top {
		fill: none;
		stroke: var(--moss);
		stroke-width: 2px;
	}
	.ahead {
		stroke: var(--river);
		stroke-width: 2px;
		stroke-dasharray: 2 5;
	}
	.ahead.late {
		stroke: var(--brick);
	}
	.budget {
		stroke: var(--ochre);
		stroke-width: 1.6px;
	}
	.name {
		fill: var(--ochre);
		font: 600 12px var(--text);
	}
	.now {
		stroke: var(--brick-fill);
		stroke-width: 1.5px;
	}
	.reach {
		fill: transparent;
	}
	g[role='button']:hover .reach {
		fill: var(--ink);
		opacity: 0.06;
	}
</style>
