<script lang="ts">
	import { REASONS } from '$core/events/reasons';
	import type { Unit } from '$core/pages/board';
	import type { ReportShown } from '$core/pages/look-back';
	import Gradual from '../frame/Gradual.svelte';
	import { amount, momentWords } from '../words';
	import { MOVED } from './sentences';

	interface Props {
		report: ReportShown;
		unit: Unit;
		timeZone: string;
		/** The address of a card. */
		open: (key: string) => string;
	}
	/** The cards of a sprint: what was finished, what was not, and what changed its scope. */
	let { report, unit, timeZone, open }: Props = $props();
	const DECIDED = { carry: 'carried', split: 'split', backlog: 'back to the backlog', drop: 'dropped' };

	const scopeAmount = ({ kind, amount: by }: (typeof report.scope)[number]) =>
		kind === 'resized' ? `${by > 0 ? '+' : '−'}${amount(Math.abs(by), unit)}` : amount(by, unit);
</script>

{#snippet called(card: string, more = '')}
	<a href={open(card)} data-sveltekit-noscroll data-sveltekit-keepfocus
		><b>{card}</b>
		{report.titles[card]}{#if more}<br /><span class="soft">{more}</span>{/if}</a
	>
{/snippet}
{#snippet finishedRow(stint: (typeof report.finished)[number])}
	<li>
		{@render called(stint.card)}<small>{amount(stint.burned, unit)}{stint.planned ? '' : ', unplanned'}</small
		>
	</li>
{/snippet}
{#snippet unfinishedRow(one: (typeof report.unfinished)[number])}
	<li>
		{@render called(one.card, one.reason === 'other' ? one.words : REASONS[one.reason])}<small
			>{DECIDED[one.decision]}{unit === 'none' ? '' : `, ${amount(one.left, unit)}`}</small
		>
	</li>
{/snippet}
{#snippet scopeRow(change: (typeof report.scope)[number])}
	<li>
		{@render called(change.card, `${momentWords(change.at, timeZone)}, ${change.who ?? 'someone'}`)}<small
			>{MOVED[change.kind]} {scopeAmount(change)}</small
		>
	</li>
{/snippet}

<section id="finished">
	<h2>Finished</h2>
	{#if report.finished.length}<ul class="amounts">
			<Gradual
				list={report.finished}
				key={(stint) => stint.card + stint.opened}
				row={finishedRow}
				as="li"
				px={27}
			/>
		</ul>{:else}<p>{report.closed ? 'Nothing was finished.' : 'Nothing yet.'}</p>{/if}
</section>
<section>
	<h2>Not finished</h2>
	{#if report.unfinished.length}<ul class="amounts">
			<Gradual list={report.unfinished} key={({ card }) => card} row={unfinishedRow} as="li" px={48} />
		</ul>{:else}<p>
			{report.closed ? 'Everything was finished.' : 'Decided when it is settled.'}
		</p>{/if}
</section>
<section>
	<h2>Changes of scope</h2>
	{#if report.scope.length}<ul class="amounts">
			<Gradual list={report.scope} key={(_, place) => place} row={scopeRow} as="li" px={48} />
		</ul>{:else}<p>Its scope never changed.</p>{/if}
</section>

<style>
	small {
		flex: 0 0 auto;
		max-width: 45%;
		text-align: right;
		color: var(--soft);
		font-size: 0.93rem;
	}
	p {
		margin: 2px 0;
	}
</style>
