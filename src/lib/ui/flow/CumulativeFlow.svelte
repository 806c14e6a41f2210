<script lang="ts">
	import { area, stack, type SeriesPoint } from 'd3-shape';
	import type { BehindFlow, FlowPage } from '$core/pages/flow';
	import { parseDay } from '$core/calendar/days';
	import { DAY_MS } from '$core/calendar/zone';
	import { countScale, countTicks, timeScale, timeTicks } from '../chart/axes';
	import { dodge } from '../chart/dodge';
	import Figure from '../chart/Figure.svelte';
	import TimeAxis from '../chart/TimeAxis.svelte';
	import { count, dateWords } from '../words';
	import { cumulativeWords } from './sentences';

	let {
		flow,
		width,
		onpick,
	}: { flow: FlowPage; width: number; onpick: (title: string, of: BehindFlow, which?: string) => void } =
		$props();

	const height = 150;
	const x = $derived(timeScale(flow.from, flow.to, width));
	const wide = $derived(width >= 560);
	const days = $derived(flow.report.days);
	/** What was done before the range is left out of the picture, so that the bands can be seen. */
	const before = $derived(
		new Map(
			flow.columns.map((column) => [
				column.name,
				column.kind === 'done' ? Math.min(...days.map((day) => day.columns[column.name]!)) : 0,
			]),
		),
	);
	const names = $derived(flow.columns.flatMap((column) => (column.shown ? [column.name] : [])).toReversed());
	const layers = $derived(
		stack<(typeof days)[number], string>()
			.keys(names)
			.value((day, name) => day.columns[name]! - before.get(name)!)(days),
	);
	const y = $derived(
		countScale(Math.max(1, ...layers.flatMap((layer) => layer.map((point) => point[1]))), height),
	);
	const shape = $derived(
		area<SeriesPoint<(typeof days)[number]>>()
			.x((point) => x(new Date((parseDay(point.data.day)! + 1) * DAY_MS)))
			.y0((point) => y(point[0]))
			.y1((point) => y(point[1])),
	);
	const bands = $derived.by(() => {
		const last = layers.map((layer) => layer.at(-1));
		const places = dodge(
			last.map((point) => (point ? y((point[0] + point[1]) / 2) : 0)),
			14,
			6,
			height - 4,
		);
		return layers.map((layer, i) => {
			const index = flow.columns.findIndex((column) => column.name === layer.key);
			const { name, kind } = flow.columns[index]!;
			const middle = last[i] ? y((last[i]![0] + last[i]![1]) / 2) : 0;
			return {
				name,
				kind,
				last: days.at(-1)?.columns[name] ?? 0,
				path: shape(layer) ?? '',
				middle,
				label: places[i]!,
				shade:
					kind === 'work'
						? flow.columns.slice(0, index).filter((column) => column.kind === 'work').length % 2
						: 0,
			};
		});
	});
	const pick = (band: (typeof bands)[number]) =>
		band.kind === 'done'
			? onpick(`Finished from ${dateWords(flow.from)} to ${dateWords(flow.to)}`, 'finished')
			: onpick(`In ${band.name} on ${dateWords(flow.to)}`, 'column', band.name);
</script>

<Figure
	title="Cumulative flow"
	subtitle="hatched bands wait; a band that widens piles up"
	says={cumulativeWords(flow)}
	table={{
		head: ['Day', ...flow.columns.map((column) => column.name), 'In hand'],
		rows: days.map((day) => [day.day, ...flow.columns.map((column) => day.columns[column.name]!), day.wip]),
	}}
>
	<svg {width} height={height + 20} role="group" aria-label="Cards in each column at the end of each day">
		<defs>
			<pattern id="waiting" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
				<rect class="waiting-ground" width="6" height="6" />
				<rect class="waiting-line" width="2" height="6" />
			</pattern>
		</defs>
		{#each bands as band (band.name)}
			<g
				role="button"
				tabindex="0"
				aria-label="{band.name}: {count(band.last, 'card')} at the end"
				onclick={() => pick(band)}
				onkeydown={(event) => event.key === 'Enter' && pick(band)}
			>
				<path class="band {band.kind}" class:darker={band.shade} d={band.path} />
				<title>{band.name}</title>
			</g>
		{/each}
		{#each countTicks(y) as tick (tick)}<text class="axis" x="30" y={y(tick) + 4} text-anchor="end"
				>{tick}</text
			>{/each}
		<TimeAxis ticks={timeTicks(x)} y={height} />
		{#if wide}
			{#each bands as band (band.name)}
				<path class="lead" d="M{x.range()[1]} {band.middle}L{x.range()[1]! + 6} {band.label}" />
				<text class="label" x={x.range()[1]! + 8} y={band.label + 4}
					>{band.name}{band.kind === 'queue' ? ', waits' : ''}</text
				>
			{/each}
		{/if}
	</svg>
</Figure>

<style>
	.label {
		fill: var(--ink);
	}
	.lead {
		stroke: var(--edge);
	}
	.band {
		stroke: var(--paper);
		stroke-width: 0.8px;
	}
	.queue {
		fill: url(#waiting);
	}
	.waiting-ground {
		fill: light-dark(#efe7d3, #352c20);
	}
	.waiting-line {
		fill: light-dark(#b9a983, #8d7b58);
	}
	.work {
		fill: light-dark(#a9c4b2, #4a7461);
	}
	.darker {
		fill: light-dark(#7fa691, #649a82);
	}
	.done {
		fill: light-dark(#2f5d4c, #8cc2a8);
	}
	g[role='button']:focus-visible path {
		stroke: var(--river);
		stroke-width: 3px;
	}
</style>
