<script lang="ts">
	import type { PersonView } from '$core/pages/board';
	import { isNarrow, type Filter } from '$core/board/filter';

	let {
		filter,
		people,
		onfilter,
	}: { filter: Filter; people: PersonView[]; onfilter: (filter: Filter) => void } = $props();
	const set = (change: Partial<Filter>) => onfilter({ ...filter, ...change });
</script>

<form class="filter" onsubmit={(event) => event.preventDefault()} aria-label="Which cards are shown">
	<span class="words">Showing</span>
	<select
		aria-label="Whose cards"
		value={filter.owner}
		onchange={(event) => set({ owner: event.currentTarget.value })}
	>
		<option value="">everyone’s cards</option>
		<option value="nobody">cards of nobody</option>
		{#each people.filter((person) => person.role !== 'viewer' && !person.gone) as person (person.id)}<option
				value={person.id}>{person.name}’s cards</option
			>{/each}
	</select>
	<select
		aria-label="Blocked or not"
		value={filter.blocked ? 'blocked' : ''}
		onchange={(event) => set({ blocked: event.currentTarget.value === 'blocked' })}
	>
		<option value="">blocked or not</option>
		<option value="blocked">that are blocked</option>
	</select>
	<input
		type="search"
		aria-label="With these words"
		placeholder="with these words"
		value={filter.text}
		oninput={(event) => set({ text: event.currentTarget.value })}
	/>
	{#if isNarrow(filter)}<button
			type="button"
			class="link"
			onclick={() => onfilter({ text: '', owner: '', blocked: false, outside: false })}>Show all</button
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
	select,
	input {
		font: inherit;
		color: var(--moss);
		background: transparent;
		border: 0;
		border-bottom: 1px solid var(--moss);
		border-radius: 0;
		padding: 2px 0;
		min-height: 26px;
		box-shadow: none;
	}
	select {
		field-sizing: content;
		background-image: none;
		max-width: 190px;
		cursor: pointer;
	}
	select option {
		color: var(--ink);
		background: var(--sheet);
	}
	input {
		width: 118px;
	}
	input::placeholder {
		color: var(--moss);
		opacity: 1;
	}
	@media (pointer: coarse) {
		select,
		input {
			min-height: 44px;
		}
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
