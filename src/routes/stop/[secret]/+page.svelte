<script lang="ts">
	import { enhance } from '$app/forms';
	import Outside from '$lib/ui/frame/Outside.svelte';

	let { data, form } = $props();
</script>

<Outside>
	{#if data.link && form?.stopped}
		<h1>You are not sent {data.link.what} any more</h1>
		<p>In Harrow you are told as before. How you are told of what stands with your notices.</p>
		<p><a class="link" href="/notices">Your notices</a></p>
	{:else if data.link}
		<h1>No more of these, {data.link.name}?</h1>
		<p>You will not be sent {data.link.what} any more. In Harrow you are told as before.</p>
		<form method="POST" use:enhance><button class="go">Send me no more of these</button></form>
	{:else}
		<h1>This link stops nothing</h1>
		<p>{data.problem || 'The address is not complete. How you are told of what stands with your notices.'}</p>
		<p><a class="link" href="/notices">Your notices</a></p>
	{/if}
</Outside>
