<script lang="ts" module>
	/** One bar of a sprint: a figure that opens to the cards behind it. */
	export interface Band {
		value: number | null;
		look: 'done' | 'later' | 'left' | 'cards' | 'taken';
		words: string;
		onpick: () => void;
	}
	export interface SprintBands {
		number: number;
		bands: readonly Band[];
		/** One on the other instead of side by side. */
		stacked?: boolean;
		/** A stroke across the bar. */
		mark?: Omit<Band, 'look' | 'value'> & { value: number };
	}
	/** A line across the chart. */
	export interface Across {
		name: string;
		value: number;
		dashed: boolean;
	}
</script>

<script lang="ts">
	import { fsum } from 'd3-array';
	import { scaleBand, scaleLinear } from 'd3-scale';
	import { line } from 'd3-shape';
	import { dodge } from '../chart/dodge';

	interface Props {
		label: string;
		sprints: readonly SprintBands[];
		across?: readonly Across[];
		/** A line through the sprints, such as a rolling mean; null where it has no value yet. */
		through?: { name: string; values: readonly (number | null)[] } | null;
		width: number;
		height?: number;
		tick: (value: number) => string;
	}
	/** Bars of sprints, side by side or one on the other, each opening to its cards. */
	let { label, sprints, across = [], through = null, width, height = 170, tick }: Props = $props();
	const wide = $derived(width >= 560);
	const right = $derived(Math.max(80, width - (wide ? 126 : 10)));
	/** Few sprints do not fill the chart. */
	const WIDEST = 120;
	const x = $derived(
		scaleBand(
			sprints.map((sprint) => sprint.number),
			[44, Math.min(right, 44 + sprints.length * WIDEST)],
		).padding(0.25),
	);
	const most = $derived(
		Math.max(
			...across.map((one) => one.value),
			...sprints.flatMap((sprint) => [
				sprint.mark?.value ?? 0,
				...(sprint.stacked
					? [fsum(sprint.bands, (band) => band.value ?? 0)]
					: sprint.bands.map((band) => band.value ?? 0)),
			]),
			0,
		),
	);
	const y = $derived(scaleLinear([0, most || 1], [height, 8]).nice(4));
	const labels = $derived(
		dodge(
			across.map((one) => y(one.value)),
			14,
			6,
			height - 2,
		),
	);
	const path = $derived(
		through
			? (line<number | null>()
					.defined((value) => value !== null)
					.x((_, i) => x(sprints[i]!.number)! + x.bandwidth() / 2)
					.y((value) => y(value ?? 0))([...through.values]) ?? '')
			: '',
	);
	const every = $derived(Math.max(1, Math.ceil((sprints.length * 30) / (right - 44))));
</script>

<svg {width} height={height + 20} role="group" aria-label={label}>
	{#each y.ticks(4) as at (at)}
		<line class="grid" x1="44" x2={right} y1={y(at)} y2={y(at)} />
		<text class="axis" x="38" y={y(at) + 4} text-anchor="end">{tick(at)}</text>
	{/each}
	<defs>
		<pattern id="left-over" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
			<rect width="6" height="6" style:fill="var(--ochre-2)" />
			<rect width="3" height="6" style:fill="var(--ochre-fill)" />
		</pattern>
	</defs>
	{#each sprints as sprint, i (sprint.number)}
		{#each sprint.bands as band, b (band.look)}
			{@const wideness = sprint.stacked ? x.bandwidth() : x.bandwidth() / sprint.bands.length}
			{@const left = x(sprint.number)! + (sprint.stacked ? 0 : b * wideness)}
			{@const under = sprint.stacked ? fsum(sprint.bands.slice(0, b), (one) => one.value ?? 0) : 0}
			{@const top = y(under + (band.value ?? 0))}
			{#if band.value !== null}
				<g
					role="button"
					tabindex="0"
					aria-label={band.words}
					onclick={band.onpick}
					onkeydown={(event) => event.key === 'Enter' && band.onpick()}
				>
					{#if !sprint.stacked}<rect class="reach" x={left} y="0" width={wideness} {height} />{/if}
					<rect
						class={band.look}
						x={left + 0.5}
						y={top}
						width={Math.max(1, wideness - 1)}
						height={Math.max(0, y(under) - top)}
					/>
					<title>{band.words}</title>
				</g>
			{/if}
		{/each}
		{#if sprint.mark}
			{@const at = y(sprint.mark.value)}
			<g
				role="button"
				tabindex="0"
				aria-label={sprint.mark.words}
				onclick={sprint.mark.onpick}
				onkeydown={(event) => event.key === 'Enter' && sprint.mark?.onpick()}
			>
				<rect class="reach" x={x(sprint.number)! - 3} y={at - 7} width={x.bandwidth() + 6} height="14" />
				<line
					class="commitment"
					x1={x(sprint.number)! - 3}
					x2={x(sprint.number)! + x.bandwidth() + 3}
					y1={at}
					y2={at}
				/>
				<title>{sprint.mark.words}</title>
			</g>
		{/if}
		{#if i % every === 0}<text
				class="axis"
				x={x(sprint.number)! + x.bandwidth() / 2}
				y={height + 15}
				text-anchor="middle">{sprint.number}</text
			>{/if}
	{/each}
	<line class="base" x1="44" x2={right} y1={height} y2={height} />
	{#each across as one, i (one.name)}
		<line class="mark" class:dashed={one.dashed} x1="44" x2={right} y1={y(one.value)} y2={y(one.value)} />
		{#if wide}
			<path class="lead" d="M{right} {y(one.value)}L{right + 6} {labels[i]}" />
			<text class="label" x={right + 8} y={labels[i]! + 4}>{one.name}</text>
		{/if}
	{/each}
	{#if through}<path class="through" d={path} />{/if}
</svg>

<style>
	.grid {
		stroke: var(--rule);
	}
	.base {
		stroke: var(--edge);
	}
	.done {
		fill: var(--moss);
	}
	.later {
		fill: var(--moss-2);
		stroke: var(--moss);
	}
	.commitment {
		stroke: var(--river);
		stroke-width: 3px;
	}
	.left {
		fill: url(#left-over);
		stroke: var(--ochre-fill);
	}
	.cards {
		fill: var(--sheet);
		stroke: var(--ochre-fill);
		stroke-width: 1.5px;
	}
	.taken {
		fill: var(--ochre-2);
		stroke: var(--ochre-fill);
	}
	.dashed {
		stroke-dasharray: 5 3;
	}
	.label {
		fill: var(--river);
	}
	.through {
		fill: none;
		stroke: var(--ink);
		stroke-width: 2px;
		pointer-events: none;
	}
	g[role='button']:hover rect:not(.reach) {
		opacity: 0.8;
	}
</style>
