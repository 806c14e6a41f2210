<script lang="ts">
	import Bar from '$lib/ui/frame/Bar.svelte';

	let { data } = $props();
	const teams = $derived([...new Set(data.boards.map((board) => board.team))]);
</script>

<Bar person={data.person!} />
<main>
	{#each teams as team (team)}
		<h1>{team}</h1>
		<ul>
			{#each data.boards.filter((board) => board.team === team) as board (board.slug)}
				<li>
					<a href="/boards/{board.slug}">{board.name}</a>
					<p>{board.purpose}</p>
				</li>
			{/each}
		</ul>
	{:else}
		<h1>No boards yet</h1>
		<p>You are signed in, but no board is open to you. A lead of your team can let you in.</p>
	{/each}
</main>

<style>
	main {
		width: min(680px, 100%);
		margin: 0 auto;
		padding: 32px 20px;
	}
	h1 {
		font-size: 1.7rem;
	}
	ul {
		list-style: none;
		margin: 12px 0 0;
		padding: 0;
	}
	li {
		padding: 12px 0;
		border-top: 1px solid var(--rule);
	}
	a {
		font: 650 1.25rem var(--display);
		color: var(--moss);
	}
	p {
		margin: 2px 0 0;
		color: var(--soft);
	}
</style>
