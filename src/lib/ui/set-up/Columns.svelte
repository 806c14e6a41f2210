<script lang="ts">
	import { untrack } from 'svelte';
	import type { ClockMoved, SetUpPage } from '$core/pages/settings';
	import type { ColumnView } from '$core/pages/board';
	import type { BoardState } from '../board/board-state.svelte';
	import { dragColumns } from '../board/drag';
	import { ask } from '../send';
	import { count, figure } from '../words';
	import ColumnCard from './ColumnCard.svelte';

	let { board, setUp, mayChange }: { board: BoardState; setUp: SetUpPage; mayChange: boolean } = $props();
	const head = $derived(board.head);
	const columns = $derived(head.columns);
	const clock = $derived(columns.findIndex((column) => column.commitment));

	/** What somebody is about to do, and what it would do, said before it is kept. */
	type Pending =
		| { kind: 'retire'; column: string; to: string }
		| { kind: 'clock'; column: string; moved: ClockMoved | null }
		| { kind: 'add'; after: string | null };
	let pending = $state<Pending | null>(null);
	let newName = $state('');
	let newKind = $state<'queue' | 'work' | 'done'>('work');
	let problem = $state('');
	let carried = $state('');
	/** Where what is carried would come to: after so many columns. */
	let target = $state<number | null>(null);
	let frame = $state<HTMLElement>();

	const named = (id: string | null) => columns.find((column) => column.id === id);
	async function tell(sent: Promise<Awaited<ReturnType<typeof board.ask>>>, done: string): Promise<boolean> {
		const answer = await sent;
		problem = answer.ok || answer.refusal.code === 'limit.held' ? '' : answer.refusal.title;
		if (answer.ok)
			board.tell({ tone: 'done', text: done, undo: answer.answer.undoable ? answer.answer.id : undefined });
		return answer.ok;
	}
	const change = (column: ColumnView) => (what: object, done: string) =>
		tell(board.ask('ChangeColumn', { column: column.id, version: column.version, ...what }), done);

	/** Puts a column after so many of the others. */
	async function place(id: string, at: number): Promise<void> {
		const column = named(id)!;
		const others = columns.filter((one) => one.id !== id);
		const now = columns.indexOf(column);
		const to = Math.max(0, Math.min(others.length, at));
		if (to === now) return;
		const after = others[to - 1] ?? null;
		await tell(
			board.ask('PlaceColumn', { column: id, version: column.version, after: after?.id ?? null }),
			after ? `${column.name} stands after ${after.name}.` : `${column.name} stands first.`,
		);
		// The handle keeps the focus wherever its column went.
		frame?.querySelector<HTMLElement>(`[data-set-column="${id}"] .handle`)?.focus();
	}
	async function propose(at: number): Promise<void> {
		const column = columns[Math.max(0, Math.min(columns.length - 1, at))]!;
		if (column.commitment) return void (pending = null);
		if (column.kind === 'done')
			return void (problem = `A card is done in ${column.name}: its clock starts in a column before that.`);
		problem = '';
		pending = { kind: 'clock', column: column.id, moved: null };
		const found = await ask<ClockMoved>(`/boards/${head.slug}/set-up/clock?column=${column.id}`);
		if (pending?.kind === 'clock' && pending.column === column.id && found.ok) pending.moved = found.answer;
		else if (!found.ok) problem = found.refusal.title;
	}
	const clockAt = $derived(
		pending?.kind === 'clock'
			? columns.findIndex((column) => column.id === (pending as { column: string }).column)
			: clock,
	);
	const words = (moved: ClockMoved) =>
		moved.now === null || moved.then === null
			? 'no card was finished in the last thirteen weeks, so nothing of them changes yet.'
			: moved.now === moved.then
				? `the middle of cycle time stays at ${count(moved.now, 'day')} over the ${count(moved.finished, 'card')} of the last thirteen weeks.`
				: `the middle of cycle time would go from ${figure(moved.now)} to ${count(moved.then, 'day')} over the ${count(moved.finished, 'card')} of the last thirteen weeks.`;

	async function retire(): Promise<void> {
		if (pending?.kind !== 'retire') return;
		const column = named(pending.column)!;
		const standing = setUp.standing[column.id] ?? 0;
		const to = standing ? { to: pending.to || null } : {};
		if (
			await tell(
				board.ask('RetireColumn', { column: column.id, version: column.version, ...to }),
				`${column.name} was taken away; its past keeps counting.`,
			)
		)
			pending = null;
	}
	async function add(event: SubmitEvent): Promise<void> {
		event.preventDefault();
		if (pending?.kind !== 'add') return;
		const { after } = pending;
		if (
			await tell(
				board.ask('AddColumn', { board: head.id, name: newName.trim(), kind: newKind, after }),
				`${newName.trim()} was added.`,
			)
		)
			[pending, newName] = [null, ''];
	}
	async function keepClock(): Promise<void> {
		if (pending?.kind !== 'clock') return;
		const column = named(pending.column)!;
		if (
			await tell(
				board.ask('MoveClock', { board: head.id, column: column.id }),
				`A card’s clock starts in ${column.name}, also in the past.`,
			)
		)
			pending = null;
	}
	/** After how many columns a point lies. */
	function placeAt(x: number, but: string): number {
		const drawn = [...frame!.querySelectorAll<HTMLElement>('[data-set-column]')].filter(
			(one) => one.dataset.setColumn !== but,
		);
		return drawn.filter((one) => {
			const { left, width } = one.getBoundingClientRect();
			return x > left + width / 2;
		}).length;
	}
	$effect(() => {
		if (!frame || !mayChange) return;
		let stop = () => undefined as void;
		let gone = false;
		const events = {
			start: (id: string) => void (carried = id),
			move: (x: number) => void (target = placeAt(x, carried)),
			end: () => {
				const [id, at] = [carried, target];
				[carried, target] = ['', null];
				if (at === null) return;
				if (id === 'clock') void propose(at);
				else void place(id, at);
			},
		};
		const inside = frame;
		void untrack(() => dragColumns(inside, events)).then((end) => (gone ? end() : (stop = end)));
		return () => {
			gone = true;
			stop();
		};
	});
	const show = (element: HTMLElement) => element.scrollIntoView({ block: 'nearest' });
	const focus = (element: HTMLElement) => {
		show(element);
		element.querySelector<HTMLElement>('input, select, button')?.focus();
	};
