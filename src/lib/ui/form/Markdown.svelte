<script lang="ts">
	import { getContext } from 'svelte';
	import type { NamedCard } from '$core/pages/card';

	/** Markdown, shown as it is meant. What it needs is loaded when there is something to show. */
	let { text }: { text: string } = $props();
	const named = getContext<(() => Record<string, NamedCard> | undefined) | undefined>('named-cards');
</script>

{#await import('./markdown') then { markdown }}
	<!-- eslint-disable-next-line svelte/no-at-html-tags -- sanitised in markdown() -->
	<div class="markdown">{@html markdown(text, named?.())}</div>
{/await}

<style>
	.markdown {
		overflow-wrap: anywhere;
	}
	.markdown :global(:is(p, ul, ol, pre, blockquote, table)) {
		margin: 0 0 8px;
	}
	.markdown :global(:is(ul, ol)) {
		padding-left: 22px;
		list-style: revert;
	}
	.markdown :global(:is(h1, h2, h3, h4)) {
		font-size: 1.05rem;
		margin: 10px 0 4px;
	}
	.markdown :global(a) {
		color: var(--moss);
		text-decoration: underline;
	}
	.markdown :global(code) {
		background: var(--sunk);
		padding: 0 3px;
		border-radius: 2px;
	}
	.markdown :global(pre) {
		background: var(--sunk);
		padding: 6px 8px;
		overflow-x: auto;
	}
	.markdown :global(img) {
		display: block;
		max-width: 100%;
		max-height: 320px;
		border: 1px solid var(--rule);
		border-radius: 2px;
	}
	.markdown :global(blockquote) {
		border-left: 3px solid var(--rule);
		padding-left: 10px;
		color: var(--soft);
	}
	.markdown :global(td),
	.markdown :global(th) {
		border: 1px solid var(--rule);
		padding: 2px 6px;
	}
</style>
