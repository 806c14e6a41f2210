<script lang="ts">
	import { fsum } from 'd3-array';
	import { OVER, UNDER, type PersonUse, type Used } from '$core/people/use';
	import type { DaysPage } from '$core/pages/days';
	import { calledAmong, figure, list, shortDate, wholeNames } from '../words';

	interface Props {
		page: DaysPage;
		/** The people who are shown. */
		people: readonly { id: string; name: string; title?: string }[];
	}
	/** How much of their hours people worked, by week or by month, with the average of all of it. */
	let { page, people }: Props = $props();
	let by = $state<'week' | 'month'>('week');
	const use = $derived(by === 'week' ? page.use.byWeek : page.use.byMonth);
	const firsts = $derived(by === 'week' ? page.use.weeks : page.use.months);
	const lines = $derived(
		people.flatMap(({ id, name }) => {
			const one = use.find(({ person }) => person === id);
			return one ? [{ name, ...one }] : [];
		}),
	);
	const standing = ({ use: n }: Used) => (n === null ? 'none' : n > OVER ? 'over' : n < UNDER ? 'under' : '');
	const percent = ({ use: n }: Used) => (n === null ? '—' : `${figure(n * 100, 0)}%`);
	const all = (pick: (one: PersonUse) => Used): Used => {
		const each = lines.map(pick);
		const [worked, hours] = [fsum(each, (one) => one.worked), fsum(each, (one) => one.hours)];
		return { worked, hours, use: hours > 0 ? worked / hours : null };
	};
	const title = (one: Used) => `${figure(one.worked, 1)} h worked of ${figure(one.hours, 1)} h`;
	const begin = (first: string) =>
		by === 'week'
			? shortDate(first)
			: new Date(`${first}T12:00`).toLocaleDateString('en-GB', { month: 'short', year: 'numeric' });
	const whole = $derived(wholeNames(people));
	const called = $derived(calledAmong(people));
	const named = (which: string) => {
		const found = lines.filter((one) => standing(one.all) === which);
		return found.length > 2 && found.length === lines.length
			? 'everybody'
			: list(found.map(({ person }) => called(person)));
	};
</script>

<section aria-labelledby="use">
	<h2 id="use">
		Use by
		<select class="choice" aria-label="Use by" bind:value={by}
			><option value="week">week</option><option value="month">month</option></select
		>
	</h2>
	<p>
		Worked of the hours there were, in the last {by === 'week'
			? `${firsts.length} whole weeks`
			: `${firsts.length} whole months`}:
		{percent(all((one) => one.all))} on average.
		{#if named('over')}<span class="warn">Over: {named('over')}.</span>{/if}
		{#if named('under')}<span class="care">Under {UNDER * 100}%: {named('under')}.</span>{/if}
	</p>
	<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
	<div class="scroll" role="region" aria-label="Use by {by}" tabindex="0">
		<table>
			<thead>
				<tr>
					<th scope="col">Use</th>
					{#each firsts as first (first)}<th scope="col">{begin(first)}</th>{/each}
					<th scope="col">average</th>
				</tr>
			</thead>
			<tbody>
				{#each lines as line (line.person)}
					<tr>
						<th scope="row">{whole(line.person)}</th>
						{#each line.each as one, i (i)}<td class={standing(one)} title={title(one)}>{percent(one)}</td
							>{/each}
						<td class="all {standing(line.all)}" title={title(line.all)}>{percent(line.all)}</td>
					</tr>
				{/each}
			</tbody>
			<tfoot>
				<tr>
					<th scope="row">All of them</th>
					{#each firsts as first, i (first)}{@const one = all((line) => line.each[i]!)}<td title={title(one)}
							>{percent(one)}</td
						>{/each}
					<td class="all">{percent(all((one) => one.all))}</td>
				</tr>
			</tfoot>
		</table>
	</div>
</section>

<style>
	h2 {
		font-size: 1.15rem;
		margin: 22px 0 2px;
	}
	p {
		margin: 0 0 6px;
	}
	.scroll {
		overflow-x: auto;
	}
	table {
		border-collapse: collapse;
	}
	th,
	td {
		padding: 3px 14px 3px 0;
		text-align: right;
		border-bottom: 1px dotted var(--rule);
		white-space: nowrap;
	}
	th:first-child {
		text-align: left;
		position: sticky;
		left: 0;
		background: var(--paper);
	}
	thead th,
	tfoot td {
		color: var(--soft);
		font-weight: 600;
	}
	td.over {
		color: var(--brick);
		font-weight: 700;
	}
	td.under {
		color: var(--ochre);
	}
	td.none {
		color: var(--faint);
	}
	.all {
		font-weight: 650;
	}
</style>
