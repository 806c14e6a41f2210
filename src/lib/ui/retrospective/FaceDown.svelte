<script lang="ts">
	import { count } from '../words';
	import Note from './Note.svelte';
	import type { Writing } from './writing.svelte';

	interface Props {
		place: number;
		/** How many notes lie in the column, those of others among them. */
		down: number;
		writing: Writing;
	}
	/** Notes that lie face down: one reads one’s own, of the others one sees how many there are. */
	let { place, down, writing }: Props = $props();
	const MOST = 40;
	const mine = $derived(writing.mineIn(place));
	const others = $derived(Math.max(0, down - mine.length));
</script>

{#each mine as note (note.id)}<Note
		note={{ ...note, author: null, mine: true }}
		onchange={(words) => void writing.change(note, place, words)}
		onwithdraw={() => void writing.withdraw(note)}
	/>{/each}
{#if others}<div role="img" aria-label="{count(others, 'note')} of others, face down">
		{#each { length: Math.min(others, MOST) } as _, i (i)}<span></span>{/each}
	</div>{/if}

<style>
	div {
		display: flex;
		flex-wrap: wrap;
		gap: 6px;
	}
	/* A furrowed back. */
	span {
		width: 62px;
		height: 34px;
		border: 1px solid var(--rule);
		background: repeating-linear-gradient(115deg, var(--sheet) 0 5px, var(--rule) 5px 6px);
	}
</style>
