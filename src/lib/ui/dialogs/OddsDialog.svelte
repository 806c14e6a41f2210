<script lang="ts">
	import { fsum } from 'd3-array';
	import { Select } from 'flowbite-svelte';
	import { untrack } from 'svelte';
	import type { Odds, OddsInput } from '$core/capacity/odds';
	import type { CardView, Unit } from '$core/pages/board';
	import { amount, count, figure, list } from '../words';
	import type { OddsFinder } from '../plan/odds-finder.svelte';
	import Dialog from './Dialog.svelte';

	interface Props {
		odds: Odds;
		/** What the odds were asked of, and who finds what to take off. */
		input: OddsInput;
		finder: OddsFinder;
		/** The sprint's unfinished cards, in its order. */
		cards: readonly CardView[];
		unit: Unit;
		sprint: number;
		mayEdit: boolean;
		ontakeoff: (cards: CardView[]) => void;
		onclose: () => void;
	}
	let { odds, input, finder, cards, unit, sprint, mayEdit, ontakeoff, onclose }: Props = $props();
	let level = $state('80');
	const percent = (n: number) => Math.round((n / odds.trials) * 100);
	const byNumber = $derived(new Map(cards.map((card) => [String(card.number), card])));
	$effect(() => {
		const share = Number(level) / 100;
		untrack(() => finder.askLevel(input, share));
	});
	const off = $derived(
		finder.off?.flatMap((number) => {
			const card = byNumber.get(number);
			return card ? [card] : [];
		}),
	);
	const nobodys = $derived(new Set(odds.nobodys));
</script>

<Dialog title="Odds of sprint {sprint}" wide {onclose}>
	<p>
		<b>All of it is done in {percent(odds.all)} of 100 tries.</b> On the average {amount(odds.leftOver, unit)} would
		be left over.
	</p>
	<div class="two">
		<table>
			<thead><tr><th>Card, in the sprint’s order</th><th>Left</th><th>Done in</th></tr></thead>
			<tbody>
				{#each odds.each as { card: number, done } (number)}
					{@const card = byNumber.get(number)}
					<tr>
						<td><b>{number}</b> {card?.title ?? ''}</td>
						<td>{card ? figure(card.left) : ''}</td>
						<td class="odds"
							><i aria-hidden="true" style:width="{(done / odds.trials) * 60}px"></i>{percent(done)} of 100{card &&
							!card.owners.length
								? nobodys.has(number)
									? ', nobody has room for it'
									: ', if shared out'
								: ''}</td
						>
					</tr>
				{/each}
			</tbody>
		</table>
		<div>
			<label for="odds-level">To have all of it done in</label>
			<Select
				id="odds-level"
				bind:value={level}
				placeholder=""
				items={['50', '60', '70', '80', '85', '90', '95'].map((value) => ({
					value,
					name: `${value} of 100 tries`,
				}))}
			/>
			{#if odds.all >= (Number(level) / 100) * odds.trials}<p>Nothing has to come off.</p>
			{:else if !off}<p role="status">Reckoning what to take off…</p>
			{:else}
				<p>
					take {count(off.length, 'card')} off, the least likely first: {list(
						off.map((card) => String(card.number)),
					)} ({amount(
						fsum(off, (card) => card.left),
						unit,
					)}).
				</p>
				{#if mayEdit}<button type="button" class="plain" onclick={() => ontakeoff(off)}>Take them off</button
					>{/if}
			{/if}
			<p class="soft">
				{odds.trials.toLocaleString('en-GB')} tries with the seed {odds.seed}: each draws the focus and the
				surprises of one of the last six sprints, and for each card how a past card turned out against its
				size.
			</p>
		</div>
	</div>
</Dialog>

<style>
	p {
		margin: 8px 0;
	}
	.two {
		display: grid;
		grid-template-columns: 1.6fr 1fr;
		gap: 22px;
		align-items: start;
	}
	table {
		border-collapse: collapse;
		font-size: 0.93rem;
		width: 100%;
	}
	th {
		text-align: left;
		font-weight: 600;
		color: var(--soft);
	}
	td,
	th {
		padding: 4px 8px 4px 0;
		border-bottom: 1px dotted var(--rule);
		vertical-align: top;
	}
	td:nth-child(2),
	th:nth-child(2) {
		text-align: right;
	}
	.odds {
		white-space: nowrap;
	}
	.odds i {
		display: inline-block;
		height: 10px;
		margin-right: 6px;
		background: var(--river);
	}
	@media (max-width: 700px) {
		.two {
			grid-template-columns: 1fr;
		}
	}
</style>
