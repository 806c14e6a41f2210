<script lang="ts">
	/** Adds cards one after the other: Enter adds and stays, Escape ends. */
	let { onadd, onend }: { onadd: (title: string) => Promise<boolean>; onend: () => void } = $props();
	let title = $state('');
	let problem = $state('');
	const take = (element: HTMLTextAreaElement) => element.focus();

	async function add() {
		const text = title.trim();
		if (!text) return onend();
		if (text.length > 300) {
			problem = 'The title may have at most 300 characters.';
			return;
		}
		problem = '';
		title = '';
		if (!(await onadd(text))) title = text;
	}

	function onkeydown(event: KeyboardEvent) {
		event.stopPropagation();
		if (event.key === 'Escape') onend();
		if (event.key === 'Enter' && !event.isComposing) {
			event.preventDefault();
			void add();
		}
	}
</script>

<div class="adding">
	<textarea
		bind:value={title}
		rows="2"
		aria-label="Title of the new card"
		placeholder="Title, then Enter"
		{onkeydown}
		{@attach take}
		onblur={() => !title.trim() && onend()}></textarea>
	{#if problem}<p role="alert">{problem}</p>{/if}
</div>

<style>
	.adding {
		margin: 8px 0 0;
	}
	textarea {
		width: 100%;
		resize: none;
		padding: 7px 9px;
		border: 1.5px solid var(--river);
		border-radius: 3px;
		background: var(--sheet);
		color: var(--ink);
		font: inherit;
	}
	p {
		margin: 2px 0 0;
		color: var(--brick);
	}
</style>
