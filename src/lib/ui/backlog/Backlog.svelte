<script lang="ts">
	import { fsum } from 'd3-array';
	import { initiativeAddress } from '../initiative-words';
	import { tick, untrack } from 'svelte';
	import { LOOKED_AT, passing, type Filter } from '$core/board/filter';
	import type { Field } from '$core/board/field';
	import type { BacklogPage } from '$core/pages/plan';
	import type { CardView, PersonView } from '$core/pages/board';
	import type { Ask } from '../board/ask';
	import Asking from '../board/Asking.svelte';
	import type { BoardState } from '../board/board-state.svelte';
	import { Carry } from '../board/carry.svelte';
	import { dragCards, dropAt } from '../board/drag';
	import { Fresh } from '../board/fresh.svelte';
	import Ghost from '../board/Ghost.svelte';
	import { Picked } from '../board/picked.svelte';
	import { Windowed } from '../board/windowed.svelte';
	import { forPlace } from '../frame/place-keys';
	import { amount, count } from '../words';
	import { Adding, WHERE } from './adding.svelte';
	import { onBacklogKey } from './backlog-keys';
	import BacklogRow from './BacklogRow.svelte';
	import PickedBar from './PickedBar.svelte';
	import { Pulling } from './pulling.svelte';
	import QuickAdd from './QuickAdd.svelte';
	import Replenish from './Replenish.svelte';
	import { backlogRows, onePlace } from './rows';

	interface Props {
		board: BoardState;
		page: BacklogPage;
		filter: Filter;
		/** The field by which cards stand in groups; null for their order. */
		grouping: Field | null;
		/** Cards whose description has the words of the filter. */
		described: ReadonlySet<string>;
		today: number;
		keysOn: boolean;
		open: (card: CardView) => string;
		onkeys: () => void;
	}
	let { board, page, filter, grouping, described, today, keysOn, open, onkeys }: Props = $props();

	const head = $derived(board.head);
	const mayEdit = $derived(head.role !== 'viewer');
	const people = $derived(
		new Map<string, PersonView & { seed: number }>(
			head.people.map((person, seed) => [person.id, { ...person, seed }]),
		),
	);
	const running = $derived(head.sprints.find((sprint) => sprint.startedAt && !sprint.closedAt));
	const placed = $derived(fsum(board.backlog, (card) => (card.sprint === page.next?.number ? card.left : 0)));
	/** What was placed in columns does not change on this page: only the rest of it is counted anew. */
	const placedAtFirst = $derived(
		fsum(page.cards, (card) => (card.sprint === page.next?.number ? card.left : 0)),
	);
	const free = $derived(
		page.next?.promise == null
			? (page.usual ?? 0)
			: page.next.promise - page.next.placed - placed + placedAtFirst,
	);
	const passes = $derived(passing(filter, board.fields, undefined, described));
	const fresh = new Fresh(() => filter);
	const rows = $derived(
		backlogRows(board.backlog, (card) => fresh.has(card.id) || passes(card), grouping, free, page.usual),
	);
	const cards = $derived(rows.flatMap((row) => (row.kind === 'card' ? [row.card] : [])));
	const pulling = new Pulling(
		() => board,
		() => page.standing,
	);
	const adding = new Adding(() => board, fresh);

	let list = $state<HTMLElement>();
	let current = $state<string | null>(null);
	const picked = new Picked(
		(ids) => board.backlog.filter((card) => ids.has(card.id)),
		() => cards,
		(text) => (board.spoken = text),
	);
	let asking = $state.raw<Ask | null>(null);
	let quick = $state<ReturnType<typeof QuickAdd>>();
	let below = $state<ReturnType<typeof QuickAdd>>();

	const currentKey = $derived(
		(
			rows.find((row) => row.kind === 'card' && row.key === current) ??
			rows.find((row) => row.kind === 'card')
		)?.key ?? null,
	);
	const currentIndex = $derived(rows.findIndex((row) => row.key === currentKey));

	const meant = (card: CardView) => picked.meant(board.latest(card));

	const windowed = new Windowed(37, 0);
	$effect(() => {
		if (!list) return;
		return untrack(() => windowed.mount(list!));
	});
	$effect(() => {
		if (!list) return;
		const shown = rows;
		windowed.update(
			shown.length,
			1,
			(i) => shown[i]?.key ?? String(i),
			currentIndex < 0 ? null : currentIndex,
		);
	});

	// Arranged anew, the list begins at its top.
	$effect(() => {
		void grouping;
		list?.scrollTo({ top: 0 });
	});

	async function focusRow(key: string): Promise<void> {
		current = key;
		const index = rows.findIndex((row) => row.key === key);
		if (index < 0) return;
		windowed.reveal(index);
		await tick();
		list
			?.querySelector<HTMLElement>(`li[data-row="${CSS.escape(key)}"] a.title`)
			?.focus({ preventScroll: true });
	}
	const keyOf = (id: string) => rows.find((row) => row.kind === 'card' && row.card.id === id)?.key;
	async function refocus(id: string): Promise<void> {
		await tick();
		const key = keyOf(id);
		if (key) await focusRow(key);
	}

	async function place(moving: readonly CardView[], under: string | null | undefined): Promise<void> {
		const first = moving[0]!;
		const sent = board.place(moving, under);
		await refocus(first.id);
		if ((await sent).ok)
			board.spoken = `${moving.length === 1 ? `Card ${first.number} is` : `${moving.length} cards are`} at position ${board.backlog.findIndex((card) => card.id === first.id) + 1} of ${board.backlog.length}.`;
	}

	/** Moves what is meant one place up or down in the list as it is shown. */
	function step(card: CardView, by: 1 | -1): void {
		const moving = meant(card);
		const under = onePlace(cards, moving, by);
		if (under !== undefined) void place(moving, under);
	}

	async function pull(chosen: readonly CardView[]): Promise<void> {
		if (await pulling.pull(chosen)) picked.clear();
	}

	function startAdding(under: string): void {
		adding.below = under;
		void tick().then(() => below?.focus());
	}

	function onkeydown(event: KeyboardEvent): void {
		if (asking) return;
		const single = keysOn;
		onBacklogKey(event, {
			...{ board, rows, picked, single, mayEdit, meant, onkeys },
			onask: (ask) => (asking = ask),
			onrow: (key) => void focusRow(key),
			onstep: step,
			onplace: (moving, under) => void place(moving, under),
			onadd: (card) => (card ? startAdding(card.id) : quick?.focus()),
			onpull: (chosen) => void pull(chosen),
		});
	}

	const carry = new Carry<{ below: string | null }>({
		take(id) {
			const card = board.cards.get(id);
			return card && meant(card);
		},
		over: (x, y, { cards }) => dropAt(x, y, cards[0]!.id),
		same: (a, b) => a?.below === b?.below && !a === !b,
		pull(_x, y, drop) {
			const box = list!.getBoundingClientRect();
			return !drop ? 0 : y > box.bottom - 50 ? 12 : y < box.top + 50 ? -12 : 0;
		},
		scroll: (_drop, pixels) => list?.scrollBy(0, pixels),
		dropped({ cards }, to) {
			if (!cards.some((card) => card.id === to.below)) void place(cards, to.below);
		},
	});
	$effect(() => (list && mayEdit ? carry.attach(dragCards, list) : undefined));
