<script lang="ts">
	import { page as here } from '$app/state';
	import { dayText, parseDay } from '$core/calendar/days';
	import { worksOn } from '$core/calendar/workdays';
	import type { Day } from '$core/calendar/zone';
	import { spanOf } from '$core/dates/follow';
	import type { PanoramaPage, TimelineCard } from '$core/pages/panorama';
	import type { Asked } from '$core/panorama/asked';
	import { linesOf, datesOf, keyOf, rowsOf, stretchOf, type Row } from '$core/panorama/rows';
	import { keys } from '../frame/keys.svelte';
	import { pressed } from '../frame/keymap';
	import { initiativeAddress } from '../initiative-words';
	import type { Doing } from '../team/doing.svelte';
	import { calledAmong, count, shortDate } from '../words';
	import { Moving } from './moving.svelte';
	import InitiativeBar from './InitiativeBar.svelte';
	import Ruler from './Ruler.svelte';
	import { acrossOf, arrowFrom, lieOf, ticksOf } from './scale';
	import { besideBar, cardWords, endWords, figuresOf, overWords } from './words';

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
	const called = $derived(calledAmong(page.people));
	const HEAD = 66;
	const GROUP = 48;
	const PLAIN = 34;
	const CARD = 27;
	const MANY = 40;

	const today = $derived(parseDay(page.today)!);
	const works = $derived(worksOn(page.workdays));
	/** What somebody has unfolded or folded; groups of many cards are folded at first. */
	let turned = $state.raw<ReadonlyMap<string, boolean>>(new Map());
	const all = $derived(rowsOf(page, asked, new Set()));
	const folded = $derived(
		new Set(
			all.flatMap((row) =>
				row.kind === 'group' && (turned.get(row.id) ?? row.cards.length > MANY) ? [row.id] : [],
			),
		),
	);
	const rows = $derived(folded.size ? rowsOf(page, asked, folded) : all);
	const heightOf = (row: Row) => (row.kind === 'card' ? CARD : row.initiative ? GROUP : PLAIN);
	/** Where each row begins, and after the last the height of all. */
	const tops = $derived.by(() => {
		const list = [0];
		for (const row of rows) list.push(list.at(-1)! + heightOf(row));
		return list;
	});
	const across = $derived(acrossOf(stretchOf(page, rows), asked.by));
	const ticks = $derived(ticksOf(across, asked.by));

	let scroll = $state<HTMLElement>();
	let seen = $state.raw({ top: 0, left: 0, high: 800, wide: 1280, label: 220 });
	function look(): void {
		if (!scroll) return;
		seen = {
			...{
				top: scroll.scrollTop,
				left: scroll.scrollLeft,
				high: scroll.clientHeight,
				wide: scroll.clientWidth,
			},
			label: scroll.clientWidth < 620 ? 132 : 220,
		};
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
	/** The row that has the focus, by its place. */
	let focus = $state(0);
	const shown = $derived.by(() => {
		const [from, to] = [seen.top - 200, seen.top + seen.high + 200];
		// The first row that reaches into sight, found by halving.
		let [low, high] = [0, rows.length];
		while (low < high) {
			const middle = (low + high) >> 1;
			if (tops[middle + 1]! < from) low = middle + 1;
			else high = middle;
		}
		const list: number[] = [];
		for (let i = low; i < rows.length && tops[i]! < to; i++) list.push(i);
		if (focus < rows.length && !list.includes(focus)) list.push(focus);
		return list;
	});

	const moving = new Moving(() => ({ page, works, doing, wide: across.wide }));
	const spanAt = (at: number) => spanOf(datesOf(page.cards[at]!))!;
	const lie = $derived(lieOf(across, seen.label));
	const left = (day: Day) => lie.left(day);

	const drawn = $derived(linesOf(page, rows));
	const lines = $derived.by(() => {
		const [top, bottom] = [seen.top - 300, seen.top + seen.high + 300];
		return drawn.flatMap(({ link: [from, to], rows: [above, below], crossed }) => {
			const [a, b] = [tops[above]!, tops[below]!];
			if (Math.max(a, b) < top || Math.min(a, b) > bottom) return [];
			const [x1, y1] = [left(spanAt(from).end + 1), a + CARD / 2];
			const [x2, y2] = [left(spanAt(to).start), b + CARD / 2];
			const path = arrowFrom([x1, y1], [x2, y2]);
			return [{ key: `${above} ${below}`, path, crossed, x2, y2 }];
		});
	});
	const milestones = $derived(page.milestones.filter(({ day }) => parseDay(day)! >= across.start));
	/** Flags whose words would lie on one another stand on lines of their own. */
	const flags = $derived.by(() => {
		const ends: number[] = [];
		return milestones.map((one) => {
			const x = left(parseDay(one.day)!);
			let line = ends.findIndex((end) => end < x);
			if (line < 0) line = Math.min(ends.length, 1);
			ends[line] = x + one.name.length * 6.6 + 26;
			return { one, x, line };
		});
	});
	/** Bands of days on which nobody works: holidays always, weekends where days are wide. */
	const closed = $derived.by(() => {
		const from = Math.max(across.start, across.start + Math.floor((seen.left - 300) / across.wide));
		const to = Math.min(across.start + across.days, from + Math.ceil((seen.wide + 600) / across.wide));
		const named = new Map(page.holidays.map(({ day, name }) => [parseDay(day)!, name]));
		const bands: { day: Day; days: number; name: string }[] = [];
		for (let day = from; day < to; day++) {
			const name = named.get(day) ?? '';
			if (!name && (asked.by === 'months' || works(day))) continue;
			const last = bands.at(-1);
			if (last && last.day + last.days === day && (last.name !== '') === (name !== '')) last.days++;
			else bands.push({ day, days: 1, name });
		}
		return bands;
	});

	function focusOn(i: number): void {
		focus = Math.max(0, Math.min(rows.length - 1, i));
		const [top, bottom] = [tops[focus]!, tops[focus + 1]!];
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
		const i = to === undefined ? -1 : rows.findIndex((row) => row.kind === 'card' && row.at === to);
		if (i >= 0) focusOn(i);
	}
	function turn(id: string): void {
		const now = folded.has(id);
		turned = new Map([...turned, [id, !now]]);
	}
	function onkeydown(event: KeyboardEvent): void {
		const target = (event.target as HTMLElement).closest<HTMLElement>('[data-row]');
		if (!target) return;
		const i = Number(target.dataset.row);
		const row = rows[i]!;
		const does = pressed('panorama', event, { single: keys.on, write: true });
		const on = event.key === 'ArrowRight' || event.key === 'ArrowDown';
		if (does === 'go') focusOn(i + (on ? 1 : -1));
		else if (does === 'first') focusOn(0);
		else if (does === 'last') focusOn(rows.length - 1);
		else if (row.kind === 'group') {
			if (does !== 'along' || folded.has(row.id) !== on) return;
			turn(row.id);
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
	const open = (card: TimelineCard) =>
		`/boards/${page.boards.find(({ id }) => id === card.board)?.slug ?? ''}?card=${card.number}`;
	/** Something is asked of it; what only says from which board somebody came asks nothing. */
	const narrowed = $derived([...here.url.searchParams.keys()].some((name) => name !== 'from'));
	const homeOf = (board: string) => page.boards.find(({ id }) => id === board);
</script>

{#if !page.boards.length}
	<p class="nothing">
		There is no board here yet that you see, so there is nothing to lay out in time.
		{#if page.role === 'lead'}<a class="link" href="/teams/{page.team.id}/new-board">Make a board</a>{/if}
	</p>
{:else if !rows.length}
	<p class="nothing">
		Nothing here has a date, and there is no initiative.
		{#if narrowed}<a class="link" href="/teams/{page.team.id}/panorama">Look at everything</a>{/if}
	</p>
{/if}
<!-- svelte-ignore a11y_no_noninteractive_element_interactions -->
<div
	class="scroll screen-only"
	class:held={moving.held !== null}
	role="group"
	aria-label="Timeline"
	style:--label="{seen.label}px"
	{@attach begin}
	{@attach moving.dragging}
	onscroll={look}
	{onkeydown}
>
	<Ruler {page} {ruler} {across} {lie} {flags} {ticks} label={seen.label} {onmilestone} />
	<div
		class="rows"
		style:height="{tops.at(-1)! + 20}px"
		style:width="{seen.label + across.days * across.wide}px"
	>
		{#each closed as { day, days, name } (day)}<span
				class="closed"
				style:left="{left(day)}px"
				style:width="{days * across.wide}px"
				>{#if name && days * across.wide > 50}<small>{name}</small>{/if}</span
			>{/each}
		{#each ticks as { day } (day)}<i class="line" style:left="{left(day)}px"></i>{/each}
		{#each flags as { one, x } (one.id)}<i class="dotted" style:left="{x}px"></i>{/each}
		<i class="now" style:left="{left(today) + across.wide / 2}px"></i>
		<svg aria-hidden="true" width={seen.label + across.days * across.wide} height={tops.at(-1)! + 20}>
			{#each lines as { key, path, crossed, x2, y2 } (key)}
				<path class:crossed d={path} />
				<path class="tip" class:crossed d="M{x2 - 6} {y2 - 3.5}L{x2 - 1} {y2}L{x2 - 6} {y2 + 3.5}" />
			{/each}
		</svg>
		{#each shown as i (rows[i]!.kind === 'group' ? `g ${(rows[i] as { id: string }).id}` : `c ${(rows[i] as { group: string }).group} ${(rows[i] as { at: number }).at}`)}
			{@const row = rows[i]!}
			<div class="row" style:top="{tops[i]}px" style:height="{heightOf(row)}px">
				{#if row.kind === 'group'}
					{@const one = row.initiative}
					<div class="name group">
						<button
							type="button"
							data-row={i}
							tabindex={focus === i ? 0 : -1}
							aria-expanded={!folded.has(row.id)}
							onfocus={() => (focus = i)}
							onclick={() => turn(row.id)}
							><span aria-hidden="true">{folded.has(row.id) ? '▸' : '▾'}</span>
							{row.name}<span class="sr-only"
								>, {one
									? [figuresOf(page, one), overWords(page, one), endWords(one, page.today)?.text ?? '']
											.filter(Boolean)
											.join(', ')
									: `${count(row.cards.length, 'card')} with a date`}</span
							></button
						>
						{#if one}<small
								>{one.parts.length > 1
									? `${count(one.parts.length, 'board')}`
									: (homeOf(one.board)?.name ?? '')}{one.lead ? ` · ${called(one.lead)} leads` : ''}
								<a
									class="link"
									href={initiativeAddress(homeOf(one.board)?.slug ?? '', one.name)}
									aria-label="its page: {one.name}">its page</a
								></small
							>{:else}<small class="of">{count(row.cards.length, 'card')}</small>{/if}
					</div>
					{#if one}<InitiativeBar
							{page}
							{one}
							{lie}
							dayWide={across.wide}
							edge={seen.left + seen.label}
						/>{/if}
				{:else}
					{@const card = page.cards[row.at]!}
					{@const span = spanAt(row.at)}
					{@const ghost = moving.would.get(row.at)}
					<span class="name" aria-hidden="true" title={card.title}
						><b>{keyOf(page, card)}</b> {card.title}</span
					>
					<a
						class="bar {card.clock}"
						class:unowned={!card.owners.length && card.clock === 'none'}
						class:taken={moving.held?.at === row.at}
						href={open(card)}
						data-row={i}
						data-card={card.id}
						draggable="false"
						tabindex={focus === i ? 0 : -1}
						style:left="{left(span.start)}px"
						style:width="{lie.wide(span.start, span.end)}px"
						aria-label={cardWords(page, card)}
						onfocus={() => (focus = i)}
						onclickcapture={(event) => {
							if (!moving.dragged) return;
							event.preventDefault();
							event.stopPropagation();
						}}
					></a>
					<span class="beside" aria-hidden="true" style:left="{left(span.end + 1) + 12}px"
						>{besideBar(page, card)}</span
					>
					{#if ghost}
						{@const to = spanOf(ghost)!}
						<i class="ghost" style:left="{left(to.start)}px" style:width="{lie.wide(to.start, to.end)}px"></i>
						<span class="to" style:left="{left(to.end + 1) + 6}px">{shortDate(dayText(to.end))}</span>
					{/if}
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
	.line,
	.dotted,
	.now,
	.closed {
		position: absolute;
		top: 0;
		bottom: 0;
	}
	.line {
		border-left: 1px solid var(--rule);
	}
	.dotted {
		border-left: 1.5px dotted var(--plum);
	}
	.now {
		border-left: 2px solid var(--brick-fill);
	}
	.closed {
		background: color-mix(in srgb, var(--sunk) 65%, transparent);
	}
	.closed small {
		position: sticky;
		top: 70px;
		padding: 0 3px;
		color: var(--soft);
		white-space: nowrap;
		overflow: hidden;
		display: block;
	}
	svg {
		position: absolute;
		inset: 0 auto auto 0;
		pointer-events: none;
		z-index: 1;
	}
	path {
		fill: none;
		stroke: var(--ink);
		stroke-width: 1.2;
	}
	.crossed {
		stroke: var(--brick);
		stroke-width: 2;
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
		display: block;
		width: var(--label);
		height: 100%;
		padding: 4px 8px 0 36px;
		background: var(--paper);
		white-space: nowrap;
		overflow: hidden;
		text-overflow: ellipsis;
		font-size: 0.93rem;
	}
	.name b {
		color: var(--soft);
		font-weight: 600;
	}
	.group {
		padding: 5px 8px 0 20px;
	}
	.group button {
		display: block;
		max-width: 100%;
		border: 0;
		padding: 0;
		min-height: 24px;
		background: none;
		color: var(--ink);
		font: 650 1rem var(--text);
		text-align: left;
		overflow: hidden;
		text-overflow: ellipsis;
		white-space: nowrap;
	}
	.group small {
		color: var(--soft);
		display: block;
		overflow: hidden;
		text-overflow: ellipsis;
	}
	.group small.of {
		position: absolute;
		right: 8px;
		top: 10px;
		background: var(--paper);
	}
	.group .link {
		display: inline-block;
		min-height: 24px;
		margin-left: 4px;
	}
	.beside,
	.to {
		position: absolute;
		white-space: nowrap;
		font-size: 0.9rem;
	}
	.bar {
		position: absolute;
		top: 4px;
		height: 18px;
		background: var(--river-2);
		border: 1.2px solid var(--river);
		touch-action: none;
		z-index: 1;
		cursor: grab;
	}
	.bar.running {
		background: var(--sheet);
		border: 1.6px solid var(--ink);
	}
	.bar.done {
		background: var(--moss);
		border-color: var(--moss);
	}
	.bar.unowned {
		background: repeating-linear-gradient(135deg, var(--edge) 0 1.5px, var(--sunk) 1.5px 6px);
		border-color: var(--edge);
	}
	.bar.taken {
		opacity: 0.55;
	}
	.held .bar {
		cursor: grabbing;
	}
	.beside {
		top: 4px;
		color: var(--soft);
	}
	.ghost {
		position: absolute;
		top: 4px;
		height: 18px;
		border: 2px dashed var(--plum);
		z-index: 1;
		pointer-events: none;
	}
	.to {
		top: 4px;
		padding: 0 3px;
		background: var(--paper);
		color: var(--plum);
		font-weight: 650;
		z-index: 1;
	}
	.nothing {
		margin: 0;
		padding: 0 20px 14px;
	}
	@media (max-width: 700px) {
		.name {
			padding-left: 8px;
			font-size: 12px;
		}
		.group {
			padding-left: 8px;
		}
		.group small.of {
			display: none;
		}
	}
</style>
