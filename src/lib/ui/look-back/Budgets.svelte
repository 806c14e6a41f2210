<script lang="ts">
	import type { ReportShown } from '$core/pages/look-back';
	import type { Unit } from '$core/pages/board';
	import WorkBar from '../chart/WorkBar.svelte';
	import { amount } from '../words';

	interface Props {
		budgets: ReportShown['budgets'];
		unit: Unit;
		onpick: (budget: ReportShown['budgets'][number]) => void;
	}
	/** Hours of initiatives against their budgets; what is left counts on a board in hours. */
	let { budgets, unit, onpick }: Props = $props();
	const left = (one: ReportShown['budgets'][number]) => (unit === 'hours' ? one.left : 0);
	const most = $derived(
		Math.max(...budgets.map((one) => Math.max(one.worked + left(one), one.budget))) * 1.06,
	);
	const words = (one: ReportShown['budgets'][number]) => {
		const over = one.worked + left(one) - one.budget;
		return `${amount(one.worked, 'hours')} worked${left(one) ? ` and ${amount(left(one), 'hours')} left` : ''}, budget ${amount(one.budget, 'hours')}${
			over > 0 ? `: ${amount(over, 'hours')} over` : ''
		}`;
	};
</script>

<section aria-labelledby="budgets">
	<h2 id="budgets">
		Hours against budgets <small
			>of initiatives: worked, left, and the budget <i aria-hidden="true"></i></small
		>
	</h2>
	<ul>
		{#each budgets as one (one.initiative)}
			<li>
				<button type="button" disabled={!one.cards} onclick={() => onpick(one)}>
					<span class="name"
						>{one.initiative}<small>{amount(one.here, 'hours')} of it in this sprint</small></span
					>
					<span class="bar"
						><WorkBar worked={one.worked} left={left(one)} mark={one.budget} {most} /><small
							class:warn={one.worked + left(one) > one.budget}>{words(one)}</small
						></span
					>
				</button>
			</li>
		{/each}
	</ul>
</section>

<style>
	section {
		margin-bottom: 12px;
	}
	h2 {
		font-size: 1.12rem;
		margin: 0 0 4px;
	}
	h2 small {
		font: 400 0.93rem var(--text);
		margin-left: 6px;
	}
	h2 i {
		display: inline-block;
		width: 2px;
		height: 14px;
		margin-left: 2px;
		vertical-align: -2px;
		background: var(--ink);
	}
	small {
		color: var(--soft);
		font-size: 0.93rem;
		font-weight: 400;
	}
	small.warn {
		color: var(--brick);
	}
	ul {
		max-width: 900px;
	}
	button {
		display: grid;
		grid-template-columns: minmax(150px, 240px) minmax(0, 1fr);
		gap: 2px 18px;
		width: 100%;
		min-height: 44px;
		padding: 5px 0;
		border: 0;
		border-top: 1px dotted var(--rule);
		background: none;
		color: inherit;
		text-align: left;
	}
	button:not(:disabled):hover .name {
		color: var(--moss);
	}
	.name {
		font-weight: 600;
	}
	.name small {
		display: block;
	}
	@media (max-width: 560px) {
		button {
			grid-template-columns: minmax(0, 1fr);
		}
	}
</style>
