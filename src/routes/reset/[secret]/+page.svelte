<script lang="ts">
	import { enhance } from '$app/forms';
	import { Input, Label } from 'flowbite-svelte';
	import Outside from '$lib/ui/frame/Outside.svelte';

	let { data, form } = $props();
</script>

<Outside>
	{#if data.name}
		<h1>A new password for {data.name}</h1>
		<p>Setting it signs you out everywhere else.</p>
		<form method="POST" use:enhance>
			<Label for="new-password">The new password: ten characters or more, such as a few words</Label>
			<Input
				id="new-password"
				name="password"
				type="password"
				autocomplete="new-password"
				required
				minlength={10}
				maxlength={200}
				aria-describedby="reset-problem"
			/>
			<p id="reset-problem" class="warn" role="alert">{form?.problem ?? ''}</p>
			<button class="go">Set it and sign in</button>
		</form>
	{:else}
		<h1>This link sets no password any more</h1>
		<p>
			{data.problem ||
				'It was used already, is older than a day, or the address is not complete. Ask for a new one, or have a lead of your team make you one.'}
		</p>
		<p><a class="link" href="/sign-in">Sign in</a></p>
	{/if}
</Outside>
