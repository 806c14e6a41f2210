<script lang="ts">
	import type { Snippet } from 'svelte';

	/** A part of a page: where it fails, that is said in its place and in the server's log, and the rest stands. */
	let { name, children }: { name: string; children: Snippet } = $props();

	function fault(error: unknown): void {
		const said = error instanceof Error ? (error.stack ?? error.message) : String(error);
		console.error(said);
		void fetch('/api/faults', {
			method: 'POST',
			headers: { 'content-type': 'application/json' },
			body: JSON.stringify({ part: name, path: location.pathname, error: said.slice(0, 4000) }),
		}).catch(() => undefined);
	}
</script>

<svelte:boundary onerror={fault}>
	{@render children()}
	{#snippet failed(_error, reset)}
		<p class="failed" role="alert">
			{name} cannot be shown just now; the rest of the page is as it was. It was written down.
			<button type="button" class="link" onclick={reset}>Try again</button>
		</p>
	{/snippet}
</svelte:boundary>

<style>
	.failed {
		margin: 12px 20px;
		padding: 8px 12px;
		border-left: 4px solid var(--brick);
		background: var(--sheet);
	}
</style>
