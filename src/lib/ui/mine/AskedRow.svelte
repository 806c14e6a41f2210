<script lang="ts">
	import { noticeAddress } from '$core/notices/address';
	import type { PageQuestion } from '$core/pages/mine';
	import Answer from '../form/Answer.svelte';

	/** A question that was asked on the page of a board or an initiative. */
	let { asked, onanswer }: { asked: PageQuestion; onanswer: (text: string) => Promise<boolean> } = $props();
	let answering = $state(false);
	const name = $derived(asked.initiative ?? asked.board.name);
</script>

<li>
	<div>
		<a href={noticeAddress({ board: asked.board, card: null, page: asked })}
			><small>{asked.board.name}</small> <b>{asked.initiative ?? 'its page'}</b></a
		>
		<p>{asked.who}: “{asked.text}”</p>
		{#if answering}<Answer
				label="What you say on the page of {name}"
				onsay={onanswer}
				onleave={() => (answering = false)}
			/>{/if}
	</div>
	{#if !answering}<button type="button" class="go" onclick={() => (answering = true)}>Answer</button>{/if}
</li>

<style>
	li {
		display: grid;
		grid-template-columns: 1fr auto;
		gap: 4px 8px;
		align-items: center;
		padding: 7px 0 7px 52px;
		border-bottom: 1px dotted var(--edge);
		overflow-wrap: anywhere;
	}
	a {
		display: block;
		min-height: 24px;
		text-decoration: none;
	}
	a:hover b {
		text-decoration: underline;
	}
	small {
		font-size: 12px;
		color: var(--soft);
		font-weight: 600;
	}
	p {
		margin: 0;
		font-size: 0.93rem;
		color: var(--soft);
	}
	@media (pointer: coarse) {
		.go,
		a {
			min-height: 44px;
		}
	}
</style>
