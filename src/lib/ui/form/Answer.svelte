<script lang="ts">
	import { Textarea } from 'flowbite-svelte';

	interface Props {
		label: string;
		/** Gives whether it was said; else what was typed stays. */
		onsay: (text: string) => Promise<boolean>;
		onleave: () => void;
	}
	/** A few words that are said right where one reads. */
	let { label, onsay, onleave }: Props = $props();
	let text = $state('');
	let sending = $state(false);
	const take = (element: HTMLElement) => element.querySelector('textarea')?.focus();
	async function say(): Promise<void> {
		const words = text.trim();
		if (!words || sending) return;
		sending = true;
		if (await onsay(words)) onleave();
		sending = false;
	}
</script>

<form
	onsubmit={(event) => {
		event.preventDefault();
		void say();
	}}
	{@attach take}
>
	<Textarea
		class="w-full text-base"
		rows={2}
		bind:value={text}
		maxlength={10000}
		aria-label={label}
		placeholder="Ctrl and Enter sends it"
		onkeydown={(event: KeyboardEvent) => {
			event.stopPropagation();
			if (event.key === 'Escape') onleave();
			if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) void say();
		}}
	/>
	<button class="go" disabled={!text.trim() || sending}>Say it</button>
	<button type="button" class="plain" onclick={onleave}>Leave it</button>
</form>

<style>
	form {
		display: flex;
		flex-wrap: wrap;
		gap: 8px;
		padding-top: 6px;
	}
	form :global(> :first-child) {
		flex-basis: 100%;
	}
</style>
