<script lang="ts">
	import { tick } from 'svelte';
	import { uses } from '$core/board/used';
	import { laneOf, roomForOthers } from '$core/board/lanes';
	import type { CardView, ColumnView, LaneView, PersonView } from '$core/pages/board';
	import { goto } from '$app/navigation';
	import { readPaste } from '$core/backlog/paste';
	import type { Day } from '$core/calendar/zone';
	import { pressed, type Does } from '../frame/keymap';
	import { forPlace } from '../frame/place-keys';
	import { amount, count } from '../words';
	import type { Ask } from './ask';
	import Asking from './Asking.svelte';
	import type { BoardState } from './board-state.svelte';
	import Card from './Card.svelte';
	import Bands from './Bands.svelte';
	import Cell from './Cell.svelte';
	import Column from './Column.svelte';
	import ColumnHead from './ColumnHead.svelte';
	import DoneList from './DoneList.svelte';
	import { Carry } from './carry.svelte';
	import { dragCards, dropAt } from './drag';
	import { LOOKED_AT, passes, type Filter } from '$core/board/filter';
	import Rename from './Rename.svelte';

	interface Props {
		board: BoardState;
		filter: Filter;
		today: Day;
		carried: Record<number, number>;
		/** Whether single keys do something. */
		keysOn: boolean;
		open: (card: CardView) => string;
		onkeys: () => void;
	}
	let { board, filter, today, carried, keysOn, open, onkeys }: Props = $props();

	let element = $state<HTMLElement>();
	let focused = $state<string | null>(null);
	let renaming = $state<string | null>(null);
	let adding = $state<{
		column: string;
		lane: LaneView | null | undefined;
		below: string | null | undefined;
	} | null>(null);
	let asking = $state.raw<Ask | null>(null);
	const handles = $state<Record<string, ReturnType<typeof Cell> | undefined>>({});

	const head = $derived(board.head);
	/** The columns that are shown. */
	const standing = $derived(board.head.columns.filter((column) => !column.hidden));
	const mayEdit = $derived(head.role !== 'viewer' && !head.away);
	const people = $derived(
		new Map<string, PersonView & { seed: number }>(
			head.people.map((person, seed) => [person.id, { ...person, seed }]),
		),
	);
	const running = $derived(head.sprints.find((sprint) => sprint.startedAt && !sprint.closedAt));
	/** Cards that were added here under a filter stay in sight until one goes on to another. */
	let fresh = $state.raw<ReadonlySet<string>>(new Set());
	$effect(() => {
		void filter;
		fresh = new Set();
	});
	const columns = $derived(
		standing.map((column) => {
			const all = board.columns.get(column.id) ?? [];
			const shown = all.filter((card) => fresh.has(card.id) || passes(filter, card, running?.number));
			return { column, all, shown };
		}),
	);
	/** The lanes across them, that of no lane last; undefined alone where the board has none. */
	const lanes = $derived<(LaneView | null | undefined)[]>(
		head.lanes.length ? [...head.lanes, ...(roomForOthers(head.lanes) ? [null] : [])] : [undefined],
	);
	const laned = $derived(head.lanes.length > 0);
	const bands = $derived(
		lanes.map((lane) => ({
			lane,
			standing: columns
				.filter(({ column }) => column.kind !== 'done')
				.reduce((sum, { all }) => sum + all.filter((card) => isIn(card, lane)).length, 0),
			cells: columns.map(({ shown }) => (laned ? shown.filter((card) => isIn(card, lane)) : shown)),
		})),
	);
	const isIn = (card: CardView, lane: LaneView | null | undefined) =>
		lane === undefined || laneOf(head.lanes, card) === lane;
	const keyOf = (column: string, lane: LaneView | null | undefined) =>
		lane === undefined ? column : `${column} ${lane?.id ?? 'none'}`;
	const laneOfCard = (card: CardView) => (laned ? laneOf(head.lanes, card) : undefined);
	/** The cell in which a card stands. */
	const handleOf = (card: CardView) => handles[keyOf(card.column!, laneOfCard(card))];

	/** Lanes that this person folded away here, by their ids. */
	let folded = $state.raw<ReadonlySet<string>>(new Set());
	const FOLDED = $derived(`folded-lanes-${head.id}`);
	$effect(() => {
		folded = new Set((localStorage.getItem(FOLDED) ?? '').split(' ').filter(Boolean));
	});
	function fold(lane: string): void {
		const next = new Set(folded);
		if (!next.delete(lane)) next.add(lane);
		folded = next;
		localStorage.setItem(FOLDED, [...next].join(' '));
	}
	const unfolded = $derived(bands.filter(({ lane }) => !folded.has(lane?.id ?? 'none') || !laned));

	const tabbable = $derived.by(() => {
		const shown = unfolded.flatMap(({ cells }) => cells.flat());
		return (shown.find((card) => card.id === focused) ?? shown[0])?.id ?? null;
	});
	const inHand = $derived.by(() => {
		const counts = new Map<string, number>();
		for (const card of board.cards.values())
			if (card.clock === 'running')
				for (const owner of card.owners) counts.set(owner, (counts.get(owner) ?? 0) + 1);
		return counts;
	});
	const layout = $derived(
		standing
			.map((column) =>
				column.kind === 'work'
					? 'minmax(250px, 1.5fr)'
					: column.kind === 'done'
						? 'minmax(170px, 0.85fr)'
						: 'minmax(160px, 0.8fr)',
			)
			.join(' '),
	);

	function note(column: (typeof columns)[number]): string {
		const { all, shown } = column;
		const hidden = all.length - shown.length;
		if (hidden) return `${shown.length} of ${all.length} shown`;
		if (column.column.kind === 'done') {
			const here = running ? all.filter((card) => card.sprint === running.number).length : 0;
			const before = all.length - here;
			if (!running) return `${all.length} in two weeks`;
			return `${here} this sprint${before ? `, ${before} outside it` : ''}`;
		}
		if (column.column.limit !== null && all.length > column.column.limit)
			return `${all.length} of ${column.column.limit}`;
		if (column.column.limit === null)
			return column.column.kind === 'queue' ? `${all.length} wait` : `${all.length} in hand`;
		return '';
	}

	/** Gives a column another name; the history keeps telling of it by the one that it had. */
	async function callColumn({ id, version }: ColumnView, name: string): Promise<boolean> {
		const sent = await board.ask('ChangeColumn', { column: id, version, name });
		if (sent.ok) board.tell({ tone: 'done', text: `The column is called ${name}.`, undo: sent.answer.id });
		return sent.ok;
	}
	const throughOf = (cards: CardView[]) => cards.find((card) => card.letThrough)?.letThrough ?? null;
	const placeOf = (card: CardView) => standing.findIndex((column) => column.id === card.column);
	const cardOf = (id: string | null) => (id ? board.cards.get(id) : undefined);

	async function move(
		card: CardView,
		column: string,
		below: string | null | undefined,
		lane?: LaneView | null,
	): Promise<void> {
		const target = standing.find((known) => known.id === column)!;
		const stays = lane === undefined || lane === laneOfCard(card);
		const others = (board.columns.get(column) ?? []).filter((other) => other.id !== card.id);
		if (stays && card.column === column && target.kind !== 'done') {
			const above = others.findIndex((other) => other.id === below);
			if ((board.columns.get(column) ?? []).findIndex((other) => other.id === card.id) === above + 1) return;
		} else if (stays && card.column === column) return;
		focused = card.id;
		const moved = board.move(board.cards.get(card.id) ?? card, column, below, stays ? undefined : lane);
		await tick();
		const show = () => {
			const now = cardOf(card.id);
			if (now?.column) void handleOf(now)?.focusCard(card.id);
		};
		show();
		if ((await moved).ok) {
			const there = board.columns.get(column)?.length ?? 0;
			const place = target.limit === null ? count(there, 'card') : `${there} of ${target.limit}`;
			const into = stays ? '' : lane ? `, lane ${lane.name}` : ', in no lane';
			board.spoken =
				target.kind === 'done'
					? `Card ${card.number} is finished.`
					: `Card ${card.number} is in ${target.name}${into}, position ${(board.columns.get(column) ?? []).findIndex((other) => other.id === card.id) + 1}; ${place} there.`;
		}
	}

	/** Where a card is shown: its lane and column among those in sight, and its place among the cards there. */
	function placeIn(card: CardView) {
		const lane = laneOfCard(card);
		const band = unfolded.findIndex((one) => one.lane === lane);
		const column = placeOf(card);
		const cards = unfolded[band]?.cells[column] ?? [];
		return { band, column, cards, index: cards.findIndex((other) => other.id === card.id) };
	}

	function moveByKey(card: CardView, key: string): void {
		const { band, column, cards, index } = placeIn(card);
		if (key === 'ArrowLeft' || key === 'ArrowRight') {
			const target = standing[column + (key === 'ArrowLeft' ? -1 : 1)];
			if (target) void move(card, target.id, undefined);
		} else if (key === 'Home' && index > 0) void move(card, card.column!, null);
		else if (key === 'End' && index < cards.length - 1) void move(card, card.column!, cards.at(-1)!.id);
		else if (key === 'ArrowUp') {
			if (index > 0) void move(card, card.column!, cards[index - 2]?.id ?? null);
			else if (band > 0) void move(card, card.column!, undefined, unfolded[band - 1]!.lane);
		} else if (key === 'ArrowDown') {
			if (index < cards.length - 1) void move(card, card.column!, cards[index + 1]!.id);
			else if (unfolded[band + 1]) void move(card, card.column!, null, unfolded[band + 1]!.lane);
		}
	}

	function goByKey(card: CardView, key: string): void {
		const { band, column, cards, index } = placeIn(card);
		const step = key === 'ArrowLeft' || key === 'ArrowUp' ? -1 : 1;
		let next: CardView | undefined;
		if (key === 'Home') next = cards[0];
		else if (key === 'End') next = cards.at(-1);
		else if (key === 'ArrowLeft' || key === 'ArrowRight')
			for (let i = column + step; standing[i] && !next; i += step) {
				const there = unfolded[band]?.cells[i] ?? [];
				next = there[Math.min(index, there.length - 1)];
			}
		else {
			next = cards[index + step];
			// On to the next lane that has cards in this column.
			for (let i = band + step; unfolded[i] && !next; i += step)
				next = unfolded[i]!.cells[column]!.at(step < 0 ? -1 : 0);
		}
		if (!next) return;
		focused = next.id;
		void handleOf(next)?.focusCard(next.id);
	}

	function onkeydown(event: KeyboardEvent): void {
		if (asking || renaming || adding || board.through) return;
		const target = event.target as HTMLElement;
		if (target.matches('input, textarea, select')) return;
		const id = target.closest<HTMLElement>('li[data-card]')?.dataset.card ?? null;
		const card = cardOf(id);
		const does = pressed('board', event, { single: keysOn, write: mayEdit });
		const acts: Record<Exclude<Does<'board'>, 'find' | 'open'>, () => unknown> = {
			go: () => card && goByKey(card, event.key),
			move: () => card && moveByKey(card, event.key),
			add: () =>
				(adding = card
					? { column: card.column!, lane: laneOfCard(card), below: card.id }
					: { column: standing[0]!.id, lane: lanes.at(-1), below: undefined }),
			rename: () => card && card.clock !== 'done' && (renaming = card.id),
			block: () => card && blockOrUnblock(card),
			owners: () => card && (asking = { kind: 'owners', cards: [card] }),
			size: () => card && (asking = { kind: 'size', card }),
			time: () => card && !card.parts && uses(head, 'hours') && (asking = { kind: 'time', card }),
			undo: () => void board.undo(),
			help: onkeys,
		};
		// Finding and opening are done by others: by the bar, and by the link that has the focus.
		if (!does || does === 'find' || does === 'open') return;
		if ((does === 'go' || does === 'move') && !card) return;
		event.preventDefault();
		acts[does]();
	}

	function blockOrUnblock(card: CardView): void {
		if (!card.blocked) asking = { kind: 'block', card };
		else
			void board
				.unblock(card)
				.then((sent) => sent.ok && (board.spoken = `Card ${card.number} is no longer blocked.`));
	}

	async function refocus(id: string): Promise<void> {
		await tick();
		const card = cardOf(id);
		if (card?.column) void handleOf(card)?.focusCard(id);
	}

	async function add(title: string): Promise<boolean> {
		const place = adding!;
		// As in the backlog, an amount at the end of the line is its size.
		const [line] = readPaste(title, head.unit);
		const sent = await board.add(
			place.column,
			line?.title ?? title,
			place.below,
			line?.size ?? null,
			place.lane?.id ?? null,
		);
		if (!sent.ok) return false;
		fresh = new Set([...fresh, sent.answer.result.card]);
		board.spoken = `Added “${line?.title ?? title}”${line?.size ? `, ${amount(line.size, head.unit)}` : ''}.`;
		return true;
	}

	const EDGE = 36;
	const ACROSS = 9;
	const carry = new Carry<{ column: string; lane: string | undefined; below: string | null }>({
		take(id) {
			const card = cardOf(id);
			if (card) focused = id;
			return card && [card];
		},
		over: (x, y, { cards }) => dropAt(x, y, cards[0]!.id),
		same: (a, b) => a?.column === b?.column && a?.below === b?.below && a?.lane === b?.lane,
		pull(_x, y, drop) {
			const box = element!.getBoundingClientRect();
			return !drop ? 0 : y > box.bottom - 60 ? 14 : y < box.top + 110 ? -14 : 0;
		},
		scroll: (drop, pixels) =>
			laned ? element!.scrollBy(0, pixels) : drop && handles[drop.column]?.scrollBy(pixels),
		// On a phone one column is in sight: a card held at the edge brings the next one.
		pullAcross(x) {
			const box = element!.getBoundingClientRect();
			if (element!.scrollWidth <= element!.clientWidth) return 0;
			return x > box.right - EDGE ? ACROSS : x < box.left + EDGE ? -ACROSS : 0;
		},
		scrollAcross(pixels) {
			element!.style.scrollSnapType = 'none';
			element!.scrollBy(pixels, 0);
		},
		ended: () => (element!.style.scrollSnapType = ''),
		dropped({ cards: [card] }, to) {
			const lane = lanes.find((one) => one !== undefined && (one?.id ?? 'none') === to.lane);
			void move(board.latest(card!), to.column, to.below, lane);
		},
	});
	$effect(() => (element && mayEdit ? carry.attach(dragCards, element) : undefined));

	/** One click of the mouse opens a card once it is clear that no second one comes: two rename it, and open nothing. */
	const SECOND_CLICK_MS = 220;
	let opening: ReturnType<typeof setTimeout> | undefined;
	function onclick(event: MouseEvent): void {
		carry.onclick(event);
		const link = (event.target as HTMLElement).closest<HTMLAnchorElement>('li[data-card] a');
		const mouse = event instanceof PointerEvent && event.pointerType === 'mouse';
		if (event.defaultPrevented || !link || !mouse || !mayEdit || !event.detail) return;
		if (event.button || event.ctrlKey || event.metaKey || event.shiftKey || event.altKey) return;
		if (cardOf(link.closest<HTMLElement>('li')!.dataset.card ?? null)?.clock === 'done') return;
		event.preventDefault();
		event.stopPropagation();
		clearTimeout(opening);
		if (event.detail === 1)
			opening = setTimeout(() => void goto(link.href, { noScroll: true, keepFocus: true }), SECOND_CLICK_MS);
	}
	function ondblclick(event: MouseEvent): void {
		const card = cardOf(
			(event.target as HTMLElement).closest<HTMLElement>('li[data-card]')?.dataset.card ?? null,
		);
		if (card && mayEdit && card.clock !== 'done') renaming = card.id;
	}
