<script lang="ts">
	import type { BoardState } from '../board/board-state.svelte';
	import { count, dateWords, list } from '../words';
	import type { PlanState } from './plan-state.svelte';

	interface Props {
		board: BoardState;
		plan: PlanState;
		today: string;
		onsprint: () => void;
		onstart: () => void;
	}
	/** Goal, dates and starting; what is still missing is said in words, and holds nothing up. */
	let { board, plan, today, onsprint, onstart }: Props = $props();
	const sprint = $derived(plan.sprint!);
	const lead = $derived(board.head.role === 'lead');
	const full = $derived(plan.promise > 0 ? Math.round((plan.held / plan.promise) * 100) : null);
	const missing = $derived.by(() => {
		const unowned = plan.cards.filter((card) => !card.owners.length).length;
		const unsized = board.head.unit === 'none' ? 0 : plan.cards.filter((card) => card.size === null).length;
		const blocked = plan.cards.filter((card) => card.blocked).length;
		return [
			...(plan.cards.length ? [] : ['no cards yet']),
			...(sprint.goal ? [] : ['no goal']),
			...(unowned ? [`${count(unowned, 'card')} without an owner`] : []),
			...(unsized ? [`${count(unsized, 'card')} without a size`] : []),
			...(blocked ? [`${count(blocked, 'card')} blocked`] : []),
			...(plan.over.length ? [`${count(plan.over.length, 'person', 'people')} over`] : []),
		];
	});
</script>

<footer>
	<span class="goal"
		><b>Goal</b>
		{#if lead}<button type="button" class="link" onclick={onsprint}
				>{sprint.goal || 'say what it is for'}</button
			>{:else}{sprint.goal || 'none yet'}{/if}</span
	>
	<span>{dateWords(sprint.starts, today)} to {dateWords(sprint.ends, today)}</span>
	{#if full !== null}<span class:warn={full > 100}>{full}% of the promise</span>{/if}
	<span class="state sentence">
		{#if sprint.startedAt}
			{#if today > sprint.ends}<b class="warn">Over, and not settled:</b>{:else}Running:{/if}
			<a class="link" href="/boards/{board.head.slug}/settle">settle it</a>.
		{:else}
			{missing.length ? list(missing) : 'Nothing is missing'}{#if plan.running}. Sprint {plan.running.number}
				{today > plan.running.ends ? 'is over' : 'is running'}: it is
				<a class="link" href="/boards/{board.head.slug}/settle">settled</a> before this one starts.{/if}
		{/if}
	</span>
	{#if !sprint.startedAt && !plan.running && lead}
		<button type="button" class="go" onclick={onstart}
			>Agree and start {board.head.sprintName.toLowerCase()} {sprint.number}</button
		>
	{/if}
</footer>

<style>
	footer {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 4px 22px;
		min-height: 54px;
		padding: 7px 20px;
		background: var(--sheet);
		border-top: 1px solid var(--rule);
		flex: none;
	}
	.goal .link {
		margin-left: 6px;
		text-align: left;
	}
	.state {
		flex: 1 1 200px;
		color: var(--soft);
		text-align: right;
		text-wrap: balance;
	}
	.link {
		min-height: var(--touch, auto);
	}
	@media (max-width: 700px) {
		footer {
			padding: 6px 12px;
		}
		.state {
			text-align: left;
		}
	}
</style>
