<script lang="ts">
	import { fsum } from 'd3-array';
	import { goto } from '$app/navigation';
	import { page as here } from '$app/state';
	import type { BehindAccount, NamedLine } from '$core/pages/account';
	import type { BehindCard } from '$core/pages/look-back';
	import { GROUPINGS, type Grouping } from '$core/account/account';
	import DateField from '$lib/ui/form/DateField.svelte';
	import TeamFrame from '$lib/ui/frame/TeamFrame.svelte';
	import { percent } from '$lib/ui/look-back/sentences';
	import { Behind } from '$lib/ui/behind/behind.svelte';
	import CardsBehind from '$lib/ui/behind/CardsBehind.svelte';
	import WithBehind from '$lib/ui/behind/WithBehind.svelte';
	import { Doing } from '$lib/ui/team/doing.svelte';
	import Said from '$lib/ui/team/Said.svelte';
	import { amount, dateWords, figure } from '$lib/ui/words';

	let { data } = $props();
	const page = $derived(data.page);
	const { account, team } = $derived(page);
	const lead = $derived(page.role === 'lead');
	const total = $derived(account.total);
	const most = $derived(Math.max(1e-6, ...account.lines.map((line) => Math.max(line.hours, line.before))));
	const doing = new Doing('harrow:account');
	const opened = new Behind<BehindCard>((text) => (doing.message = { text, tone: 'warn' }));
	const picked = $derived(opened.figure);
	/** Opens what was worked or is placed: of a line, of somebody, or all of it. */
	function pick(title: string, of: BehindAccount, which: string | null = null, by: Grouping = page.by): void {
		const initiative = of === 'worked' && by === 'initiative' ? which : null;
		const board = team.boards[0];
		const link =
			initiative && board
				? { href: `/boards/${board.slug}/initiatives/${initiative}`, words: 'Its page' }
				: undefined;
		const query = new URLSearchParams({
			from: page.from,
			to: page.to,
			by,
			of,
			...(which !== null && { which }),
		});
		void opened.open(title, `/teams/${team.id}/account/cards?${query}`, link);
	}
	const NAMES = {
		person: 'Person',
		board: 'Board',
		initiative: 'Initiative',
		label: 'Label',
		type: 'Type',
		sprint: 'Sprint',
		month: 'Month',
		quarter: 'Quarter',
	};
	const NONE = {
		person: 'nobody',
		board: 'no board',
		initiative: 'no initiative',
		label: 'no label',
		type: 'no type',
		sprint: 'outside of a sprint',
		month: 'no month',
		quarter: 'no quarter',
	};
	const nameOf = (line: NamedLine) => line.name || NONE[page.by];
	const money = (n: number | null, unrated: number) =>
		n === null ? (unrated ? 'no rate' : '') : `${team.currency} ${Math.round(n).toLocaleString('en-GB')}`;
	const change = (line: Pick<NamedLine, 'hours' | 'before'>) =>
		!line.hours
			? 'none now'
			: line.before
				? percent((line.hours - line.before) / line.before)
						.replace(/^(\d)/, '+$1')
						.replace('-', '−')
				: 'new';
	const available = $derived(fsum(page.use, (one) => one.available));
	const inUse = $derived(available ? total.hours / available : null);
	const overBudget = $derived(
		Object.entries(page.budgets).filter(([, one]) => one.worked + one.left > one.budget),
	);

	function ask(change: Record<string, string>): void {
		const url = new URL(here.url);
		for (const [key, value] of Object.entries(change)) url.searchParams.set(key, value);
		opened.close();
		void goto(url, { keepFocus: true, noScroll: true });
	}
	const range = $derived(page.ranges.find((one) => one.from === page.from && one.to === page.to)?.name ?? '');
	const open = (key: string) => {
		const board = team.boards.find((one) => key.startsWith(`${one.key}-`));
		return `/boards/${board?.slug ?? ''}?card=${key}`;
	};
	const file = $derived(`/teams/${team.id}/account/file?from=${page.from}&to=${page.to}&by=${page.by}`);
</script>

