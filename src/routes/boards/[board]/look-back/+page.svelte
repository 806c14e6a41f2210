<script lang="ts">
	import { page } from '$app/state';
	import { getContext } from 'svelte';
	import type { BoardState } from '$lib/ui/board/board-state.svelte';
	import type { BehindCard, FIGURES } from '$core/pages/look-back';
	import { REASONS } from '$core/events/reasons';
	import Figure from '$lib/ui/chart/Figure.svelte';
	import { cardAddress } from '$lib/ui/frame/card-address';
	import Places from '$lib/ui/frame/Places.svelte';
	import Bands, { type Across, type SprintBands } from '$lib/ui/look-back/Bands.svelte';
	import {
		carryOverWords,
		lastSprintWords,
		percent,
		reliabilityWords,
		velocityWords,
	} from '$lib/ui/look-back/sentences';
	import Tally from '$lib/ui/look-back/Tally.svelte';
	import { Behind } from '$lib/ui/behind/behind.svelte';
	import CardsBehind from '$lib/ui/behind/CardsBehind.svelte';
	import WithBehind from '$lib/ui/behind/WithBehind.svelte';
	import { amount, count, figure } from '$lib/ui/words';

	let { data } = $props();
	const board = getContext<BoardState>('board');
	const head = $derived(board.head);
	const back = $derived(data.back);
	const unit = $derived(head.unit);
	const inCards = $derived(unit === 'none' || page.url.searchParams.get('in') === 'cards');
	const sprints = $derived(back.velocity.sprints);
	const over = $derived(back.carryOver);
	let width = $state(860);
	const opened = new Behind<BehindCard>((text) => board.tell({ tone: 'warn', text }));
	const picked = $derived(opened.figure);
	const pick = (title: string, of: (typeof FIGURES)[number], which: string | number) =>
		opened.open(title, `/api/boards/${head.slug}/look-back/cards?of=${of}&which=${which}`);
	const open = (key: string) => cardAddress(page.url, { number: key.slice(key.lastIndexOf('-') + 1) });

	const velocityBands = $derived(
		sprints.map((sprint): SprintBands => {
			const committed = inCards ? sprint.committedCards : sprint.committed;
			const kept = inCards ? sprint.keptCards : sprint.kept;
			const later = (inCards ? sprint.cards : sprint.delivered) - kept;
			const say = (n: number) => (inCards ? count(n, 'card') : amount(n, unit));
			const of = (n: number, what: string, kind: (typeof FIGURES)[number]) => ({
				value: n,
				words: `Sprint ${sprint.number}: ${say(n)} ${what}`,
				onpick: () => pick(`Sprint ${sprint.number}: ${say(n)} ${what}`, kind, sprint.number),
			});
			return {
				number: sprint.number,
				stacked: true,
				bands: [
					{ look: 'done', ...of(kept, 'of the commitment delivered', 'kept') },
					...(later > 0.005
						? [{ look: 'later' as const, ...of(later, 'that came in later delivered', 'later') }]
						: []),
				],
				mark: of(committed, 'committed', 'committed'),
			};
		}),
	);
	const across = $derived.by((): Across[] => {
		const limits = inCards ? back.velocity.cardLimits : back.velocity.limits;
		if (!limits) return [];
		return [
			{ name: `natural limit ${figure(limits.upper)}`, value: limits.upper, dashed: true },
			{ name: `mean ${figure(limits.mean)}`, value: limits.mean, dashed: false },
			...(limits.lower > 0
				? [{ name: `natural limit ${figure(limits.lower)}`, value: limits.lower, dashed: true }]
				: []),
		];
	});
	const overBands = $derived(
		over.sprints.map((sprint): SprintBands => ({
			number: sprint.number,
			bands: [
				{
					value: sprint.bySize ?? sprint.byCards,
					look: 'left',
					words: `Sprint ${sprint.number}: ${percent(sprint.bySize)} of its work, ${percent(sprint.byCards)} of its cards carried over`,
					onpick: () => pick(`Carried over from sprint ${sprint.number}`, 'over', sprint.number),
				},
				...(unit === 'none'
					? []
					: [
							{
								value: sprint.byCards,
								look: 'cards' as const,
								words: `Sprint ${sprint.number}: ${percent(sprint.byCards)} of its cards, ${percent(sprint.bySize)} of its work carried over`,
								onpick: () => pick(`Carried over from sprint ${sprint.number}`, 'over', sprint.number),
							},
						]),
			],
		})),
	);
	const takenBands = $derived(
		over.sprints.map((sprint): SprintBands => ({
			number: sprint.number,
			bands: [
				{
					value: sprint.takenOfPromise,
					look: 'taken',
					words: `Sprint ${sprint.number}: ${amount(sprint.broughtSize, unit)} came in, ${percent(sprint.takenOfPromise)} of its promise`,
					onpick: () =>
						pick(
							`Brought into sprint ${sprint.number}: ${amount(sprint.broughtSize, unit)}`,
							'brought',
							sprint.number,
						),
				},
			],
		})),
	);
	const NEEDED = { 1: 'one sprint', 2: 'two sprints', 3: 'three sprints', 4: 'more than three' } as const;
	const inPercent = (value: number) => `${Math.round(value * 100)}%`;
