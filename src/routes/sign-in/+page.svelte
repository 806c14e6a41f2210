<script lang="ts">
	import { enhance } from '$app/forms';
	import { page } from '$app/state';
	import { Input, Label } from 'flowbite-svelte';
	import NameTag from '$lib/ui/board/NameTag.svelte';
	import Mark from '$lib/ui/frame/Mark.svelte';

	let { data, form } = $props();
	const next = $derived(page.url.searchParams.get('next'));
	const action = (name: string) => `?/${name}${next ? `&next=${encodeURIComponent(next)}` : ''}`;
</script>

<svelte:head><title>Sign in · Harrow</title></svelte:head>
<main>
	<h1>
		<Mark width={34} /> Harrow
	</h1>
	<p class="soft">Boards, sprints and honest figures for a team that delivers.</p>
	{#if data.demo}
		<h2>Sign in as one of the made-up people</h2>
		<form method="POST" action={action('demo')} class="people" use:enhance>
			{#each data.demo as person, seed (person.id)}
				<button name="person" value={person.id}>
					<NameTag {person} {seed} />
					<span>{person.name}</span>
					<small
						>{person.role === 'lead'
							? 'leads, '
							: person.role === 'viewer'
								? 'looks on, '
								: ''}{person.title.toLowerCase()}</small
					>
				</button>
			{/each}
		</form>
		<h2>Or with an address and a password</h2>
	{/if}
	<form method="POST" action={action('password')} class="password" use:enhance>
		<Label for="email">E-mail address</Label>
		<Input id="email" name="email" type="email" autocomplete="username" required value={form?.email ?? ''} />
		<Label for="password">Password</Label>
		<Input
			id="password"
			name="password"
			type="password"
			autocomplete="current-password"
			required
			aria-describedby="problem"
		/>
		<p id="problem" class="warn" role="alert">{form?.problem ?? ''}</p>
		<button class="go">Sign in</button>
	</form>
	{#if data.mail}<p class="soft"><a class="link" href="/forgotten">I have forgotten my password</a></p>{/if}
</main>

<style>
	main {
		width: min(460px, 100%);
		margin: 6vh auto 0;
		padding: 0 20px 40px;
	}
	h1 {
		display: flex;
		gap: 12px;
		align-items: center;
		font-size: 2.1rem;
	}
	h1 :global(svg) {
		color: var(--ochre-fill);
	}
	h2 {
		font-size: 1.1rem;
		margin: 26px 0 8px;
	}
	.soft {
		margin: 4px 0 0;
	}
	.people {
		display: grid;
		border-top: 1px solid var(--rule);
	}
	.people button {
		display: flex;
		gap: 10px;
		align-items: center;
		min-height: 44px;
		padding: 4px 6px;
		border: 0;
		border-bottom: 1px solid var(--rule);
		background: none;
		color: inherit;
		text-align: left;
	}
	.people button:hover {
		background: var(--sheet);
	}
	.people span {
		font-weight: 560;
	}
	small {
		margin-left: auto;
		color: var(--soft);
		font-size: 0.93rem;
	}
	.password {
		display: grid;
		gap: 6px;
	}
	.password p {
		margin: 0;
	}
	.password .go {
		justify-self: start;
		margin-top: 6px;
	}
</style>
