<script lang="ts">
	import { amount, count, figure } from '../words';

	interface Props {
		/** Points left in all, and what the team can take on; 0 where that is not known yet. */
		left: number;
		promise: number;
		people: number;
		dropping: boolean;
	}
	/** On a board in points: the whole team against its promise. */
	let { left, promise, people, dropping }: Props = $props();
	const end = $derived(Math.max(5, promise, left) * 1.06);
	const over = $derived(promise > 0 && left > promise);
</script>

<div class="side">
	<b>The team</b>
	<small>{count(people, 'person', 'people')}</small>
</div>
<div
	class="whole"
	class:dropping
	data-person="team"
	role="group"
	aria-label="The team: {amount(left, 'points')}"
>
	<span class="fill" class:over style:width="{(left / end) * 100}%"></span>
	{#if promise > 0}<span class="line" style:left="{(promise / end) * 100}%"></span>{/if}
</div>
<div class="side">
	<span class:warn={over}>{figure(left)}{promise > 0 ? ` of ${amount(promise, 'points')}` : ' pt'}</span>
</div>

<style>
	.side {
		display: flex;
		flex-direction: column;
		justify-content: center;
	}
	small {
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
	.line {
		position: absolute;
		inset: -4px auto -4px;
		width: 2.5px;
		background: var(--ink);
	}
	.dropping {
		outline: 2.5px solid var(--river);
	}
	@media (max-width: 900px) {
		.whole {
			grid-column: 1 / -1;
			margin-bottom: 10px;
		}
	}
</style>
