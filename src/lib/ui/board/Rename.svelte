<script lang="ts">
	import type { CardView } from '$core/pages/board';

	let { card, onrename, onend }: { card: CardView; onrename: (title: string) => void; onend: () => void } =
		$props();
	// The draft begins with the title as it was when renaming began; later changes must not overwrite what is typed.
	// svelte-ignore state_referenced_locally
	let title = $state(card.title);
	const take = (element: HTMLTextAreaElement) => element.select();
	let ended = false;

	function end(keep: boolean) {
		if (ended) return;
		ended = true;
		const text = title.trim();
		if (keep && text && text !== card.title) onrename(text);
		onend();
	}

	function onkeydown(event: KeyboardEvent) {
		event.stopPropagation();
		if (event.key === 'Escape') end(false);
		if (event.key === 'Enter' && !event.isComposing) {
			event.preventDefault();
			end(true);
		}
	}
</script>

<textarea
	bind:value={title}
	rows="3"
	maxlength="300"
	aria-label="Title of card {card.number}"
	{onkeydown}
	onblur={() => end(true)}
	{@attach take}></textarea>

<style>
	textarea {
		width: 100%;
		resize: none;
		padding: 7px 9px;
		border: 1.5px solid var(--river);
		border-radius: 3px;
		background: var(--sheet);
		color: var(--ink);
		font: 560 1rem var(--text);
	}
</style>
