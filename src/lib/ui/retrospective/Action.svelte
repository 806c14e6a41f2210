<script lang="ts">
	import type { RetroAction } from '$core/pages/retrospective';
	import NameTag from '../board/NameTag.svelte';
	import { dateWords } from '../words';

	interface Props {
		action: RetroAction;
		/** The colour of its owner. */
		seed?: number;
		slug: string;
		today: string;
		/** Whether it can be ticked and taken back here. */
		changes: boolean;
		ondone?: (done: boolean) => void;
		onwithdraw?: () => void;
	}
	/** What was agreed, who sees to it, by when, and how it stands. */
	let { action, seed = 0, slug, today, changes, ondone, onwithdraw }: Props = $props();
	const late = $derived(!action.done && action.due !== null && action.due < today);
</script>

<li class:done={action.done}>
	{#if action.carded}<span class="state" aria-hidden="true">{action.done ? '✓' : '·'}</span>
	{:else}<input
			type="checkbox"
			aria-label="Done: {action.words}"
			checked={action.done}
			disabled={!changes}
			onchange={(event) => ondone?.(event.currentTarget.checked)}
		/>{/if}
	<span class="words">{action.words}</span>
	{#if action.owner}<NameTag person={action.owner} {seed} />{/if}
	{#if action.due}<span class:warn={late}>{late ? 'was due' : 'by'} {dateWords(action.due, today)}</span>{/if}
	{#if action.card}<a class="link" href="/boards/{slug}?card={action.card.key}">{action.card.key}</a>
		<span class="soft">{action.card.stands}</span>
	{:else if action.carded}<span class="soft">a card that you may not see</span>{/if}
	{#if changes && onwithdraw && !action.carded}<button type="button" class="link" onclick={onwithdraw}
			>Take back<span class="sr-only">: {action.words}</span></button
		>{/if}
</li>

<style>
	li {
		display: flex;
		flex-wrap: wrap;
		gap: 4px 10px;
		align-items: center;
		min-height: max(30px, var(--touch, 0px));
		padding: 3px 0;
	}
	.state {
		width: 14px;
		text-align: center;
		font-weight: 700;
		color: var(--moss);
	}
	/* Beside its tick, however long it is. */
	.words {
		max-width: calc(100% - 44px);
		font-weight: 560;
	}
	.done .words {
		text-decoration: line-through;
		font-weight: 400;
		color: var(--soft);
	}
	input {
		flex: none;
	}
</style>