{#snippet behind()}
	{#if picked}
		<CardsBehind
			title={picked.title}
			cards={picked.cards}
			titles={Object.fromEntries(picked.cards.map(({ card, title }) => [card, title]))}
			unit="hours"
			link={picked.link}
			{open}
			onclose={opened.close}
		/>
	{/if}
{/snippet}

<TeamFrame person={data.person!} {team} boards={team.boards} here="Account">
	{#snippet right()}
		<span class="range">
			<select
				class="choice"
				aria-label="Range"
				value={range}
				onchange={(event) => {
					const one = page.ranges.find((known) => known.name === event.currentTarget.value);
					if (one) ask({ from: one.from, to: one.to });
				}}
			>
				{#if !range}<option value="">a range of its own</option>{/if}
				{#each page.ranges as one (one.name)}<option value={one.name}>{one.name}</option>{/each}
			</select>
			<span
				>from <DateField
					id="account-from"
					label="From"
					value={page.from}
					max={page.to}
					today={page.today}
					onchange={(from) => ask({ from, to: page.to })}
				/></span
			>
			<span
				>to <DateField
					id="account-to"
					label="To"
					value={page.to}
					min={page.from}
					today={page.today}
					onchange={(to) => ask({ from: page.from, to })}
				/></span
			>
			<label
				>by <select
					class="choice"
					value={page.by}
					onchange={(event) => ask({ by: event.currentTarget.value })}
					>{#each GROUPINGS as by (by)}<option value={by}>{NAMES[by].toLowerCase()}</option>{/each}</select
				></label
			>
			<a class="link" href={file} download>CSV</a>
		</span>
	{/snippet}
	<main>
		<h1>
			<b>{amount(total.hours, 'hours')}</b> worked from {dateWords(page.from, page.today)} to {dateWords(
				page.until,
				page.today,
			)}{total.billable ? `, ${amount(total.billable, 'hours')} of it billable` : ''}{lead &&
			total.cost !== null
				? `; it cost ${money(total.cost, 0)}`
				: ''}. Before that, from {dateWords(page.before.from, page.today)} to {dateWords(
				page.before.to,
				page.today,
			)}, it was {amount(total.before, 'hours')}.
			{#if inUse !== null}<b>{percent(inUse)}</b> of everyone’s hours went into cards.{/if}
			{#if lead && total.unrated}<span class="care">{amount(total.unrated, 'hours')} have no rate.</span>{/if}
			{#each overBudget as [id, one] (id)}<span class="warn over"
					>{one.name}
					{one.worked > one.budget ? 'is' : 'will be'} over its budget: {amount(one.worked, 'hours')} worked and
					{amount(one.left, 'hours')} left of
					{amount(one.budget, 'hours')}.</span
				>
			{/each}
		</h1>
		<WithBehind behind={picked ? behind : null}>
			{#if account.lines.length}
				<div class="scroll">
					<table>
						<thead>
							<tr>
								<th scope="col">{NAMES[page.by]}</th>
								<th scope="col"><span class="sr-only">Hours now and before</span></th>
								<th scope="col">Hours</th>
								<th scope="col">Billable</th>
								{#if lead}<th scope="col">Cost</th>{/if}
								<th scope="col">Before</th>
								<th scope="col">Change</th>
								{#if page.by === 'initiative'}<th scope="col">Budget</th>{/if}
							</tr>
						</thead>
						<tbody>
							{#each account.lines as line (line.about)}
								<tr>
									<th scope="row"
										>{#if line.hours}<button
												type="button"
												class="link"
												onclick={() => pick(nameOf(line), 'worked', line.about)}>{nameOf(line)}</button
											>{:else}{nameOf(line)}{/if}</th
									>
									<td class="bar" aria-hidden="true"
										><i class="before" hidden={!line.before} style:width="{(line.before / most) * 100}%"
										></i><i class="now" style:width="{(line.hours / most) * 100}%"></i></td
									>
									<td class="figure">{amount(line.hours, 'hours')}</td>
									<td class="figure">{line.billable ? amount(line.billable, 'hours') : ''}</td>
									{#if lead}<td class="figure"
											>{money(line.cost, line.unrated)}{line.cost !== null && line.unrated
												? ` (${figure(line.unrated)} h without a rate)`
												: ''}</td
										>{/if}
									<td class="figure">{line.before ? amount(line.before, 'hours') : ''}</td>
									<td class="figure">{change(line)}</td>
									{#if page.by === 'initiative'}
										{@const budget = page.budgets[line.about]}
										<td class="figure" class:warn={budget && budget.worked + budget.left > budget.budget}
											>{budget
												? `${amount(budget.worked, 'hours')} of ${amount(budget.budget, 'hours')}${budget.worked + budget.left > budget.budget ? ', over' : ''}`
												: ''}</td
										>
									{/if}
								</tr>
							{/each}
						</tbody>
						<tfoot>
							<tr>
								<th scope="row"
									><button type="button" class="link" onclick={() => pick('All cards', 'worked')}
										>{page.by === 'label' ? 'All, each card once' : 'All'}</button
									></th
								>
								<td></td>
								<td class="figure">{amount(total.hours, 'hours')}</td>
								<td class="figure">{amount(total.billable, 'hours')}</td>
								{#if lead}<td class="figure">{money(total.cost, total.unrated)}</td>{/if}
								<td class="figure">{amount(total.before, 'hours')}</td>
								<td class="figure">{change(total)}</td>
								{#if page.by === 'initiative'}<td></td>{/if}
							</tr>
						</tfoot>
					</table>
				</div>
			{:else}
				<p>No time was logged in this range, nor in the one before.</p>
			{/if}
			<h2>Use of people’s hours</h2>
			<p>
				Worked and placed as shares of the hours that everyone works in this range, absences and holidays left
				out.
			</p>
			<div class="scroll">
				<table>
					<thead>
						<tr>
							<th scope="col">Person</th>
							<th scope="col"><span class="sr-only">Use and planned use</span></th>
							<th scope="col">Worked</th>
							<th scope="col">Of</th>
							<th scope="col">Use</th>
							<th scope="col">Placed</th>
							<th scope="col">Planned use</th>
						</tr>
					</thead>
					<tbody>
						{#each page.use as one (one.person)}
							<tr>
								<th scope="row"
									>{#if one.worked}<button
											type="button"
											class="link"
											onclick={() => pick(`${one.name}: worked`, 'worked', one.person, 'person')}
											>{one.name}</button
										>{:else}{one.name}{/if}</th
								>
								<td class="bar" aria-hidden="true"
									><i class="placed" hidden={!one.placed} style:width="{Math.min(1, one.planned ?? 0) * 100}%"
									></i><i class="now" style:width="{Math.min(1, one.use ?? 0) * 100}%"></i></td
								>
								<td class="figure">{amount(one.worked, 'hours')}</td>
								<td class="figure">{amount(one.available, 'hours')}</td>
								<td class="figure" class:warn={(one.use ?? 0) > 1}
									>{one.use === null ? 'no hours' : percent(one.use)}</td
								>
								<td class="figure"
									>{#if one.placed}<button
											type="button"
											class="link"
											aria-label="{amount(one.placed, 'hours')} placed on {one.name}"
											onclick={() => pick(`${one.name}: placed`, 'placed', one.person)}
											>{amount(one.placed, 'hours')}</button
										>{/if}</td
								>
								<td class="figure">{one.placed ? percent(one.planned) : ''}</td>
							</tr>
						{/each}
					</tbody>
				</table>
			</div>
		</WithBehind>
	</main>
	<Said {doing} />
</TeamFrame>

<style>
	main {
		flex: 1;
		min-height: 0;
		overflow-y: auto;
		padding: 0 20px 30px;
	}
	h1 {
		font: 1rem/1.4 var(--text);
		letter-spacing: 0;
		padding: 9px 0 10px;
	}
	.over {
		margin-left: 4px;
	}
	h2 {
		font-size: 1.12rem;
		margin: 22px 0 2px;
	}
	p {
		margin: 0 0 6px;
		color: var(--soft);
	}
	.range {
		display: flex;
		flex-wrap: wrap;
		gap: 2px 14px;
		align-items: center;
		font-size: 0.93rem;
		color: var(--soft);
	}
	.scroll {
		overflow-x: auto;
	}
	table {
		border-collapse: collapse;
		width: 100%;
		max-width: 1080px;
	}
	th,
	td {
		padding: 0 10px 0 0;
		padding-block: max(0px, 5px - var(--touch, 0px));
		border-bottom: 1px solid var(--rule);
		text-align: left;
		font-weight: 400;
		white-space: nowrap;
	}
	thead th {
		font-size: 12px;
		color: var(--soft);
		border-bottom: 2px solid var(--ink);
	}
	tbody th {
		font-weight: 600;
	}
	tfoot :is(th, td) {
		font-weight: 700;
	}
	.figure {
		text-align: right;
	}
	thead th:nth-child(n + 3) {
		text-align: right;
	}
	.bar {
		position: relative;
		width: 26%;
		min-width: 90px;
	}
	.bar i {
		display: block;
		height: 7px;
	}
	.now {
		background: var(--moss);
	}
	.before,
	.placed {
		background: var(--river-2);
		border-right: 1px solid var(--river);
	}
	@media (max-width: 900px) {
		main {
			padding: 0 12px 24px;
		}
	}
</style>
