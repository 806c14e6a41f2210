<script lang="ts">
	import { goto } from '$app/navigation';
	import Bar from '$lib/ui/frame/Bar.svelte';
	import { keys } from '$lib/ui/frame/keys.svelte';
	import TeamFields from '$lib/ui/make/TeamFields.svelte';
	import { send } from '$lib/ui/send';

	let { data } = $props();
	let name = $state('');
	let zone = $state('');
	let days = $state([true, true, true, true, true, false, false]);
	let problem = $state('');

	async function make(event: SubmitEvent) {
		event.preventDefault();
		const week = days.map((works) => (works ? 8 : 0));
		const sent = await send('MakeTeam', { name: name.trim(), timeZone: zone.trim(), week });
		problem = sent.ok ? '' : sent.refusal.title;
		if (sent.ok) await goto(`/teams/${sent.answer.result.team}/new-board`);
	}
</script>

<Bar person={data.person!} keysOn={keys.on} />
<main>
	<h1>Make a team</h1>
	<p class="soft">You lead it. Its boards come next; people come by invitation.</p>
	<form onsubmit={make}>
		<TeamFields bind:name bind:zone bind:days />
		<p class="warn" role="alert">{problem}</p>
		<button class="go">Make the team</button>
	</form>
</main>

<style>
	main {
		width: min(480px, 100%);
		margin: 0 auto;
		padding: 28px 20px 60px;
	}
	h1 {
		font-size: 1.7rem;
	}
	.soft {
		margin: 4px 0 14px;
	}
	form {
		display: grid;
		gap: 12px;
	}
	form p {
		margin: 0;
	}
	.go {
		justify-self: start;
	}
</style>
