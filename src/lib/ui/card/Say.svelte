<script lang="ts">
	import { Textarea } from 'flowbite-svelte';
	import { onMount } from 'svelte';
	import type { TextExpanderChangeEvent, TextExpanderResult } from '@github/text-expander-element';
	import type { PersonView } from '$core/pages/board';
	import { wholeNames } from '../words';
	import type { Pictured } from './upload';

	interface Props {
		id?: string;
		label: string;
		text: string;
		/** Who can be named with @. */
		people: readonly PersonView[];
		/** What the button says. */
		does: string;
		rows?: number;
		take?: boolean;
		onsay: () => void;
		/** Sends a picture; gives the Markdown that shows it, or why it was not taken. Left out where there are none. */
		onpicture?: (file: File) => Promise<Pictured>;
		/** Leaves it; without it there is nothing to leave. */
		onleave?: () => void;
	}
	/** Where something is written to others: with @ people are named. */
	let {
		id,
		label,
		text = $bindable(),
		people,
		does,
		rows = 2,
		take = false,
		onsay,
		onpicture,
		onleave,
	}: Props = $props();
	let place = $state<HTMLElement>();
	const MOST = 6;

	let sending = $state(0);
	/** Why a picture was not taken. */
	let problem = $state('');
	/** Sends pictures that were pasted, dropped or picked, and shows them where somebody writes. */
	async function show(files: Iterable<File>): Promise<void> {
		for (const file of files) {
			sending += 1;
			const area = place?.querySelector('textarea');
			const at = area?.selectionEnd ?? text.length;
			problem = '';
			const sent = await onpicture!(file);
			sending -= 1;
			if ('problem' in sent) problem = sent.problem;
			else
				text = `${text.slice(0, at)}${at && text[at - 1] !== '\n' ? '\n' : ''}${sent.shown}\n${text.slice(at)}`;
			area?.focus();
		}
	}
	const pictures = (list: FileList | undefined) =>
		onpicture ? [...(list ?? [])].filter(({ type }) => type.startsWith('image/')) : [];
	function takeIn(event: ClipboardEvent | DragEvent): void {
		const files = pictures(('clipboardData' in event ? event.clipboardData : event.dataTransfer)?.files);
		if (!files.length) return;
		event.preventDefault();
		event.stopPropagation();
		void show(files);
	}

	interface Named {
		name: string;
		about: string;
	}
	/** People whose name, initials or title begins so, or has a word that does. */
	function named(typed: string): Named[] {
		const small = typed.toLowerCase();
		const begins = (words: string) =>
			words
				.toLowerCase()
				.split(/\s+/)
				.some((_, i, all) => all.slice(i).join(' ').startsWith(small));
		const called = wholeNames(people.filter(({ gone }) => !gone));
		const found: Named[] = people
			.filter(
				(person) =>
					!person.gone && (begins(person.name) || begins(person.initials) || begins(person.title ?? '')),
			)
			.map(({ id, name, initials, title }) => ({
				name: called(id),
				about: [initials, called(id) === name ? title : ''].filter(Boolean).join(', '),
			}));
		if ('team'.startsWith(small)) found.push({ name: 'team', about: 'everyone of the team' });
		return found.slice(0, MOST);
	}
	function offer(typed: string): TextExpanderResult {
		const found = named(typed);
		if (!found.length) return { matched: false };
		const list = document.createElement('ul');
		list.className = 'names';
		list.setAttribute('role', 'listbox');
		list.setAttribute('aria-label', 'People');
		for (const { name, about } of found) {
			const item = document.createElement('li');
			item.setAttribute('role', 'option');
			item.id = `name-${name.replace(/\W+/g, '-')}`;
			item.dataset.name = name;
			item.append(name, Object.assign(document.createElement('small'), { textContent: about }));
			list.append(item);
		}
		return { matched: true, fragment: list };
	}
	onMount(() => {
		// It asks for names as somebody types; until it is there, names are typed in full.
		void import('@github/text-expander-element');
		const change = (event: Event) => {
			const { detail } = event as TextExpanderChangeEvent;
			detail?.provide(offer(detail.text));
		};
		const value = (event: Event) => {
			const { detail } = event as CustomEvent<{ item: HTMLElement; value: string }>;
			detail.value = `@${detail.item.dataset.name}`;
		};
		place?.addEventListener('text-expander-change', change);
		place?.addEventListener('text-expander-value', value);
		if (take) place?.querySelector('textarea')?.focus();
	});
</script>

<div class="say">
	<text-expander keys="@" multiword="@" bind:this={place}>
		<Textarea
			{id}
			class="w-full text-base"
			{rows}
			bind:value={text}
			maxlength={10000}
			aria-label={id ? undefined : label}
			onpaste={takeIn}
			ondrop={takeIn}
			placeholder="{label}; Ctrl and Enter sends it, @ names somebody"
			onkeydown={(event: KeyboardEvent) => {
				if (event.key === 'Escape' && onleave && !place?.querySelector('.names')) {
					event.stopPropagation();
					onleave();
				}
				if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) {
					event.preventDefault();
					onsay();
				}
			}}
		/>
	</text-expander>
	{#if problem}<p class="warn" role="alert">{problem}</p>{/if}
	{#if text.trim() || onleave || onpicture}<p>
			{#if text.trim() || onleave}<button
					type="button"
					class="go"
					disabled={!text.trim() || sending > 0}
					onclick={onsay}>{does}</button
				>{/if}
			{#if onpicture}<label class="link"
					><input
						type="file"
						accept="image/*"
						multiple
						class="sr-only"
						onchange={(event) => {
							const input = event.currentTarget;
							void show(pictures(input.files ?? undefined)).then(() => (input.value = ''));
						}}
					/>{sending ? 'Sending…' : 'A picture'}</label
				>{/if}
			{#if onleave}<button type="button" class="plain" onclick={onleave}>Leave it</button>{/if}
		</p>{/if}
</div>

<style>
	.say {
		position: relative;
	}
	text-expander {
		display: block;
		position: relative;
	}
	label {
		position: relative;
		align-self: center;
		cursor: pointer;
	}
	label:focus-within {
		outline: 2px solid var(--moss);
		outline-offset: 2px;
	}
	p {
		display: flex;
		gap: 8px;
		margin: 6px 0 0;
	}
	.say :global(.names) {
		position: absolute;
		z-index: 20;
		min-width: 220px;
		margin: 22px 0 0;
		padding: 4px;
		list-style: none;
		background: var(--sheet);
		border: 1px solid var(--edge);
		border-radius: 4px;
		box-shadow: 0 4px 12px #0003;
	}
	.say :global(.names li) {
		display: flex;
		justify-content: space-between;
		gap: 14px;
		padding: 4px 8px;
		border-radius: 3px;
		cursor: pointer;
	}
	.say :global(.names small) {
		color: var(--faint);
		font-size: 12px;
	}
	.say :global(.names li[aria-selected='true']),
	.say :global(.names li:hover) {
		background: var(--sunk);
	}
	@media (pointer: coarse) {
		.say :global(.names li) {
			min-height: 44px;
			align-items: center;
		}
	}
</style>
