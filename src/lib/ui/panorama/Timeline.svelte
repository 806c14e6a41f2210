<script lang="ts">
	import { page as here } from '$app/state';
	import { parseDay } from '$core/calendar/days';
	import { worksOn } from '$core/calendar/workdays';
	import type { PanoramaPage } from '$core/pages/panorama';
	import type { Asked } from '$core/panorama/asked';
	import { keyOf, stretchOf } from '$core/panorama/rows';
	import { keys } from '../frame/keys.svelte';
	import { pressed } from '../frame/keymap';
	import type { Doing } from '../team/doing.svelte';
	import CardBar from './CardBar.svelte';
	import { closedDays, flagsOf } from './ground';
	import Ground from './Ground.svelte';
	import GroupName from './GroupName.svelte';
	import InitiativeBar from './InitiativeBar.svelte';
	import Links from './Links.svelte';
	import { Moving } from './moving.svelte';
	import Ruler from './Ruler.svelte';
	import { acrossOf, lieOf, ticksOf } from './scale';
	import { TimelineRows } from './timeline-rows.svelte';

	interface Props {
		page: PanoramaPage;
		asked: Asked;
		doing: Doing;
		/** The board whose sprints are the ruler. */
		ruler: string | null;
		/** Opens a milestone. */
		onmilestone: (id: string) => void;
	}
	/** Cards with dates as bars in rows, under a ruler of sprints: dragged, or moved by key, they take along what hangs on them. */
	let { page, asked, doing, ruler, onmilestone }: Props = $props();
	/** How high the ruler is. */
	const HEAD = 66;

	const today = $derived(parseDay(page.today)!);
	const works = $derived(worksOn(page.workdays));
	const rows = new TimelineRows(
		() => page,
		() => asked,
	);
	const across = $derived(acrossOf(stretchOf(page, rows.list), asked.by));
	const ticks = $derived(ticksOf(across, asked.by));

	let scroll = $state<HTMLElement>();
	function look(): void {
		if (scroll) rows.look(scroll);
	}
	/** The picture begins a little before today. */
	function begin(element: HTMLElement) {
		scroll = element;
		look();
		element.scrollLeft = across.x(today) - 140;
		const sized = new ResizeObserver(look);
		sized.observe(element);
		return () => sized.disconnect();
	}
	const moving = new Moving(() => ({ page, works, doing, wide: across.wide }));
	const lie = $derived(lieOf(across, rows.seen.label));
	const width = $derived(rows.seen.label + across.days * across.wide);
	const flags = $derived(flagsOf(page.milestones, across, lie));
	const closed = $derived(closedDays(page.holidays, works, across, rows.seen, asked.by !== 'months'));

	function focusOn(i: number): void {
		const focus = Math.max(0, Math.min(rows.list.length - 1, i));
		rows.focus = focus;
		const [top, bottom] = [rows.tops[focus]!, rows.tops[focus + 1]!];
		if (scroll && top < scroll.scrollTop) scroll.scrollTop = top;
		if (scroll && bottom > scroll.scrollTop + scroll.clientHeight - HEAD)
			scroll.scrollTop = bottom - scroll.clientHeight + HEAD + 8;
		look();
		queueMicrotask(() =>
			requestAnimationFrame(() =>
				scroll?.querySelector<HTMLElement>(`[data-row="${focus}"]`)?.focus({ preventScroll: true }),
			),
		);
	}
	/** Along a dependency: to what waits for a card, or to what it waits for. */
	function along(at: number, on: boolean): void {
		const link = page.links.find(([from, to]) => (on ? from : to) === at);
		const to = link && (on ? link[1] : link[0]);
		const i = to === undefined ? -1 : rows.placeOf(to);
		if (i >= 0) focusOn(i);
	}
	function onkeydown(event: KeyboardEvent): void {
		const target = (event.target as HTMLElement).closest<HTMLElement>('[data-row]');
		if (!target) return;
		const i = Number(target.dataset.row);
		const row = rows.list[i]!;
		const does = pressed('panorama', event, { single: keys.on, write: true });
		const on = event.key === 'ArrowRight' || event.key === 'ArrowDown';
		if (does === 'go') focusOn(i + (on ? 1 : -1));
		else if (does === 'first') focusOn(0);
		else if (does === 'last') focusOn(rows.list.length - 1);
		else if (row.kind === 'group') {
			if (does !== 'along' || rows.folded.has(row.id) !== on) return;
			rows.turn(row.id);
		} else if (does === 'along') along(row.at, on);
		else if (does === 'move' || does === 'longer' || does === 'shorter') moving.step(row.at, does, on);
		else if (does === 'leave' && moving.would.size) {
			moving.leave();
			doing.spoken = 'It stays where it was.';
		} else if (does === 'open' && moving.would.has(row.at))
			void moving.give(row.at, moving.would.get(row.at)!);
		else return;
		event.preventDefault();
	}
	/** Something is asked of it; what only says from which board somebody came asks nothing. */
	const narrowed = $derived([...here.url.searchParams.keys()].some((name) => name !== 'from'));
