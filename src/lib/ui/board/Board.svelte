<script lang="ts">
	import { fsum } from 'd3-array';
	import { tick } from 'svelte';
	import { uses } from '$core/board/used';
	import type { CardView, ColumnView, PersonView } from '$core/pages/board';
	import type { Day } from '$core/calendar/zone';
	import { pressed, type Does } from '../frame/keymap';
	import { forPlace } from '../frame/place-keys';
	import { amount } from '../words';
	import type { Ask } from './ask';
	import type { BoardState } from './board-state.svelte';
	import Card from './Card.svelte';
	import Bands from './Bands.svelte';
	import Cell from './Cell.svelte';
	import Column from './Column.svelte';
	import ColumnHead from './ColumnHead.svelte';
	import DoneList from './DoneList.svelte';
	import { Carry } from './carry.svelte';
	import { dragCards, dropAt } from './drag';
	import { LOOKED_AT, passing, type Filter } from '$core/board/filter';
	import type { Arrangement } from '$core/board/arrange';
	import { gridOf, NONE } from './grid';
	import { intoCell, standsNow, type CellAt } from './into-cell';
	import { noteOf } from './column-note';
	import { FoldedLanes } from './folded-lanes.svelte';
	import { Picked } from './picked.svelte';
	import { Rectangle } from './rectangle.svelte';
	import { movedBy, nextBy, placeIn } from './steps';
	import { Twice } from './twice';
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
	const WIDTHS = { narrow: 'minmax(140px, 190px)', wide: 'minmax(330px, 1.5fr)' };

	let element = $state<HTMLElement>();
	let bands = $state<ReturnType<typeof Bands>>();
	let focused = $state<string | null>(null);
	let renaming = $state<string | null>(null);
	let adding = $state<{ column: string; lane: string; below: string | null | undefined } | null>(null);
	let asking = $state.raw<Ask | null>(null);
	const handles = $state<Record<string, ReturnType<typeof Cell> | undefined>>({});

	const head = $derived(board.head);
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
	const laned = $derived(arrangement.lanes !== null);
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
	/** The cell in which somebody is: a card that has several values stands in several. */
	let at = $state.raw<CellAt | null>(null);
	const cellAt = (element: Element | null | undefined) => {
		const data = element?.closest<HTMLElement>('[data-column]')?.dataset;
		return data ? { column: data.column!, lane: laned ? (data.lane ?? '').replace(NONE, '') : '' } : null;
	};

	const folded = new FoldedLanes(() => `${head.id}-${arrangement.lanes?.id ?? ''}`);
	const unfolded = $derived(grid.bands.filter(({ key }) => !laned || !folded.keys.has(key || NONE)));

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
		columns
			.map(({ view }) =>
				face.width !== 'usual'
					? WIDTHS[face.width]
					: by
						? 'minmax(190px, 1fr)'
						: view.kind === 'work'
							? 'minmax(250px, 1.5fr)'
							: view.kind === 'done'
								? 'minmax(170px, 0.85fr)'
								: 'minmax(160px, 0.8fr)',
			)
			.join(' '),
	);

	/** Gives a column another name; the history keeps telling of it by the one that it had. */
	async function callColumn({ id, version }: ColumnView, name: string): Promise<boolean> {
		const sent = await board.ask('ChangeColumn', { column: id, version, name });
		if (sent.ok) board.tell({ tone: 'done', text: `The column is called ${name}.`, undo: sent.answer.id });
		return sent.ok;
	}
	const throughOf = (cards: CardView[]) => cards.find((card) => card.letThrough)?.letThrough ?? null;
	const cardOf = (id: string | null) => (id ? board.cards.get(id) : undefined);

	/** Puts a card into another cell, and the focus with it. */
	async function move(
		card: CardView,
		from: CellAt,
		to: CellAt,
		below: string | null | undefined,
	): Promise<void> {
		const works = intoCell(board, arrangement, board.latest(card), from, to, below);
		if (!works) return;
		focused = card.id;
		at = to;
		if (!works.length) return;
		await tick();
		void focusOn(card.id);
		if (!(await Promise.all(works)).every(({ ok }) => ok)) return;
		await tick();
		// Unless the person has gone on to something else meanwhile.
		if (document.activeElement === document.body) void focusOn(card.id);
		board.spoken = standsNow(board, arrangement, grid, card, to);
	}

	/** Where a card is shown, in the cell in which somebody is if it stands there. */
	const shownAt = (card: CardView) =>
		placeIn(
			unfolded,
			card,
			at && {
				band: unfolded.findIndex(({ key }) => key === at!.lane),
				column: columns.findIndex(({ key }) => key === at!.column),
			},
		);
	/** A cell by its place. */
	const cellOf = (band: number, column: number) => ({
		column: columns[column]!.key,
		lane: unfolded[band]!.key,
	});
	async function focusOn(id: string): Promise<void> {
		const card = cardOf(id);
		const found = card && shownAt(card);
		if (!found) return;
		const { column, lane } = cellOf(found.band, found.column);
		if (laned) {
			bands?.draw(lane);
			await tick();
		}
		await handles[nameOf(column, lane)]?.focusCard(id);
	}

	function moveByKey(card: CardView, key: string): void {
		const from = shownAt(card);
		const to = from && movedBy(unfolded, from, key);
		if (to) void move(card, cellOf(from.band, from.column), cellOf(to.band, to.column), to.below);
	}

	function goByKey(card: CardView, key: string): void {
		const from = shownAt(card);
		const next = from && nextBy(unfolded, from, key);
		if (!next) return;
		[focused, at] = [next.card.id, cellOf(next.band, next.column)];
		void focusOn(next.card.id);
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
			add: () => {
				if (by)
					return board.tell({ tone: 'care', text: 'Cards are added where the board is arranged by column.' });
				const found = card && shownAt(card);
				adding = found
					? { ...cellOf(found.band, found.column), below: card.id }
					: { column: columns[0]!.key, lane: grid.bands.at(-1)!.key, below: undefined };
			},
			send: () => card && (asking = { kind: 'place', cards: picked.meant(card) }),
			pick: () => card && picked.pick(card, event.shiftKey),
			unpick: () => picked.clear(),
			rename: () => card && card.clock !== 'done' && (renaming = card.id),
			block: () => card && blockOrUnblock(card),
			owners: () => card && (asking = { kind: 'owners', cards: picked.meant(card) }),
			size: () => card && (asking = { kind: 'size', card }),
			time: () => card && !card.parts && uses(head, 'hours') && (asking = { kind: 'time', card }),
			past: onpast,
			undo: () => void board.undo(),
			help: onkeys,
		};
		// Finding and opening are done by others: by the bar, and by the link that has the focus.
		if (!does || does === 'find' || does === 'open') return;
		if ((does === 'go' || does === 'move') && !card) return;
		if (does === 'unpick' && !picked.ids.size) return;
		event.preventDefault();
		acts[does]();
	}

	const picked = new Picked(
		(ids) =>
			[...ids].flatMap((id) => board.cards.get(id) ?? []).filter((card) => card.column && !card.archived),
		() => unfolded.flatMap(({ cells }) => cells.flat()),
		(text) => (board.spoken = text),
	);
	const rectangle = new Rectangle((ids, more) => picked.take(ids, more));

	function blockOrUnblock(card: CardView): void {
		if (!card.blocked) asking = { kind: 'block', card };
		else
			void board
				.unblock(card)
				.then((sent) => sent.ok && (board.spoken = `Card ${card.number} is no longer blocked.`));
	}

	/** The line leaves the face at once. */
	async function tickOff(card: CardView, line: string): Promise<void> {
		asked.without(card.id, line);
		const sent = await board.tick(board.latest(card), line);
		if (!sent.ok) asked.again();
	}

	async function refocus(id: string): Promise<void> {
		await tick();
		await focusOn(id);
	}

	async function add(title: string): Promise<boolean> {
		const place = adding!;
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
		fresh = new Set([...fresh, sent.answer.result.card]);
		board.spoken = `Added “${line?.title ?? title}”${line?.size ? `, ${amount(line.size, head.unit)}` : ''}.`;
		return true;
	}

	/** The cell that a card in hand was taken from. */
	let takenFrom: CellAt | null = null;
	const EDGE = 36;
	const ACROSS = 9;
	const carry = new Carry<{ column: string; lane: string; below: string | null }>({
		take(id, source) {
			const card = cardOf(id);
			if (card) focused = id;
			takenFrom = cellAt(source);
			return card && [card];
		},
		over: (x, y, { cards }) => {
			const drop = dropAt(x, y, cards[0]!.id);
			return drop && { ...drop, lane: (drop.lane ?? '').replace(NONE, '') };
		},
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
			const from = takenFrom ?? to;
			void move(board.latest(card!), from, to, to.below);
		},
	});
	$effect(() => (element && mayEdit ? carry.attach(dragCards, element) : undefined));

	const twice = new Twice((card) => (renaming = card));
	function onclick(event: MouseEvent): void {
		carry.onclick(event);
		// A tap on a card's grip asks where it goes; with Shift or Ctrl a click picks instead of opening.
		const card = cardOf(
			(event.target as HTMLElement).closest<HTMLElement>('li[data-card]')?.dataset.card ?? null,
		);
		if (card && mayEdit && !event.defaultPrevented && (event.target as HTMLElement).closest('.grip')) {
			asking = { kind: 'place', cards: picked.meant(card) };
			return;
		}
		if (card && mayEdit && !event.defaultPrevented && (event.shiftKey || event.ctrlKey || event.metaKey)) {
			event.preventDefault();
			event.stopPropagation();
			picked.pick(card, event.shiftKey);
			return;
		}
		const link = (event.target as HTMLElement).closest<HTMLAnchorElement>('li[data-card] a');
		const mouse = event instanceof PointerEvent && event.pointerType === 'mouse';
		if (event.defaultPrevented || !link || !mouse || !mayEdit || !event.detail) return;
		if (event.button || event.ctrlKey || event.metaKey || event.shiftKey || event.altKey) return;
		if (!card || card.clock === 'done') return;
		event.preventDefault();
		event.stopPropagation();
		twice.open(card.id, link.href);
	}
	function ondblclick(event: MouseEvent): void {
		const card = cardOf(
			(event.target as HTMLElement).closest<HTMLElement>('li[data-card]')?.dataset.card ?? null,
		);
		if (card && mayEdit && card.clock !== 'done') renaming = card.id;
	}
