<script lang="ts">
	import { parseDay } from '$core/calendar/days';
	import type { Day } from '$core/calendar/zone';
	import type { PanoramaPage } from '$core/pages/panorama';
	import { dateWords } from '../words';
	import type { Flag } from './ground';
	import type { Across, Lie } from './scale';

	interface Props {
		page: PanoramaPage;
		/** The board whose sprints are the ruler. */
		ruler: string | null;
		across: Across;
		lie: Lie;
		flags: readonly Flag[];
		ticks: readonly { day: Day; words: string }[];
		/** How wide the names of the rows are. */
		label: number;
		/** Opens a milestone. */
		onmilestone: (id: string) => void;
	}
	/** What stands above the rows: sprints, weeks or months, today, and the milestones. */
	let { page, ruler, across, lie, flags, ticks, label, onmilestone }: Props = $props();
	const sprints = $derived(page.sprints.filter(({ board }) => board === ruler));
	const today = $derived(parseDay(page.today)!);
</script>

<div class="ruler" style:width="{label + across.days * across.wide}px">
	<div class="corner"></div>
	{#each sprints as { number, name, starts, ends, state } (number)}
		{@const [a, b] = [parseDay(starts)!, parseDay(ends)!]}
		{#if b >= across.start && a < across.start + across.days}<span
				class="sprint {state}"
				style:left="{lie.left(Math.max(a, across.start))}px"
				style:width="{lie.wide(Math.max(a, across.start), b)}px"
				title="{name}: {dateWords(starts, page.today)} to {dateWords(ends, page.today)}"
				>{(b - a + 1) * across.wide > name.length * 7.5 + 12 ? name : number}</span
			>{/if}
	{/each}
	{#each ticks as { day, words } (day)}<span class="tick" style:left="{lie.left(day)}px">{words}</span>{/each}
	<span class="today" style:left="{lie.left(today) + across.wide / 2}px">today</span>
	{#each flags as { one, x, line } (one.id)}<button
			type="button"
			class="flag reach"
			class:late={one.late.length > 0 && one.day >= page.today}
			style:left="{x}px"
			style:top="{38 + line * 12}px"
			title="{one.name}, {dateWords(one.day, page.today)}"
			onclick={() => onmilestone(one.id)}>{one.name}</button
		>{/each}
</div>

<style>
	.ruler {
		position: sticky;
		top: 0;
		z-index: 4;
		height: 66px;
		background: var(--paper);
		border-bottom: 1px solid var(--rule);
	}
	.corner {
		position: sticky;
		left: 0;
		width: var(--label);
		height: 65px;
		background: var(--paper);
		z-index: 2;
	}
	.ruler > span,
	.flag {
		position: absolute;
	}
	.sprint {
		top: 5px;
		height: 19px;
		padding: 0 5px;
		font-size: 12px;
		line-height: 18px;
		border: 1px dashed var(--edge);
		white-space: nowrap;
		overflow: hidden;
	}
	.sprint.running {
		border: 2px solid var(--ink);
		background: var(--sheet);
		font-weight: 700;
		line-height: 16px;
	}
	.sprint.closed {
		border: 1px solid var(--rule);
		background: var(--sunk);
		color: var(--soft);
	}
	.tick {
		top: 24px;
		padding-left: 3px;
		font-size: 12px;
		line-height: 15px;
		color: var(--soft);
		white-space: nowrap;
	}
	.flag {
		border: 0;
		border-left: 2px solid var(--plum);
		padding: 0 4px 0 12px;
		font: 650 12px/13px var(--text);
		color: var(--plum);
		white-space: nowrap;
		background: linear-gradient(var(--plum), var(--plum)) 0 2px / 8px 7px no-repeat;
		min-height: 14px;
	}
	.flag.late {
		color: var(--brick);
		text-decoration: underline;
	}
	.today {
		top: 49px;
		padding-left: 4px;
		font: 650 12px/14px var(--text);
		color: var(--brick);
		border-left: 2px solid var(--brick-fill);
		margin-left: 0;
	}
</style>
