<script lang="ts">
	import type { Snippet } from 'svelte';

	interface Props {
		href: string;
		/** The key of the card, or the board. */
		of: string;
		title: string;
		/** What moves it on, before it. */
		box?: Snippet;
		/** What is known of it, and done with it there. */
		children: Snippet;
		/** The one likely thing to do, at its end. */
		act?: Snippet;
	}
	/** A line of somebody’s own page: what it is, what is known of it, and what is likely done with it. */
	let { href, of, title, box, children, act }: Props = $props();
</script>

<li>
	<span>{@render box?.()}</span>
	<div>
		<a {href}><small>{of}</small> <b>{title}</b></a>
		{@render children()}
	</div>
	{@render act?.()}
</li>

<style>
	li {
		display: grid;
		grid-template-columns: 44px 1fr auto;
		gap: 4px 8px;
		align-items: start;
		padding: 7px 0;
		border-bottom: 1px dotted var(--edge);
	}
	div {
		min-width: 0;
		overflow-wrap: anywhere;
	}
	a {
		display: block;
		min-height: max(24px, var(--touch, 0px));
		text-decoration: none;
	}
	a:hover b {
		text-decoration: underline;
	}
	small {
		font-size: 12px;
		color: var(--soft);
		font-weight: 600;
	}
	div > :global(p) {
		margin: 0;
		font-size: 0.93rem;
		color: var(--soft);
	}
</style>
