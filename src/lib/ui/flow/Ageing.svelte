<script lang="ts">
	import { area } from 'd3-shape';
	import type { ScaleLinear } from 'd3-scale';
	import type { FlowPage } from '$core/pages/flow';
	import { countTicks } from '../chart/axes';
	import { dodge } from '../chart/dodge';
	import Figure from '../chart/Figure.svelte';
	import { count } from '../words';
	import { ageingWords, shapeMarks, shareOlder, type Shape } from './sentences';

	interface Props {
		flow: FlowPage;
		titles: Record<string, string>;
		width: number;
		height: number;
		y: ScaleLinear<number, number>;
		/** One card is opened itself. */
		onpick: (card: string) => void;
	}
	let { flow, titles, width, height, y, onpick }: Props = $props();

	const left = 26;
	const NAMED = 9;
	const columns = $derived(
		flow.columns.flatMap((column, i) => {
			const cards = flow.report.ageing.filter((age) => age.column === column.name);
			// Columns before the commitment show only where a reopened card stands in one.
			return !column.shown || column.kind === 'done' || (i < flow.commitment && !cards.length)
				? []
				: [{ name: column.name, shape: flow.shapes[i]!, cards }];
		}),
	);
	const band = $derived((width - left) / Math.max(1, columns.length));
	const most = $derived(y.domain()[1]!);

	function shapePath(shape: Shape, middle: number): string {
		if (!shape.length) return '';
		const ages = Array.from({ length: Math.ceil(most) + 1 }, (_, age) => age);
		const half = band * 0.44;
		return (
			area<number>()
				.y((age) => y(age))
				.x0((age) => middle - shareOlder(shape, age) * half)
				.x1((age) => middle + shareOlder(shape, age) * half)(ages) ?? ''
		);
	}

	const dots = $derived(
		columns.flatMap((column, i) => {
			const middle = left + band * (i + 0.5);
			const placed = column.cards.map((card, j) => ({
				...card,
				x: middle + ((j % 3) - 1) * Math.min(11, band / 7),
				y: y(Math.min(card.ageDays, most)),
			}));
			// Of very many only the oldest are named: names that lie on each other say nothing.
			const old = placed
				.filter((card) => flow.expectation && card.ageDays > flow.expectation.median)
				.sort((a, b) => b.ageDays - a.ageDays)
				.slice(0, NAMED);
			const labels = dodge(
				old.map((card) => card.y),
				13,
				10,
				height - 4,
			);
			return placed.map((card) => ({
				...card,
				label: old.includes(card) ? labels[old.indexOf(card)]! : null,
				edge: middle + band * 0.46,
			}));
		}),
	);
	const number = (key: string) => key.slice(key.lastIndexOf('-') + 1);
</script>

<Figure
	title="Days in hand now"
	subtitle="shape: past cards still unfinished"
	says={ageingWords(flow)}
	table={{
		head: ['Card', 'Title', 'Column', 'Days', 'Days in column'],
		rows: flow.report.ageing.map((age) => [
			age.card,
			titles[age.card] ?? '',
			age.column,
			age.ageDays,
			age.columnDays,
		]),
	}}
>
	<svg {width} height={height + 34} role="group" aria-label="Age of the cards in hand, by column">
		{#each countTicks(y) as tick (tick)}<text class="axis" x="20" y={y(tick) + 4} text-anchor="end"
				>{tick}</text
			>{/each}
		{#each columns as column, i (column.name)}
			{@const middle = left + band * (i + 0.5)}
			<path class="shape" d={shapePath(column.shape, middle)} />
			{#each shapeMarks(column.shape) as mark (mark.p)}
				<line
					class="mark"
					class:strong={mark.p === 85}
					x1={middle - band * 0.3}
					x2={middle + band * 0.3}
					y1={y(Math.min(mark.days, most))}
					y2={y(Math.min(mark.days, most))}
					><title>{mark.p}% had left {column.name} by day {mark.days}</title></line
				>
			{/each}
			<text class="axis" x={middle} y={height + (i % 2 && band < 88 ? 30 : 16)} text-anchor="middle"
				>{column.name}</text
			>
		{/each}
		{#each dots as dot (dot.card)}
			<g
				role="button"
				tabindex="0"
				aria-label="{dot.card} {titles[dot.card] ?? ''}, day {dot.ageDays}, in {dot.column}"
				onclick={() => onpick(dot.card)}
				onkeydown={(event) => event.key === 'Enter' && onpick(dot.card)}
			>
				<circle class="reach" cx={dot.x} cy={dot.y} r="10" />
				<circle class="dot" cx={dot.x} cy={dot.y} r="4.5" />
				{#if dot.label !== null}
					<path class="lead" d="M{dot.x + 5} {dot.y}L{dot.edge - 24} {dot.label}" />
					<text class="label" x={dot.edge - 22} y={dot.label + 4}>{number(dot.card)}</text>
				{/if}
				<title>{dot.card} {titles[dot.card] ?? ''}: {count(dot.ageDays, 'day')}</title>
			</g>
		{/each}
	</svg>
</Figure>

<style>
	.shape {
		fill: var(--river-2);
		stroke: var(--river);
		opacity: 0.75;
	}
	.mark.strong {
		stroke-width: 2.5px;
	}
	.dot {
		fill: var(--ink);
		stroke: var(--paper);
	}
	.lead {
		stroke: var(--edge);
	}
	.label {
		fill: var(--ink);
		paint-order: stroke;
		stroke: var(--paper);
		stroke-width: 3px;
	}
</style>