</script>

<h2>Columns <small>as they stand on the board, drawn by kind; drag to reorder, + puts one between</small></h2>
<div class="frame" bind:this={frame}>
	{#if mayChange}{@render plus(null)}{/if}
	{#each columns as column, i (column.id)}
		{#if i === clockAt}<div class="clock" class:moved={pending?.kind === 'clock'} data-clock>
				<button
					type="button"
					class="handle"
					disabled={!mayChange}
					aria-label="the clock starts here, in {column.name}: left and right arrow move it"
					onkeydown={(event) => {
						const by = event.key === 'ArrowLeft' ? -1 : event.key === 'ArrowRight' ? 1 : 0;
						if (!by) return;
						event.preventDefault();
						void propose(clockAt + by);
					}}>the clock starts here</button
				>
			</div>{/if}
		{#if target === i && carried}<div class="target" class:river={carried === 'clock'}></div>{/if}
		<ColumnCard
			{column}
			{mayChange}
			standing={setUp.standing[column.id] ?? 0}
			stood={(setUp.stays[column.id] ?? 0) > 0}
			carried={carried === column.id}
			onchange={change(column)}
			onmove={(by) => void place(column.id, i + by)}
			onretire={() => {
				const next = columns.filter(
					(one) => one.id !== column.id && (column.kind !== 'done' || one.kind === 'done'),
				);
				problem = '';
				pending = {
					kind: 'retire',
					column: column.id,
					to: (next[Math.max(0, i - 1)] ?? next.at(-1))?.id ?? '',
				};
			}}
		/>
		{#if mayChange}{@render plus(column.id)}{/if}
	{/each}
</div>

{#snippet plus(after: string | null)}
	<button
		type="button"
		class="plus"
		aria-label={after ? `Add a column after ${named(after)!.name}` : 'Add a column in the first place'}
		onclick={() => (pending = { kind: 'add', after })}>+</button
	>
{/snippet}

<div class="said" aria-live="polite">
	{#if problem}<p class="warn" role="alert">{problem}</p>{/if}
	{#if pending?.kind === 'retire'}
		{@const column = named(pending.column)}
		{#if column}
			{@const standing = setUp.standing[column.id] ?? 0}
			{@const stays = setUp.stays[column.id] ?? 0}
			<div {@attach focus}>
				<p>
					<b>Taking {column.name} away</b>:
					{#if standing}its {count(standing, 'card')}
						{standing === 1 ? 'goes' : 'go'} to
						<select aria-label="Where the cards of {column.name} go" bind:value={pending.to}>
							{#each columns.filter((one) => one.id !== column.id && (column.kind !== 'done' || one.kind === 'done')) as one (one.id)}<option
									value={one.id}>{one.name}</option
								>{/each}
							{#if column.kind !== 'done'}<option value="">the backlog</option>{/if}
						</select>.
					{:else}nothing stands in it.{/if}
					{stays
						? `Past figures keep its name and its ${count(stays, 'stay')}; cards that are done keep the days they spent there.`
						: 'No card has ever stood in it.'}
				</p>
				<button type="button" class="go" onclick={() => void retire()}>Take it away</button>
				<button type="button" class="plain" onclick={() => (pending = null)}>Leave it</button>
			</div>
		{/if}
	{:else if pending?.kind === 'clock'}
		{@const column = named(pending.column)}
		{#if column}<div {@attach show}>
				<p>
					<b>Moving the clock to {column.name}</b> changes when cards started, also past ones:
					{pending.moved ? words(pending.moved) : 'looking at what flow would say…'}
					<a class="link" href="/boards/{head.slug}/flow?clock={column.id}">Look at flow with this</a> before you
					keep it.
				</p>
				<button type="button" class="go" onclick={() => void keepClock()}>Move the clock</button>
				<button type="button" class="plain" onclick={() => (pending = null)}>Leave it</button>
			</div>{/if}
	{:else if pending?.kind === 'add'}
		<form onsubmit={add} {@attach focus}>
			<p>
				<b>A new column</b>
				{pending.after ? `after ${named(pending.after)?.name ?? ''}` : 'in the first place'}, called
				<input aria-label="Name of the new column" maxlength="40" required bind:value={newName} />
				in which cards
				<select aria-label="Cards in the new column" bind:value={newKind}>
					<option value="queue">wait</option>
					<option value="work">are worked on</option>
					<option value="done">are done</option>
				</select>.
			</p>
			<button class="go">Add it</button>
			<button type="button" class="plain" onclick={() => (pending = null)}>Leave it</button>
		</form>
	{/if}
</div>
{#if head.retired.length}
	<p class="soft">
		Taken away, and still in past figures: {head.retired.map((column) => column.name).join(', ')}.
	</p>
{/if}

<style>
	h2 {
		font-size: 1.1rem;
		margin-bottom: 2px;
	}
	h2 small {
		font: 400 0.95rem var(--text);
		color: var(--soft);
	}
	.frame {
		display: flex;
		align-items: stretch;
		overflow-x: auto;
		padding: 30px 0 12px;
	}
	.plus {
		flex: none;
		width: 26px;
		border: 0;
		background: none;
		color: var(--soft);
		font-size: 1.2rem;
		padding: 0;
	}
	.plus:hover {
		color: var(--moss);
		background: var(--sheet);
	}
	.clock {
		position: relative;
		width: 0;
		border-left: 2px solid var(--river);
		margin: -10px 8px -6px -8px;
		flex: none;
		z-index: 1;
	}
	.clock.moved {
		border-left-style: dashed;
	}
	.clock .handle {
		position: absolute;
		top: -16px;
		left: 0;
		transform: translateX(-50%);
		white-space: nowrap;
		border: 0;
		background: var(--paper);
		padding: 0 4px;
		color: var(--river);
		font: 700 12px var(--text);
		cursor: grab;
		touch-action: none;
	}
	.target {
		flex: none;
		width: 4px;
		margin: 0 -2px;
		background: var(--moss);
	}
	.target.river {
		background: var(--river);
	}
	.said {
		max-width: 900px;
		border-top: 1px solid var(--rule);
		padding-top: 10px;
		min-height: max(40px, var(--touch, 0px));
	}
	p {
		margin: 0 0 8px;
	}
	.said select,
	.said input {
		font: inherit;
		color: var(--ink);
		background: transparent;
		border: 0;
		border-bottom: 1px solid var(--moss);
		border-radius: 0;
		padding: 1px 4px;
		min-height: max(30px, var(--touch, 0px));
	}
	.said select {
		padding-right: 26px;
	}
	@media (max-width: 700px) {
		.frame {
			flex-direction: column;
			overflow-x: visible;
			gap: 4px;
		}
		.plus {
			width: 100%;
			min-height: 44px;
		}
		.clock {
			width: auto;
			border-left: 0;
			border-top: 2px solid var(--river);
			margin: 0;
			min-height: max(30px, var(--touch, 0px));
		}
		.clock .handle {
			position: static;
			transform: none;
			min-height: 44px;
		}
	}
</style>
