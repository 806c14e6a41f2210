<script lang="ts">
	import { fsum } from 'd3-array';
	import { tick } from 'svelte';
	import type { CardView, ColumnView, PersonView } from '$core/pages/board';
	import type { Day } from '$core/calendar/zone';
	import { forPlace } from '../frame/place-keys';
	import { amount } from '../words';
	import type { BoardState } from './board-state.svelte';
	import Card from './Card.svelte';
	import Bands from './Bands.svelte';
	import Cell from './Cell.svelte';
	import Column from './Column.svelte';
	import ColumnHead from './ColumnHead.svelte';
	import DoneList from './DoneList.svelte';
	import { onBoardKey } from './board-keys';
	import { carryCards } from './carry-cards';
	import { Clicks } from './clicks';
	import ColumnPicker from './ColumnPicker.svelte';
	import { Acting } from './acting.svelte';
	import { dragCards } from './drag';
	import { LOOKED_AT, passing, type Filter } from '$core/board/filter';
	import type { Arrangement } from '$core/board/arrange';
	import { gridOf, NONE } from './grid';
	import { intoCell, standsNow, type CellAt } from './into-cell';
	import { Fresh } from './fresh.svelte';
	import { noteOf } from './column-note';
	import { FoldedLanes } from './folded-lanes.svelte';
	import { Picked } from './picked.svelte';
	import PickingBox from './PickingBox.svelte';
	import { Rectangle } from './rectangle.svelte';
	import { Spot } from './spot.svelte';
	import { widthsOf } from './widths';
	import FaceLines from './FaceLines.svelte';
	import Rename from './Rename.svelte';
	import { ASKED_FOR, plainOf, USUAL_FACE } from '$core/board/face';
	import { AskedFaces } from './asked-faces.svelte';

	interface Props {
		board: BoardState;
		filter: Filter;
		arrangement: Arrangement;
		/** Cards whose description has the words of the filter. */
		described: ReadonlySet<string>;
		today: Day;
		carried: Record<number, number>;
		/** Whether single keys do something. */
		keysOn: boolean;
		open: (card: CardView) => string;
		onkeys: () => void;
		/** Of a moment of the past: where cards stand now that stand elsewhere since. */
		went?: Readonly<Record<string, string>>;
		/** Asks for a moment of the past; from one, goes back to now. */
		onpast: () => void;
	}
	let { board, filter, arrangement, described, today, carried, keysOn, open, onkeys, went, onpast }: Props =
		$props();

	/** Of what a face can show these stand in a place of their own on the card. */
	const OWN_PLACE = new Set(['due', 'left', 'checks', 'carried', 'waits', 'files']);

	let element = $state<HTMLElement>();
	let bands = $state<ReturnType<typeof Bands>>();
	const handles = $state<Record<string, ReturnType<typeof Cell> | undefined>>({});

	const head = $derived(board.head);
	const mayEdit = $derived(head.role !== 'viewer' && !head.away);
	const people = $derived(
		new Map<string, PersonView & { seed: number }>(
			head.people.map((person, seed) => [person.id, { ...person, seed }]),
		),
	);
	const running = $derived(head.sprints.find((sprint) => sprint.startedAt && !sprint.closedAt));
	const fresh = new Fresh(() => filter);
	/** Arranged by a field, its values are the columns. */
	const by = $derived(arrangement.by);
	const grid = $derived.by(() => {
		const passes = passing(filter, board.fields, running?.number, described);
		return gridOf(
			head,
			board.columns,
			arrangement,
			board.fields,
			(card) => fresh.has(card.id) || passes(card),
		);
	});
	const columns = $derived(grid.columns);
	const laned = $derived(grid.bands.some(({ name }) => name));
	/** Cards are added to the board's own columns and lanes. */
	const mayAdd = $derived(mayEdit && !by && (!laned || arrangement.lanes!.id === 'lane'));
	/** From so many cards on only those near what is seen are drawn. */
	const MANY = 150;
	const many = $derived(fsum(grid.columns, ({ shown }) => shown.length) > MANY);
	/** What cards show here. */
	const face = $derived(head.face ?? USUAL_FACE);
	const plain = $derived(plainOf(face, board.fields, OWN_PLACE));
	const asked = new AskedFaces(
		() => head.slug,
		// What they hold now says nothing of then.
		() => !went && face.fields.some((id) => ASKED_FOR.includes(id)),
		() => board.seq,
	);
	const nameOf = (column: string, lane: string) => (laned ? `${column} ${lane || NONE}` : column);
	/** The cell that an element of the page is part of. */
	const cellAt = (element: Element | null | undefined) => {
		const data = element?.closest<HTMLElement>('[data-column]')?.dataset;
		return data ? { column: data.column!, lane: laned ? (data.lane ?? '').replace(NONE, '') : '' } : null;
	};

	const folded = new FoldedLanes(() => `${head.id}-${arrangement.lanes?.id ?? ''}`);
	const unfolded = $derived(grid.bands.filter(({ key }) => !laned || !folded.keys.has(key || NONE)));

	const inHand = $derived.by(() => {
		const counts = new Map<string, number>();
		for (const card of board.cards.values())
			if (card.clock === 'running')
				for (const owner of card.owners) counts.set(owner, (counts.get(owner) ?? 0) + 1);
		return counts;
	});
	const layout = $derived(
		widthsOf(
			columns.map(({ view }) => view),
			face.width,
			by !== null,
		),
	);

	/** Gives a column another name; the history keeps telling of it by the one that it had. */
	async function callColumn({ id, version }: ColumnView, name: string): Promise<boolean> {
		const sent = await board.ask('ChangeColumn', { column: id, version, name });
		if (sent.ok) board.tell({ tone: 'done', text: `The column is called ${name}.`, undo: sent.answer.id });
		return sent.ok;
	}
	const throughOf = (cards: CardView[]) => cards.find((card) => card.letThrough)?.letThrough ?? null;
	const cardOf = (id: string) => board.cards.get(id);

	const spot = new Spot(() => ({ columns, bands: unfolded }), cardOf, showIn);
	const acting = new Acting(() => board);
	const picked = new Picked(
		(ids) => [...ids].flatMap((id) => cardOf(id) ?? []).filter((card) => card.column && !card.archived),
		() => unfolded.flatMap(({ cells }) => cells.flat()),
		(text) => (board.spoken = text),
	);
	const rectangle = new Rectangle((ids, more) => picked.take(ids, more));
	const clicks = new Clicks(cardOf, acting, picked);

	async function showIn(id: string, { column, lane }: CellAt): Promise<void> {
		if (laned) {
			bands?.draw(lane);
			await tick();
		}
		await handles[nameOf(column, lane)]?.focusCard(id);
	}
	async function refocus(id: string): Promise<void> {
		await tick();
		await spot.focus(id);
	}

	/** Puts a card into another cell, and the focus with it. */
	async function move(
		card: CardView,
		from: CellAt,
		to: CellAt,
		below: string | null | undefined,
	): Promise<void> {
		const works = intoCell(board, arrangement, board.latest(card), from, to, below);
		if (!works) return;
		[spot.card, spot.cell] = [card.id, to];
		if (!works.length) return;
		await tick();
		void spot.focus(card.id);
		if (!(await Promise.all(works)).every(({ ok }) => ok)) return;
		await tick();
		// Unless the person has gone on to something else meanwhile.
		if (document.activeElement === document.body) void spot.focus(card.id);
		board.spoken = standsNow(board, arrangement, grid, card, to);
	}

	function onkeydown(event: KeyboardEvent): void {
		const first = mayAdd ? { column: columns[0]!.key, lane: grid.bands.at(-1)!.key } : null;
		const single = keysOn;
		onBoardKey(event, {
			...{ board, spot, acting, picked, single, mayEdit, first },
			move: (card, from, to, below) => void move(card, from, to, below),
			...{ onpast, onkeys },
		});
	}

	/** The line leaves the face at once. */
	async function tickOff(card: CardView, line: string): Promise<void> {
		asked.without(card.id, line);
		const sent = await board.tick(board.latest(card), line);
		if (!sent.ok) asked.again();
	}

	async function add(title: string): Promise<boolean> {
		const place = acting.adding!;
		// As in the backlog, an amount at the end of the line is its size.
		const reading = await import('$core/backlog/paste').catch(() => null);
		const line = reading?.readPaste(title, head.unit)[0];
		const sent = await board.add(
			place.column,
			line?.title ?? title,
			place.below,
			line?.size ?? null,
			arrangement.lanes?.id === 'lane' ? place.lane || null : null,
		);
		if (!sent.ok) return false;
		fresh.add([sent.answer.result.card]);
		board.spoken = `Added “${line?.title ?? title}”${line?.size ? `, ${amount(line.size, head.unit)}` : ''}.`;
		return true;
	}

	/** The cell that a card in hand was taken from. */
	let takenFrom: CellAt | null = null;
	const carry = carryCards({
		board: () => element!,
		take(id, source) {
			const card = cardOf(id);
			if (card) spot.card = id;
			takenFrom = cellAt(source);
			return card;
		},
		scroll: (column, pixels) =>
			laned ? element!.scrollBy(0, pixels) : column !== undefined && handles[column]?.scrollBy(pixels),
		dropped: (card, to) => void move(board.latest(card), takenFrom ?? to, to, to.below),
	});
	$effect(() => (element && mayEdit ? carry.attach(dragCards, element) : undefined));
	function onclick(event: MouseEvent): void {
		carry.onclick(event);
		if (mayEdit) clicks.onclick(event);
	}
