<script lang="ts">
	import { fsum } from 'd3-array';
	import { initiativeAddress } from '../initiative-words';
	import { tick, untrack } from 'svelte';
	import { LOOKED_AT, passing, type Filter } from '$core/board/filter';
	import type { Field } from '$core/board/field';
	import type { BacklogPage } from '$core/pages/plan';
	import type { CardView, PersonView } from '$core/pages/board';
	import { pullOrder, replenishment } from '$core/backlog/replenish';
	import type { Ask } from '../board/ask';
	import Asking from '../board/Asking.svelte';
	import type { BoardState } from '../board/board-state.svelte';
	import { Carry } from '../board/carry.svelte';
	import { dragCards, dropAt } from '../board/drag';
	import Ghost from '../board/Ghost.svelte';
	import { Picked } from '../board/picked.svelte';
	import { Windowed } from '../board/windowed.svelte';
	import { pressed, type Does } from '../frame/keymap';
	import { forPlace } from '../frame/place-keys';
	import { amount, count } from '../words';
	import BacklogRow from './BacklogRow.svelte';
	import PickedBar from './PickedBar.svelte';
	import QuickAdd from './QuickAdd.svelte';
	import { backlogRows } from './rows';

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
	const rows = $derived(
		backlogRows(board.backlog, (card) => fresh.has(card.id) || passes(card), grouping, free, page.usual),
	);
	const cards = $derived(rows.flatMap((row) => (row.kind === 'card' ? [row.card] : [])));
	const pulled = $derived(
		head.sprintDays === null
			? pullOrder(board.backlog.filter((card) => !card.parts)).slice(
					0,
					Math.min(50, replenishment(head.columns[0]!.limit, page.standing)),
				)
			: [],
	);
	const isPulled = $derived(new Set(pulled.map((card) => card.id)));

	let list = $state<HTMLElement>();
	let current = $state<string | null>(null);
	const picked = new Picked(
		(ids) => board.backlog.filter((card) => ids.has(card.id)),
		() => cards,
		(text) => (board.spoken = text),
	);
	let asking = $state.raw<Ask | null>(null);
	let addingBelow = $state<string | null>(null);
	let quick = $state<ReturnType<typeof QuickAdd>>();
	let below = $state<ReturnType<typeof QuickAdd>>();
	let lastAdded: string | null | undefined;

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
		const ids = new Set(moving.map((one) => one.id));
		const shown = cards.filter((one) => !ids.has(one.id) && !(one.parent && ids.has(one.parent)));
		const at = cards.findIndex((one) => one.id === moving[0]!.id);
		const before = cards.slice(0, at).filter((one) => shown.includes(one)).length;
		const target = before + by;
		if (target < 0 || target > shown.length) return;
		void place(moving, target === 0 ? null : shown[target - 1]!.id);
	}

	const readyField = $derived(board.fields.find(({ id }) => id === 'ready')!);

	/** Where a new line goes: below what is ranked and ready, on top, or at the end. */
	const WHERE = { ready: 'below what is ready', top: 'on top', end: 'at the end' };
	let where = $state<keyof typeof WHERE>('ready');
	const underReady = $derived(board.backlog.findLast((card) => card.ready && !card.parent)?.id);
	const under = (): string | null | undefined => {
		if (lastAdded && board.cards.has(lastAdded)) return lastAdded;
		return where === 'top' ? null : where === 'end' ? undefined : underReady;
	};
	/** Cards that were added here under a filter stay in sight until one goes on to another. */
	let fresh = $state.raw<ReadonlySet<string>>(new Set());
	$effect(() => {
		void filter;
		fresh = new Set();
	});

	async function add(pasted: Parameters<BoardState['addPasted']>[0], place: string | null | undefined) {
		const sent = await board.addPasted(pasted, place);
		if (!sent.ok) return false;
		const all = sent.answer.result.cards;
		const made = all.at(-1)!;
		fresh = new Set([...fresh, ...all.map((card) => card.id)]);
		lastAdded = made.id;
		if (addingBelow) addingBelow = made.id;
		added = { id: made.id, words: `“${pasted[0]!.title}” as ${made.number}` };
		return true;
	}
	let said = $state('');
	/** What was added last, until the list has it and its place in the order can be said. */
	let added = $state.raw<{ id: string; words: string } | null>(null);
	$effect(() => {
		const at = added ? board.backlog.findIndex((card) => card.id === added!.id) + 1 : 0;
		if (!added || !at) return;
		said = `Added ${added.words}, at position ${at} of ${board.backlog.length}.`;
		[board.spoken, added] = [said, null];
	});
	let pulling = $state.raw<ReadonlySet<string>>(new Set());

	/** Pulls cards into the first column: those that come next, or those that were chosen, urgent ones with a reason. */
	async function pull(chosen: readonly CardView[]): Promise<void> {
		const whole = chosen.filter((card) => !card.parts);
		if (!whole.length) return;
		pulling = new Set(whole.map((card) => card.id));
		const sent = await board.replenish(whole);
		pulling = new Set();
		if (!sent.ok) return;
		picked.clear();
		const what = whole.length === 1 ? `Card ${whole[0]!.number} is` : `${whole.length} cards are`;
		const text = `${what} in ${head.columns[0]!.name}.`;
		board.tell({
			tone: sent.answer.advice ? 'care' : 'done',
			text: sent.answer.advice ? `${text} ${sent.answer.advice}` : text,
			undo: sent.answer.id,
		});
	}

	function startAdding(under: string): void {
		addingBelow = under;
		void tick().then(() => below?.focus());
	}

	function onkeydown(event: KeyboardEvent): void {
		if (asking) return;
		const target = event.target as HTMLElement;
		if (target.matches('input:not([type="checkbox"]), textarea, select')) return;
		const does = pressed('backlog', event, { single: keysOn, write: mayEdit });
		if (!does || does === 'find' || does === 'open') return;
		const row = target.closest<HTMLElement>('li[data-row]')?.dataset.row;
		const at = rows.findIndex((one) => one.key === row);
		const here = rows[at];
		const card = here?.kind === 'card' ? here.card : undefined;
		if ((does === 'go' || does === 'move') && !card) return;
		if (does === 'unpick' && !picked.ids.size) return;
		const inRow = (selector: string) => target.closest('li')?.querySelector<HTMLElement>(selector)?.focus();
		const acts: Record<Exclude<Does<'backlog'>, 'find' | 'open'>, () => unknown> = {
			go: () => goByKey(at, event.key),
			move: () => moveByKey(card!, event.key),
			position: () => card && (asking = { kind: 'position', cards: meant(card) }),
			pick: () => card && picked.pick(card, event.shiftKey),
			unpick: () => picked.clear(),
			add: () => (card ? startAdding(card.id) : quick?.focus()),
			size: () => card && !card.parts && inRow('.size'),
			owners: () => card && (asking = { kind: 'owners', cards: meant(card) }),
			labels: () => card && (asking = { kind: 'labels', cards: meant(card) }),
			type: () => inRow('.type'),
			initiative: () => inRow('.initiative'),
			ready: () => card && void board.choose(meant(card), readyField, card.ready ? '' : 'yes'),
			split: () => card && (asking = { kind: 'split', card }),
			pull: () => card && head.sprintDays === null && void pull(meant(card)),
			undo: () => void board.undo(),
			help: onkeys,
		};
		event.preventDefault();
		acts[does]();
	}

	function goByKey(at: number, key: string): void {
		const [from, by] =
			key === 'ArrowUp'
				? [at - 1, -1]
				: key === 'ArrowDown'
					? [at + 1, 1]
					: key === 'Home'
						? [0, 1]
						: [rows.length - 1, -1];
		for (let i = from; rows[i]; i += by) if (rows[i]!.kind === 'card') return void focusRow(rows[i]!.key);
	}

	function moveByKey(card: CardView, key: string): void {
		if (key === 'ArrowUp') step(card, -1);
		else if (key === 'ArrowDown') step(card, 1);
		else void place(meant(card), key === 'Home' ? null : undefined);
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
			onadd={(pasted) => add(pasted, under())}
			onpaste={(text) => (asking = { kind: 'paste', text, below: under() })}
			onend={() => (lastAdded = undefined)}
		/>
		<p class="where">
			<label
				>New cards go <select class="choice" bind:value={where} onchange={() => (lastAdded = undefined)}
					>{#each Object.entries(WHERE) as [value, name] (value)}<option {value}>{name}</option
						>{/each}</select
				></label
			>
			{#if said}<span aria-hidden="true">{said}</span>{/if}
		</p>
	{/if}
	{#if head.sprintDays === null}
		<p class="pull">
			{#if head.columns[0]!.limit === null}<b>{head.columns[0]!.name}</b> has no limit, so nothing says how
				much to pull: pick what is to come next{keysOn ? ', or press U on it' : ''}.
			{:else if pulled.length}
				<b>{head.columns[0]!.name}</b> has {page.standing} of {head.columns[0]!.limit} slots taken.
				{#if mayEdit}<button type="button" class="go" onclick={() => void pull(pulled)}
						>Pull {count(pulled.length, 'card')} into it</button
					>{/if}
				<small
					>next: {pulled.map((card) => card.number).join(', ')}, by class of service, then as they stand</small
				>
			{:else if board.backlog.length}<b>{head.columns[0]!.name}</b> is full ({page.standing} of {head
					.columns[0]!.limit}): finish something before pulling more. What cannot wait is picked and let
				through with a reason.{/if}
		</p>
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
					class:pulled={row.kind === 'card' && (isPulled.has(row.card.id) || pulling.has(row.card.id))}
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
						{#if addingBelow === row.card.id}
							<div class="below">
								<QuickAdd
									bind:this={below}
									unit={head.unit}
									onadd={(pasted) => add(pasted, row.card.id)}
									onpaste={(text) => (asking = { kind: 'paste', text, below: row.card.id })}
									onend={() => {
										addingBelow = null;
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
	.pull {
		margin: 0;
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 4px 10px;
	}
	.pull small {
		color: var(--soft);
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
