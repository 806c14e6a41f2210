<script lang="ts">
	import type { CardView } from '$core/pages/board';
	import type { Finding, Remedy } from '$core/rounds/state';
	import Gradual from '../frame/Gradual.svelte';
	import { count } from '../words';
	import { FINDINGS, OF_A_CARD, REMEDIES } from './words';

	interface Props {
		finding: Finding;
		/** The cards it names, as they stand. */
		cards: readonly CardView[];
		slug: string;
		/** The id of the board’s team. */
		team: string;
		mayEdit: boolean;
		open: (card: { number: number }) => string;
		onremedy: (remedy: Remedy, card: CardView | null) => void;
		onaside: () => void;
	}
	/** One finding: what it is about, why it matters, and what can be done about it here. */
	let { finding, cards, slug, team, mayEdit, open, onremedy, onaside }: Props = $props();
	const one = $derived(finding.cards.length === 1 && cards.length === 1 ? cards[0]! : null);
	const ofCard = $derived(finding.remedies.filter((remedy) => OF_A_CARD.includes(remedy)));
	const others = $derived(finding.remedies.filter((remedy) => !OF_A_CARD.includes(remedy)));
	/** So many numbers of cards stand in the line; all of them below it. */
	const NAMED = 12;
	/** Cards that it names and that are finished by now: they are not on the board any more. */
	const gone = $derived.by(() => {
		const here = new Set(cards.map((card) => card.number));
		return finding.cards.filter((number) => !here.has(number));
	});
	/** Its cards are drawn once somebody looks at them; they may have been opened before the page woke. */
	let unfolded = $state(false);
	const look = (list: HTMLDetailsElement) => void (unfolded ||= list.open);
	const LINKS: Partial<Record<Remedy, string>> = $derived({
		board: `/boards/${slug}`,
		replenish: `/boards/${slug}/backlog`,
		plan: `/boards/${slug}/plan${['over-promise', 'will-not-fit', 'surprises-over'].includes(finding.kind) && cards[0]?.sprint ? `?sprint=${cards[0].sprint}` : ''}`,
		settle: `/boards/${slug}/settle`,
		panorama: `/teams/${team}/panorama?from=${slug}`,
		report: `/boards/${slug}/look-back/${finding.key.split(':')[1]}`,
	});
</script>

{#snippet buttons(list: readonly Remedy[], card: CardView | null)}
	{#each list as remedy (remedy)}
		{#if LINKS[remedy]}<a class="link" href={LINKS[remedy]}>{REMEDIES[remedy]}</a>
		{:else if remedy === 'date'}{#if mayEdit && card}<a
					class="small"
					href={open(card)}
					data-sveltekit-noscroll
					data-sveltekit-keepfocus>{REMEDIES[remedy]}</a
				>{/if}
		{:else if mayEdit}<button type="button" class="small" onclick={() => onremedy(remedy, card)}
				>{REMEDIES[remedy]}</button
			>{/if}
	{/each}
{/snippet}

{#snippet ofOne(card: CardView)}
	<li>
		<a href={open(card)} data-sveltekit-noscroll data-sveltekit-keepfocus><b>{card.number}</b> {card.title}</a
		>
		<span class="row">{@render buttons(ofCard, card)}</span>
	</li>
{/snippet}
<li class="finding s{finding.severity}">
	<span class="kind">{FINDINGS[finding.kind]}</span>
	<div class="says">
		{#if one}<a class="card" href={open(one)} data-sveltekit-noscroll data-sveltekit-keepfocus
				><b>{one.number}</b> {one.title}</a
			>{/if}
		<p>{finding.sentence}</p>
		{#if !one && finding.cards.length}
			<details {@attach look} ontoggle={(event) => look(event.currentTarget)}>
				<summary
					>{count(finding.cards.length, 'card')}: {finding.cards.slice(0, NAMED).join(', ')}{finding.cards
						.length > NAMED
						? ' …'
						: ''}</summary
				>
				{#if unfolded}<ul>
						<Gradual list={cards} key={({ id }) => id} row={ofOne} as="li" px={36} />
						{#each gone as number (number)}<li>
								<a href={open({ number })} data-sveltekit-noscroll data-sveltekit-keepfocus
									><b>{number}</b> finished</a
								>
							</li>{/each}
					</ul>{/if}
			</details>
		{/if}
	</div>
	<div class="row end">
		{@render buttons(others, one)}
		{#if one}{@render buttons(ofCard, one)}{/if}
		{#if mayEdit}<button
				type="button"
				class="quiet"
				onclick={onaside}
				aria-label="Not today: {finding.sentence}">Not today</button
			>{/if}
	</div>
</li>

<style>
	.finding {
		display: grid;
		grid-template-columns: 128px minmax(0, 1fr) auto;
		gap: 4px 18px;
		align-items: start;
		padding: 9px 0 9px 12px;
		border-bottom: 1px solid var(--rule);
		border-left: 4px solid var(--edge);
	}
	.s3 {
		border-left: 6px solid var(--brick-fill);
	}
	.s2 {
		border-left: 4px double var(--ochre-fill);
	}
	.s1 {
		border-left: 2px solid var(--edge);
	}
	.kind {
		font: 650 1rem var(--display);
	}
	.s3 .kind {
		color: var(--brick);
	}
	.s2 .kind {
		color: var(--ochre);
	}
	p {
		text-wrap: pretty;
	}
	a {
		text-decoration: none;
	}
	.card {
		font-weight: 650;
		display: block;
		min-height: var(--touch, auto);
		align-content: center;
	}
	a b {
		color: var(--soft);
		font-weight: 600;
	}
	.row {
		display: flex;
		flex-wrap: wrap;
		gap: 6px;
		align-items: center;
	}
	.row .link {
		text-decoration: underline;
	}
	.end {
		justify-content: flex-end;
		max-width: 600px;
	}
	a.small {
		display: inline-flex;
		align-items: center;
	}
	.small {
		min-width: var(--touch, auto);
		border: 1px solid var(--edge);
		border-radius: 4px;
		background: var(--sheet);
		color: var(--ink);
		padding: 3px 9px;
		min-height: max(28px, var(--touch, 0px));
	}
	.small:hover {
		border-color: var(--ink);
	}
	.quiet {
		border: 0;
		background: none;
		color: var(--soft);
		padding: 3px 4px;
		min-height: max(28px, var(--touch, 0px));
	}
	.quiet:hover {
		color: var(--ink);
	}
	summary {
		cursor: pointer;
		color: var(--soft);
		min-height: max(24px, var(--touch, 0px));
		width: max-content;
	}
	ul {
		margin: 2px 0 0;
	}
	ul li {
		display: flex;
		flex-wrap: wrap;
		justify-content: space-between;
		gap: 4px 14px;
		padding: 4px 0;
		border-top: 1px dotted var(--rule);
	}
	@media (max-width: 900px) {
		.finding {
			grid-template-columns: minmax(0, 1fr);
		}
		.end {
			justify-content: flex-start;
			max-width: none;
		}
	}
</style>
