<script lang="ts">
	import { page } from '$app/state';

	/** The foot of every page on a phone: what is one's own, what one is told, the boards, and finding. */
	const notices = $derived(page.data.notices);
	const at = $derived(page.url.pathname);
	const here = (path: string) => (at === path ? 'page' : undefined);
	function find() {
		document.querySelector<HTMLInputElement>('header [role="combobox"], header input')?.focus();
	}
</script>

<nav class="foot screen-only" aria-label="Yours">
	<a href="/mine" aria-current={here('/mine')}>My cards</a>
	<a href="/notices" aria-current={here('/notices')}
		>Notices{#if notices?.asks}&nbsp;<b>{notices.asks}</b>{:else if notices?.unread}&nbsp;<span
				aria-hidden="true">•</span
			><span class="sr-only">, {notices.unread} not read</span>{/if}</a
	>
	<a href="/" aria-current={here('/')}>Boards</a>
	<button type="button" onclick={find}>Find</button>
</nav>

<style>
	.foot {
		display: none;
	}
	@media (max-width: 700px) {
		.foot {
			position: sticky;
			bottom: 0;
			z-index: 6;
			display: grid;
			grid-template-columns: repeat(4, 1fr);
			flex: none;
			margin-top: auto;
			background: var(--sheet);
			border-top: 1px solid var(--rule);
		}
		a,
		button {
			display: grid;
			place-content: center;
			grid-auto-flow: column;
			min-height: 48px;
			padding: 0;
			border: 0;
			border-top: 3px solid transparent;
			background: none;
			color: var(--soft);
			font: inherit;
			text-decoration: none;
		}
		[aria-current] {
			border-top-color: var(--moss);
			color: var(--ink);
			font-weight: 650;
		}
		b {
			color: var(--brick);
		}
	}
</style>