</script>

{#if !page.boards.length}
	<p class="nothing">
		There is no board here yet that you see, so there is nothing to lay out in time.
		{#if page.role === 'lead'}<a class="link" href="/teams/{page.team.id}/new-board">Make a board</a>{/if}
	</p>
{:else if !rows.list.length}
	<p class="nothing">
		Nothing here has a date, and there is no initiative.
		{#if narrowed}<a class="link" href="/teams/{page.team.id}/panorama">Look at everything</a>{/if}
	</p>
{/if}
<!-- svelte-ignore a11y_no_noninteractive_element_interactions -->
<div
	class="scroll screen-only"
	role="group"
	aria-label="Timeline"
	style:--label="{rows.seen.label}px"
	{@attach begin}
	{@attach moving.dragging}
	onscroll={look}
	{onkeydown}
>
	<Ruler {page} {ruler} {across} {lie} {flags} {ticks} label={rows.seen.label} {onmilestone} />
	<div class="rows" style:height="{rows.high + 20}px" style:width="{width}px">
		<Ground {closed} {ticks} {flags} {today} {lie} wide={across.wide} />
		<Links {page} {rows} {lie} {width} />
		{#each rows.drawn as i (rows.keyOf(i))}
			{@const row = rows.list[i]!}
			{@const place = { at: i, tabbable: rows.focus === i, onfocus: () => (rows.focus = i) }}
			<div class="row" style:top="{rows.tops[i]}px" style:height="{rows.heightOf(row)}px">
				{#if row.kind === 'card'}
					{@const card = page.cards[row.at]!}
					<div class="name" aria-hidden="true" title={card.title}>
						<b>{keyOf(page, card)}</b>
						{card.title}
					</div>
					<CardBar {page} {card} place={row.at} {lie} {moving} {...place} />
				{:else}
					<div class="name group">
						<GroupName
							{page}
							{row}
							folded={rows.folded.has(row.id)}
							onturn={() => rows.turn(row.id)}
							{...place}
						/>
					</div>
					{#if row.initiative}<InitiativeBar
							{page}
							one={row.initiative}
							{lie}
							dayWide={across.wide}
							edge={rows.seen.left + rows.seen.label}
						/>{/if}
				{/if}
			</div>
		{/each}
	</div>
</div>
{#if moving.slip}
	{@const asking = moving.slip}
	{#await import('../dialogs/DatesDialog.svelte') then { default: DatesDialog }}
		<DatesDialog
			called={keyOf(page, page.cards[asking.at]!)}
			follows={asking.follows}
			today={page.today}
			onanswer={(moves) => {
				if (moves) return void moving.move(asking.at, asking.to, moves === 'all' ? asking.follows.moved : []);
				moving.leave();
			}}
		/>
	{/await}
{/if}

<style>
	.scroll {
		flex: 1;
		min-height: 0;
		overflow: auto;
		position: relative;
		border-top: 1px solid var(--rule);
		overscroll-behavior: contain;
	}
	.rows {
		position: relative;
	}
	.row {
		position: absolute;
		left: 0;
		right: 0;
	}
	.name {
		position: sticky;
		left: 0;
		z-index: 2;
		width: var(--label);
		height: 100%;
		padding: 4px 8px 0 36px;
		background: var(--paper);
		white-space: nowrap;
		overflow: hidden;
		text-overflow: ellipsis;
		font-size: 0.93rem;
	}
	@media (pointer: coarse) {
		.name:not(.group) {
			padding-top: 0;
			align-content: center;
		}
	}
	.name.group {
		padding: 5px 8px 0 20px;
	}
	b {
		color: var(--soft);
		font-weight: 600;
	}
	.nothing {
		margin: 0;
		padding: 0 20px 14px;
	}
	@media (max-width: 700px) {
		.name,
		.name.group {
			padding-left: 8px;
			font-size: 12px;
		}
	}
</style>
