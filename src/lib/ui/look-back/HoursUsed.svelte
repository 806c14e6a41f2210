<script lang="ts">
	import type { ReportShown } from '$core/pages/look-back';
	import { amount, count } from '../words';
	import type { ReportFigures } from './report-figures.svelte';
	import { percent } from './sentences';
	import Tally from './Tally.svelte';

	interface Props {
		report: ReportShown;
		figures: ReportFigures;
	}
	/** What surprises took of what was kept back for them, and whose hours went into the sprint. */
	let { report, figures }: Props = $props();
	const { surprises, use } = $derived(report);
</script>

<section>
	{#if surprises}
		<h2>Surprises</h2>
		<p>
			<button
				type="button"
				class="link"
				disabled={!surprises.cards.length}
				onclick={() =>
					figures.pick(
						'Unplanned cards',
						surprises.cards.map((card) => ({ card, amount: null })),
					)}>{count(surprises.cards.length, 'unplanned card')}</button
			>
			took {amount(surprises.worked, 'hours')}{surprises.left
				? `, and ${amount(surprises.left, 'hours')} are left`
				: ''}; {amount(surprises.kept, 'hours')} were kept back.
			{#if surprises.worked + surprises.left > surprises.kept}<span class="warn"
					>That is more than was kept back.</span
				>{/if}
		</p>
	{/if}
	<h2>Use of hours</h2>
	<Tally
		look="river"
		rows={use.map((one) => ({
			name: one.name,
			value: one.raw ? one.worked / one.raw : 0,
			words: `${amount(one.worked, 'hours')} of ${amount(one.raw, 'hours')}${one.raw ? `, ${percent(one.worked / one.raw)}` : ''}`,
			onpick: one.cards
				? () => figures.ask(`${one.name}: ${amount(one.worked, 'hours')} in this sprint`, 'hours', one.person)
				: undefined,
		}))}
	/>
</section>

<style>
	p {
		margin: 2px 0;
	}
</style>
