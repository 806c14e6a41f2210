<script lang="ts">
	import {
		conditionWords,
		isNarrow,
		NO_FILTER,
		offeredOf,
		withCondition,
		type Condition,
		type Filter,
	} from '$core/board/filter';
	import type { PersonView } from '$core/pages/board';
	import { wholeNames } from '../words';
	import type { BoardState } from './board-state.svelte';
	import Conditions from './Conditions.svelte';

	interface Props {
		board: BoardState;
		filter: Filter;
		onfilter: (filter: Filter) => void;
	}
	/** Which cards are shown, as a sentence whose words can be changed. */
	let { board, filter, onfilter }: Props = $props();
	const people = $derived(board.head.people as PersonView[]);
	const called = $derived(wholeNames(people));
	const conditionOn = (field: string) => filter.where.find((one) => one.field === field);
	const owners = $derived(conditionOn('owners'));
	const blocked = $derived(conditionOn('blocked'));
	/** What the two choices cannot say is said in words beside them. */
	const EVERYONE = 'everyone';
	const whose = $derived(
		!owners ? EVERYONE : owners.any.length === 1 && !owners.not ? owners.any[0]! : 'several',
	);
	const blockedOrNot = $derived(!blocked ? '' : (blocked.any[0] === 'yes') !== blocked.not ? 'yes' : 'no');
	const others = $derived(
		filter.where.filter(({ field }) => field !== 'blocked' && (field !== 'owners' || whose === 'several')),
	);
	const narrow = (field: string, any: string[], not = false) =>
		onfilter(withCondition(filter, field, any, not));
	const offered = $derived(offeredOf(board.fields));
	const words = (condition: Condition) =>
		conditionWords(board.fields, condition) ?? 'a field that is no more';
</script>

<form class="filter" onsubmit={(event) => event.preventDefault()} aria-label="Which cards are shown">
	<span class="words">Showing</span>
	<select
		class="choice"
		aria-label="Whose cards"
		value={whose}
		onchange={({ currentTarget: { value } }) =>
			value !== 'several' && narrow('owners', value === EVERYONE ? [] : [value])}
	>
		<option value={EVERYONE}>everyone’s cards</option>
		<option value="~mine">my cards</option>
		<option value="~mine-or-nobodys">mine or nobody’s</option>
		<option value="">cards of nobody</option>
		{#if whose === '~several'}<option value="~several">cards of several</option>{/if}
		{#if whose === 'several'}<option value="several">cards of some</option>{/if}
		{#each people.filter((person) => person.role !== 'viewer' && !person.gone) as person (person.id)}<option
				value={person.id}>{called(person.id)}’s cards</option
			>{/each}
	</select>
	<select
		class="choice"
		aria-label="Blocked or not"
		value={blockedOrNot}
		onchange={({ currentTarget: { value } }) => narrow('blocked', value ? ['yes'] : [], value === 'no')}
	>
		<option value="">blocked or not</option>
		<option value="yes">that are blocked</option>
		<option value="no">that are not blocked</option>
	</select>
	<input
		class="choice"
		type="search"
		aria-label="With these words"
		placeholder="with these words"
		value={filter.text}
		oninput={(event) => onfilter({ ...filter, text: event.currentTarget.value })}
	/>
	{#each others as condition, i (i)}
		<button
			type="button"
			class="link"
			title="Let it go"
			aria-label="Let go: {words(condition)}"
			onclick={() => narrow(condition.field, [])}
			>{words(condition)}
			<span aria-hidden="true">×</span></button
		>
	{/each}
	<Conditions {offered} where={filter.where} {words} onwhere={(where) => onfilter({ ...filter, where })} />
	{#if isNarrow(filter)}<button type="button" class="link" onclick={() => onfilter(NO_FILTER)}
			>Show all</button
		>{/if}
</form>

<style>
	.filter {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		justify-content: flex-end;
		gap: 2px 8px;
		font-size: 0.93rem;
		color: var(--soft);
	}
	select {
		max-width: 190px;
	}
	input {
		width: 112px;
		cursor: auto;
		field-sizing: fixed;
	}
	input::placeholder {
		color: var(--moss);
		opacity: 1;
	}
	.link {
		min-height: max(26px, var(--touch, 0px));
	}
	@media (max-width: 700px) {
		.filter {
			justify-content: flex-start;
		}
		.words {
			display: none;
		}
	}
</style>
