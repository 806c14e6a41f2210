<script lang="ts">
	import { Textarea } from 'flowbite-svelte';
	import { tick } from 'svelte';
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
	const stored = $derived(`harrow-draft-${of}`);
	// svelte-ignore state_referenced_locally
	const before = typeof sessionStorage === 'undefined' ? null : sessionStorage.getItem(stored);
	let draft = $state(before ?? '');
	// svelte-ignore state_referenced_locally
	let writing = $state(before !== null && before !== text);
	let looking = $state(false);
	$effect(() => {
		if (writing && draft !== text) sessionStorage.setItem(stored, draft);
		else sessionStorage.removeItem(stored);
	});

	function write() {
		draft = text;
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
	<p class="keep">
		<button type="button" class="go" onclick={() => void keep()}>Keep</button>
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
	.soft {
		color: var(--soft);
		margin: 0;
	}
	@media (pointer: coarse) {
		.link {
			min-height: 44px;
		}
	}
</style>
