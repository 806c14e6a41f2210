<script lang="ts">
	import { fsum } from 'd3-array';
	import { getContext } from 'svelte';
	import { page } from '$app/state';
	import { spentOver } from '$core/account/spent';
	import { NO_FILTER, withCondition, writeFilter } from '$core/board/filter';
	import { progressOf } from '$core/panorama/rows';
	import type { BoardState } from '$lib/ui/board/board-state.svelte';
	import CardsBehind from '$lib/ui/behind/CardsBehind.svelte';
	import WithBehind from '$lib/ui/behind/WithBehind.svelte';
	import Places from '$lib/ui/frame/Places.svelte';
	import InitiativeSettings from '$lib/ui/page/InitiativeSettings.svelte';
	import OwnPage from '$lib/ui/page/OwnPage.svelte';
	import SpentCurve from '$lib/ui/page/SpentCurve.svelte';
	import SpentTable from '$lib/ui/page/SpentTable.svelte';
	import { endWords, figuresOf, overWords } from '$lib/ui/panorama/words';
	import { amount, count, dateWords, figure } from '$lib/ui/words';

	let { data } = $props();
	const board = getContext<BoardState>('board');
	const head = $derived(board.head);
	const found = $derived(data.initiative);
	const one = $derived(found.figures);
	let shifting = $state(false);
	const boardOf = (id: string) => found.boards.find((known) => known.id === id);
	/** Where its cards stand on a board. */
	const cardsOn = (slug: string) => {
		const url = writeFilter(
			new URL(`/boards/${slug}`, page.url),
			withCondition(NO_FILTER, 'initiative', [one.name]),
		);
		return url.pathname + url.search;
	};
	const share = $derived(progressOf(found, one));
	const end = $derived(endWords(one, data.today));
	const over = $derived(overWords(found, one));
	const leads = $derived(head.people.find(({ id }) => id === one.lead)?.name);
	const works = $derived(head.role !== 'viewer' && !head.away);
	/** What is left of its cards on boards in hours: a budget in hours is beside it. */
	const left = $derived(fsum(one.parts, (part) => (boardOf(part.board)?.unit === 'hours' ? part.left : 0)));
	const hours = $derived(spentOver(found.spent, 'hours'));
	const money = $derived(one.money !== null && one.cost !== null ? spentOver(found.spent, 'cost') : null);
	let picked = $state.raw<{
		title: string;
		cards: { card: string; amount: number }[];
		unit: 'hours' | 'none';
	} | null>(null);
	const open = (key: string) => {
		const at = found.boards.find((known) => key.startsWith(`${known.key}-`));
		return `/boards/${at?.slug ?? head.slug}?card=${key.split('-')[1]}`;
	};
	const weekOf = (week: string) => `Worked in the week of ${dateWords(week, data.today)}`;
</script>

