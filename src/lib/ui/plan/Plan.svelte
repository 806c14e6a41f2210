<script lang="ts">
	import { fsum } from 'd3-array';
	import { scaleLinear } from 'd3-scale';
	import { tick } from 'svelte';
	import type { CardView } from '$core/pages/board';
	import type { Ask } from '../board/ask';
	import Asking from '../board/Asking.svelte';
	import type { BoardState } from '../board/board-state.svelte';
	import { Carry } from '../board/carry.svelte';
	import { Picked } from '../board/picked.svelte';
	import { dragBetween } from '../board/drag';
	import Ghost from '../board/Ghost.svelte';
	import { pressed, type Does } from '../frame/keymap';
	import { forPlace } from '../frame/place-keys';
	import { amount, count, figure, list } from '../words';
	import type { PlanAsk } from './ask';
	import type { PlanState } from './plan-state.svelte';
	import PlanRowView from './PlanRowView.svelte';
	import Waiting from './Waiting.svelte';

	interface Props {
		board: BoardState;
		plan: PlanState;
		carried: Record<number, number>;
		keysOn: boolean;
		open: (card: CardView) => string;
		onask: (ask: PlanAsk) => void;
		onkeys: () => void;
	}
	let { board, plan, carried, keysOn, open, onask, onkeys }: Props = $props();

	const head = $derived(board.head);
	const unit = $derived(head.unit);
	const mayEdit = $derived(head.role !== 'viewer');
	const sprint = $derived(plan.sprint!);
	const axis = $derived(scaleLinear().domain([0, plan.end]));
	// A mark too near the end has no room for its words.
	const ticks = $derived(axis.ticks(7).filter((mark) => mark < plan.end * 0.93));
	const byCount = $derived(unit !== 'hours');
	/** On a board in points the team has a row of its own, against the promise; people are told by how many cards. */
	const team = $derived(
		unit === 'points'
			? fsum(
					plan.cards.filter((card) => !card.unplanned),
					(card) => card.left,
				)
			: null,
	);
	const teamEnd = $derived(Math.max(5, plan.promise, team ?? 0) * 1.06);

	let element = $state<HTMLElement>();
	let waiting = $state<ReturnType<typeof Waiting>>();
	const picked = new Picked(
		(ids) =>
			[...ids].flatMap((id) => {
				const card = board.cards.get(id);
				return card && !card.archived ? [card] : [];
			}),
		() => plan.backlog,
		(text) => (board.spoken = text),
	);
	/** Which card keys speak of: in the backlog by its id, in a row as person/card. */
	let current = $state<string | null>(null);
	let block = $state<string | null>(null);
	let asking = $state.raw<Ask | null>(null);

	const tabbable = $derived(
		plan.rows.some((row) => row.blocks.some((one) => `${row.person?.id ?? ''}/${one.card.id}` === block))
			? block
			: (plan.rows
					.flatMap((row) => row.blocks.map((one) => `${row.person?.id ?? ''}/${one.card.id}`))
					.at(0) ?? null),
	);
	const pickedLeft = $derived(fsum(picked.cards, (card) => card.parts?.left ?? card.left));
	const meant = (card: CardView) => picked.meant(board.latest(card));

	const nameOf = (id: string) => head.people.find((person) => person.id === id)?.name ?? 'nobody';

	/** Gives cards to someone in this sprint, to nobody, or takes them out of it. */
	async function give(cards: readonly CardView[], to: string, from?: string): Promise<void> {
		const owners =
			to === 'nobody' || to === 'team'
				? to === 'team'
					? undefined
					: []
				: // One of several owners hands it on; the others keep theirs.
					from && cards.length === 1 && cards[0]!.owners.length > 1
					? [...new Set(cards[0]!.owners.map((owner) => (owner === from ? to : owner)))]
					: [to];
		const sent = to === 'backlog' ? board.plan(cards, null) : board.plan(cards, sprint.number, owners);
		picked.clear();
		const what = cards.length === 1 ? `Card ${cards[0]!.number}` : `${cards.length} cards`;
		const answer = await sent;
		if (!answer.ok) return;
		const part = plan.parts.find((one) => one.person === to);
		const text =
			to === 'backlog'
				? `${what} taken out of sprint ${sprint.number}.`
				: part
					? `${what} given to ${nameOf(to)}: ${amount(part.placed, unit)} of ${amount(part.promise, unit)}${part.standing === 'over' ? ', over' : ''}.`
					: `${what} in sprint ${sprint.number}, owned by nobody.`;
		board.tell({ tone: 'done', text, undo: answer.answer.id });
	}

	async function focusBlock(key: string): Promise<void> {
		block = key;
		await tick();
		const [person, card] = key.split('/');
		element
			?.querySelector<HTMLElement>(`[data-person="${person || 'nobody'}"] a.block[data-card="${card}"]`)
			?.focus();
	}

	/** The block in a row that has the focus, with its row and its place in it. */
	function inRows(target: HTMLElement) {
		const id = target.closest<HTMLElement>('a.block')?.dataset.card;
		const rowId = target.closest<HTMLElement>('[data-person]')?.dataset.person;
		const at = plan.rows.findIndex((row) => (row.person?.id ?? 'nobody') === rowId);
		const row = plan.rows[at];
		const index = row?.blocks.findIndex((one) => one.card.id === id) ?? -1;
		const card = row?.blocks[index]?.card;
		return row && card ? { at, row, index, card } : null;
	}

	const focusIn = (row: (typeof plan.rows)[number], card: CardView) =>
		void focusBlock(`${row.person?.id ?? ''}/${card.id}`);

	/** Goes on from a block: from person to person, or along its row and on into the backlog. */
	function goInRows({ at, row, index }: NonNullable<ReturnType<typeof inRows>>, key: string): void {
		const by = key === 'ArrowUp' || key === 'ArrowLeft' ? -1 : 1;
		if (key === 'ArrowLeft' || key === 'ArrowRight') {
			const next = row.blocks[index + by];
			if (next) focusIn(row, next.card);
			else if (by < 0) void waiting?.focusCard(current ?? plan.backlog[0]?.id ?? '');
			return;
		}
		if (key === 'Home' || key === 'End') return;
		for (let i = at + by; plan.rows[i]; i += by) {
			const there = plan.rows[i]!;
			const next = there.blocks[Math.min(index, there.blocks.length - 1)];
			if (next) return focusIn(there, next.card);
		}
	}

	function handOn({ at, row, card }: NonNullable<ReturnType<typeof inRows>>, key: string): void {
		const target = plan.rows[at + (key === 'ArrowUp' ? -1 : 1)];
		if (!target || (key !== 'ArrowUp' && key !== 'ArrowDown')) return;
		void give(meant(card), target.person?.id ?? 'nobody', row.person?.id);
		focusIn(target, card);
	}

	function takeOut({ row, index, card }: NonNullable<ReturnType<typeof inRows>>): void {
		const next = row.blocks[index + 1] ?? row.blocks[index - 1];
		void give(meant(card), 'backlog');
		if (next) focusIn(row, next.card);
	}

	function goInBacklog(at: number, key: string): void {
		const to =
			key === 'ArrowUp'
				? plan.backlog[at - 1]
				: key === 'ArrowDown'
					? plan.backlog[at + 1]
					: key === 'Home'
						? plan.backlog[0]
						: plan.backlog.at(-1);
		if (!to) return;
		current = to.id;
		void waiting?.focusCard(to.id);
	}

	function onkeydown(event: KeyboardEvent): void {
		const target = event.target as HTMLElement;
		if (asking || target.matches('input:not([type="checkbox"]), textarea, select')) return;
		const does = pressed('plan', event, { single: keysOn, write: mayEdit });
		if (!does || does === 'find' || does === 'open') return;
		if (does === 'unpick' && !picked.ids.size) return;
		const { key } = event;
		const block = inRows(target);
		const id = block ? undefined : target.closest<HTMLElement>('li[data-card]')?.dataset.card;
		const at = plan.backlog.findIndex((one) => one.id === id);
		const card = block?.card ?? plan.backlog[at];
		if (!card && does !== 'undo' && does !== 'help' && does !== 'unpick') return;
		const acts: Record<Exclude<Does<'plan'>, 'find' | 'open'>, () => unknown> = {
			go: () => (block ? goInRows(block, key) : goInBacklog(at, key)),
			along: () =>
				block
					? goInRows(block, key)
					: key === 'ArrowRight' && mayEdit && onask({ kind: 'give', cards: meant(card!) }),
			hand: () => block && handOn(block, key),
			'take-out': () => block && takeOut(block),
			pick: () => picked.pick(card!, false),
			unpick: () => picked.clear(),
			give: () => onask({ kind: 'give', cards: meant(card!) }),
			size: () => !card!.parts && (asking = { kind: 'size', card: card! }),
			owners: () => (asking = { kind: 'owners', cards: meant(card!) }),
			undo: () => void board.undo(),
			help: onkeys,
		};
		event.preventDefault();
		acts[does]();
	}

	async function refocus(card: CardView): Promise<void> {
		const row = plan.rows.find((one) => one.blocks.some((known) => known.card.id === card.id));
		if (row) await focusBlock(`${row.person?.id ?? ''}/${card.id}`);
		else await waiting?.focusCard(card.id);
	}

	const personAt = (of: Element | null | undefined) =>
		of?.closest<HTMLElement>('[data-person]')?.dataset.person ?? null;
	const carry = new Carry<string>({
		take(id) {
			const card = board.cards.get(id);
			return card && meant(card);
		},
		over(x, y, { source }) {
			const to = personAt(document.elementFromPoint(x, y));
			return to === personAt(source) ? null : to;
		},
		same: (a, b) => a === b,
		dropped: ({ cards, source }, to) => void give(cards, to, personAt(source) ?? undefined),
	});
	const drop = $derived(carry.drop);
	$effect(() => (element && mayEdit ? carry.attach(dragBetween, element) : undefined));

	const learned = $derived(plan.page.learned);
	const looseWhy = $derived.by(() => {
		const from = learned.from;
		if (unit === 'points')
			return learned.perDay === null
				? 'What can be promised is learned from velocity: it is said once three sprints are closed.'
				: `The promise is learned from velocity: ${figure(learned.perDay, 2)} points a person-day over the last ${from} sprints.`;
		const kept = Math.round(plan.keepBack * 100);
		const focusText = figure(plan.focus, 2);
		const set = [
			...(sprint.focus !== null && !sprint.startedAt ? [`focus (learned: ${figure(learned.focus, 2)})`] : []),
			...(sprint.keepBack !== null && !sprint.startedAt
				? [`keep-back (learned: ${Math.round(learned.keepBack * 100)}%)`]
				: []),
		];
		if (sprint.startedAt) return `Focus ${focusText} and ${kept}% kept back, frozen when the sprint started.`;
		if (set.length)
			return `Focus ${focusText} and ${kept}% kept back, with the ${list(set)} set by hand for this sprint.`;
		return from
			? `Focus ${focusText}, and ${kept}% kept back: learned from the last ${from} sprints.`
			: `Focus ${focusText}, and ${kept}% kept back, to begin with: they are learned once three sprints are closed.`;
	});
