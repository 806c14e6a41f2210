<script lang="ts">
	import type { Phase, Pile as Laid } from '$core/retrospective/phases';
	import type { RetroNote } from '$core/pages/retrospective';
	import { count } from '../words';
	import Dots from './Dots.svelte';
	import LayOn from './LayOn.svelte';
	import Note from './Note.svelte';

	interface Props {
		pile: Laid<RetroNote>;
		phase: Phase;
		/** Whoever looks takes part. */
		works: boolean;
		/** Votes that are left. */
		left: number;
		/** Notes that others can be laid on. */
		tops: readonly RetroNote[];
		/** The note that is dragged, and the one that it is held over. */
		moving: string;
		over: string;
		seedOf: (name: string | undefined) => number;
		onchange: (note: RetroNote, words: string) => void;
		/** Lays a note on another, or by itself (null). */
		onlay: (note: string, on: string | null) => void;
		onvote: (note: RetroNote, by: number) => void;
	}
	/** A note with those that are laid on it, and the votes for all of them. */
	let { pile, phase, works, left, tops, moving, over, seedOf, onchange, onlay, onvote }: Props = $props();
	const { top, under, votes } = $derived(pile);
	const laying = $derived(phase === 'lay');
	const change = (note: RetroNote) =>
		laying && note.mine ? (words: string) => onchange(note, words) : undefined;
</script>

<div class:many={under.length}>
	<Note
		note={top}
		seed={seedOf(top.author?.name)}
		held={laying && works}
		moving={moving === top.id}
		over={over === top.id}
		onchange={change(top)}
	>
		{#snippet foot()}
			{#if laying && tops.length > 1}<LayOn
					note={top}
					others={tops.filter(({ id }) => id !== top.id)}
					onlay={(on) => onlay(top.id, on)}
				/>{/if}
			{#if phase === 'vote'}
				<Dots votes={top.given} label="{top.given} of your votes" />
				{#if top.given}<button type="button" class="link" onclick={() => onvote(top, -1)}
						>Take one back<span class="sr-only">: {top.words}</span></button
					>{/if}
				{#if left}<button type="button" class="plain vote" onclick={() => onvote(top, 1)}
						>Vote<span class="sr-only">: {top.words}</span></button
					>{/if}
			{:else if votes}<Dots {votes} label={count(votes, 'vote')} />{/if}
		{/snippet}
	</Note>
	{#each under as note (note.id)}<div class="under">
			<Note
				{note}
				seed={seedOf(note.author?.name)}
				held={laying && works}
				moving={moving === note.id}
				onchange={change(note)}
			>
				{#snippet foot()}{#if laying}<button type="button" class="link" onclick={() => onlay(note.id, null)}
							>By itself<span class="sr-only">: {note.words}</span></button
						>{/if}{/snippet}
			</Note>
		</div>{/each}
</div>

<style>
	.many {
		border-bottom: 3px double var(--rule);
		padding-bottom: 4px;
	}
	.under {
		margin: 2px 0 0 14px;
	}
	.vote {
		min-height: max(28px, var(--touch, 0px));
		padding: 0 10px;
		margin-left: auto;
	}
</style>
