<script lang="ts">
	import { fsum } from 'd3-array';
	import { pathRound } from 'd3-path';
	import type { Segment, Unit } from '$core/pages/board';
	import { dayText, parseDay } from '$core/calendar/days';
	import { amount, count, dateWords, figure } from '../words';

	interface Props {
		/** Undefined while they are on their way. */
		segments?: Segment[];
		/** They could not be read. */
		failed?: boolean;
		slug: string;
		unit: Unit;
		today: string;
		/** The sprint whose plan is open. */
		planning?: number | null;
		/** The sprint whose report is open. */
		reporting?: number | null;
		/** Told of a moment of the past that somebody dragged to, `2026-11-05T14:00`. */
		onmoment?: (at: string) => void;
	}
	let {
		segments: told,
		failed = false,
		slug,
		unit,
		today,
		planning = null,
		reporting = null,
		onmoment,
	}: Props = $props();
	const segments = $derived(told ?? []);

	const percent = (share: number) => `${Math.round(share * 100)}%`;
	function laterWhy(s: Extract<Segment, { kind: 'later' }>): string {
		if (s.usual === null) return 'How many sprints they take is said once three sprints are closed.';
		const unsized = s.unsized ? `, ${s.unsized} without a size taken as the mean of the others` : '';
		return `${amount(s.work, unit)} wait${unsized}; a usual sprint delivers ${amount(s.usual, unit)}.`;
	}

	let ribbon = $state<HTMLElement>();
	let scrolls = $state(false);
	// Where it is wider than the window it begins at the present, and keys can scroll it.
	$effect(() => {
		if (!ribbon) return;
		const seen = new ResizeObserver(() => {
			scrolls = ribbon!.scrollWidth > ribbon!.clientWidth + 1;
			const now = ribbon!.querySelector<HTMLElement>('.now, .week-now');
			if (scrolls && now) ribbon!.scrollLeft = now.offsetLeft - 12;
		});
		seen.observe(ribbon);
		return () => seen.disconnect();
	});

	/** Where a pointer was put down on the past, and the moment it was drawn to since. */
	let down: number | null = null;
	let drawn = $state.raw<{ at: string; x: number } | null>(null);
	/** So far it is drawn before it is no click any more. */
	const FAR = 8;
	function momentUnder(x: number): string | null {
		const segment = [...ribbon!.querySelectorAll<HTMLElement>('[data-from]')].find((one) => {
			const box = one.getBoundingClientRect();
			return x >= box.left && x < box.right;
		});
		if (!segment) return null;
		const { left, width } = segment.getBoundingClientRect();
		const [from, to] = [segment.dataset.from!, segment.dataset.to!].map((text) => parseDay(text)!);
		const at = from! + ((x - left) / width) * (to! + 1 - from!);
		if (Math.floor(at) > parseDay(today)!) return null;
		const hour = String(Math.floor((at % 1) * 24)).padStart(2, '0');
		return `${dayText(Math.floor(at))}T${hour}:00`;
	}
	function draw(event: PointerEvent): void {
		if (down === null || (!drawn && Math.abs(event.clientX - down) < FAR)) return;
		const at = momentUnder(event.clientX);
		if (at) drawn = { at, x: event.clientX };
	}
	function up(): void {
		down = null;
		if (!drawn) return;
		onmoment?.(drawn.at);
		// The click that ends the drawing opens nothing.
		setTimeout(() => (drawn = null));
	}

	const most = $derived(
		Math.max(
			1,
			...segments.map((s) =>
				s.kind === 'past'
					? Math.max(s.done, s.leftOver)
					: s.kind === 'week'
						? Math.max(s.finished, s.wip)
						: 0,
			),
		),
	);
	const usual = $derived.by(() => {
		const past = segments.flatMap((s) => (s.kind === 'past' ? [s.done] : []));
		return past.length ? fsum(past) / past.length : 0;
	});
	const tall = (n: number) => `${Math.round((n / most) * 30)}px`;

	/** Day of a sprint and of how many, weekends left out. */
	function dayOf(starts: string, ends: string): [number, number] {
		let [day, all] = [0, 0];
		for (let d = parseDay(starts)!; d <= parseDay(ends)!; d++) {
			if ((((d + 3) % 7) + 7) % 7 > 4) continue;
			all++;
			if (d <= parseDay(today)!) day++;
		}
		return [day, all];
	}

	function burn(s: Extract<Segment, { kind: 'running' }>) {
		const first = parseDay(s.starts)! - 1;
		const span = parseDay(s.ends)! - first;
		const high = Math.max(1, ...s.days.map((d) => d.scope));
		const x = (day: string) => ((parseDay(day)! - first) / span) * 100;
		const y = (left: number) => 32 - (left / high) * 29;
		// Drawn on every page of a board: the whole of d3-shape would be loaded with each for straight lines.
		const path = (points: readonly { day: string; left: number }[]): string => {
			const line = pathRound(3);
			for (const [i, { day, left }] of points.entries())
				if (i) line.lineTo(x(day), y(left));
				else line.moveTo(x(day), y(left));
			return String(line);
		};
		return {
			path: path(s.days),
			guide: path(s.guide),
			scope: path(s.days.map((d) => ({ day: d.day, left: d.scope }))),
			burned: `${path(s.days.map((d) => ({ day: d.day, left: d.burned })))}L${x(s.days.at(-1)!.day)} 32L0 32Z`,
			now: Math.min(100, x(today)),
			over: today > s.ends,
		};
	}
