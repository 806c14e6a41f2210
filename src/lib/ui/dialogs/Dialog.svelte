<script lang="ts">
	import { Modal } from 'flowbite-svelte';
	import { untrack, type Snippet } from 'svelte';
	import { asked } from './asked.svelte';

	interface Props {
		title: string;
		/** For what needs two columns. */
		wide?: boolean;
		onclose: () => void;
		children: Snippet;
	}
	let { title, wide = false, onclose, children }: Props = $props();
	let open = $state(true);
	const sent = asked();
	untrack(() => sent?.begin());
	// Whoever opened the dialog gets the focus back.
	const before = document.activeElement;
	$effect(() => {
		if (open) return;
		onclose();
		if (before instanceof HTMLElement && before.isConnected) before.focus();
	});
</script>

<Modal
	bind:open
	{title}
	aria-label={title}
	size={wide ? 'lg' : 'xs'}
	dismissable
	transitionParams={{ duration: 0 }}
	onkeydown={(event: KeyboardEvent) => event.stopPropagation()}
>
	{@render children()}
	{#if sent?.problem}<p class="warn" role="alert">{sent.problem}</p>
	{:else if sent?.sending}<p class="soft" role="status">Sending…</p>{/if}
</Modal>

<style>
	p {
		margin: 10px 0 0;
	}
</style>