{#snippet behind()}
	{#if picked}<CardsBehind
			title={picked.title}
			cards={picked.cards}
			titles={found.titles}
			unit={picked.unit}
			{open}
			onclose={() => (picked = null)}
		/>{/if}
{/snippet}

<Places board={head} here="about">
	<a class="link" href="/boards/{head.slug}/about">About {head.name}</a>
	{#if head.people.some(({ id, gone }) => id === head.me && !gone)}<a
			class="link"
			href="/teams/{head.teamId}/panorama?from={head.slug}">Panorama</a
		>{/if}
</Places>
<div class="page">
	<WithBehind behind={picked ? behind : null}>
		<div class="text">
			<h2>{one.name}</h2>
			{#if one.retired}<p class="care">It is offered no more to new cards.</p>{/if}
			{#if one.purpose}<p class="purpose">{one.purpose}</p>{/if}
			<p>
				{#if one.stage}<b>{one.stage}.</b>{/if}
				{#if share !== null}<b>{figure(share * 100, 0)}% done:</b>{/if}
				{figuresOf(found, one)}; {amount(one.worked, 'hours')} worked{one.hours === null
					? ''
					: ` of ${amount(one.hours, 'hours')}`}{#if one.cost !== null && one.money !== null}, {Math.round(
						one.cost,
					).toLocaleString('en-GB')} of {one.money.toLocaleString('en-GB')} in money{/if}.
				{#if over}<span class="warn">It is {over}.</span>{/if}
				{#if one.money !== null && one.cost !== null && one.cost > one.money}<span class="warn"
						>It has cost {Math.round(one.cost - one.money).toLocaleString('en-GB')} more than its budget.</span
					>{/if}
			</p>
			<p>
				{[
					...(one.start ? [`Begins ${dateWords(one.start, data.today)}`] : []),
					...(one.target ? [`to be done by ${dateWords(one.target, data.today)}`] : []),
					...(leads ? [`led by ${leads}`] : []),
				]
					.join(', ')
					.replace(/^./, (first) => first.toUpperCase())}{one.start || one.target || leads ? '.' : ''}
				{#if one.doneBy}By how its cards have gone all of it is done by <b
						class={end?.tone === 'late' ? 'warn' : ''}>{dateWords(one.doneBy, data.today)}</b
					>
					(85%){end && one.target ? `, ${end.text}` : ''}.{:else if one.cards.all > one.cards.done}By when it
					will be done cannot be said: {one.finished === 0 ? 'none' : one.finished} of its cards {one.finished ===
					1
						? 'was'
						: 'were'} finished in 60 days, ten are needed.{/if}
			</p>
			<p>
				{#each found.boards as { slug, name } (slug)}<a class="link" href={cardsOn(slug)}
						>Its cards on {name}</a
					>{/each}
				<a class="link" href="/boards/{head.slug}/backlog?group=initiative">Its cards in the backlog</a>
				{#if works && !head.off.includes('dates')}<button
						type="button"
						class="link"
						onclick={() => (shifting = true)}>Shift its dates</button
					>{/if}
			</p>
			{#if head.role === 'lead' && !head.away}<InitiativeSettings
					{board}
					data={found}
					today={data.today}
				/>{/if}
		</div>
		{#if one.parts.length > 1}
			<table>
				<caption class="sr-only">Its cards by board</caption>
				<thead>
					<tr
						><th scope="col">Board</th><th scope="col">Cards</th><th scope="col">Done</th><th scope="col"
							>Burned</th
						><th scope="col">Left</th></tr
					>
				</thead>
				<tbody>
					{#each one.parts as part (part.board)}
						{@const at = boardOf(part.board)}
						<tr>
							<th scope="row"><a class="link" href={cardsOn(at?.slug ?? head.slug)}>{at?.name}</a></th>
							<td>{count(part.cards, 'card')}</td><td>{part.done}</td>
							<td>{amount(part.burned, at?.unit ?? 'none')}</td><td
								>{amount(part.left, at?.unit ?? 'none')}</td
							>
						</tr>
					{/each}
				</tbody>
			</table>
		{/if}
		{#if hours.length}
			<div class="charts">
				<SpentCurve
					title="Hours over time"
					points={hours}
					budget={one.hours}
					{left}
					end={one.doneBy ?? one.target}
					today={data.today}
					words={(n) => amount(n, 'hours')}
					onpick={(point) => (picked = { title: weekOf(point.week), cards: point.cards, unit: 'hours' })}
				/>
				{#if money}<SpentCurve
						title="Money over time"
						points={money}
						budget={one.money}
						left={null}
						end={one.doneBy ?? one.target}
						today={data.today}
						words={(n) => Math.round(n).toLocaleString('en-GB')}
						onpick={(point) => (picked = { title: weekOf(point.week), cards: point.cards, unit: 'none' })}
					/>{/if}
			</div>
			<SpentTable
				spent={found.spent}
				people={found.people}
				onpick={(what) => (picked = { ...what, unit: 'hours' })}
			/>
		{/if}
		<div class="text"><OwnPage {board} page={found.page} /></div>
	</WithBehind>
</div>
{#if shifting}
	{#await import('$lib/ui/dialogs/ShiftDialog.svelte') then { default: ShiftDialog }}
		<ShiftDialog
			{board}
			of="initiative"
			which={one.name}
			called={one.name}
			today={data.today}
			onclose={() => (shifting = false)}
		/>
	{/await}
{/if}

<style>
	.page {
		padding: 8px 20px 40px;
	}
	.text {
		max-width: 760px;
	}
	.charts {
		display: grid;
		gap: 10px 28px;
		grid-template-columns: repeat(auto-fit, minmax(min(100%, 460px), 1fr));
		max-width: 1180px;
		margin-top: 14px;
	}
	.charts > :global(div) {
		min-width: 0;
	}
	h2 {
		font-size: 1.4rem;
		margin: 6px 0;
	}
	p {
		margin: 0 0 8px;
	}
	.purpose {
		color: var(--soft);
		white-space: pre-line;
	}
	.link {
		margin-right: 16px;
		display: inline-block;
		min-height: max(24px, var(--touch, 0px));
	}
	table {
		border-collapse: collapse;
		margin: 8px 0;
	}
	th,
	td {
		text-align: left;
		padding: 2px 18px 2px 0;
		border-bottom: 1px dotted var(--rule);
	}
	thead th {
		color: var(--soft);
		font-weight: 600;
	}
	@media (max-width: 700px) {
		.page {
			padding: 8px 14px 30px;
		}
		td,
		th {
			padding-right: 10px;
		}
	}
</style>
