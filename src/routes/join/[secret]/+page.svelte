<script lang="ts">
	import { enhance } from '$app/forms';
	import { page } from '$app/state';
	import { onMount } from 'svelte';
	import Account from '$lib/ui/make/Account.svelte';
	import { momentWords } from '$lib/ui/words';
	import Outside from '$lib/ui/frame/Outside.svelte';

	let { data, form } = $props();
	const invitation = $derived(data.invitation);
	const AS = {
		lead: 'leads the team',
		member: 'works in the team',
		viewer: 'looks on and takes part in the talk',
	};
	let zone = $state('');
	onMount(() => (zone = Intl.DateTimeFormat().resolvedOptions().timeZone));
	const said = $derived(form as { problem?: string; name?: string; email?: string; field?: string } | null);
</script>

<Outside>
	{#if invitation}
		<h1>{invitation.by} invites you to {invitation.team}</h1>
		<p>
			As somebody who {AS[invitation.role]}{invitation.title ? `, as ${invitation.title}` : ''}. The
			invitation holds until {momentWords(invitation.until.toISOString(), zone || 'UTC')}.
		</p>
		{#if data.person}
			<form method="POST" action="?/join" use:enhance>
				<p>You are signed in as <b>{data.person.name}</b>.</p>
				<p id="form-problem" class="warn" role="alert">{said?.problem ?? ''}</p>
				<button class="go">Join {invitation.team}</button>
			</form>
		{:else}
			<p>
				You have an account here? <a class="link" href="/sign-in?next={encodeURIComponent(page.url.pathname)}"
					>Sign in</a
				> and come back to this. Otherwise make one:
			</p>
			<form
				method="POST"
				action="?/account"
				use:enhance={() =>
					({ update }) =>
						update({ reset: false })}
			>
				<Account name={said?.name} email={said?.email} wrong={said?.field} />
				<input type="hidden" name="zone" value={zone} />
				<p id="form-problem" class="warn" role="alert">{said?.problem ?? ''}</p>
				<button class="go">Make the account and join</button>
			</form>
		{/if}
	{:else}
		<h1>This invitation lets nobody in</h1>
		<p>
			{data.problem ||
				'It was used by somebody, was ended, is older than seven days, or the address is not complete. Ask whoever sent it for a new link.'}
		</p>
		<p><a class="link" href="/">Go to Harrow</a></p>
	{/if}
</Outside>
