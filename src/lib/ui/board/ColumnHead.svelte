<script lang="ts">
	import type { ColumnView } from '$core/pages/board';
	import Slots from './Slots.svelte';

	interface Props {
		column: ColumnView;
		/** How many cards stand there, filtered or not. */
		standing: number;
		/** Why a card there was let through. */
		through: string | null;
		note: string;
		mayChange: boolean;
		onsettings: () => void;
		/** It is called otherwise; false when that was refused. */
		oncalled: (name: string) => Promise<boolean>;
	}
	/** What stands above the cards of a column. */
	let { column, standing, through, note, mayChange, onsettings, oncalled }: Props = $props();

	/** Whether its name is being typed. */
	let naming = $state(false);
	async function call(input: HTMLInputElement): Promise<void> {
		const name = input.value.trim();
		if (!naming) return;
		if (!name || name === column.name || (await oncalled(name))) naming = false;
		else input.select();
	}
	const take = (input: HTMLInputElement) => input.select();
</script>

<header>
	{#if naming}<input
			class="naming"
			aria-label="Name of {column.name}"
			maxlength="40"
			value={column.name}
			{@attach take}
			onblur={(event) => void call(event.currentTarget)}
			onkeydown={(event) => {
				event.stopPropagation();
				if (event.key === 'Enter') event.currentTarget.blur();
				if (event.key === 'Escape') naming = false;
			}}
		/>{/if}
	<h2 id="column-{column.id}" class:sr-only={naming} ondblclick={() => (naming = mayChange)}>
		{column.name}
	</h2>
	{#if column.limit !== null}<Slots limit={column.limit} {standing} />{/if}
	<small>{note}</small>
	{#if mayChange}
		<button
			type="button"
			class="settings"
			onclick={onsettings}
			onkeydown={(event) => {
				if (event.key !== 'F2') return;
				event.preventDefault();
				naming = true;
			}}
			aria-label="Limit and policy of {column.name}"
			title="Limit and policy; F2 renames it">⋯</button
		>
	{/if}
</header>
{#if through}<p class="through">let through: {through}</p>{/if}
{#if column.policy}<p class="policy" title={column.policy}>{column.policy}</p>{/if}

<style>
	.naming {
		flex: 1;
		min-width: 60px;
		font: 650 1.1rem var(--display);
		color: var(--ink);
		background: var(--sheet);
		border: 0;
		border-bottom: 2px solid var(--moss);
		padding: 0 2px;
	}
	header {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 2px 8px;
		padding-right: 34px;
		position: relative;
	}
	h2 {
		font-size: 1.1rem;
		overflow-wrap: anywhere;
	}
	small {
		font-size: 12px;
		color: var(--faint);
	}
	.settings {
		border: 0;
		background: none;
		color: var(--soft);
		font-weight: 700;
		min-width: 24px;
		min-height: 24px;
		padding: 0 4px;
		position: absolute;
		top: -1px;
		right: 8px;
	}
	.through,
	.policy {
		margin: 2px 10px 0 0;
		font-size: 12px;
		color: var(--faint);
	}
	.through {
		color: var(--brick);
	}
	.policy {
		display: -webkit-box;
		-webkit-line-clamp: 2;
		line-clamp: 2;
		-webkit-box-orient: vertical;
		overflow: hidden;
	}
	@media (pointer: coarse) {
		header {
			min-height: 44px;
			padding-right: 52px;
		}
		.settings {
			min-width: 44px;
			min-height: 44px;
		}
	}
</style>
