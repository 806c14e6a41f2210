<script lang="ts">
	import type { PersonView } from '$core/pages/board';
	import type { Entry } from '$core/sprint/settle';
	import { amount, figure } from '../words';
	import Term from '../frame/Term.svelte';
	import LedgerBars from './LedgerBars.svelte';
	import type { SettleState } from './settle-state.svelte';

	interface Props {
		settle: SettleState;
		people: readonly PersonView[];
		mayEdit: boolean;
		sending: boolean;
		onpick: (entry: Entry) => void;
		onclose: () => void;
	}
	/** The ledger, how full the next sprint would start, and closing: it says what is still missing. */
	let { settle, people, mayEdit, sending, onpick, onclose }: Props = $props();
	/** On a narrow screen the ledger is opened when it is asked for: the cards come first there. */
	let shown = $state(false);
	const next = $derived(settle.page.next);
	const full = $derived(settle.nextFull);
	const missing = $derived(settle.undecided.length);
	const parts = $derived(
		settle.nextParts
			.filter((part) => part.raw > 0 || part.placed > 0)
			.map((part) => ({ ...part, name: people.find((one) => one.id === part.person)?.name ?? '' })),
	);
	const over = $derived(parts.filter((part) => part.standing === 'over'));
</script>

<footer>
	{#if settle.sides}
		<div class="ledger" class:shown><LedgerBars sides={settle.sides} unit={settle.unit} {onpick} /></div>
	{/if}
	<div class="end">
		<div class="full">
			{#if settle.sides && settle.unit !== 'none'}
				{@const both = amount(settle.sides.total, settle.unit)}
				<span class="wide"
					>Both sides of the <Term
						word="ledger"
						says="The sprint’s account: what came in, {both}, and what became of it. Carrying over counts nothing twice."
					/> are {both}.</span
				>
				<button type="button" class="link narrow" aria-expanded={shown} onclick={() => (shown = !shown)}
					>Ledger, {both}</button
				>
			{/if}
			{#if next && full}
				<details>
					<summary
						>Sprint {next.number} would start
						<b class:warn={full.share > 1}>{Math.round(full.share * 100)}% full</b>{over.length
							? `, ${over.length === 1 ? 'one person' : `${over.length} people`} over`
							: ''}</summary
					>
					<ul class="aloft">
						{#each parts as part (part.person)}
							<li>
								<span>{part.name}</span>
								<span class="level" aria-hidden="true"
									><i
										class:over={part.standing === 'over'}
										style:width="{Math.min(100, (part.load ?? (part.placed ? 1 : 0)) * 100)}%"
									></i></span
								>
								<span class:warn={part.standing === 'over'}
									>{figure(part.placed)} of {amount(part.promise, settle.unit)}</span
								>
							</li>
						{/each}
					</ul>
				</details>
			{:else if next}Sprint {next.number} comes next.{/if}
		</div>
		<div class="close">
			{#if missing}<span class="warn">{missing} undecided</span>{/if}
			{#if mayEdit}<button type="button" class="go" disabled={missing > 0 || sending} onclick={onclose}
					>Close sprint {settle.page.sprint}</button
				>{/if}
		</div>
	</div>
</footer>

<style>
	footer {
		display: grid;
		grid-template-columns: minmax(0, 1fr) minmax(250px, 320px);
		gap: 8px 28px;
		align-items: center;
		padding: 10px 20px;
		background: var(--sheet);
		border-top: 1px solid var(--rule);
		flex: none;
	}
	.full {
		color: var(--soft);
	}
	.narrow {
		display: none;
	}
	.full b {
		color: var(--ink);
	}
	.full b.warn {
		color: var(--brick);
	}
	.full {
		position: relative;
	}
	details {
		display: inline;
	}
	summary {
		display: inline-block;
		cursor: pointer;
		text-decoration: underline;
		text-decoration-color: var(--moss);
		text-underline-offset: 3px;
		min-height: max(24px, var(--touch, 0px));
	}
	ul {
		position: absolute;
		bottom: calc(100% + 14px);
		left: -12px;
		z-index: 5;
		width: 300px;
		padding: 8px 12px;
	}
	li {
		display: grid;
		grid-template-columns: minmax(0, 1fr) 70px 104px;
		gap: 10px;
		align-items: center;
		padding: 3px 0;
	}
	li > :last-child {
		text-align: right;
	}
	.level {
		height: 8px;
		background: var(--sunk);
	}
	.level i {
		display: block;
		height: 100%;
		background: var(--river);
	}
	.level .over {
		background: var(--hatch-brick);
	}
	.close {
		display: flex;
		justify-content: flex-end;
		align-items: center;
		gap: 14px;
		margin-top: 6px;
	}
	@media (max-width: 900px) {
		footer {
			grid-template-columns: minmax(0, 1fr);
			padding: 8px 12px;
		}
		.close {
			margin-top: 0;
		}
		.end {
			display: flex;
			flex-wrap: wrap;
			justify-content: space-between;
			align-items: center;
			gap: 2px 12px;
		}
	}
	@media (max-width: 700px) {
		.ledger:not(.shown),
		.wide {
			display: none;
		}
		.narrow {
			display: inline-block;
			margin-right: 10px;
		}
	}
</style>
