<script lang="ts">
	import type { Unit } from '$core/pages/board';
	import type { ReportShown } from '$core/pages/look-back';
	import type { CardAmount } from '$core/sprint/ledger';
	import { sidesOf } from '$core/sprint/settle';
	import Term from '../frame/Term.svelte';
	import LedgerBars from '../settle/LedgerBars.svelte';
	import { ENTRY_TITLES } from '../settle/words';
	import { amount, count } from '../words';
	import { endedWords } from './sentences';
	import Stints from './Stints.svelte';

	interface Props {
		report: ReportShown;
		unit: Unit;
		onpick: (title: string, cards: readonly CardAmount[]) => void;
		/** The address of a card. */
		open: (key: string) => string;
	}
	/** A sprint's ledger: both sides of it, what was worked beside what was burned, and every stint. */
	let { report, unit, onpick, open }: Props = $props();
	const { ledger } = $derived(report);
	const sides = $derived(sidesOf(ledger));
	const ended = $derived(endedWords(report));
	const stints = $derived(ledger.stints.length);
</script>

<section class="ledger" id="ledger">
	<h2>Ledger</h2>
	<p>
		Both sides of the <Term
			word="ledger"
			says="The sprint’s account: what came in on one side, what became of it on the other. Here both are {amount(
				sides.total,
				unit,
			)}."
		/> are {amount(sides.total, unit)}; it is made of {count(stints, 'stint').replace(/ stints?$/, '')}
		<Term
			word={stints === 1 ? 'stint' : 'stints'}
			says="A stint is one card’s stay in one sprint: what it came in with, what was worked, what it went out with. This sprint has {stints}."
		/>. Each part opens to its cards.
	</p>
	<LedgerBars
		{sides}
		{unit}
		onpick={(entry) => onpick(`${ENTRY_TITLES[entry.kind]}: ${amount(entry.amount, unit)}`, entry.cards)}
	/>
	<p>
		{amount(ledger.worked, 'hours')} worked{unit === 'hours' && Math.abs(ledger.worked - ledger.burned) > 0.5
			? `; ${amount(ledger.burned, unit)} burned: the difference is what was finished for less or more than was left of it`
			: ''}.
	</p>
	<Stints {ledger} titles={report.titles} {unit} {ended} {open} />
</section>

<style>
	.ledger {
		margin-bottom: 14px;
	}
	h2 {
		font-size: 1.12rem;
		margin: 14px 0 2px;
	}
	p {
		margin: 2px 0 8px;
		color: var(--soft);
	}
</style>