</script>

<svelte:window onkeydown={(event) => forPlace(event) && onkeydown(event)} />

<p id="backlog-keys" class="sr-only">
	Arrow keys go from card to card, Shift and an arrow key moves the card, P picks it, Enter opens it, question
	mark lists all keys.
</p>

<div class="top">
	{#if mayEdit}
		<QuickAdd
			bind:this={quick}
			unit={head.unit}
			onadd={(pasted) => adding.add(pasted, adding.under())}
			onpaste={(text) => (asking = { kind: 'paste', text, below: adding.under() })}
			onend={() => adding.anew()}
		/>
		<p class="where">
			<label
				>New cards go <select class="choice" bind:value={adding.where} onchange={() => adding.anew()}
					>{#each Object.entries(WHERE) as [value, name] (value)}<option {value}>{name}</option
						>{/each}</select
				></label
			>
			{#if adding.said}<span aria-hidden="true">{adding.said}</span>{/if}
		</p>
	{/if}
	{#if head.sprintDays === null}
		<Replenish
			column={head.columns[0]!}
			standing={page.standing}
			next={pulling.next}
			waiting={board.backlog.length > 0}
			{keysOn}
			onpull={mayEdit ? () => void pull(pulling.next) : undefined}
		/>
	{/if}
	{#if picked.cards.length}
		<PickedBar
			{board}
			cards={picked.cards}
			{running}
			onask={(ask) => (asking = ask)}
			onplace={(under) => void place(picked.cards, under)}
			onpull={head.sprintDays === null ? () => void pull(picked.cards) : undefined}
			onmove={head.sprintDays === null
				? undefined
				: (column) =>
						void board.moveAll(
							picked.cards.map((card) => board.latest(card)),
							column,
						)}
			onend={() => picked.clear()}
		/>
	{/if}
</div>

<div
	class="backlog"
	role="region"
	aria-label="Backlog"
	data-column="backlog"
	bind:this={list}
	onclickcapture={carry.onclick}
	onfocusin={(event) =>
		(current = (event.target as HTMLElement).closest<HTMLElement>('li[data-row]')?.dataset.row ?? current)}
>
	{#if carry.drop && carry.drop.below === null}<div class="mark"></div>{/if}
	{#if !rows.length}
		<p class="none">
			{board.backlog.length
				? filter.text
					? `No card in the backlog has “${filter.text}” in its ${LOOKED_AT}${filter.where.length ? ', and is as chosen' : ''}.`
					: 'No card in the backlog is like that.'
				: 'Nothing waits. Write a card above, paste many lines, or read a table.'}
		</p>
	{/if}
	<ul style:height="{windowed.height}px">
		{#each windowed.items as item (item.key)}
			{@const row = rows[item.index]}
			{#if row}
				<li
					data-row={row.key}
					data-index={item.index}
					data-card={row.kind === 'card' ? row.card.id : undefined}
					aria-posinset={item.index + 1}
					aria-setsize={rows.length}
					class:marked={row.kind === 'card' && carry.drop?.below === row.card.id}
					class:pulled={row.kind === 'card' && pulling.has(row.card.id)}
					style:transform="translateY({item.start}px)"
					{@attach windowed.measure}
				>
					{#if row.kind === 'group'}
						<h2>
							{row.name}
							<small
								>{count(row.cards, 'card')}{head.unit === 'none' ? '' : `, ${amount(row.left, head.unit)}`}
								{#if grouping?.id === 'initiative' && head.initiatives.includes(row.name)}<a
										class="link"
										href={initiativeAddress(head.slug, row.name)}>its page</a
									>{/if}</small
							>
						</h2>
					{:else}
						{#if row.line}
							<p class="line">
								{row.line.sprint === 1
									? page.next?.promise == null
										? 'a usual sprint ends here'
										: `${head.sprintName.toLowerCase()} ${page.next.number} is full here`
									: `a usual sprint later, ${amount(row.line.holds, head.unit)}`}
							</p>
						{/if}
						<BacklogRow
							card={row.card}
							{head}
							fields={board.fields}
							{people}
							{today}
							part={row.part}
							picked={picked.ids.has(row.card.id)}
							current={row.key === currentKey}
							{mayEdit}
							href={open(row.card)}
							onpick={(range) => picked.pick(row.card, range)}
							onchoose={(field, key) => void board.choose(meant(row.card), field, key)}
							onsize={(size) => void board.size(board.latest(row.card), size)}
							onowners={() => (asking = { kind: 'owners', cards: meant(row.card) })}
							onlabels={() => (asking = { kind: 'labels', cards: meant(row.card) })}
						/>
						{#if adding.below === row.card.id}
							<div class="below">
								<QuickAdd
									bind:this={below}
									unit={head.unit}
									onadd={(pasted) => adding.add(pasted, row.card.id)}
									onpaste={(text) => (asking = { kind: 'paste', text, below: row.card.id })}
									onend={() => {
										adding.below = null;
										void refocus(row.card.id);
									}}
								/>
							</div>
						{/if}
					{/if}
				</li>
			{/if}
		{/each}
	</ul>
</div>

<Ghost {carry} />

{#if asking}
	<Asking {board} ask={asking} onclose={() => (asking = null)} onback={(card) => void refocus(card.id)} />
{/if}

<style>
	.top {
		display: grid;
		gap: 8px;
		padding: 0 20px 8px;
		flex: none;
	}
	.where {
		margin: 0;
		display: flex;
		flex-wrap: wrap;
		gap: 2px 14px;
		align-items: center;
		color: var(--soft);
		font-size: 0.93rem;
	}
	.backlog {
		flex: 1;
		min-height: 160px;
		overflow-y: auto;
		overscroll-behavior: contain;
		margin: 0 12px;
		padding: 0 8px 24px;
		border-top: 1px solid var(--rule);
		container-type: inline-size;
		position: relative;
	}
	ul {
		position: relative;
	}
	li {
		position: absolute;
		inset: 0 0 auto;
	}
	.pulled :global(.row) {
		border-left-color: var(--river);
	}
	h2 {
		font-size: 1.05rem;
		padding: 14px 6px 4px;
		border-bottom: 1px solid var(--edge);
	}
	h2 small {
		font: 400 0.9rem var(--text);
		color: var(--soft);
	}
	.line {
		margin: 0;
		padding: 4px 8px 2px;
		border-top: 2px dashed var(--ink);
		font-size: 12px;
		color: var(--soft);
	}
	.below {
		padding: 6px 8px;
	}
	.none {
		color: var(--soft);
		padding: 16px 6px;
	}
	.mark,
	.marked::after {
		height: 3px;
		border-radius: 2px;
		background: var(--river);
	}
	.marked::after {
		content: '';
		position: absolute;
		inset: auto 0 -2px;
		z-index: 2;
	}
	@media (max-width: 700px) {
		.top {
			padding: 0 12px 8px;
		}
		.backlog {
			margin: 0;
			padding: 0 6px 24px;
		}
	}
</style>
