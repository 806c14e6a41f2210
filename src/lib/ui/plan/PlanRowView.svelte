<script lang="ts">
	import type { Unit } from '$core/pages/board';
	import { amount, count, figure } from '../words';
	import { blockKey, rowId } from './plan-spot.svelte';
	import type { Block, PlanRow } from './plan-state.svelte';
	import { presenceWords, standingWords } from './words';

	interface Props {
		row: PlanRow;
		unit: Unit;
		/** Where the axis ends. */
		end: number;
		from: string;
		to: string;
		/** Blocks are as wide as the cards are many, instead of as what is left. */
		byCount: boolean;
		carried: Record<number, number>;
		picked: ReadonlySet<string>;
		/** The block that Tab comes to: a card of a person. */
		tabbable: string | null;
		dropping: boolean;
		open: (block: Block) => string;
		onshare?: () => void;
	}
	let props: Props = $props();
	const { row, unit, end, byCount } = $derived(props);
	const part = $derived(row.part);
	const says = $derived(part && !byCount ? standingWords(part, unit) : null);
	const share = (n: number) => `${Math.max(0, (n / end) * 100)}%`;
	const widest = 12;
	const left = (block: Block, i: number) => (byCount ? `${(i / widest) * 100}%` : share(block.from));
	const width = (block: Block) => (byCount ? `${100 / widest}%` : share(block.hours));
	const label = (block: Block) =>
		`${block.card.number} ${block.card.title}, ${block.card.size === null ? 'not sized' : amount(block.hours, unit)}${
			block.shared ? ', shared' : ''
		}${props.carried[block.card.number] ? ', carried in' : ''}${block.card.unplanned ? ', unplanned' : ''}${
			block.card.blocked ? ', blocked' : ''
		}`;
	/** The first block that reaches over the promise, and those after it. */
	const isOver = (block: Block) =>
		!byCount && part !== null && !block.card.unplanned && block.from + block.hours > part.promise + 1e-9;
</script>

