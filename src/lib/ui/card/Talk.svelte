<script lang="ts">
	import { Textarea } from 'flowbite-svelte';
	import type { CardEvent } from '$core/pages/card';
	import { draftOf, keepDraft } from '../drafts';
	import { momentWords } from '../words';
	import Markdown from '../form/Markdown.svelte';

	interface Props {
		cardKey: string;
		/** What was said, oldest first. */
		comments: readonly CardEvent[];
		timeZone: string;
		onsay: (text: string) => Promise<boolean>;
	}
	let { cardKey, comments, timeZone, onsay }: Props = $props();
	const stored = $derived(`comment-${cardKey}`);
	// svelte-ignore state_referenced_locally
	let text = $state(draftOf(stored) ?? '');
	$effect(() => keepDraft(stored, text || null));
	async function say() {
		const words = text.trim();
		if (!words) return;
		text = '';
		if (!(await onsay(words))) text ||= words;
	}
</script>

<h3><label for="card-comment">Talk</label></h3>
<ol>
	{#each comments as comment (comment.seq)}
		<li>
			<p class="by">
				<b>{comment.who ?? 'Someone'}</b>
				<time datetime={comment.at}>{momentWords(comment.at, timeZone)}</time>
			</p>
			{#if comment.undone}<p class="soft">Taken back.</p>{:else}<Markdown text={comment.value} />{/if}
		</li>
	{/each}
</ol>
<Textarea
	id="card-comment"
	class="w-full text-base"
	rows={2}
	bind:value={text}
	maxlength={10000}
	placeholder="Say something; Ctrl and Enter sends it"
	onkeydown={(event: KeyboardEvent) => {
		if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) {
			event.preventDefault();
			void say();
		}
	}}
/>
{#if text.trim()}<p class="send">
		<button type="button" class="go" onclick={() => void say()}>Say it</button>
	</p>{/if}

<style>
	h3 {
		font-size: 1.05rem;
		margin: 18px 0 5px;
	}
	ol {
		list-style: none;
		margin: 0;
		padding: 0;
	}
	li {
		padding: 4px 0;
		border-top: 1px dotted var(--rule);
	}
	.by {
		margin: 0;
	}
	time {
		font-size: 12px;
		color: var(--faint);
	}
	.soft {
		color: var(--faint);
		margin: 0;
	}
	.send {
		margin: 6px 0 0;
	}
</style>
