<script lang="ts">
	import type { CardView, Unit } from '$core/pages/board';
	import { skillsOf } from '$core/board/odds';
	import { shareOut } from '$core/capacity/share-out';
	import type { PlanRow } from '../plan/plan-state.svelte';
	import { amount, count, wholeNames } from '../words';
	import Dialog from './Dialog.svelte';

	interface Props {
		rows: readonly PlanRow[];
		/** Unowned cards of the sprint, in order. */
		cards: readonly CardView[];
		/** Labels that stand for something one must be able to do. */
		skills: readonly string[];
		unit: Unit;
		onshare: (gifts: { card: CardView; owner: string }[]) => void;
		onclose: () => void;
	}
	let { rows, cards, skills, unit, onshare, onclose }: Props = $props();

	// Card numbers are padded, so that their order as text is their order as numbers.
	const keyOf = (card: CardView) => String(card.number).padStart(9, '0');
	const found = $derived(
		shareOut(
			cards.map((card) => ({
				card: keyOf(card),
				left: card.left,
				skills: skillsOf(card, skills),
			})),
			rows.flatMap((row) =>
				row.person && row.part
					? [
							{
								person: row.person.id,
								promise: row.part.promise,
								placed: row.part.placed,
								skills: row.person.skills,
							},
						]
					: [],
			),
		),
	);
	const gifts = $derived(
		cards.flatMap((card) => {
			const owner = found.owners.get(keyOf(card));
			return owner ? [{ card, owner }] : [];
		}),
	);
	const stay = $derived(cards.filter((card) => !found.owners.has(keyOf(card))));
	const most = $derived(
		Math.max(
			1,
			...rows.map((row) => Math.max(row.part?.promise ?? 0, found.placed.get(row.person?.id ?? '') ?? 0)),
		),
	);
	const nameOf = $derived(wholeNames(rows.flatMap(({ person }) => person ?? [])));
	const wide = (n: number) => `${(n / most) * 100}%`;
</script>

<Dialog title="Share out {count(cards.length, 'card')}" wide {onclose}>
	<div class="two">
		<div>
			<h3>Before and after</h3>
			<ul class="loads">
				{#each rows.filter((row) => row.person && row.part) as row (row.person!.id)}
					{@const after = found.placed.get(row.person!.id) ?? row.part!.placed}
					<li>
						<span>{nameOf(row.person!.id)}</span>
						<span class="bar" aria-hidden="true">
							<i class="before" style:width={wide(row.part!.placed)}></i><i
								class="more"
								style:width={wide(after - row.part!.placed)}
							></i><i class="promise" style:left={wide(row.part!.promise)}></i>
						</span>
						<small class:warn={after > row.part!.promise + 1e-9}
							>{amount(row.part!.placed, unit)}{after > row.part!.placed ? ` → ${amount(after, unit)}` : ''} of
							{amount(row.part!.promise, unit)}</small
						>
					</li>
				{/each}
			</ul>
		</div>
		<div>
			<h3>{gifts.length ? 'Who gets what' : 'Nobody has room for any of them'}</h3>
			<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
			<ul class="gifts" tabindex="0" aria-label="Who gets what">
				{#each gifts as { card, owner } (card.id)}
					<li>
						<b>{card.number}</b> <span>{card.title}, {amount(card.left, unit)}</span> <em>{nameOf(owner)}</em>
					</li>
				{/each}
				{#each stay as card (card.id)}
					<li class="stay">
						<b>{card.number}</b> <span>{card.title}, {amount(card.left, unit)}</span>
						<em>nobody: it fits nowhere</em>
					</li>
				{/each}
			</ul>
		</div>
	</div>
	<p class="soft">
		Each card goes to who knows what it asks for and has most room; nobody comes over their promise by it.
		Cards that have owners stay with them.
	</p>
	<div class="dialog-foot">
		<button type="button" class="plain" onclick={onclose}>Leave it</button>
		<button type="button" class="go" disabled={!gifts.length} onclick={() => onshare(gifts)}
			>Give {count(gifts.length, 'card')} out</button
		>
	</div>
</Dialog>

<style>
	.two {
		display: grid;
		grid-template-columns: 1fr 1fr;
		gap: 20px;
	}
	h3 {
		font: 600 1rem var(--text);
		margin-bottom: 6px;
	}
	ul {
		max-height: 46vh;
		overflow-y: auto;
	}
	.loads li {
		display: grid;
		grid-template-columns: 1fr auto;
		gap: 2px 8px;
		padding: 5px 0;
		font-size: 0.93rem;
	}
	.bar {
		grid-area: 2 / 1 / 3 / 3;
		position: relative;
		height: 12px;
		background: var(--sunk);
		display: flex;
	}
	.bar i {
		height: 100%;
	}
	.before {
		background: var(--edge);
	}
	.more {
		background: var(--river);
	}
	.promise {
		position: absolute;
		top: -2px;
		bottom: -2px;
		height: auto !important;
		width: 2.5px;
		background: var(--ink);
	}
	.gifts li {
		display: grid;
		grid-template-columns: 38px 1fr auto;
		gap: 6px;
		padding: 4px 0;
		border-bottom: 1px dotted var(--rule);
		font-size: 0.93rem;
	}
	em {
		font-style: normal;
		color: var(--river);
		text-align: right;
	}
	.stay em {
		color: var(--soft);
	}
	small.warn {
		color: var(--brick);
	}
	.soft {
		margin: 10px 0 0;
	}
	@media (max-width: 700px) {
		.two {
			grid-template-columns: 1fr;
		}
	}
</style>