</script>

{#snippet behind()}
	{#if picked}
		<CardsBehind
			title={picked.title}
			cards={picked.cards}
			titles={Object.fromEntries(picked.cards.map(({ card, title }) => [card, title]))}
			{unit}
			{open}
			onclose={opened.close}
		/>
	{/if}
{/snippet}

<Places board={head} here="look-back">
	<a class="link" href="/boards/{head.slug}/retrospectives">Retrospectives</a>
	{#if unit !== 'none' && sprints.length}
		<span class="in"
			>Velocity in {#if inCards}<a class="link" href="/boards/{head.slug}/look-back" data-sveltekit-noscroll
					>{unit}</a
				>
				· <b>cards</b>{:else}<b>{unit}</b> ·
				<a class="link" href="/boards/{head.slug}/look-back?in=cards" data-sveltekit-noscroll>cards</a
				>{/if}</span
		>
	{/if}
</Places>
<div class="page">
	{#if sprints.length}
		<h1>
			<b>{lastSprintWords(back, inCards ? 'none' : unit)}</b>
			{reliabilityWords(back)}
			{#if back.running !== null}<a class="link" href="/boards/{head.slug}/look-back/{back.running}"
					>Sprint {back.running}</a
				> is running.{/if}
		</h1>
		<WithBehind behind={picked ? behind : null}
			><div bind:clientWidth={width}>
				<Figure
					title="Velocity"
					subtitle="{inCards
						? 'cards'
						: unit} delivered of the commitment, with what came in later on top; a stroke where the commitment stood"
					says={velocityWords(back, inCards ? 'none' : unit)}
					table={{
						head: [
							'Sprint',
							'Committed',
							'Delivered of it',
							'Came in later and delivered',
							'Cards of those committed',
							'Cards later',
							'Mean of 3',
							'Mean of 6',
							'Reliability',
							'Scope change',
						],
						rows: sprints.map((s) => [
							s.number,
							figure(s.committed),
							figure(s.kept),
							figure(s.delivered - s.kept),
							`${s.keptCards} of ${s.committedCards}`,
							s.cards - s.keptCards,
							s.mean3 === null ? '' : figure(s.mean3),
							s.mean6 === null ? '' : figure(s.mean6),
							percent(s.reliability),
							percent(s.scopeChange),
						]),
					}}
				>
					<Bands
						label="Velocity of each sprint"
						sprints={velocityBands}
						{across}
						through={inCards ? null : { name: 'mean of three', values: sprints.map((s) => s.mean3) }}
						{width}
						tick={(value) => figure(value)}
					/>
				</Figure>
				<Figure
					title="Carried over"
					subtitle={unit === 'none'
						? 'share of each sprint’s cards'
						: 'share of each sprint’s work (hatched) and of its cards (open)'}
					says={carryOverWords(back)}
					table={{
						head: ['Sprint', 'By size', 'By cards', 'Size', 'Taken of its promise by what came in'],
						rows: over.sprints.map((s) => [
							s.number,
							percent(s.bySize),
							percent(s.byCards),
							figure(s.size),
							percent(s.takenOfPromise),
						]),
					}}
				>
					<Bands
						label="Carried over from each sprint"
						sprints={overBands}
						{width}
						height={120}
						tick={inPercent}
					/>
				</Figure>
				<Figure
					title="What carrying takes"
					subtitle="share of a sprint’s promise that came in with carried cards"
					says="What is carried over is promised again: it is work that the next sprint cannot take on."
					table={{
						head: ['Sprint', 'Came in', 'Of its promise'],
						rows: over.sprints.map((s) => [s.number, figure(s.broughtSize), percent(s.takenOfPromise)]),
					}}
				>
					<Bands
						label="Taken of each sprint’s promise"
						sprints={takenBands}
						{width}
						height={100}
						tick={inPercent}
					/>
				</Figure>
				<div class="two">
					<section>
						<h2>Why cards were not finished</h2>
						{#if over.reasons.length}
							<Tally
								look="left"
								rows={over.reasons.map((reason) => ({
									name: REASONS[reason.reason],
									value: reason.count,
									words: `${count(reason.count, 'card')}${unit === 'none' ? '' : `, ${amount(reason.size, unit)}`}`,
									onpick: () => pick(`Not finished: ${REASONS[reason.reason]}`, 'reason', reason.reason),
								}))}
							/>
						{:else}<p>Every sprint finished what it had.</p>{/if}
					</section>
					<section>
						<h2>How many sprints a finished card needed</h2>
						<Tally
							look="done"
							rows={over.needed.map((one) => ({
								name: NEEDED[one.sprints],
								value: one.cards,
								words: count(one.cards, 'card'),
								onpick: one.cards
									? () => pick(`Finished in ${NEEDED[one.sprints]}`, 'needed', one.sprints)
									: undefined,
							}))}
						/>
						<h2>Carried twice or more</h2>
						{#if over.chronic.length}
							<ul class="chronic amounts">
								{#each over.chronic as one (one.card)}<li>
										<a href={open(one.card)} data-sveltekit-noscroll data-sveltekit-keepfocus
											><b>{one.card}</b> {one.title}</a
										>
										<small class="care">carried ×{one.carried}{one.done ? ', done by now' : ''}</small>
									</li>{/each}
							</ul>
						{:else}<p>No card was carried more than once.</p>{/if}
					</section>
				</div>
				<h2>Reports</h2>
				<p class="reports">
					{#each [...sprints].reverse() as sprint (sprint.number)}<a
							class="link"
							href="/boards/{head.slug}/look-back/{sprint.number}">Sprint {sprint.number}</a
						>{/each}
				</p>
			</div>
		</WithBehind>
	{:else if head.sprintDays === null && back.running === null}
		<h1><b>This board has no sprints.</b></h1>
		<p><a class="link" href="/boards/{head.slug}/flow">How its cards go</a> is on its flow page.</p>
	{:else}
		<h1><b>No sprint has been closed yet.</b></h1>
		<p>
			{#if back.running !== null}
				<a class="link" href="/boards/{head.slug}/look-back/{back.running}"
					>How sprint {back.running} is going</a
				> can be followed already; velocity and carry-over begin when it is settled.
			{:else}
				Velocity, reliability and carry-over begin with the first sprint that is settled.
				<a class="link" href="/boards/{head.slug}/plan">Plan one</a>.
			{/if}
		</p>
	{/if}
</div>

<style>
	h1 {
		font: 1rem/1.4 var(--text);
		letter-spacing: 0;
		padding: 9px 0 10px;
	}
	h2 {
		font-size: 1.12rem;
		margin: 12px 0 2px;
	}
	.two {
		display: grid;
		grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
		gap: 10px 40px;
	}
	.chronic {
		list-style: none;
		margin: 0;
		padding: 0;
	}
	.chronic small {
		white-space: nowrap;
	}
	.reports {
		display: flex;
		flex-wrap: wrap;
		gap: 4px 16px;
		margin: 4px 0 0;
	}
	.in {
		font-size: 0.93rem;
		color: var(--soft);
	}
	p {
		color: var(--soft);
	}
	@media (max-width: 900px) {
		.two {
			grid-template-columns: minmax(0, 1fr);
		}
	}
	@media (max-width: 700px) {
		.page {
			padding: 0 14px 30px;
		}
	}
	@media (pointer: coarse) {
		.link,
		.chronic a {
			min-height: 44px;
			display: inline-flex;
			align-items: center;
			gap: 5px;
		}
		/* In a sentence it is as high for a finger, and the lines keep their distance. */
		h1 .link {
			display: inline;
			padding-block: 12px;
		}
	}
</style>
