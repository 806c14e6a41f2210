<script lang="ts">
	import { enhance } from '$app/forms';
	import { Input, Label } from 'flowbite-svelte';
	import Outside from '$lib/ui/frame/Outside.svelte';

	let { form } = $props();
</script>

<Outside>
	{#if form?.sent}
		<h1>Look into your mail</h1>
		<p>
			If <b>{form.email}</b> has an account here, a letter with a link to a new password is on its way. The link
			works once, within a day.
		</p>
	{:else}
		<h1>A new password</h1>
		<p>Say the address of your account. A link to a new password is mailed to it.</p>
		<form method="POST" use:enhance>
			<Label for="forgotten-email">E-mail address</Label>
			<Input
				id="forgotten-email"
				name="email"
				type="email"
				autocomplete="username"
				required
				value={form?.email ?? ''}
				aria-describedby="forgotten-problem"
			/>
			<p id="forgotten-problem" class="warn" role="alert">{form?.problem ?? ''}</p>
			<button class="go">Send the link</button>
		</form>
	{/if}
	<p><a class="link" href="/sign-in">Sign in</a></p>
</Outside>
