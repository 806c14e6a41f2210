<script lang="ts">
	import { tick } from 'svelte';
	import type { CardView, ColumnView, PersonView } from '$core/pages/board';
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
	import Column from './Column.svelte';
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
	let adding = $state<{ column: string; below: string | null | undefined } | null>(null);
	let asking = $state.raw<Ask | null>(null);
	const handles = $state<Record<string, ReturnType<typeof Column> | undefined>>({});

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
	const tabbable = $derived.by(() => {
		const shown = columns.flatMap((column) => column.shown);
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

	async function move(card: CardView, column: string, below: string | null | undefined): Promise<void> {
		const target = standing.find((known) => known.id === column)!;
		const others = (board.columns.get(column) ?? []).filter((other) => other.id !== card.id);
		if (card.column === column && target.kind !== 'done') {
			const above = others.findIndex((other) => other.id === below);
			if ((board.columns.get(column) ?? []).findIndex((other) => other.id === card.id) === above + 1) return;
		} else if (card.column === column) return;
		focused = card.id;
		const moved = board.move(board.cards.get(card.id) ?? card, column, below);
		await tick();
		void handles[column]?.focusCard(card.id);
		if ((await moved).ok) {
			const there = board.columns.get(column)?.length ?? 0;
			const place = target.limit === null ? count(there, 'card') : `${there} of ${target.limit}`;
			board.spoken =
				target.kind === 'done'
					? `Card ${card.number} is finished.`
					: `Card ${card.number} is in ${target.name}, position ${(board.columns.get(column) ?? []).findIndex((other) => other.id === card.id) + 1}; ${place} there.`;
		}
	}

	function moveByKey(card: CardView, key: string): void {
		const column = placeOf(card);
		const cards = columns[column]!.shown;
		const index = cards.findIndex((other) => other.id === card.id);
		if (key === 'ArrowLeft' || key === 'ArrowRight') {
			const target = standing[column + (key === 'ArrowLeft' ? -1 : 1)];
			if (target) void move(card, target.id, undefined);
		} else if (key === 'ArrowUp' && index > 0) void move(card, card.column!, cards[index - 2]?.id ?? null);
		else if (key === 'ArrowDown' && index < cards.length - 1)
			void move(card, card.column!, cards[index + 1]!.id);
	}

	function goByKey(card: CardView, key: string): void {
		const column = placeOf(card);
		const cards = columns[column]!.shown;
		const index = cards.findIndex((other) => other.id === card.id);
		let next: CardView | undefined;
		if (key === 'ArrowUp') next = cards[index - 1];
		else if (key === 'ArrowDown') next = cards[index + 1];
		else if (key === 'Home') next = cards[0];
		else if (key === 'End') next = cards.at(-1);
		else
			for (
				let i = column + (key === 'ArrowLeft' ? -1 : 1);
				columns[i] && !next;
				i += key === 'ArrowLeft' ? -1 : 1
			)
				next = columns[i]!.shown[Math.min(index, columns[i]!.shown.length - 1)];
		if (!next) return;
		focused = next.id;
		void handles[next.column!]?.focusCard(next.id);
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
					? { column: card.column!, below: card.id }
					: { column: standing[0]!.id, below: undefined }),
			rename: () => card && card.clock !== 'done' && (renaming = card.id),
			block: () => card && blockOrUnblock(card),
			owners: () => card && (asking = { kind: 'owners', cards: [card] }),
			size: () => card && (asking = { kind: 'size', card }),
			time: () => card && !card.parts && (asking = { kind: 'time', card }),
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
		if (card?.column) void handles[card.column]?.focusCard(id);
	}

	async function add(title: string): Promise<boolean> {
		const place = adding!;
		// As in the backlog, an amount at the end of the line is its size.
		const [line] = readPaste(title, head.unit);
		const sent = await board.add(place.column, line?.title ?? title, place.below, line?.size ?? null);
		if (!sent.ok) return false;
		fresh = new Set([...fresh, sent.answer.result.card]);
		board.spoken = `Added “${line?.title ?? title}”${line?.size ? `, ${amount(line.size, head.unit)}` : ''}.`;
		return true;
	}

	const EDGE = 36;
	const ACROSS = 9;
	const carry = new Carry<{ column: string; below: string | null }>({
		take(id) {
			const card = cardOf(id);
			if (card) focused = id;
			return card && [card];
		},
		over: (x, y, { cards }) => dropAt(x, y, cards[0]!.id),
		same: (a, b) => a?.column === b?.column && a?.below === b?.below,
		pull(_x, y, drop) {
			const box = element!.getBoundingClientRect();
			return !drop ? 0 : y > box.bottom - 60 ? 14 : y < box.top + 110 ? -14 : 0;
		},
		scroll: (drop, pixels) => drop && handles[drop.column]?.scrollBy(pixels),
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
			void move(board.latest(card!), to.column, to.below);
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
	role="region"
	aria-label="Board"
	bind:this={element}
	style:--layout={layout}
	onclickcapture={onclick}
	{ondblclick}
	onfocusin={(event) =>
		(focused = (event.target as HTMLElement).closest<HTMLElement>('li[data-card]')?.dataset.card ?? focused)}
>
	{#each columns as { column, all, shown } (column.id)}
		<Column
			bind:this={handles[column.id]}
			{column}
			cards={shown}
			standing={all.length}
			through={throughOf(all)}
			note={note({ column, all, shown })}
			{tabbable}
			drop={carry.drop?.column === column.id ? carry.drop : null}
			{renaming}
			adding={adding?.column === column.id ? adding : null}
			mayChange={head.role === 'lead'}
			{mayEdit}
			card={cardFace}
			done={doneList}
			rename={renameCard}
			{open}
			onadd={() => (adding = { column: column.id, below: undefined })}
			onadded={add}
			onaddend={() => (adding = null)}
			onsettings={() => (asking = { kind: 'column', column: column.id })}
			oncalled={(name) => callColumn(column, name)}
		/>
	{/each}
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
		.board > :global(section) {
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
