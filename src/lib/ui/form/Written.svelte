<script lang="ts">
	import { Textarea } from 'flowbite-svelte';
	import { tick } from 'svelte';
	import { draftOf, keepDraft } from '../drafts';
	import Markdown from './Markdown.svelte';

	interface Props {
		/** What it is called: `Description`. */
		title: string;
		/** Of what: an unfinished text is kept under it until it is sent. */
		of: string;
		text: string;
		mayEdit: boolean;
		/** Gives whether it was kept; else what was typed stays. */
		onkeep: (text: string) => Promise<boolean>;
	}
	/** A text in Markdown, read and written in its place. */
	let { title, of, text, mayEdit, onkeep }: Props = $props();

	const small = $derived(title[0]!.toLowerCase() + title.slice(1));
	// svelte-ignore state_referenced_locally
	const before = readDraft(of);
	let draft = $state(before?.text ?? '');
	// svelte-ignore state_referenced_locally
	let writing = $state(before !== null && before.text !== text);
	/** The text as it was when writing began: where it is another one by now, somebody else wrote meanwhile. */
	// svelte-ignore state_referenced_locally
	let base = $state(before?.base ?? text);
	let looking = $state(false);
	const theirs = $derived(writing && text !== base && text !== draft ? text : null);
	$effect(() => keepDraft(of, writing && draft !== text ? JSON.stringify({ text: draft, base }) : null));
	function readDraft(key: string): { text: string; base: string } | null {
		try {
			return JSON.parse(draftOf(key) ?? 'null');
		} catch {
			return null;
		}
	}
	/** Goes on with one's own text, with theirs, or with both, one below the other. */
	function decide(to: 'mine' | 'theirs' | 'both'): void {
		if (to === 'theirs') draft = text;
		if (to === 'both') draft = `${text.trimEnd()}\n\n${draft}`;
		base = text;
	}

	function write() {
		draft = base = text;
		writing = true;
		looking = false;
	}
	let change = $state<HTMLElement>();
	/** Back to reading; the focus goes to where writing began, unless the person has gone on to something else. */
	async function stop() {
		writing = false;
		await tick();
		if (document.activeElement === document.body) change?.focus();
	}
	async function keep() {
		// Two texts are not mixed without anybody's seeing it.
		if (theirs !== null) return;
		if (await onkeep(draft)) await stop();
	}
	const take = (element: HTMLElement) => {
		const area = element.querySelector('textarea');
		// A draft that survived does not take the focus from whoever comes back.
		if (draft === text) area?.focus();
	};
</script>

<h3>
	{#if writing}<label for="written-{of}">{title}</label>{:else}{title}{/if}
	{#if mayEdit && !writing}<button
			type="button"
			class="link"
			aria-label={text ? `Change ${small}` : `Write one: ${small}`}
			bind:this={change}
			onclick={write}>{text ? 'Change' : 'Write one'}</button
		>{/if}
	{#if writing}<button type="button" class="link" aria-pressed={looking} onclick={() => (looking = !looking)}
			>{looking ? 'Write' : 'Preview'}</button
		>{/if}
</h3>
{#if writing}
	{#if looking}<Markdown text={draft} />
	{:else}<div {@attach take}>
			<Textarea
				id="written-{of}"
				class="w-full text-base"
				rows={7}
				bind:value={draft}
				placeholder="Markdown: **strong**, - lists, [links](https://…)"
			/>
		</div>{/if}
	{#if theirs !== null}
		<div class="theirs" role="alert">
			<p class="care">Somebody else wrote here meanwhile:</p>
			{#if theirs}<Markdown text={theirs} />{:else}<p class="soft">They took the text away.</p>{/if}
			<p class="keep">
				<button type="button" class="link" onclick={() => decide('mine')}>Go on with mine</button>
				<button type="button" class="link" onclick={() => decide('theirs')}>Take theirs</button>
				<button type="button" class="link" onclick={() => decide('both')}>Both, one below the other</button>
			</p>
		</div>
	{/if}
	<p class="keep">
		<button type="button" class="go" disabled={theirs !== null} onclick={() => void keep()}>Keep</button>
		<button type="button" class="plain" onclick={() => void stop()}>Take back</button>
	</p>
{:else if text}<Markdown {text} />
{:else}<p class="soft">None yet.</p>{/if}

<style>
	h3 {
		display: flex;
		gap: 14px;
		align-items: baseline;
		font-size: 1.05rem;
		margin: 18px 0 5px;
	}
	h3 .link {
		font: 400 0.95rem var(--text);
	}
	.keep {
		display: flex;
		gap: 8px;
		margin: 8px 0 0;
	}
	.theirs {
		margin: 8px 0;
		padding: 4px 12px 8px;
		border-left: 4px solid var(--ochre);
		background: var(--paper);
	}
	.soft {
		margin: 0;
	}
	.link {
		min-height: var(--touch, auto);
	}
</style>
