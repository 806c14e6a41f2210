<script lang="ts">
	import type { PersonView } from '$core/pages/board';
	import { talkOf, type Comment } from '$core/talk/talk';
	import type { CardPage } from '$core/pages/card';
	import { draftOf, keepDraft } from '../drafts';
	import { list, momentWords, wholeNames } from '../words';
	import Markdown from '../form/Markdown.svelte';
	import Say from './Say.svelte';
	import type { Pictured } from './upload';

	interface Props {
		/** The card, or the page of a board or an initiative, on which it is said. */
		card: Pick<CardPage, 'key' | 'history' | 'told' | 'watching'> & { asker?: string | null };
		people: readonly PersonView[];
		/** Who looks. */
		me: string;
		timeZone: string;
		/** Whoever looks may ask others to watch the card. */
		mayAsk: boolean;
		/** Says something, in answer to a comment where one is named; gives whether it was said. */
		onsay: (text: string, replyTo?: number) => Promise<boolean>;
		onchange: (comment: number, text: string) => Promise<boolean>;
		onwithdraw: (comment: number) => void;
		onwatch: (watch: boolean) => void;
		onaskwatch?: (person: string) => void;
		/** Sends a picture for what is being said. */
		onpicture?: (file: File) => Promise<Pictured>;
	}
	let {
		card,
		people,
		me,
		timeZone,
		mayAsk,
		onsay,
		onchange,
		onwithdraw,
		onwatch,
		onaskwatch,
		onpicture,
	}: Props = $props();
	const talk = $derived(talkOf(card.history));
	const stored = $derived(`comment-${card.key}`);
	// svelte-ignore state_referenced_locally
	let text = $state(draftOf(stored) ?? '');
	$effect(() => keepDraft(stored, text || null));
	/** The comment that is answered or changed, and what is written there. */
	let at = $state<{ seq: number; does: 'answer' | 'change' } | null>(null);
	let aside = $state('');
	const called = $derived(wholeNames(people));
	const told = $derived(
		people.filter(({ id }) => card.told.includes(id)).map(({ id }) => (id === me ? 'you' : called(id))),
	);
	const whoSaid = ({ by, who }: Comment) =>
		people.some(({ id }) => id === by) ? called(by) : (who ?? 'Someone');
	const others = $derived(people.filter(({ id, gone }) => !gone && id !== me && !card.told.includes(id)));

	async function say() {
		const words = text.trim();
		if (!words) return;
		text = '';
		if (!(await onsay(words))) text ||= words;
	}
	function begin(comment: Comment, does: 'answer' | 'change') {
		at = { seq: comment.seq, does };
		aside = does === 'change' ? comment.text : '';
	}
	async function finish(comment: Comment) {
		const words = aside.trim();
		if (!words || !at) return;
		if (at.does === 'change' ? await onchange(comment.seq, words) : await onsay(words, comment.seq))
			at = null;
	}
</script>

{#snippet said(comment: Comment)}
	<p class="by">
		<b>{whoSaid(comment)}</b>
		<time datetime={comment.at}>{momentWords(comment.at, timeZone)}</time>
		{#if comment.changed && !comment.withdrawn}<small>changed</small>{/if}
	</p>
	{#if comment.withdrawn}<p class="soft">Taken back.</p>
	{:else if at?.seq === comment.seq && at.does === 'change'}
		<Say
			label="What you said"
			bind:text={aside}
			{people}
			{onpicture}
			does="Change it"
			take
			onsay={() => void finish(comment)}
			onleave={() => (at = null)}
		/>
	{:else}<Markdown text={comment.text} />{/if}
	{#if !comment.old && !comment.withdrawn && at?.seq !== comment.seq}<p class="do">
			<button type="button" class="link" onclick={() => begin(comment, 'answer')}
				>Answer<span class="sr-only"> {comment.who}</span></button
			>
			{#if comment.by === me}<button type="button" class="link" onclick={() => begin(comment, 'change')}
					>Change</button
				>
				<button type="button" class="link" onclick={() => onwithdraw(comment.seq)}>Take back</button>{/if}
		</p>{/if}
	{#if at?.seq === comment.seq && at.does === 'answer'}
		<Say
			label="Your answer"
			bind:text={aside}
			{people}
			{onpicture}
			does="Answer"
			take
			onsay={() => void finish(comment)}
			onleave={() => (at = null)}
		/>
	{/if}
{/snippet}

<h3><label for="card-comment">Talk</label></h3>
<ol>
	{#each talk as comment (`${comment.old} ${comment.seq}`)}
		<li>
			{@render said(comment)}
			{#if comment.replies.length}<ol class="replies">
					{#each comment.replies as reply (reply.seq)}<li>{@render said(reply)}</li>{/each}
				</ol>{/if}
		</li>
	{/each}
</ol>
{#if card.asker}<p class="asker">
		<b>{card.asker} asked for this</b> on the ask page, and reads what is said here.
	</p>{/if}
<Say
	id="card-comment"
	label="Say something"
	bind:text
	{people}
	{onpicture}
	does="Say it"
	onsay={() => void say()}
/>
<p class="told">
	{told.length ? `Told of what happens here: ${list(told)}.` : 'Nobody is told of what happens here.'}
	<button type="button" class="link" onclick={() => onwatch(!card.watching)}
		>{card.watching ? 'Tell me no more' : 'Watch it'}</button
	>
	{#if mayAsk && others.length}<select
			class="choice"
			aria-label="Ask somebody to watch it"
			onchange={(event) => {
				const { value } = event.currentTarget;
				event.currentTarget.value = '';
				if (value) onaskwatch?.(value);
			}}
		>
			<option value="">Ask somebody to</option>
			{#each others as { id } (id)}<option value={id}>{called(id)}</option>{/each}
		</select>{/if}
</p>

<style>
	.asker {
		margin: 8px 0 4px;
	}
	li {
		padding: 4px 0;
		border-top: 1px dotted var(--rule);
	}
	.replies {
		margin-left: 18px;
	}
	.by,
	.do {
		margin: 0;
	}
	.do {
		display: flex;
		gap: 14px;
		font-size: 0.9rem;
	}
	.do .link {
		min-height: max(26px, var(--touch, 0px));
	}
	time,
	small {
		font-size: 12px;
		color: var(--faint);
	}
	.soft {
		color: var(--faint);
		margin: 0;
	}
	.told {
		margin: 8px 0 0;
		font-size: 0.9rem;
		color: var(--soft);
	}
</style>
