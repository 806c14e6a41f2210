<script lang="ts">
	import { noticeAddress } from '$core/notices/address';
	import type { PageQuestion } from '$core/pages/mine';
	import Answer from '../form/Answer.svelte';
	import Row from './Row.svelte';

	/** A question that was asked on the page of a board or an initiative. */
	let { asked, onanswer }: { asked: PageQuestion; onanswer: (text: string) => Promise<boolean> } = $props();
	let answering = $state(false);
	const name = $derived(asked.initiative ?? asked.board.name);
</script>

{#snippet act()}
	{#if !answering}<button type="button" class="go" onclick={() => (answering = true)}>Answer</button>{/if}
{/snippet}
<Row
	href={noticeAddress({ board: asked.board, card: null, page: asked })}
	of={asked.board.name}
	title={asked.initiative ?? 'its page'}
	{act}
>
	<p>{asked.who}: “{asked.text}”</p>
	{#if answering}<Answer
			label="What you say on the page of {name}"
			onsay={onanswer}
			onleave={() => (answering = false)}
		/>{/if}
</Row>
