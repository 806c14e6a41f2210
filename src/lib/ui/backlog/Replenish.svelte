<script lang="ts">
	import type { CardView, ColumnView } from '$core/pages/board';
	import { count } from '../words';

	interface Props {
		/** The first column of the board, and how many cards it holds. */
		column: ColumnView;
		standing: number;
		/** The cards that come next. */
		next: readonly CardView[];
		/** Whether anything waits. */
		waiting: boolean;
		keysOn: boolean;
		/** Pulls those that come next; nothing for those who may not. */
		onpull?: () => void;
	}
	/** On a board without sprints: what its first column can still take. */
	let { column, standing, next, waiting, keysOn, onpull }: Props = $props();
</script>

<p>
	{#if column.limit === null}<b>{column.name}</b> has no limit, so nothing says how much to pull: pick what is
		to come next{keysOn ? ', or press U on it' : ''}.
	{:else if next.length}
		<b>{column.name}</b> has {standing} of {column.limit} slots taken.
		{#if onpull}<button type="button" class="go" onclick={onpull}
				>Pull {count(next.length, 'card')} into it</button
			>{/if}
		<small>next: {next.map((card) => card.number).join(', ')}, by class of service, then as they stand</small>
	{:else if waiting}<b>{column.name}</b> is full ({standing} of {column.limit}): finish something before
		pulling more. What cannot wait is picked and let through with a reason.{/if}
</p>

<style>
	p {
		margin: 0;
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 4px 10px;
	}
	small {
		color: var(--soft);
	}
</style>
