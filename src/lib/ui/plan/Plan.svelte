<script lang="ts">
	import { scaleLinear } from 'd3-scale';
	import type { CardView } from '$core/pages/board';
	import { leftWithParts } from '$core/board/left';
	import type { Ask } from '../board/ask';
	import Asking from '../board/Asking.svelte';
	import type { BoardState } from '../board/board-state.svelte';
	import { Carry } from '../board/carry.svelte';
	import { Picked } from '../board/picked.svelte';
	import { dragBetween } from '../board/drag';
	import Ghost from '../board/Ghost.svelte';
	import { forPlace } from '../frame/place-keys';
	import { amount, count } from '../words';
	import type { PlanAsk } from './ask';
	import Legend from './Legend.svelte';
	import { onPlanKey } from './plan-keys';
	import { PlanSpot, rowId } from './plan-spot.svelte';
	import type { PlanState } from './plan-state.svelte';
	import PlanRowView from './PlanRowView.svelte';
	import TeamRow from './TeamRow.svelte';
	import Waiting from './Waiting.svelte';
	import { basisWords } from './words';

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
	const team = $derived(unit === 'points' ? plan.held : null);

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
	const spot = new PlanSpot(
		() => plan,
		() => element,
		(card) => waiting?.focusCard(card),
	);
	/** What is asked about cards in a dialog. */
	let asking = $state.raw<Ask | null>(null);

	const pickedLeft = $derived(leftWithParts(picked.cards));
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

	function onkeydown(event: KeyboardEvent): void {
		if (asking) return;
		const single = keysOn;
		onPlanKey(event, {
			...{ plan, spot, picked, single, mayEdit, meant, give, onask, onkeys },
			oncards: (ask) => (asking = ask),
			onundo: () => void board.undo(),
		});
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
	onfocusin={(event) => spot.came(event.target as HTMLElement)}
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
			current={spot.current}
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
				<TeamRow
					left={team}
					promise={plan.promise}
					people={plan.rows.filter((row) => row.person).length}
					dropping={drop === 'team'}
				/>
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
					tabbable={spot.tabbable}
					dropping={drop === rowId(row)}
					open={(one) => open(one.card)}
					onshare={mayEdit ? () => onask({ kind: 'share' }) : undefined}
				/>
			{/each}
		</div>
		<Legend hours={unit === 'hours'} surprises={plan.surprises > 0} />
		<p class="why">
			{basisWords(unit, sprint, learned, plan.focus, plan.keepBack)}
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
	<Asking {board} ask={asking} onclose={() => (asking = null)} onback={(card) => void spot.focus(card)} />
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
	.why {
		margin: 0;
		font-size: 0.9rem;
		color: var(--soft);
	}
	.link {
		min-height: var(--touch, auto);
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
	}
</style>
