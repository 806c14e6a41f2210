<script lang="ts">
	import { page } from '$app/state';
	import Bar from '$lib/ui/frame/Bar.svelte';
	import { keys } from '$lib/ui/frame/keys.svelte';
</script>

{#if page.data.person}<Bar person={page.data.person} keysOn={keys.on} />{/if}
<main>
	<h1>{page.status === 404 ? 'Not found' : 'That did not work'}</h1>
	<p>{page.error?.message}</p>
	<p><a class="link" href="/">See all boards</a></p>
</main>

<style>
	main {
		width: min(560px, 100%);
		margin: 12vh auto 0;
		padding: 0 20px;
	}
	h1 {
		font-size: 1.7rem;
	}
</style>
