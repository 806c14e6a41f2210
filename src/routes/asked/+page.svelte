<script lang="ts">
	import { onMount } from 'svelte';
	import Bar from '$lib/ui/frame/Bar.svelte';
	import { keys } from '$lib/ui/frame/keys.svelte';
	import { count, momentWords } from '$lib/ui/words';

	let { data } = $props();
	const { cards, boards } = $derived(data.asked);
	const open = $derived(cards.filter(({ done, stands }) => !done && stands !== 'will not be done'));
	let zone = $state('UTC');
	onMount(() => (zone = Intl.DateTimeFormat().resolvedOptions().timeZone));
</script>

<Bar person={data.person!} keysOn={keys.on} />
<main>
	<h1>
		{#if cards.length}<b>{count(open.length, 'thing')}</b> that you asked for {open.length === 1
				? 'is'
				: 'are'} under way{cards.length > open.length
				? `, ${cards.length - open.length} done or put away`
				: ''}.
		{:else}<b>You have asked for nothing yet.</b>{/if}
	</h1>
	{#if cards.length}<ul>
			{#each cards as card (card.key)}<li class:done={card.done}>
					<a class="link" href="/asked/{card.key}">{card.title}</a>
					<span class="soft">{card.key}, {card.board.name}</span>
					<b>{card.stands}</b>
					<span class="soft"
						>{card.finishedAt
							? `finished ${momentWords(card.finishedAt.toISOString(), zone)}`
							: `asked ${momentWords(card.askedAt.toISOString(), zone)}`}</span
					>
				</li>{/each}
		</ul>{/if}
	<h2>Where you can ask</h2>
	{#if boards.length}<ul>
			{#each boards as board (board.slug)}<li>
					<a class="link" href="/ask/{board.slug}">{board.name}</a>
					<span class="soft">{board.team}</span>
				</li>{/each}
		</ul>{:else}<p class="soft">No board has an ask page. Who leads one opens it in Set-up.</p>{/if}
</main>

<style>
	main {
		width: min(760px, 100%);
		margin: 0 auto;
		padding: 14px 20px 60px;
	}
	h1 {
		font: 400 1rem var(--text);
	}
	h2 {
		font-size: 1.15rem;
		margin: 24px 0 6px;
	}
	ul {
		margin: 8px 0 0;
	}
	li {
		display: grid;
		grid-template-columns: minmax(0, 1fr) auto;
		gap: 0 16px;
		padding: 8px 0;
		border-top: 1px solid var(--rule);
	}
	li > :nth-child(2n) {
		text-align: right;
	}
	.done b {
		color: var(--moss);
	}
	@media (max-width: 560px) {
		li {
			grid-template-columns: minmax(0, 1fr);
		}
		li > :nth-child(2n) {
			text-align: left;
		}
	}
</style>
