<script lang="ts">
	import type { Writing } from './writing.svelte';

	interface Props {
		/** The column that it is written in. */
		name: string;
		place: number;
		writing: Writing;
	}
	/** A line in which a note is written. */
	let { name, place, writing }: Props = $props();

	function onsubmit(event: Event): void {
		event.preventDefault();
		void writing.write(place);
	}
</script>

<form {onsubmit}>
	<textarea
		aria-label="Write a note: {name}"
		rows="2"
		maxlength="500"
		placeholder="Write a note, Enter lays it down"
		bind:value={writing.begun[place]}
		oninput={(event) => writing.draft(place, event.currentTarget.value)}
		onkeydown={(event) => event.key === 'Enter' && !event.shiftKey && !event.isComposing && onsubmit(event)}
	></textarea>
	<button class="link" disabled={!(writing.begun[place] ?? '').trim()}>Lay it down</button>
</form>

<style>
	textarea {
		width: 100%;
		background: var(--sheet);
		border: 1px solid var(--edge);
		border-radius: 4px;
		resize: vertical;
	}
	.link:disabled {
		visibility: hidden;
	}
</style>
