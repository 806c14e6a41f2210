<script lang="ts">
	import { Input, Label } from 'flowbite-svelte';
	import { untrack } from 'svelte';

	/** Who somebody is: name, address and a new password, as fields of a form. */
	let { name = '', email = '', wrong = '' }: { name?: string; email?: string; wrong?: string } = $props();
	// What is typed stays when the form is refused.
	let called = $state(untrack(() => name));
	let address = $state(untrack(() => email));
	let secret = $state('');
	const bad = (field: string) =>
		wrong === field ? { 'aria-invalid': true, 'aria-describedby': 'form-problem' } : {};
</script>

<div>
	<Label for="your-name">Your name</Label>
	<Input
		id="your-name"
		name="name"
		autocomplete="name"
		required
		maxlength={80}
		bind:value={called}
		{...bad('name')}
	/>
</div>
<div>
	<Label for="your-email">E-mail address</Label>
	<Input
		id="your-email"
		name="email"
		type="email"
		autocomplete="username"
		required
		maxlength={200}
		bind:value={address}
		{...bad('email')}
	/>
</div>
<div>
	<Label for="your-password">A password: ten characters or more, such as a few words</Label>
	<Input
		id="your-password"
		name="password"
		type="password"
		autocomplete="new-password"
		required
		minlength={10}
		maxlength={200}
		bind:value={secret}
		{...bad('password')}
	/>
</div>

<style>
	div {
		min-width: 0;
	}
</style>
