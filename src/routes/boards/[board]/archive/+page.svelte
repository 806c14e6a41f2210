<script lang="ts">
	import { goto } from '$app/navigation';
	import { page } from '$app/state';
	import { getContext } from 'svelte';
	import type { ArchivedCard } from '$core/pages/archive';
	import type { BoardState } from '$lib/ui/board/board-state.svelte';
	import { cardAddress } from '$lib/ui/frame/card-address';
	import Places from '$lib/ui/frame/Places.svelte';
	import { reread } from '$lib/ui/frame/reread';
	import { count, momentWords } from '$lib/ui/words';

	let { data } = $props();
	const board = getContext<BoardState>('board');
	const head = $derived(board.head);
	const mayEdit = $derived(head.role !== 'viewer' && !head.away);
	let picked = $state.raw<ReadonlySet<string>>(new Set());
	const shown = $derived(data.archive.cards);
	const chosen = $derived(shown.filter(({ id }) => picked.has(id)));

	let timer: ReturnType<typeof setTimeout> | undefined;
	const PAUSE_MS = 250;
	function look(text: string): void {
		clearTimeout(timer);
		timer = setTimeout(() => {
			const url = new URL(page.url);
			url.searchParams.delete('before');
			if (text.trim()) url.searchParams.set('text', text.trim());
			else url.searchParams.delete('text');
			void goto(url, { replaceState: true, keepFocus: true, noScroll: true });
		}, PAUSE_MS);
	}
	function pick(id: string, on: boolean): void {
		const next = new Set(picked);
		if (on) next.add(id);
		else next.delete(id);
		picked = next;
	}

	/** Brings cards back to where they stood, one after the other: each may meet a limit of its own. */
	async function restore(cards: readonly ArchivedCard[]): Promise<void> {
		let back = 0;
		let last = '';
		for (const card of cards) {
			const sent = await board.restore(card);
			if (!sent.ok) break;
			[back, last] = [back + 1, sent.answer.id];
		}
		picked = new Set();
		if (back)
			board.tell({
				tone: back < cards.length ? 'care' : 'done',
				text:
					cards.length === 1
						? `Card ${cards[0]!.number} is back in ${cards[0]!.column ?? 'the backlog'}.`
						: `${back} of ${count(cards.length, 'card')} are back.`,
				...(cards.length === 1 ? { undo: last } : {}),
			});
		await reread('harrow:board');
	}
</script>

<Places board={head} here="archive" />
<div class="top">
	<h1>
		<b>{count(data.archive.all, 'card')}</b>
		{data.text ? `put away with “${data.text}”` : 'put away'}{data.archive.all
			? ': each keeps its history and figures, and can come back to where it stood.'
			: '.'}
	</h1>
	<input
		type="search"
		aria-label="Search the archive"
		placeholder="number, title, reason or who"
		value={data.text}
		oninput={(event) => look(event.currentTarget.value)}
	/>
	{#if chosen.length}<button type="button" class="go" onclick={() => void restore(chosen)}
			>Bring back {count(chosen.length, 'card')}</button
		>{/if}
</div>
<div class="page">
	<ul>
		{#each shown as card (card.id)}
			<li>
				{#if mayEdit}<input
						type="checkbox"
						aria-label="Pick {card.number}"
						checked={picked.has(card.id)}
						onchange={(event) => pick(card.id, event.currentTarget.checked)}
					/>{/if}
				<span class="card"
					><a href={cardAddress(page.url, card)} data-sveltekit-noscroll data-sveltekit-keepfocus
						><b>{card.number}</b> {card.title}</a
					>
					<small
						>{card.reason || (card.done ? 'finished' : 'without a reason')}, {card.by ?? 'somebody'},
						{momentWords(card.archived, head.timeZone)}; stood in {card.column ?? 'the backlog'}</small
					></span
				>
				{#if mayEdit}<button
						type="button"
						class="link"
						aria-label="Bring back {card.number}"
						onclick={() => void restore([card])}>Bring back</button
					>{/if}
			</li>
		{:else}<li class="soft">
				{data.text
					? 'Nothing that was put away has these words in its number, title, reason or who put it away.'
					: 'Nothing was put away here yet.'}
			</li>{/each}
	</ul>
	{#if data.archive.next}<p>
			<a
				class="link"
				href="?{new URLSearchParams({
					...(data.text ? { text: data.text } : {}),
					before: data.archive.next,
				})}">Earlier ones</a
			>
		</p>{/if}
</div>

<style>
	.top {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 6px 20px;
		padding: 9px 20px 8px;
		flex: none;
	}
	h1 {
		font: 1rem/1.4 var(--text);
		letter-spacing: 0;
	}
	input[type='search'] {
		font: inherit;
		color: var(--ink);
		background: var(--sheet);
		border: 1px solid var(--edge);
		border-radius: 4px;
		padding: 4px 10px;
		min-width: 250px;
		min-height: var(--touch, auto);
	}
	ul {
		max-width: 900px;
	}
	li {
		display: flex;
		gap: 12px;
		align-items: center;
		padding: 6px 0;
		border-bottom: 1px dotted var(--rule);
	}
	.card {
		flex: 1;
		min-width: 0;
		overflow-wrap: anywhere;
	}
	.card a {
		text-decoration: none;
	}
	.card a:hover {
		color: var(--moss);
	}
	b {
		font-weight: 600;
	}
	li b,
	small {
		color: var(--soft);
	}
	small {
		display: block;
		font-size: 0.9rem;
	}
	input[type='checkbox'] {
		width: 18px;
		height: 18px;
		accent-color: var(--moss);
		color: var(--moss);
		border: 1px solid var(--edge);
		border-radius: 2px;
	}
	.link {
		min-height: var(--touch, auto);
	}
	@media (max-width: 700px) {
		.top,
		.page {
			padding-inline: 14px;
		}
	}
</style>
