<script lang="ts">
	import type { RetroNote } from '$core/pages/retrospective';

	interface Props {
		note: RetroNote;
		/** Notes that it can be laid on. */
		others: readonly RetroNote[];
		onlay: (on: string) => void;
	}
	/** Lays a note on another one without dragging it. */
	let { note, others, onlay }: Props = $props();
	/** It is asked which one. */
	let asking = $state(false);
	const short = (words: string) => (words.length > 40 ? `${words.slice(0, 40).trimEnd()}…` : words);
</script>

{#if asking}
	<select
		class="choice"
		aria-label="Lay it on: {note.words}"
		{@attach (box) => box.focus()}
		onblur={() => (asking = false)}
		onkeydown={(event) => event.key === 'Escape' && (asking = false)}
		onchange={(event) => {
			onlay(event.currentTarget.value);
			asking = false;
		}}
	>
		<option value="" disabled selected>lay it on…</option>
		{#each others as other (other.id)}<option value={other.id}>{short(other.words)}</option>{/each}
	</select>
{:else}<button type="button" class="link" onclick={() => (asking = true)}
		>Lay on another<span class="sr-only">: {note.words}</span></button
	>{/if}
