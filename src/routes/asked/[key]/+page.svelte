<script lang="ts">
	import { Textarea } from 'flowbite-svelte';
	import type { Comment } from '$core/talk/talk';
	import { draftOf, keepDraft } from '$lib/ui/drafts';
	import Bar from '$lib/ui/frame/Bar.svelte';
	import { keys } from '$lib/ui/frame/keys.svelte';
	import { reread } from '$lib/ui/frame/reread';
	import Markdown from '$lib/ui/form/Markdown.svelte';
	import { send } from '$lib/ui/send';
	import { momentWords } from '$lib/ui/words';

	let { data } = $props();
	const asked = $derived(data.asked);
	const stored = $derived(`asked-${asked.key}`);
	let text = $state('');
	let problem = $state('');
	$effect(() => void (text = draftOf(stored) ?? ''));
	const all = $derived(asked.talk.flatMap((comment): Comment[] => [comment, ...comment.replies]));

	async function say(event: SubmitEvent): Promise<void> {
		event.preventDefault();
		if (!text.trim()) return;
		const sent = await send('SayOnAsked', { card: asked.id, text: text.trim() });
		problem = sent.ok ? '' : sent.refusal.title;
		if (!sent.ok) return;
		text = '';
		keepDraft(stored, null);
		await reread('harrow:notices');
	}
</script>

<Bar person={data.person!} keysOn={keys.on} />
<main>
	<p class="soft"><a class="link" href="/asked">What you asked for</a> · {asked.key}, {asked.board.name}</p>
	<h1>{asked.title}</h1>
	<p class="stands">
		{#if asked.done}<b class="done">It is done.</b>{:else}It stands in <b>{asked.stands}</b>.{/if}
	</p>
	{#if asked.description}<Markdown text={asked.description} />{/if}
	<h2>Its way</h2>
	<ol>
		{#each asked.way as { at, words }, i (i)}<li>
				<span>{words}</span> <time datetime={at}>{momentWords(at, asked.timeZone)}</time>
			</li>{/each}
	</ol>
	<h2>Talk</h2>
	{#each all as comment (comment.seq)}
		<div class="said">
			<p class="who">
				<b>{comment.who ?? 'Someone'}</b>
				<time datetime={comment.at}>{momentWords(comment.at, asked.timeZone)}</time>
			</p>
			{#if comment.withdrawn}<p class="soft">Taken back.</p>{:else}<Markdown text={comment.text} />{/if}
		</div>
	{:else}<p class="soft">Nobody has said anything yet.</p>{/each}
	<form onsubmit={say}>
		<label for="asked-say">Add to it</label>
		<Textarea
			id="asked-say"
			class="w-full"
			rows={3}
			maxlength={10000}
			bind:value={text}
			oninput={() => keepDraft(stored, text || null)}
		/>
		<p class="warn" role="alert">{problem}</p>
		<button class="plain" disabled={!text.trim()}>Say it</button>
	</form>
</main>

<style>
	main {
		width: min(680px, 100%);
		margin: 0 auto;
		padding: 14px 20px 60px;
	}
	h1 {
		font-size: 1.6rem;
		margin: 4px 0;
	}
	h2 {
		font-size: 1.15rem;
		margin: 22px 0 6px;
	}
	time {
		color: var(--soft);
	}
	.done {
		color: var(--moss);
	}
	ol {
		border-left: 4px solid var(--wheat);
	}
	li {
		display: flex;
		justify-content: space-between;
		gap: 16px;
		padding: 5px 0 5px 14px;
	}
	.said {
		border-top: 1px dotted var(--rule);
		padding: 8px 0;
	}
	.who {
		margin: 0 0 4px;
	}
	form {
		display: grid;
		gap: 6px;
		justify-items: start;
		margin-top: 12px;
	}
	form p {
		margin: 0;
	}
</style>
