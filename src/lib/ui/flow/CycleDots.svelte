<script lang="ts">
	import type { ScaleLinear } from 'd3-scale';
	import type { BehindFlow, FlowPage } from '$core/pages/flow';
	import { parseDay } from '$core/calendar/days';
	import { DAY_MS } from '$core/calendar/zone';
	import { countTicks, timeScale, timeTicks } from '../chart/axes';
	import { dodge } from '../chart/dodge';
	import Figure from '../chart/Figure.svelte';
	import TimeAxis from '../chart/TimeAxis.svelte';
	import { count, dateWords } from '../words';
	import { cycleWords } from './sentences';

	interface Props {
		flow: FlowPage;
		width: number;
		height: number;
		y: ScaleLinear<number, number>;
		onpick: (title: string, of: BehindFlow, which?: string) => void;
	}
	let { flow, width, height, y, onpick }: Props = $props();

	const x = $derived(timeScale(flow.from, flow.to, width));
	const wide = $derived(width >= 560);
	const lines = $derived.by(() => {
		const { cycle } = flow.report;
		if (!cycle) return [];
		const all = [
			{ p: 95, days: cycle.p95, text: `95%: ${cycle.p95} or fewer` },
			{ p: 85, days: cycle.p85, text: `85%: ${cycle.p85} or fewer` },
			{ p: 50, days: cycle.p50, text: `half: ${cycle.p50} or fewer` },
		];
		const places = dodge(
			all.map((line) => y(line.days)),
			14,
			8,
			height - 2,
		);
		return all.map((line, i) => ({ ...line, y: y(line.days), label: places[i]! }));
	});
	/** Cards of one day and one length stand side by side, so that each can be seen and picked; of very many they are one mark, the larger the more. */
	const dots = $derived.by(() => {
		const seen = new Map<string, number>();
		const day = x(new Date(DAY_MS)) - x(new Date(0));
		return flow.dots.map((card) => {
			const place = `${card.day} ${card.took}`;
			const n = seen.get(place) ?? 0;
			seen.set(place, n + 1);
			const at =
				x(new Date((parseDay(card.day)! + 0.5) * DAY_MS)) +
				Math.ceil(n / 2) * (n % 2 ? 1 : -1) * Math.min(6, Math.max(3, day / 3));
			return {
				...card,
				x: at,
				y: y(card.took),
				r: card.card ? 3 : Math.min(7, 2 + Math.sqrt(card.cards) * 0.7),
				// Marks stand a day apart: none may cover the one beside it.
				reach: card.card ? 9 : Math.max(3.5, Math.min(9, day / 2)),
				words: card.card ? `${card.card} ${card.title}` : count(card.cards, 'card'),
				late: flow.report.cycle !== null && card.took > flow.report.cycle.p95,
			};
		});
	});
	let chosen = $state(0);

	function onkeydown(event: KeyboardEvent) {
		const by = event.key === 'ArrowRight' ? 1 : event.key === 'ArrowLeft' ? -1 : 0;
		if (by) chosen = Math.max(0, Math.min(dots.length - 1, chosen + by));
		else if ((event.key === 'Enter' || event.key === ' ') && dots[chosen]) pick(dots[chosen]!);
		else return;
		event.preventDefault();
		(event.currentTarget as SVGElement).querySelectorAll<SVGElement>('[role=button]')[chosen]?.focus();
	}
	const pick = ({ day, took }: { day: string; took: number }) =>
		onpick(`Finished ${dateWords(day)} after ${count(took, 'day')}`, 'dot', `${day} ${took}`);
</script>

<Figure
	title="Days each finished card took"
	subtitle="from start to finish"
	says={cycleWords(flow)}
	table={{
		head: ['Card', 'Title', 'Finished', 'Days'],
		rows: flow.dots.map((dot) => [dot.card ?? count(dot.cards, 'card'), dot.title, dot.day, dot.took]),
	}}
>
	<!-- svelte-ignore a11y_no_noninteractive_element_interactions -->
	<svg
		{width}
		height={height + 20}
		role="group"
		aria-label="Days each finished card took; arrow keys go from dot to dot"
		{onkeydown}
	>
		{#each countTicks(y) as tick (tick)}
			<text class="axis" x="30" y={y(tick) + 4} text-anchor="end">{tick}</text>
		{/each}
		<text class="axis" x="2" y={height + 15}>days</text>
		<TimeAxis ticks={timeTicks(x)} y={height} />
		{#each lines as line (line.p)}
			<line
				class="mark"
				class:strong={line.p === 85}
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
		{#each dots as dot, i (dot.card ?? `${dot.day} ${dot.took}`)}
			<g
				role="button"
				tabindex={i === chosen ? 0 : -1}
				aria-label="{dot.words}, {count(dot.took, 'day')}, finished {dateWords(dot.day)}"
				onclick={() => pick(dot)}
				onfocus={() => (chosen = i)}
				onkeydown={() => undefined}
			>
				<circle class="reach" cx={dot.x} cy={dot.y} r={dot.reach} />
				{#if dot.late}<rect class="late" x={dot.x - 3.5} y={dot.y - 3.5} width="7" height="7" />{:else}<circle
						class="dot"
						cx={dot.x}
						cy={dot.y}
						r={dot.r}
					/>{/if}
				<title>{dot.words}: {count(dot.took, 'day')}</title>
			</g>
		{/each}
	</svg>
</Figure>

<style>
	.mark.strong {
		stroke-width: 2px;
	}
	.label {
		fill: var(--river);
	}
	.dot {
		fill: var(--ink);
		opacity: 0.62;
	}
	.late {
		fill: var(--paper);
		stroke: var(--brick);
		stroke-width: 1.6px;
	}
	g[role='button']:hover .dot {
		opacity: 1;
	}
</style>
