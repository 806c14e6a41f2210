<script lang="ts">
	import type { Unit } from '$core/pages/board';
	import type { Entry, Sides } from '$core/sprint/settle';
	import { amount, figure } from '../words';
	import { ENTRIES } from './words';

	interface Props {
		sides: Sides;
		unit: Unit;
		onpick: (entry: Entry) => void;
	}
	/** A ledger as two bars of the same length: what came in, and what became of it. */
	let { sides, unit, onpick }: Props = $props();
	let width = $state(600);
	/** What is written in a part: as much as there is room for. */
	function label(entry: Entry, first: boolean): string {
		const room = (entry.amount / Math.max(1, sides.total)) * width;
		const whole = `${first ? amount(entry.amount, unit) : figure(entry.amount)} ${ENTRIES[entry.kind]}`;
		if (room > whole.length * 7.2 + 12) return whole;
		return room > figure(entry.amount).length * 7.2 + 10 ? figure(entry.amount) : '';
	}
	const rows = $derived([
		{ name: 'What came in', side: sides.came },
		{ name: 'What became of it', side: sides.became },
	]);
</script>

<div class="bars">
	{#each rows as row (row.name)}
		<span class="name">{row.name}</span>
		<div class="bar" role="group" aria-label={row.name} bind:clientWidth={width}>
			{#each row.side as entry, i (entry.kind)}
				<button
					type="button"
					class={entry.kind}
					style:flex-grow={entry.amount}
					title="{amount(entry.amount, unit)} {ENTRIES[entry.kind]}"
					onclick={() => onpick(entry)}
					><span class="sr-only">{amount(entry.amount, unit)} {ENTRIES[entry.kind]}</span><span
						aria-hidden="true">{label(entry, i === 0)}</span
					></button
				>
			{/each}
		</div>
		<ul>
			{#each row.side as entry (entry.kind)}<li>
					<button type="button" class="link" onclick={() => onpick(entry)}
						>{amount(entry.amount, unit)} {ENTRIES[entry.kind]}</button
					>
				</li>{/each}
		</ul>
	{/each}
</div>

<style>
	.bars {
		display: grid;
		grid-template-columns: 78px minmax(0, 1fr);
		gap: 9px 10px;
		align-items: center;
	}
	.name {
		font-size: 12px;
		line-height: 1.15;
		color: var(--soft);
	}
	.bar {
		display: flex;
		height: 24px;
		gap: 1px;
		min-width: 0;
	}
	/* Parts that are too small for a finger are named below their bar. */
	ul {
		display: none;
		grid-column: 1 / -1;
		flex-wrap: wrap;
		gap: 0 14px;
	}
	.bar button {
		flex: 0 1 0;
		/* A small part can still be hit; its figure is said in words. */
		min-width: 24px;
		min-height: 0;
		height: 24px;
		border: 0;
		border-radius: 0;
		padding: 0 5px;
		font: 12px var(--text);
		text-align: left;
		white-space: nowrap;
		overflow: hidden;
		color: var(--ink);
		background: var(--river-2);
	}
	.bar button:focus-visible {
		outline-offset: -2px;
		outline-color: var(--ink);
	}
	.bar .committed {
		background: light-dark(#2b6480, #86bdd8);
		color: light-dark(#fff, #10201a);
	}
	.bar :is(.grown, .shrunk) {
		background: light-dark(#e3ecf2, #1d333f);
	}
	.bar .burned {
		background: var(--moss);
		color: var(--on-moss);
	}
	.bar .splitOff {
		background: light-dark(#bdb298, #6b5d45);
	}
	.bar .removed {
		background: light-dark(#dcd4c0, #4c4336);
	}
	.bar .carried {
		background: var(--ochre-2);
		box-shadow: inset 0 -4px 0 var(--ochre-fill);
	}
	.bar .returned {
		background: light-dark(#f6ead0, #3a2d15);
		box-shadow: inset 0 -2px 0 var(--ochre-fill);
	}
	.bar .dropped {
		background: light-dark(#e6dcd6, #43302b);
	}
	.bar .open {
		background: transparent;
		border: 1.5px dashed var(--brick);
		color: var(--brick);
		font-weight: 700;
	}
	@media (pointer: coarse), (max-width: 700px) {
		ul {
			display: flex;
		}
		.bars {
			gap: 2px 10px;
		}
	}
	.link {
		min-height: var(--touch, auto);
	}
</style>