<div class="row">
	<div class="who">
		<b>{row.person?.name ?? 'Nobody yet'}</b>
		<small>{row.person ? presenceWords(row, props.from, props.to) : ''}</small>
	</div>
	<div
		class="track"
		class:nobody={!row.person}
		class:dropping={props.dropping}
		data-person={rowId(row)}
		role="group"
		aria-label="{row.person?.name ?? 'Nobody yet'}: {count(row.blocks.length, 'card')}{says
			? `, ${says.text}, ${says.note}`
			: ''}"
	>
		{#if part && !byCount}
			{#if part.give > part.promise + 1e-9}<span
					class="kept"
					style:left={share(part.promise)}
					style:width={share(part.give - part.promise)}
					title="Kept back for surprises: {amount(part.give - part.promise, unit)}"
				></span>{/if}
			<span class="promise" style:left={share(part.promise)} title="The promise: {amount(part.promise, unit)}"
			></span>
		{/if}
		{#each row.blocks as block, i (block.card.id)}
			<a
				class="block"
				class:carried={props.carried[block.card.number]}
				class:unplanned={block.card.unplanned}
				class:over={isOver(block)}
				class:picked={props.picked.has(block.card.id)}
				class:unsized={block.hours === 0}
				href={props.open(block)}
				data-sveltekit-noscroll
				data-sveltekit-keepfocus
				draggable="false"
				data-card={block.card.id}
				tabindex={props.tabbable === blockKey(row, block.card) ? 0 : -1}
				aria-describedby="plan-keys"
				title={label(block)}
				style:left={left(block, i)}
				style:width={width(block)}
			>
				<span class="sr-only">{label(block)}</span>
				<span class="inside" aria-hidden="true">
					<span class="number"
						>{block.card.number}<span class="hours"
							>{block.card.size === null ? ' · not sized' : ` · ${amount(block.hours, unit)}`}</span
						></span
					>
					<span class="short">{block.card.size === null ? '?' : figure(block.hours)}</span>
					<span class="title">{block.card.title}</span>
				</span>
				<span class="grip" aria-hidden="true">⠿</span>
			</a>
		{/each}
	</div>
	<div class="sum">
		{#if says}<span class:warn={says.over}>{says.text}</span>
			<small class:warn={says.over}>{says.note}</small>
			{#if part && part.surprises > 0}<small>{amount(part.surprises, unit)} of surprises</small>{/if}
		{:else if row.person || byCount}<span>{count(row.blocks.length, 'card')}</span>
			{#if unit !== 'none'}<small>{amount(row.placed, unit)}</small>{/if}
		{:else}
			<span>{unit === 'none' ? count(row.blocks.length, 'card') : amount(row.placed, unit)}</span>
			{#if row.blocks.length && props.onshare}<button type="button" class="link" onclick={props.onshare}
					>share out</button
				>{/if}
		{/if}
	</div>
</div>

<style>
	.row {
		grid-column: 1 / -1;
		display: grid;
		grid-template-columns: subgrid;
	}
	.who,
	.sum {
		display: flex;
		flex-direction: column;
		justify-content: center;
		min-width: 0;
	}
	small {
		font-size: 12px;
		color: var(--soft);
	}
	.warn,
	small.warn {
		color: var(--brick);
	}
	.sum {
		align-items: flex-start;
	}
	.sum .link {
		font-size: 0.93rem;
		min-height: max(24px, var(--touch, 0px));
	}
	.track {
		position: relative;
		height: 46px;
		background: var(--sunk);
		border-radius: 3px;
	}
	.nobody {
		background: none;
		border: 1.5px dashed var(--faint);
	}
	.dropping {
		outline: 2.5px solid var(--river);
	}
	.kept {
		position: absolute;
		inset: 0 auto 0;
		background: repeating-linear-gradient(135deg, var(--edge) 0 1.5px, transparent 1.5px 7px);
		opacity: 0.75;
	}
	.promise {
		position: absolute;
		top: -5px;
		bottom: -5px;
		width: 2.5px;
		margin-left: -1px;
		background: var(--ink);
		pointer-events: none;
	}
	.block {
		position: absolute;
		top: 3px;
		bottom: 3px;
		min-width: 6px;
		text-decoration: none;
		container-type: inline-size;
		touch-action: pan-y;
		user-select: none;
	}
	.inside {
		position: absolute;
		inset: 0 1px;
		display: flex;
		flex-direction: column;
		justify-content: center;
		padding: 0 6px;
		background: var(--sheet);
		border: 1px solid var(--edge);
		border-radius: 2px;
		overflow: hidden;
		white-space: nowrap;
		line-height: 1.3;
		font-size: 0.92rem;
	}
	.number {
		font-size: 12px;
		font-weight: 650;
		color: var(--soft);
	}
	.title {
		overflow: hidden;
		text-overflow: ellipsis;
	}
	.short {
		display: none;
		text-align: center;
	}
	.carried .inside {
		border-left: 5px solid var(--ochre-fill);
	}
	.unplanned .inside {
		border-style: dashed;
		border-color: var(--ink);
	}
	.over .inside {
		border: 2px solid var(--brick-fill);
	}
	.over.carried .inside {
		border-left: 5px solid var(--ochre-fill);
	}
	.picked .inside {
		box-shadow: inset 4px 0 0 var(--ink);
	}
	.unsized {
		min-width: 64px;
	}
	.block:focus-visible {
		z-index: 3;
	}
	.grip {
		display: none;
	}
	@container (max-width: 74px) {
		.inside {
			padding: 0 2px;
		}
		.hours,
		.title {
			display: none;
		}
		.number {
			text-align: center;
		}
		.short {
			display: block;
		}
	}
	@container (max-width: 27px) {
		.number,
		.short {
			display: none;
		}
	}
	@media (max-width: 900px) {
		.row {
			grid-template: 'who sum' auto 'track track' auto / 1fr auto;
			gap: 2px 8px;
			margin-bottom: 8px;
		}
		.who {
			grid-area: who;
		}
		.sum {
			grid-area: sum;
			align-items: flex-end;
		}
		.track {
			grid-area: track;
		}
	}
	@media (pointer: coarse) {
		.track {
			height: 54px;
		}
		.block {
			touch-action: none;
		}
	}
</style>
