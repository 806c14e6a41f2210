<script lang="ts">
	import type { Snippet } from 'svelte';
	import type { RetroNote } from '$core/pages/retrospective';
	import NameTag from '../board/NameTag.svelte';

	interface Props {
		note: Pick<RetroNote, 'id' | 'words' | 'author' | 'mine'>;
		/** The colour of its writer. */
		seed?: number;
		/** It can be taken hold of. */
		held?: boolean;
		moving?: boolean;
		over?: boolean;
		/** Takes new words; without it they stay. */
		onchange?: (words: string) => void;
		/** Takes the note back. */
		onwithdraw?: () => void;
		/** What stands at its foot. */
		foot?: Snippet;
	}
	/** A note that was turned over, or one of one’s own. */
	let {
		note,
		seed = 0,
		held = false,
		moving = false,
		over = false,
		onchange,
		onwithdraw,
		foot,
	}: Props = $props();
	let text = $state<string | null>(null);
	const take = (box: HTMLTextAreaElement) => box.focus();

	function keep(): void {
		const words = text?.trim();
		text = null;
		if (words && words !== note.words) onchange?.(words);
	}
</script>

<article class="note" class:held class:moving class:over data-note={held ? note.id : undefined}>
	{#if text !== null}
		<textarea
			aria-label="The note"
			rows="3"
			maxlength="500"
			bind:value={text}
			{@attach take}
			onblur={keep}
			onkeydown={(event) => {
				if (event.key === 'Escape') text = null;
				else if (event.key === 'Enter' && !event.shiftKey) {
					event.preventDefault();
					keep();
				}
			}}></textarea>
	{:else}
		<p>
			{#if held}<span class="grip" aria-hidden="true">⠿</span>{/if}{note.words}
		</p>
		<div class="foot">
			{#if note.author}<NameTag person={note.author} {seed} />{/if}
			{#if onchange}<button type="button" class="link" onclick={() => (text = note.words)}
					>Change<span class="sr-only">: {note.words}</span></button
				>{/if}
			{#if onwithdraw}<button type="button" class="link" onclick={onwithdraw}
					>Take back<span class="sr-only">: {note.words}</span></button
				>{/if}
			{@render foot?.()}
		</div>
	{/if}
</article>

<style>
	.note {
		background: var(--sheet);
		border: 1px solid var(--rule);
		border-left: 4px solid var(--river);
		padding: 8px 10px 6px;
	}
	.held {
		touch-action: pan-y;
		cursor: grab;
	}
	.moving {
		opacity: 0.5;
	}
	.over {
		outline: 3px solid var(--river);
		outline-offset: 1px;
	}
	p {
		overflow-wrap: anywhere;
		white-space: pre-line;
	}
	.grip {
		display: none;
		padding-right: 8px;
		color: var(--soft);
		touch-action: none;
	}
	.foot {
		display: flex;
		flex-wrap: wrap;
		gap: 4px 12px;
		align-items: center;
		min-height: max(24px, var(--touch, 0px));
		margin-top: 4px;
	}
	textarea {
		width: 100%;
		background: var(--paper);
	}
	@media (pointer: coarse) {
		.grip {
			display: inline;
			font-size: 1.2rem;
		}
	}
</style>
