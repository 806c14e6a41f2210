<script lang="ts">
	import { parseDay } from '$core/calendar/days';
	import type { InitiativeFigures, PanoramaPage } from '$core/pages/panorama';
	import { barOf, progressOf } from '$core/panorama/rows';
	import type { Lie } from './scale';
	import { endWords, figuresOf, overWords } from './words';

	interface Props {
		page: PanoramaPage;
		one: InitiativeFigures;
		lie: Lie;
		/** How wide a day is drawn. */
		dayWide: number;
		/** Where the picture begins to be seen, right of the names of its rows. */
		edge: number;
	}
	/** An initiative as a bar: how much of it is done, how it ends against its target, and its figures below. */
	let { page, one, lie, dayWide, edge }: Props = $props();
	const bar = $derived(barOf(one, parseDay(page.today)!));
	const share = $derived(progressOf(page, one) ?? 0);
	const end = $derived(endWords(one, page.today));
	const over = $derived(overWords(page, one));
	const doneBy = $derived(one.doneBy === null ? null : parseDay(one.doneBy)!);
</script>

<span class="initiative" style:left="{lie.left(bar.start)}px" style:width="{lie.wide(bar.start, bar.end)}px"
	><i class="moss" style:width="{share * 100}%"></i>{#if share < 1}<i
			class="hatch"
			style:left="{share * 100}%"
		></i>{/if}</span
>
{#if doneBy !== null && one.target && end?.tone === 'late'}<i
		class="stroke late"
		style:left="{lie.left(bar.end + 1)}px"
		style:width="{Math.max(2, (doneBy - bar.end) * dayWide)}px"
	></i>{:else if doneBy !== null && one.target}<i
		class="stroke"
		style:left="{lie.left(doneBy)}px"
		style:width="{Math.max(3, (bar.end - doneBy + 1) * dayWide)}px"
	></i>{/if}
{#if end}<span
		aria-hidden="true"
		class="end {end.tone}"
		style:left="{lie.left(Math.max(bar.end, end.tone === 'late' && doneBy !== null ? doneBy : bar.end) + 1) +
			6}px">{end.text}</span
	>{/if}
<span class="figures" aria-hidden="true" style:left="{Math.max(lie.left(bar.start), edge + 4)}px"
	>{figuresOf(page, one)}{#if over}<b class="warn">; {over}</b>{/if}</span
>

<style>
	.initiative {
		position: absolute;
		top: 8px;
		height: 16px;
		background: var(--sunk);
	}
	.initiative i {
		position: absolute;
		inset: 0 auto 0 0;
	}
	.moss {
		background: var(--moss);
	}
	.initiative .hatch {
		right: 0;
		background: var(--hatch-left);
	}
	.stroke {
		position: absolute;
		top: 13px;
		height: 6px;
		border-left: 3px solid var(--river);
		background: radial-gradient(circle, var(--river) 1.2px, transparent 1.6px) 0 0 / 6px 6px;
	}
	.stroke.late {
		border-left: 0;
		border-right: 3px solid var(--brick-fill);
		background: linear-gradient(var(--brick-fill), var(--brick-fill)) 0 50% / 100% 2px no-repeat;
	}
	.end,
	.figures {
		position: absolute;
		white-space: nowrap;
		font-size: 0.9rem;
	}
	.end {
		top: 6px;
		font-weight: 650;
		color: var(--river);
	}
	.end.late {
		color: var(--brick);
	}
	.end.soft {
		color: var(--soft);
		font-weight: 450;
	}
	.figures {
		top: 26px;
		color: var(--soft);
		font-size: 12px;
	}
</style>