</script>

<svelte:window
	onkeydown={(event) => forPlace(event) && onkeydown(event)}
	onclickcapture={clicks.onclickcapture}
	onpointermove={(event) => rectangle.move(event)}
	onpointerup={(event) => element && rectangle.up(event, element)}
/>

{#snippet cardFace(card: CardView)}
	<Card
		{card}
		{people}
		unit={head.unit}
		timeZone={head.timeZone}
		{today}
		expectation={board.expectation}
		carried={carried[card.number] ?? 0}
		{face}
		{plain}
		went={went?.[card.id]}
		more={asked.more[card.id]}
	/>
{/snippet}
{#snippet faceLines(card: CardView)}
	{@const lines = asked.more[card.id]?.lines}
	{#if lines?.length && face.fields.includes('lines')}
		<FaceLines
			{lines}
			tabbable={spot.tabbable === card.id}
			ontick={mayEdit && !card.hidden ? (line) => void tickOff(card, line) : undefined}
		/>
	{/if}
{/snippet}
{#snippet doneList(cards: CardView[])}
	<DoneList {cards} {today} timeZone={head.timeZone} tabbable={spot.tabbable} {open} />
{/snippet}
{#snippet renameCard(card: CardView)}
	<Rename
		{card}
		onrename={(title) => void board.rename(board.cards.get(card.id) ?? card, title)}
		onend={() => {
			acting.renaming = null;
			void refocus(card.id);
		}}
	/>
{/snippet}

{#snippet columnHead(view: ColumnView)}
	{@const column = columns.find((one) => one.view === view)!}
	<ColumnHead
		column={view}
		standing={column.all.length}
		through={by ? null : throughOf(column.all)}
		note={noteOf(column, head.unit, by, running?.number)}
		mayChange={head.role === 'lead' && !by}
		onsettings={() => (acting.asking = { kind: 'column', column: view.id })}
		oncalled={(name) => callColumn(view, name)}
	/>
{/snippet}
{#snippet cell(view: ColumnView, lane: string, laneName: string | undefined, cards: CardView[])}
	{@const key = view.id}
	{@const here = (place: CellAt | null) => place?.column === key && (!laned || place.lane === lane)}
	<Cell
		bind:this={handles[nameOf(key, lane)]}
		column={view}
		lane={laned ? { key: lane || NONE, name: laneName! } : undefined}
		{cards}
		tabbable={spot.tabbable}
		{many}
		first={!laned || lane === grid.bands[0]?.key}
		picked={picked.ids}
		drop={here(carry.drop) ? carry.drop : null}
		renaming={acting.renaming}
		adding={here(acting.adding) ? acting.adding : null}
		{mayEdit}
		{mayAdd}
		card={cardFace}
		below={faceLines}
		done={doneList}
		rename={renameCard}
		{open}
		onadd={() => (acting.adding = { column: key, lane, below: undefined })}
		onadded={add}
		onaddend={() => (acting.adding = null)}
	/>
{/snippet}

<p id="board-keys" class="sr-only">
	Arrow keys go from card to card, Shift and an arrow key moves the card, Enter opens it, question mark lists
	all keys.
</p>

{#if picked.cards.length}
	{#await import('../backlog/PickedBar.svelte') then { default: PickedBar }}
		<div class="picked">
			<PickedBar
				{board}
				cards={picked.cards}
				{running}
				onask={(ask) => (acting.asking = ask)}
				onmove={(column) =>
					void board.moveAll(
						picked.cards.map((card) => board.latest(card)),
						column,
					)}
				onend={() => picked.clear()}
			/>
		</div>
	{/await}
{/if}

<ColumnPicker {columns} />

{#if filter.text && columns.every((column) => !column.shown.length)}
	<p class="nothing" role="status">
		No card here has “{filter.text}” in its {LOOKED_AT}{filter.where.length ? ', and is as chosen' : ''}.
	</p>
{/if}
<div
	class="board"
	class:laned
	role="region"
	aria-label="Board"
	bind:this={element}
	style:--layout={layout}
	style:--columns={columns.length}
	onclickcapture={onclick}
	onpointerdown={(event) => mayEdit && rectangle.down(event)}
	ondblclick={(event) => mayEdit && clicks.ondblclick(event)}
	onfocusin={(event) => {
		const card = (event.target as HTMLElement).closest<HTMLElement>('li[data-card]')?.dataset.card;
		if (card) [spot.card, spot.cell] = [card, cellAt(event.target as HTMLElement)];
	}}
>
	{#if laned}
		<Bands
			bind:this={bands}
			columns={columns.map(({ view }) => view)}
			bands={grid.bands}
			unit={head.unit}
			folded={folded.keys}
			{many}
			settings={head.role === 'lead' && arrangement.lanes?.id === 'lane'
				? `/boards/${head.slug}/set-up?part=lanes`
				: null}
			head={columnHead}
			{cell}
			onfold={(lane) => folded.turn(lane)}
		/>
	{:else}
		{#each columns as { view, shown } (view.id)}
			<Column column={view} plain={by !== null} head={columnHead}
				>{@render cell(view, '', undefined, shown)}</Column
			>
		{/each}
	{/if}
</div>

{#if rectangle.box}<PickingBox box={rectangle.box} />{/if}
{#if carry.held}
	<div class="ghost" bind:this={carry.ghost} style:width="{carry.held.width}px" aria-hidden="true">
		{@render cardFace(carry.held.cards[0]!)}
	</div>
{/if}

{#if acting.asking}
	{#await import('./Asking.svelte') then { default: Asking }}
		<Asking
			{board}
			ask={acting.asking}
			{inHand}
			onask={(ask) => (acting.asking = ask)}
			onclose={() => {
				acting.asking = null;
			}}
			onback={(card) => void refocus(card.id)}
		/>
	{/await}
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
	.picked {
		padding: 0 20px 8px;
		flex: none;
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
	}
</style>
