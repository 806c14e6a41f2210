<script lang="ts">
	import { enhance } from '$app/forms';
	import { invalidate, invalidateAll } from '$app/navigation';
	import { Input, Label, Radio } from 'flowbite-svelte';
	import { onMount, untrack } from 'svelte';
	import Bar from '$lib/ui/frame/Bar.svelte';
	import { keys } from '$lib/ui/frame/keys.svelte';
	import Calendars from '$lib/ui/people/Calendars.svelte';
	import { send } from '$lib/ui/send';
	import { momentWords } from '$lib/ui/words';

	let { data, form: answer } = $props();
	const form = $derived(answer as { problem?: string; done?: string } | null);
	const first = untrack(() => ({ ...data.you, ...data.person! }));
	let called = $state(first.name);
	let initials = $state(first.initials);
	let email = $state(first.email);
	let zone = $state(first.timeZone);
	let zones = $state.raw<string[]>([]);
	let kept = $state('');
	let wrong = $state('');
	onMount(() => (zones = Intl.supportedValuesOf('timeZone')));

	async function keep(event: SubmitEvent) {
		event.preventDefault();
		const sent = await send('ChangeYou', {
			name: called.trim(),
			initials: initials.trim(),
			email: email.trim(),
			timeZone: zone.trim(),
		});
		wrong = sent.ok ? '' : sent.refusal.title;
		kept = sent.ok ? 'Kept.' : '';
		if (sent.ok) await invalidateAll();
	}
	async function end(session: string) {
		const sent = await send('EndSession', { session });
		problem = sent.ok ? '' : sent.refusal.title;
		await invalidate('harrow:tokens');
	}
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
	<h2>Who you are</h2>
	<form onsubmit={keep} class="fields">
		<div>
			<Label for="you-name">Name</Label>
			<Input id="you-name" required maxlength={80} autocomplete="name" bind:value={called} />
		</div>
		<div>
			<Label for="you-initials">Initials</Label>
			<Input id="you-initials" required maxlength={3} autocomplete="off" bind:value={initials} />
		</div>
		<div>
			<Label for="you-email">E-mail address, with which you sign in</Label>
			<Input
				id="you-email"
				type="email"
				required
				maxlength={200}
				autocomplete="username"
				bind:value={email}
			/>
		</div>
		<div>
			<Label for="you-zone">Time zone</Label>
			<Input id="you-zone" required list="you-zones" maxlength={60} bind:value={zone} />
			<datalist id="you-zones"
				>{#each zones as one (one)}<option value={one}></option>{/each}</datalist
			>
		</div>
		<div class="row">
			<button class="go">Keep it</button>
			<span role="status">{kept}</span><span class="warn" role="alert">{wrong}</span>
		</div>
	</form>
	<h2>Password</h2>
	<form method="POST" action="?/password" use:enhance class="fields">
		<div>
			<Label for="password-now">The present one</Label>
			<Input id="password-now" name="now" type="password" required autocomplete="current-password" />
		</div>
		<div>
			<Label for="password-next">The new one: ten characters or more</Label>
			<Input
				id="password-next"
				name="next"
				type="password"
				required
				minlength={10}
				maxlength={200}
				autocomplete="new-password"
				aria-describedby="password-problem"
			/>
		</div>
		<div class="row">
			<button class="go">Set it</button>
			<span role="status">{form?.done ?? ''}</span>
			<span id="password-problem" class="warn" role="alert">{form?.problem ?? ''}</span>
		</div>
	</form>
	<h2>Where you are signed in</h2>
	<ul>
		{#each data.sessions as session (session.id)}
			<li>
				<span
					><b>{session.device}</b>{session.here ? ', here' : ''}
					<small
						>since {momentWords(session.since.toISOString(), data.you.timeZone)}, last seen {momentWords(
							session.seen.toISOString(),
							data.you.timeZone,
						)}</small
					></span
				>
				{#if !session.here}<button
						type="button"
						class="plain"
						aria-label="End {session.device}, since {momentWords(
							session.since.toISOString(),
							data.you.timeZone,
						)}"
						onclick={() => void end(session.id)}>End</button
					>{/if}
			</li>
		{/each}
	</ul>
	<Calendars {...data.calendars} timeZone={data.you.timeZone} />
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
		min-height: max(36px, var(--touch, 0px));
	}
	ul {
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
	.fields {
		max-width: none;
		grid-template-columns: 1fr 1fr;
		gap: 10px 16px;
		align-items: end;
		margin-top: 6px;
	}
	.row {
		grid-column: 1 / -1;
		display: flex;
		gap: 12px;
		align-items: center;
	}
	@media (max-width: 560px) {
		.fields {
			grid-template-columns: 1fr;
		}
	}
	.go {
		justify-self: start;
	}
	p {
		margin: 4px 0;
	}
</style>
