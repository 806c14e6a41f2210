<script lang="ts">
	import { arrangeable, sortText, type Arrangement, type SortKey } from '$core/board/arrange';
	import type { BoardState } from './board-state.svelte';

	interface Props {
		board: BoardState;
		arrangement: Arrangement;
		/** How the cards are read. */
		reading: Reading;
		/** Changes what the address says: of which a null goes out of it. */
		onlayout: (change: Record<string, string | null>) => void;
		/** Asks what cards show. */
		onface: () => void;
		/** A moment of the past is looked at. */
		past: boolean;
		/** Asks for such a moment; from one, goes back to now. */
		onpast: () => void;
	}
	type Reading = 'cards' | 'list' | 'month' | 'tally';
	/** By what the cards are laid out and how they are read, as the end of the sentence that says which are shown. */
	let { board, arrangement, reading, onlayout, onface, past, onpast }: Props = $props();
	const fields = $derived(arrangeable(board.fields));
	const small = (name: string) => name.toLowerCase();
	/** Somebody is about to choose another order. */
	let ordering = $state(false);
	/** Orders by another field in a place, or by none there. */
	function order(place: number, key: SortKey | ''): void {
		const keys = [...arrangement.sort];
		if (key) keys[place] = key;
		else keys.splice(place, 1);
		onlayout({ sort: sortText(keys) || null });
	}
	const laned = $derived(board.head.lanes.length > 0);
</script>

<span class="layout" role="group" aria-label="How the cards are laid out">
	{#if reading === 'cards' || reading === 'list'}
		{reading === 'list' ? 'in groups by' : 'by'}
		<select
			class="choice"
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
			class="choice"
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
	{#if reading === 'cards' && !ordering && !arrangement.sort.length}
		in <button type="button" class="link" onclick={() => (ordering = true)}>their order</button>
	{:else if reading === 'cards'}
		in order of
		{#each [...arrangement.sort, null] as key, i (i)}
			{#if i === 0 || key || i === arrangement.sort.length}
				{#if i > 0}then{/if}
				<select
					class="choice"
					aria-label={i ? `Then ordered by, ${i + 1}` : 'Ordered by'}
					value={key?.field ?? ''}
					onchange={({ currentTarget: { value } }) => order(i, value && { field: value, down: false })}
				>
					<option value="">{i ? '…' : 'their place'}</option>
					{#each board.fields.filter(({ id }) => id === key?.field || !arrangement.sort.some(({ field }) => field === id)) as field (field.id)}<option
							value={field.id}>{small(field.name)}</option
						>{/each}
				</select>{#if key}<button
						type="button"
						class="link"
						aria-label="Turn the order round: {key.down ? 'last first' : 'first first'}"
						onclick={() => order(i, { ...key, down: !key.down })}>{key.down ? '↓' : '↑'}</button
					>{/if}
			{/if}
		{/each}
	{/if}
	as
	<select
		class="choice"
		aria-label="Read as"
		value={reading}
		onchange={({ currentTarget: { value } }) => onlayout({ as: value === 'cards' ? null : value })}
	>
		<option value="cards">cards</option>
		<option value="list">a list</option>
		<option value="month">a month</option>
		<option value="tally">a tally</option>
	</select>
	{#if reading === 'cards'}<button type="button" class="link" onclick={onface}>with…</button>{/if}
	<button type="button" class="link" onclick={onpast}>{past ? 'Back to now' : 'now'}</button>
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
		max-width: 170px;
	}
</style>