</script>

<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
<nav
	class="ribbon screen-only"
	aria-label="Time"
	bind:this={ribbon}
	tabindex={scrolls ? 0 : undefined}
	onpointerdown={({ clientX, button, pointerType }) => {
		if (onmoment && !button && pointerType !== 'touch') down = clientX;
	}}
	ondragstart={(event) => event.preventDefault()}
	onclickcapture={(event) => drawn && event.preventDefault()}
>
	{#each segments as s, i (i)}
		{#if s.kind === 'past'}
			<a
				class="segment"
				data-from={s.starts}
				data-to={s.ends}
				class:here={reporting === s.number}
				href="/boards/{slug}/look-back/{s.number}"
				aria-label="S{s.number}: report of sprint {s.number}, {dateWords(s.starts)} to {dateWords(
					s.ends,
				)}: {amount(s.done, unit)} done, {amount(s.leftOver, unit)} left over"
				title="Sprint {s.number}{s.goal ? `: ${s.goal}` : ''} — {amount(s.done, unit)} done, {amount(
					s.leftOver,
					unit,
				)} left over"
			>
				<b>S{s.number}</b>
				<span class="bars"
					><i class="done" style:height={tall(s.done)}></i><i class="left" style:height={tall(s.leftOver)}
					></i></span
				>
			</a>
		{:else if s.kind === 'running'}
			{@const picture = burn(s)}
			{@const [day, all] = dayOf(s.starts, s.ends)}
			<a
				class="segment now"
				data-from={s.starts}
				data-to={s.ends}
				href="/boards/{slug}{picture.over ? '/settle' : ''}"
			>
				<span class="words"
					><b>Sprint {s.number}</b>
					{#if picture.over}<span class="warn">over, not settled</span> · {s.goal}{:else}{s.goal} · day {day} of
						{all}{/if} · {figure(s.left)} of {amount(s.committed, unit)}</span
				>
				<svg viewBox="0 0 100 34" preserveAspectRatio="none" aria-hidden="true">
					<path class="burned" d={picture.burned} />
					<path class="scope" d={picture.scope} />
					<path class="guide" d={picture.guide} />
					<path class="burn" d={picture.path} />
					<path class="today" d="M{picture.now} 0V34" />
				</svg>
			</a>
		{:else if s.kind === 'next'}
			{@const full = s.promise ? s.placed / s.promise : null}
			<a
				class="segment next"
				class:here={planning === s.number}
				href="/boards/{slug}/plan?sprint={s.number}"
				aria-label="S{s.number} {full === null
					? amount(s.placed, unit)
					: `${percent(full)} full`}: plan sprint {s.number}, from {dateWords(s.starts)}: {amount(
					s.placed,
					unit,
				)} placed{full === null ? '' : `, ${percent(full)} of the promise`}"
				title="Sprint {s.number}{s.goal ? `: ${s.goal}` : ''}, from {dateWords(s.starts)}: {count(
					s.cards,
					'card',
				)}, {amount(s.placed, unit)}{s.promise ? ` of the ${amount(s.promise, unit)} promise` : ''}"
			>
				<b>S{s.number}</b>
				<span class:over={full !== null && full > 1}
					>{full === null ? amount(s.placed, unit) : `${percent(full)} full`}</span
				>
				<span
					class="placed"
					hidden={!s.placed}
					style:width="{Math.min(100, (full ?? (usual ? s.placed / usual : 0)) * 100)}%"
				></span>
			</a>
		{:else if s.kind === 'week'}
			<div
				class="segment"
				data-from={s.monday}
				data-to={dayText(parseDay(s.monday)! + 6)}
				class:week-now={s.running}
				role="img"
				aria-label="Week of {dateWords(s.monday)}: {s.finished} finished, {s.wip} in hand"
				title="Week of {dateWords(s.monday)}: {s.finished} finished, {s.wip} in hand at its end"
			>
				<b>{s.week.slice(5)}</b>
				<span class="bars"
					><i class="done" style:height={tall(s.finished)}></i><i class="hand" style:height={tall(s.wip)}
					></i></span
				>
			</div>
		{:else}
			<a class="segment later" href="/boards/{slug}/backlog" title={laterWhy(s)}>
				<b>Later</b><br />{count(s.cards, 'card')}{s.sprints === null
					? ''
					: `, about ${count(s.sprints, 'sprint')}`}
			</a>
		{/if}
	{/each}
	{#if !told}<p class="coming" role="status">
			{failed
				? 'The history could not be read. It is tried again at the next change here.'
				: 'The history is being read…'}
		</p>{/if}
</nav>
<svelte:window onpointermove={draw} onpointerup={up} />
{#if drawn}<p class="drawn" style:left="{drawn.x}px" aria-hidden="true">
		As it stood on {dateWords(drawn.at.slice(0, 10), today)}, {drawn.at.slice(11)}
	</p>{/if}

<style>
	.drawn {
		position: fixed;
		top: 150px;
		z-index: 40;
		margin: 0;
		padding: 4px 9px;
		transform: translateX(-50%);
		background: var(--ink);
		color: var(--sheet);
		border-radius: 3px;
		font-size: 0.9rem;
		white-space: nowrap;
		pointer-events: none;
	}
	.ribbon {
		height: 60px;
		display: flex;
		align-items: stretch;
		gap: 3px;
		padding: 6px 20px 0;
		background: var(--sheet);
		border-bottom: 1px solid var(--rule);
		flex: none;
	}
	.coming {
		margin: auto;
		color: var(--soft);
	}
	.segment {
		position: relative;
		flex: 1;
		min-width: 0;
		padding: 3px 6px;
		border-radius: 3px 3px 0 0;
		background: light-dark(#efe9da, #3a3026);
		font-size: 12px;
		line-height: 1.3;
		color: var(--soft);
		overflow: hidden;
		white-space: nowrap;
		text-decoration: none;
	}
	b {
		font: 650 12px var(--display);
		color: var(--ink);
	}
	.bars {
		position: absolute;
		inset: auto 0 0;
		display: flex;
		align-items: flex-end;
	}
	.bars i {
		width: 50%;
	}
	.done {
		background: var(--moss);
		opacity: 0.8;
	}
	.left {
		background: var(--hatch-left);
	}
	.hand {
		background: var(--river-2);
		border: 1px solid var(--river);
		border-bottom: 0;
	}
	.now {
		flex: 4.4;
		background: light-dark(#fff, #1b1611);
		border: 2px solid var(--ink);
		border-bottom: 0;
		padding: 3px 10px;
	}
	.words {
		position: relative;
		z-index: 1;
		display: block;
		overflow: hidden;
		text-overflow: ellipsis;
	}
	svg {
		position: absolute;
		inset: auto 0 0;
		width: 100%;
		height: 31px;
	}
	path {
		fill: none;
		vector-effect: non-scaling-stroke;
	}
	.burn {
		stroke: var(--moss);
		stroke-width: 2.5px;
	}
	.burned {
		fill: var(--moss-2);
	}
	.scope {
		stroke: var(--river);
		stroke-width: 1.2px;
	}
	.guide {
		stroke: var(--edge);
		stroke-dasharray: 3 3;
	}
	.today {
		stroke: var(--brick);
		stroke-width: 2px;
	}
	.next {
		flex: 1.2;
		padding: 3px 4px;
		text-overflow: ellipsis;
		background: transparent;
		border: 1.5px dashed var(--faint);
		border-bottom: 0;
	}
	.here {
		border-style: solid;
		border-color: var(--ink);
	}
	.over {
		color: var(--brick);
	}
	.placed {
		position: absolute;
		inset: auto auto 0 0;
		height: 20px;
		background: var(--river-2);
		border-right: 1px solid var(--river);
	}
	.later {
		flex: 1.7;
		background: transparent;
		border-left: 1.5px dotted var(--faint);
		border-radius: 0;
		white-space: normal;
	}
	.week-now {
		border: 2px solid var(--ink);
		border-bottom: 0;
	}
	@media (max-width: 700px) {
		.ribbon {
			padding: 6px 12px 0;
			overflow-x: auto;
			scrollbar-width: none;
		}
		.segment {
			flex: 0 0 62px;
		}
		.next {
			flex: 0 0 86px;
		}
		.now {
			flex: 0 0 72%;
		}
		.later {
			flex: 0 0 120px;
		}
	}
</style>
