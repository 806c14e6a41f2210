<script lang="ts">
	import { arrangeable, type Arrangement } from '$core/board/arrange';
	import type { BoardState } from './board-state.svelte';

	interface Props {
		board: BoardState;
		arrangement: Arrangement;
		/** How the cards are read. */
		reading: Reading;
		/** Changes what the address says: of which a null goes out of it. */
		onlayout: (change: Record<string, string | null>) => void;
	}
	type Reading = 'cards' | 'list' | 'month' | 'tally';
	/** By what the cards are laid out and how they are read, as the end of the sentence that says which are shown. */
	let { board, arrangement, reading, onlayout }: Props = $props();
	const fields = $derived(arrangeable(board.fields));
	const small = (name: string) => name.toLowerCase();
	const laned = $derived(board.head.lanes.length > 0);
</script>

<span class="layout" role="group" aria-label="How the cards are laid out">
	{#if reading === 'cards' || reading === 'list'}
		{reading === 'list' ? 'in groups by' : 'by'}
		<select
			aria-label="Arranged by"
			value={arrangement.by?.id ?? ''}
			onchange={({ currentTarget: { value } }) => onlayout({ by: value || null })}
		>
			<option value="">{reading === 'list' ? 'nothing' : 'column'}</option>
			{#each fields.filter((field) => reading === 'list' || field.id !== 'column') as field (field.id)}<option
					value={field.id}>{small(field.name)}</option
				>{/each}
		</select>
	{/if}
	{#if reading === 'cards'}
		in
		<select
			aria-label="Lanes"
			value={arrangement.lanes?.id ?? ''}
			onchange={({ currentTarget: { value } }) =>
				onlayout({ lanes: value === 'lane' ? null : value || (laned ? 'none' : null) })}
		>
			<option value="">no lanes</option>
			{#if laned}<option value="lane">its lanes</option>{/if}
			{#each fields.filter(({ id }) => id !== 'lane' && id !== 'column' && id !== arrangement.by?.id) as field (field.id)}<option
					value={field.id}>lanes of {small(field.name)}</option
				>{/each}
		</select>
	{/if}
	as
	<select
		aria-label="Read as"
		value={reading}
		onchange={({ currentTarget: { value } }) => onlayout({ as: value === 'cards' ? null : value })}
	>
		<option value="cards">cards</option>
		<option value="list">a list</option>
		<option value="month">a month</option>
		<option value="tally">a tally</option>
	</select>
</span>

<style>
	.layout {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 2px 6px;
		font-size: 0.93rem;
		color: var(--soft);
	}
	select {
		font: inherit;
		color: var(--moss);
		background: none;
		border: 0;
		border-bottom: 1px solid var(--moss);
		border-radius: 0;
		padding: 2px 0;
		min-height: 26px;
		box-shadow: none;
		field-sizing: content;
		max-width: 170px;
		cursor: pointer;
	}
	option {
		color: var(--ink);
		background: var(--sheet);
	}
	@media (pointer: coarse) {
		select {
			min-height: 44px;
		}
	}
</style>