</script>

<svelte:window
	onkeydown={(event) => forPlace(event) && onkeydown(event)}
	onclickcapture={twice.onclickcapture}
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
			tabbable={tabbable === card.id}
			ontick={mayEdit && !card.hidden ? (line) => void tickOff(card, line) : undefined}
		/>
	{/if}
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

{#snippet columnHead(view: ColumnView)}
	{@const column = columns.find((one) => one.view === view)!}
	<ColumnHead
		column={view}
		standing={column.all.length}
		through={by ? null : throughOf(column.all)}
		note={noteOf(column, head.unit, by, running?.number)}
		mayChange={head.role === 'lead' && !by}
		onsettings={() => (asking = { kind: 'column', column: view.id })}
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
		{tabbable}
		{many}
		first={!laned || lane === grid.bands[0]?.key}
		picked={picked.ids}
		drop={here(carry.drop) ? carry.drop : null}
		{renaming}
		adding={here(adding) ? adding : null}
		{mayEdit}
		mayAdd={mayEdit && !by && (!laned || arrangement.lanes!.id === 'lane')}
		card={cardFace}
		below={faceLines}
		done={doneList}
		rename={renameCard}
		{open}
		onadd={() => (adding = { column: key, lane, below: undefined })}
		onadded={add}
		onaddend={() => (adding = null)}
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
				onask={(ask) => (asking = ask)}
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

<nav class="picker" aria-label="Columns">
	{#each columns as { view, all } (view.id)}
		<a
			href="#column-{view.id}"
			data-sveltekit-noscroll
			data-sveltekit-keepfocus
			onclick={(event) => (
				event.preventDefault(),
				document
					.querySelector(`[data-column="${CSS.escape(view.id)}"]`)
					?.scrollIntoView({ inline: 'start', block: 'nearest' })
			)}>{view.name} <b>{all.length}</b></a
		>
	{/each}
</nav>

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
	{ondblclick}
	onfocusin={(event) => {
		const card = (event.target as HTMLElement).closest<HTMLElement>('li[data-card]')?.dataset.card;
		if (card) [focused, at] = [card, cellAt(event.target as HTMLElement)];
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

{#if rectangle.box}
	{@const { left, top, right, bottom } = rectangle.box}
	<div
		class="rectangle"
		style:left="{left}px"
		style:top="{top}px"
		style:width="{right - left}px"
		style:height="{bottom - top}px"
		aria-hidden="true"
	></div>
{/if}
{#if carry.held}
	<div class="ghost" bind:this={carry.ghost} style:width="{carry.held.width}px" aria-hidden="true">
		{@render cardFace(carry.held.cards[0]!)}
	</div>
{/if}

{#if asking}
	{#await import('./Asking.svelte') then { default: Asking }}
		<Asking
			{board}
			ask={asking}
			{inHand}
			onask={(ask) => (asking = ask)}
			onclose={() => {
				asking = null;
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
	.rectangle {
		position: fixed;
		z-index: 30;
		border: 1.5px solid var(--river);
		background: color-mix(in srgb, var(--river) 14%, transparent);
		pointer-events: none;
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