</script>

<svelte:window onkeydown={(event) => forPlace(event) && onkeydown(event)} />

{#snippet cardFace(card: CardView)}
	<Card
		{card}
		{people}
		unit={head.unit}
		timeZone={head.timeZone}
		{today}
		expectation={board.expectation}
		carried={carried[card.number] ?? 0}
	/>
{/snippet}
{#snippet doneList(cards: CardView[])}
	<DoneList {cards} {today} timeZone={head.timeZone} {tabbable} {open} />
{/snippet}
{#snippet renameCard(card: CardView)}
	<Rename
		{card}
		onrename={(title) => void board.rename(board.cards.get(card.id) ?? card, title)}
		onend={() => {
			renaming = null;
			void refocus(card.id);
		}}
	/>
{/snippet}

{#snippet columnHead(column: ColumnView)}
	{@const { all, shown } = columns.find((one) => one.column === column)!}
	<ColumnHead
		{column}
		standing={all.length}
		through={throughOf(all)}
		note={note({ column, all, shown })}
		mayChange={head.role === 'lead'}
		onsettings={() => (asking = { kind: 'column', column: column.id })}
		oncalled={(name) => callColumn(column, name)}
	/>
{/snippet}
{#snippet cell(column: ColumnView, lane: LaneView | null | undefined, cards: CardView[])}
	{@const here = (place: { column: string; lane?: unknown } | null) =>
		place?.column === column.id &&
		(lane === undefined || place.lane === lane || place.lane === (lane?.id ?? 'none'))}
	<Cell
		bind:this={handles[keyOf(column.id, lane)]}
		{column}
		{lane}
		{cards}
		{tabbable}
		drop={here(carry.drop) ? carry.drop : null}
		{renaming}
		adding={here(adding) ? adding : null}
		{mayEdit}
		card={cardFace}
		done={doneList}
		rename={renameCard}
		{open}
		onadd={() => (adding = { column: column.id, lane, below: undefined })}
		onadded={add}
		onaddend={() => (adding = null)}
	/>
{/snippet}

<p id="board-keys" class="sr-only">
	Arrow keys go from card to card, Shift and an arrow key moves the card, Enter opens it, question mark lists
	all keys.
</p>

<nav class="picker" aria-label="Columns">
	{#each columns as { column, all } (column.id)}
		<a
			href="#column-{column.id}"
			data-sveltekit-noscroll
			data-sveltekit-keepfocus
			onclick={(event) => (
				event.preventDefault(),
				document
					.querySelector(`[data-column="${column.id}"]`)
					?.scrollIntoView({ inline: 'start', block: 'nearest' })
			)}>{column.name} <b>{all.length}</b></a
		>
	{/each}
</nav>

{#if filter.text && columns.every((column) => !column.shown.length)}
	<p class="nothing" role="status">
		No card here has “{filter.text}” in its {LOOKED_AT}{filter.owner || filter.blocked
			? ', and is as chosen'
			: ''}.
	</p>
{/if}
<div
	class="board"
	class:laned
	role="region"
	aria-label="Board"
	bind:this={element}
	style:--layout={layout}
	style:--columns={standing.length}
	onclickcapture={onclick}
	{ondblclick}
	onfocusin={(event) =>
		(focused = (event.target as HTMLElement).closest<HTMLElement>('li[data-card]')?.dataset.card ?? focused)}
>
	{#if laned}
		<Bands
			columns={standing}
			bands={bands.map((band) => ({ ...band, lane: band.lane ?? null }))}
			{folded}
			settings={head.role === 'lead' ? `/boards/${head.slug}/set-up?part=lanes` : null}
			head={columnHead}
			{cell}
			onfold={fold}
		/>
	{:else}
		{#each columns as { column, shown } (column.id)}
			<Column {column} head={columnHead}>{@render cell(column, undefined, shown)}</Column>
		{/each}
	{/if}
</div>

{#if carry.held}
	<div class="ghost" bind:this={carry.ghost} style:width="{carry.held.width}px" aria-hidden="true">
		{@render cardFace(carry.held.cards[0]!)}
	</div>
{/if}

{#if asking}
	<Asking
		{board}
		ask={asking}
		{inHand}
		onclose={() => {
			asking = null;
		}}
		onback={(card) => void refocus(card.id)}
	/>
{/if}

<style>
	.board {
		display: grid;
		grid-template-columns: var(--layout);
		grid-template-rows: minmax(0, 1fr);
		flex: 1;
		min-height: 0;
		padding: 0 20px;
		overflow-x: auto;
	}
	.laned {
		grid-template-columns: 112px var(--layout);
		grid-template-rows: auto;
		grid-auto-rows: auto;
		align-content: start;
		overflow: auto;
		overscroll-behavior: contain;
		padding-bottom: 30px;
	}
	.ghost {
		position: fixed;
		inset: 0 auto auto 0;
		z-index: 30;
		pointer-events: none;
		will-change: transform;
		contain: layout;
		box-shadow: 0 6px 12px #0003;
	}
	.picker {
		display: none;
	}
	@media (max-width: 700px) {
		.board {
			display: flex;
			padding: 0;
			scroll-snap-type: x mandatory;
		}
		.board.laned {
			display: grid;
			grid-template-columns: repeat(var(--columns), 100vw);
		}
		.board:not(.laned) > :global(section) {
			flex: 0 0 100%;
			scroll-snap-align: start;
		}
		.picker {
			display: flex;
			overflow-x: auto;
			gap: 2px;
			padding: 0 10px;
			flex: none;
		}
		.picker a {
			flex: none;
			min-height: 44px;
			display: flex;
			align-items: center;
			gap: 5px;
			padding: 0 8px;
			text-decoration: none;
			color: var(--soft);
		}
	}
</style>
