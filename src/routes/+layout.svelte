<script lang="ts">
	import '../app.css';
	import { afterNavigate, beforeNavigate, invalidateAll } from '$app/navigation';
	import { page } from '$app/state';
	import { untrack } from 'svelte';
	import { outbox } from '$lib/ui/outbox.svelte';
	import Foot from '$lib/ui/frame/Foot.svelte';
	import { reread } from '$lib/ui/frame/reread';
	import { keepPage, kept } from '$lib/ui/kept.svelte';
	import { count, momentWords } from '$lib/ui/words';

	let { data, children } = $props();
	// Says that the page answers to clicks and keys from here on.
	$effect(() => void (document.documentElement.dataset.awake = 'yes'));
	const person = $derived(data.person?.id);
	$effect(() => untrack(() => kept.begin(() => void invalidateAll())));
	// Without a connection the way to another page leads over what is kept of it.
	beforeNavigate(({ to, cancel, willUnload }) => {
		if (willUnload || !to || (kept.since === null && !outbox.waiting)) return;
		if (to.url.pathname === page.url.pathname) return;
		cancel();
		location.href = to.url.href;
	});
	afterNavigate(({ to, type }) => {
		if (type !== 'enter' && to && person && matchMedia('(max-width: 700px)').matches)
			keepPage(to.url.pathname + to.url.search);
	});
	// Pages of a board hear of new notices with what happens there; all others listen to those alone.
	const alone = $derived(person && !page.data.head);
	$effect(() => {
		if (!alone) return;
		const stream = new EventSource('/api/you/live');
		let known = false;
		stream.addEventListener('notices', () => {
			// The first word only says that it listens; one that comes again may have missed something.
			if (known) void reread('harrow:notices');
			known = true;
		});
		return () => stream.close();
	});
	$effect(() => {
		const id = person;
		if (id) return untrack(() => outbox.begin(id, () => void invalidateAll()));
	});
</script>

<svelte:head><title>{page.data.title ? `${page.data.title} · Harrow` : 'Harrow'}</title></svelte:head>

<div class="whole">
	{#if data.demo}<p class="demo screen-only">
			Demonstration: everything here is made up<span class="long">, and anyone can sign in as anyone</span
			>.{#if data.outbox && data.person}
				<a href="/outbox">What was mailed</a>{/if}
		</p>{/if}
	{@render children()}
	{#if data.person}<Foot />{/if}
	{#if !page.data.head}{#each outbox.told as told, i (i)}<div class="waits told">
				{#await import('$lib/ui/frame/Refused.svelte') then { default: Refused }}<Refused {told} />{/await}
			</div>{/each}{/if}
	{#if kept.since !== null}<p class="waits" role="status">
			Not connected: kept on this device, as it was on {momentWords(
				new Date(kept.since).toISOString(),
				Intl.DateTimeFormat().resolvedOptions().timeZone,
			)}{outbox.waiting
				? `. ${count(outbox.waiting, 'change')} ${outbox.waiting === 1 ? 'waits' : 'wait'} to be sent`
				: ''}.
		</p>
	{:else if outbox.waiting && !page.data.head}<p class="waits" role="status">{outbox.says}</p>{/if}
</div>

<style>
	.whole {
		display: flex;
		flex-direction: column;
		min-height: 100dvh;
	}
	.waits {
		position: fixed;
		inset: auto 12px calc(16px + var(--foot));
		z-index: 50;
		margin: 0 auto;
		width: fit-content;
		padding: 8px 14px;
		border-radius: 4px;
		background: var(--ink);
		color: var(--paper);
	}
	.told {
		padding: 0;
		background: none;
		color: inherit;
	}
	.demo a {
		margin-left: 0.6em;
		color: inherit;
		text-decoration: underline;
	}
	@media (max-width: 700px) {
		.long {
			display: none;
		}
	}
	.demo {
		margin: 0;
		padding: 2px 20px;
		background: var(--wheat);
		color: #2a1f10;
		font-size: 12px;
		text-align: center;
		flex: none;
	}
</style>
