<script lang="ts">
	import type { CardView, ColumnView } from '$core/board/view';
	import type { Ask } from './ask';
	import type { BoardState } from './board-state.svelte';

	interface Props {
		board: BoardState;
		ask: Ask;
		/** Cards in hand of each person on this board. */
		inHand?: ReadonlyMap<string, number>;
		onclose: () => void;
		/** Told when what was asked for has been sent and answered. */
		ondone?: (card: CardView | null) => void;
	}
	/** The dialog for what is asked, loaded when it is first needed. */
	let { board, ask, inHand = new Map(), onclose, ondone }: Props = $props();

	/** A card as it stands now: it may have changed while the dialog was open. */
	const latest = (card: CardView) => board.cards.get(card.id) ?? card;

	async function done(card: CardView | null, work: Promise<unknown>): Promise<void> {
		onclose();
		await work;
		ondone?.(card);
	}

	async function block(card: CardView, reason: string): Promise<void> {
		const sent = await board.block(latest(card), reason);
		if (sent.ok) board.spoken = `Card ${card.number} is blocked: ${reason}.`;
	}

	async function size(card: CardView, size: number | null, left: number | null): Promise<void> {
		if (size !== null && !(await board.size(latest(card), size)).ok) return;
		if (left !== null) await board.correctLeft(latest(card), left);
	}

	const change = (column: ColumnView, to: Pick<ColumnView, 'limit' | 'mode' | 'policy'>) =>
		board.ask('ChangeColumn', { column: column.id, version: column.version, ...to });
</script>

{#if ask.kind === 'block'}
	{@const { card } = ask}
	{#await import('../dialogs/ReasonDialog.svelte') then { default: ReasonDialog }}
		<ReasonDialog
			title="What blocks {card.number}?"
			sentence=""
			label="Reason, and who or what is waited for"
			go="Mark as blocked"
			most={500}
			{onclose}
			onreason={(reason) => void done(card, block(card, reason))}
		/>
	{/await}
{:else if ask.kind === 'through'}
	{@const { sentence, again } = ask}
	{#await import('../dialogs/ReasonDialog.svelte') then { default: ReasonDialog }}
		<ReasonDialog
			title="Let it through?"
			{sentence}
			label="Why this one goes over the limit"
			go="Let it through"
			{onclose}
			onreason={(reason) => void done(null, again(reason))}
		/>
	{/await}
{:else if ask.kind === 'owners'}
	{@const { card } = ask}
	{#await import('../dialogs/OwnersDialog.svelte') then { default: OwnersDialog }}
		<OwnersDialog
			{card}
			people={board.head.people}
			{inHand}
			{onclose}
			onowners={(owners) => void done(card, board.assign(latest(card), owners))}
		/>
	{/await}
{:else if ask.kind === 'size'}
	{@const { card } = ask}
	{#await import('../dialogs/SizeDialog.svelte') then { default: SizeDialog }}
		<SizeDialog
			{card}
			unit={board.head.unit}
			{onclose}
			onsize={(to, left) => void done(card, size(card, to, left))}
		/>
	{/await}
{:else if ask.kind === 'column'}
	{@const column = board.head.columns.find((known) => known.id === (ask.kind === 'column' && ask.column))!}
	{#await import('../dialogs/ColumnDialog.svelte') then { default: ColumnDialog }}
		<ColumnDialog {column} {onclose} onchange={(to) => void done(null, change(column, to))} />
	{/await}
{/if}
