<script lang="ts">
	import type { BehindFlow, FlowPage } from '$core/pages/flow';
	import { parseDay } from '$core/calendar/days';
	import { DAY_MS } from '$core/calendar/zone';
	import { countScale, countTicks, timeScale, timeTicks } from '../chart/axes';
	import { dodge } from '../chart/dodge';
	import Figure from '../chart/Figure.svelte';
	import TimeAxis from '../chart/TimeAxis.svelte';
	import { figure } from '../words';
	import { weeksWords } from './sentences';

	let {
		flow,
		width,
		onpick,
	}: { flow: FlowPage; width: number; onpick: (title: string, of: BehindFlow, which?: string) => void } =
		$props();

	const height = 120;
	const x = $derived(timeScale(flow.from, flow.to, width));
	const wide = $derived(width >= 560);
	const xmr = $derived(flow.report.xmr);
	const y = $derived(
		countScale(Math.max(xmr?.upper ?? 0, ...flow.report.weeks.map((week) => week.finished)), height),
	);
	const monday = $derived(new Map(flow.allWeeks.map((week) => [week.week, week.monday])));
	const bars = $derived(
		flow.report.weeks.map(({ week, finished }) => {
			const from = parseDay(monday.get(week)!)!;
			const left = x(new Date(from * DAY_MS));
			const signals = xmr?.signals.filter((signal) => signal.week === week) ?? [];
			return { week, finished, left, width: x(new Date((from + 7) * DAY_MS)) - left, signals };
		}),
	);
	const lines = $derived.by(() => {
		if (!xmr) return [];
		const all = [
			{ value: xmr.upper, text: `natural limit ${figure(xmr.upper)}`, dashed: true },
			{ value: xmr.mean, text: `mean ${figure(xmr.mean)}`, dashed: false },
			...(xmr.lower > 0
				? [{ value: xmr.lower, text: `natural limit ${figure(xmr.lower)}`, dashed: true }]
				: []),
		];
		const places = dodge(
			all.map((line) => y(line.value)),
			14,
			6,
			height - 2,
		);
		return all.map((line, i) => ({ ...line, y: y(line.value), label: places[i]! }));
	});
	const pick = (week: string) => onpick(`Finished in ${week}`, 'week', week);
	const RULES: Record<string, string> = {
		outside: 'outside the limits',
		run: 'eight in a row on one side',
		'near-limit': 'three of four near a limit',
	};
</script>

<Figure
	title="Finished each week"
	subtitle="whole weeks, with natural process limits"
	says={weeksWords(flow)}
	table={{
		head: ['Week', 'Finished', 'What it signals'],
		rows: bars.map((bar) => [
			bar.week,
			bar.finished,
			bar.signals.map((signal) => RULES[signal.rule]).join(', '),
		]),
	}}
>
	<svg {width} height={height + 20} role="group" aria-label="Cards finished each week">
		{#each bars as bar (bar.week)}
			<g
				role="button"
				tabindex="0"
				aria-label="{bar.week}: {bar.finished} finished"
				onclick={() => pick(bar.week)}
				onkeydown={(event) => event.key === 'Enter' && pick(bar.week)}
			>
				<rect class="reach" x={bar.left} y="0" width={bar.width} {height} />
				<rect
					class="bar"
					x={bar.left + bar.width * 0.15}
					y={y(bar.finished)}
					width={bar.width * 0.7}
					height={height - y(bar.finished)}
				/>
				{#if bar.signals.length}<path
						class="signal"
						d="M{bar.left + bar.width / 2} {y(bar.finished) - 11}l5 5l-5 5l-5 -5z"
					/>{/if}
				<title
					>{bar.week}: {bar.finished} finished{bar.signals
						.map((signal) => `, ${RULES[signal.rule]}`)
						.join('')}</title
				>
			</g>
		{/each}
		{#each countTicks(y, 3) as tick (tick)}<text class="axis" x="30" y={y(tick) + 4} text-anchor="end"
				>{tick}</text
			>{/each}
		<line class="base" x1={x.range()[0]} x2={x.range()[1]} y1={height} y2={height} />
		<TimeAxis ticks={timeTicks(x)} y={height} />
		{#each lines as line (line.text)}
			<line
				class="mark"
				class:dashed={line.dashed}
				x1={x.range()[0]}
				x2={x.range()[1]}
				y1={line.y}
				y2={line.y}
			/>
			{#if wide}
				<path class="lead" d="M{x.range()[1]} {line.y}L{x.range()[1]! + 6} {line.label}" />
				<text class="label" x={x.range()[1]! + 8} y={line.label + 4}>{line.text}</text>
			{/if}
		{/each}
	</svg>
</Figure>

<style>
	.bar {
		fill: var(--moss);
	}
	.base {
		stroke: var(--edge);
	}
	.signal {
		fill: var(--paper);
		stroke: var(--brick);
		stroke-width: 1.6px;
	}
	.mark,
	.lead {
		stroke-width: 1.4px;
	}
	.dashed {
		stroke-dasharray: 5 3;
	}
	.label {
		fill: var(--river);
	}
	g[role='button']:hover .bar {
		opacity: 0.8;
	}
</style>
