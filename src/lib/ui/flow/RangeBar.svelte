<script lang="ts">
	import { dayText, parseDay } from '$core/calendar/days';
	import type { FlowPage } from '$core/pages/flow';
	import { dateWords } from '../words';

	/** All weeks of the history; dragging over them chooses the range of every chart. */
	let {
		flow,
		today,
		onrange,
	}: { flow: FlowPage; today: string; onrange: (from: string, to: string) => void } = $props();

	/** A week narrower than a finger or a pointer can meet is not shown; the dates beside the places reach further back. */
	const LEAST_WIDTH = 24;
	let width = $state(700);
	const weeks = $derived(flow.allWeeks.slice(-Math.max(4, Math.floor(width / LEAST_WIDTH))));
	const most = $derived(Math.max(1, ...weeks.map((week) => week.finished)));
	const inside = (monday: string) => dayText(parseDay(monday)! + 6) >= flow.from && monday <= flow.to;
	let drag = $state<{ from: number; to: number } | null>(null);
	const chosen = (i: number, monday: string) =>
		drag ? i >= Math.min(drag.from, drag.to) && i <= Math.max(drag.from, drag.to) : inside(monday);

	function choose(a: number, b: number) {
		const [first, last] = [weeks[Math.min(a, b)]!, weeks[Math.max(a, b)]!];
		const end = dayText(parseDay(last.monday)! + 6);
		onrange(first.monday, end < today ? end : today);
	}
	const at = (event: PointerEvent) => {
		const box = (event.currentTarget as HTMLElement).getBoundingClientRect();
		return Math.max(
			0,
			Math.min(weeks.length - 1, Math.floor(((event.clientX - box.left) / box.width) * weeks.length)),
		);
	};
	function end() {
		if (drag) choose(drag.from, drag.to);
		drag = null;
	}
	function onkeydown(event: KeyboardEvent, i: number) {
		if (event.key !== 'Enter' && event.key !== ' ') return;
		event.preventDefault();
		// Shift keeps the other end of the range, as picking in a list does.
		const start = event.shiftKey ? weeks.findIndex((week) => inside(week.monday)) : i;
		choose(Math.max(0, start), i);
	}
</script>

<div
	class="weeks"
	bind:clientWidth={width}
	role="group"
	aria-label="Weeks; drag over them to choose the range"
	onpointerdown={(event) => {
		event.preventDefault();
		event.currentTarget.setPointerCapture(event.pointerId);
		drag = { from: at(event), to: at(event) };
	}}
	onpointermove={(event) => drag && (drag = { ...drag, to: at(event) })}
	onpointerup={(event) => {
		if (drag) drag = { ...drag, to: at(event) };
		end();
	}}
	onpointercancel={() => (drag = null)}
>
	{#each weeks as week, i (week.week)}
		<button
			type="button"
			class:chosen={chosen(i, week.monday)}
			aria-pressed={chosen(i, week.monday)}
			aria-label="Week of {dateWords(week.monday, today)}, {week.finished} finished"
			onkeydown={(event) => onkeydown(event, i)}
		>
			<i style:height="{4 + (week.finished / most) * 20}px"></i>
		</button>
	{/each}
</div>

<style>
	.weeks {
		display: flex;
		height: 30px;
		align-items: flex-end;
		touch-action: pan-y;
		user-select: none;
		cursor: ew-resize;
	}
	button {
		flex: 1;
		min-width: 0;
		height: 100%;
		padding: 0 1px;
		border: 0;
		border-bottom: 2px solid var(--rule);
		background: none;
		display: flex;
		align-items: flex-end;
		cursor: inherit;
	}
	i {
		width: 100%;
		background: light-dark(#cfc6b0, #5a4e3d);
	}
	.chosen {
		border-bottom-color: var(--ink);
		background: var(--sheet);
	}
	.chosen i {
		background: var(--moss);
	}
</style>
