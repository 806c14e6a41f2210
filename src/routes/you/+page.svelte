<script lang="ts">
	import { invalidate } from '$app/navigation';
	import { Input, Label, Radio } from 'flowbite-svelte';
	import Bar from '$lib/ui/frame/Bar.svelte';
	import { keys } from '$lib/ui/frame/keys.svelte';
	import { send } from '$lib/ui/send';
	import { momentWords } from '$lib/ui/words';

	let { data } = $props();
	let name = $state('');
	let scope = $state<'read' | 'write'>('read');
	let secret = $state('');
	let problem = $state('');

	async function make(event: SubmitEvent) {
		event.preventDefault();
		const sent = await send('MakeToken', { name, scope });
		problem = sent.ok ? '' : sent.refusal.title;
		if (!sent.ok) return;
		secret = sent.answer.secret ?? '';
		name = '';
		await invalidate('harrow:tokens');
	}

	async function revoke(token: string) {
		const sent = await send('RevokeToken', { token });
		problem = sent.ok ? '' : sent.refusal.title;
		await invalidate('harrow:tokens');
	}
</script>

<Bar person={data.person!} keysOn={keys.on} />
<main>
	<h1>{data.person!.name}</h1>
	<h2>Keys</h2>
	<label class="tick"
		><input type="checkbox" bind:checked={keys.on} /> Single keys, such as B to block, work on boards</label
	>
	<h2>Tokens</h2>
	<p class="soft">
		A script that sends a token as a bearer token can do what you can do. What there is to do is described at <a
			class="link"
			href="/api/openapi.json">/api/openapi.json</a
		>.
	</p>
	{#if data.tokens.length}
		<ul>
			{#each data.tokens as token (token.id)}
				<li>
					<span
						><b>{token.name}</b>
						<small
							>{token.scope === 'read' ? 'reads' : 'reads and writes'}, made {momentWords(
								token.created.toISOString(),
								'UTC',
							)}</small
						></span
					>
					<button
						type="button"
						class="plain"
						aria-label="End {token.name}"
						onclick={() => void revoke(token.id)}>End</button
					>
				</li>
			{/each}
		</ul>
	{/if}
	{#if secret}<p role="status">Copy it now, it is shown this once: <code>{secret}</code></p>{/if}
	<form onsubmit={make}>
		<Label for="token-name">What the token is for</Label>
		<Input
			id="token-name"
			bind:value={name}
			maxlength={80}
			autocomplete="off"
			aria-describedby="token-problem"
		/>
		<Radio name="scope" bind:group={scope} value="read">may read</Radio>
		<Radio name="scope" bind:group={scope} value="write">may read and write</Radio>
		<p id="token-problem" class="warn" role="alert">{problem}</p>
		<button class="go">Make a token</button>
	</form>
</main>

<style>
	main {
		width: min(620px, 100%);
		margin: 0 auto;
		padding: 28px 20px 60px;
	}
	h1 {
		font-size: 1.7rem;
	}
	h2 {
		font-size: 1.2rem;
		margin: 24px 0 6px;
	}
	.soft,
	small {
		color: var(--soft);
		font-size: 0.95rem;
	}
	.tick {
		display: flex;
		gap: 8px;
		align-items: center;
		min-height: 36px;
	}
	ul {
		list-style: none;
		padding: 0;
		margin: 10px 0;
	}
	li {
		display: flex;
		justify-content: space-between;
		align-items: center;
		gap: 12px;
		padding: 6px 0;
		border-top: 1px solid var(--rule);
	}
	code {
		overflow-wrap: anywhere;
		font-weight: 600;
	}
	form {
		display: grid;
		gap: 8px;
		max-width: 360px;
		margin-top: 14px;
	}
	.go {
		justify-self: start;
	}
	p {
		margin: 4px 0;
	}
</style>