</script>

<svelte:window onkeydown={(event) => forPlace(event) && onkeydown(event)} />

<p id="plan-keys" class="sr-only">
	Arrow keys go from card to card. In the backlog the right arrow gives the card to someone; in a row Shift
	and an up or down arrow gives it to the next person, Delete takes it out. Question mark lists all keys.
</p>

<div
	class="plan"
	role="region"
	aria-label="Plan of sprint {sprint.number}"
	bind:this={element}
	onclickcapture={carry.onclick}
	onfocusin={(event) => {
		const target = event.target as HTMLElement;
		const id = target.closest<HTMLElement>('[data-card]')?.dataset.card;
		if (!id) return;
		if (target.closest('a.block')) {
			const person = target.closest<HTMLElement>('[data-person]')!.dataset.person!;
			block = `${person === 'nobody' || person === 'team' ? '' : person}/${id}`;
		} else current = id;
	}}
>
	<section class="left">
		<h2>
			Backlog, in order
			{#if picked.ids.size}<small
					>· {count(picked.cards.length, 'card')} picked{unit === 'none'
						? ''
						: `, ${amount(pickedLeft, unit)}`}</small
				>{/if}
		</h2>
		{#if picked.ids.size && mayEdit}<p class="acts">
				<button type="button" class="link" onclick={() => onask({ kind: 'give', cards: picked.cards })}
					>Give them to…</button
				>
				<button type="button" class="link" onclick={() => picked.clear()}>Let go</button>
			</p>{/if}
		<Waiting
			bind:this={waiting}
			cards={plan.backlog}
			{unit}
			free={plan.promise - plan.held}
			usual={learned.delivered}
			picked={picked.ids}
			{current}
			dropping={drop === 'backlog'}
			{open}
			onpick={(card) => picked.pick(card, false)}
			{mayEdit}
		/>
	</section>
	<section class="who">
		<h2>
			Sprint {sprint.number}, who does what
			<small
				>{unit === 'hours'
					? 'hours of work left, one block a card'
					: unit === 'points'
						? 'points left in all, and how many cards each person has'
						: 'one block a card'}</small
			>
		</h2>
		<div class="rows">
			{#if unit === 'hours'}
				<div class="axis" aria-hidden="true">
					{#each ticks as mark (mark)}<span style:left="{(mark / plan.end) * 100}%">{mark} h</span>{/each}
				</div>
			{/if}
			{#if team !== null}
				<div class="side">
					<b>The team</b>
					<small>{count(plan.rows.filter((row) => row.person).length, 'person', 'people')}</small>
				</div>
				<div
					class="whole"
					class:dropping={drop === 'team'}
					data-person="team"
					role="group"
					aria-label="The team: {amount(team, unit)}"
				>
					<span
						class="fill"
						class:over={plan.promise > 0 && team > plan.promise}
						style:width="{(team / teamEnd) * 100}%"
					></span>
					{#if plan.promise > 0}<span class="line" style:left="{(plan.promise / teamEnd) * 100}%"></span>{/if}
				</div>
				<div class="side">
					<span class:warn={plan.promise > 0 && team > plan.promise}
						>{figure(team)}{plan.promise > 0 ? ` of ${amount(plan.promise, unit)}` : ' pt'}</span
					>
				</div>
			{/if}
			{#each plan.rows as row (row.person?.id ?? '')}
				<PlanRowView
					{row}
					{unit}
					end={plan.end}
					from={sprint.starts}
					to={sprint.ends}
					{byCount}
					{carried}
					picked={picked.ids}
					{tabbable}
					dropping={drop === (row.person?.id ?? 'nobody')}
					open={(one) => open(one.card)}
					onshare={mayEdit ? () => onask({ kind: 'share' }) : undefined}
				/>
			{/each}
		</div>
		<p class="legend">
			<span><i class="carried"></i> carried in: only what is left counts</span>
			{#if unit === 'hours'}<span><i class="line"></i> the promise</span>
				<span><i class="kept"></i> kept back for surprises</span>{/if}
			{#if plan.surprises}<span><i class="surprise"></i> unplanned: drawn on what is kept back</span>{/if}
		</p>
		<p class="why">
			{looseWhy}
			{#if head.role === 'lead' && !sprint.startedAt && unit === 'hours'}<button
					type="button"
					class="link"
					onclick={() => onask({ kind: 'sprint' })}>Use another</button
				>{/if}
			{#if sprint.startedAt}Hours count from today on.{/if}
		</p>
	</section>
</div>

<Ghost {carry} />
{#if asking}
	<Asking {board} ask={asking} onclose={() => (asking = null)} onback={(card) => void refocus(card)} />
{/if}

<style>
	.plan {
		flex: 1;
		min-height: 0;
		display: grid;
		grid-template-columns: minmax(250px, 0.5fr) 1.45fr;
		gap: 24px;
		padding: 4px 20px 0;
	}
	section {
		min-width: 0;
		min-height: 0;
		display: flex;
		flex-direction: column;
	}
	.who {
		overflow-y: auto;
		padding-bottom: 12px;
	}
	h2 {
		font-size: 1.1rem;
		margin-bottom: 8px;
	}
	h2 small {
		font: 400 0.93rem var(--text);
		color: var(--soft);
		letter-spacing: 0;
	}
	.acts {
		margin: -4px 0 4px;
		display: flex;
		gap: 16px;
	}
	.rows {
		display: grid;
		grid-template-columns: 116px minmax(0, 1fr) 104px;
		gap: 8px 12px;
	}
	.axis {
		grid-column: 2;
		position: relative;
		height: 16px;
		overflow: hidden;
		font-size: 12px;
		color: var(--soft);
	}
	.axis span {
		position: absolute;
		white-space: nowrap;
		border-left: 1px solid var(--edge);
		padding-left: 3px;
		line-height: 1;
	}
	.side {
		display: flex;
		flex-direction: column;
		justify-content: center;
	}
	.side small {
		font-size: 12px;
		color: var(--soft);
	}
	.whole {
		position: relative;
		height: 34px;
		background: var(--sunk);
		border-radius: 3px;
	}
	.fill {
		position: absolute;
		inset: 4px auto 4px 0;
		background: var(--river-2);
		border: 1px solid var(--river);
	}
	.fill.over {
		border: 2px solid var(--brick-fill);
	}
	.whole .line {
		position: absolute;
		inset: -4px auto -4px;
		width: 2.5px;
		background: var(--ink);
	}
	.dropping {
		outline: 2.5px solid var(--river);
	}
	.legend {
		display: flex;
		flex-wrap: wrap;
		gap: 4px 18px;
		margin: 14px 0 2px;
		font-size: 0.9rem;
		color: var(--soft);
	}
	.legend i {
		display: inline-block;
		vertical-align: -2px;
		height: 13px;
	}
	.legend .carried {
		width: 5px;
		background: var(--ochre-fill);
	}
	.legend .line {
		width: 2.5px;
		background: var(--ink);
	}
	.legend .kept {
		width: 22px;
		background: repeating-linear-gradient(135deg, var(--edge) 0 1.5px, transparent 1.5px 7px);
	}
	.legend .surprise {
		width: 22px;
		border: 1px dashed var(--ink);
	}
	.why {
		margin: 0;
		font-size: 0.9rem;
		color: var(--soft);
	}
	@media (pointer: coarse) {
		.link {
			min-height: 44px;
		}
	}
	@media (max-width: 900px) {
		.plan {
			display: flex;
			flex-direction: column;
			overflow-y: auto;
			padding: 4px 12px 0;
			gap: 12px;
		}
		section,
		.who {
			overflow: visible;
			flex: none;
		}
		.left {
			order: 2;
			height: 420px;
		}
		.rows {
			grid-template-columns: minmax(0, 1fr) auto;
			gap: 2px 8px;
		}
		.axis {
			grid-column: 1 / -1;
		}
		.whole {
			grid-column: 1 / -1;
			margin-bottom: 10px;
		}
	}
</style>
