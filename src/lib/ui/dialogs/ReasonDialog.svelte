<script lang="ts">
	import { Label, Textarea } from 'flowbite-svelte';
	import Dialog from './Dialog.svelte';

	interface Props {
		title: string;
		sentence: string;
		label: string;
		go: string;
		most?: number;
		onreason: (reason: string) => void;
		onclose: () => void;
	}
	let { title, sentence, label, go, most = 300, onreason, onclose }: Props = $props();
	let reason = $state('');
	let problem = $state('');
	const take = (element: HTMLElement) => element.querySelector('textarea')?.focus();

	function submit(event: SubmitEvent) {
		event.preventDefault();
		const text = reason.trim();
		if (!text) problem = 'Give a reason: it is kept with the card.';
		else if (text.length > most) problem = `The reason may have at most ${most} characters.`;
		else onreason(text);
	}
</script>

<Dialog {title} {onclose}>
	<form onsubmit={submit}>
		{#if sentence}<p>{sentence}</p>{/if}
		<Label for="reason">{label}</Label>
		<div {@attach take}>
			<Textarea
				id="reason"
				bind:value={reason}
				rows={2}
				class="w-full"
				aria-invalid={problem ? 'true' : undefined}
				aria-describedby="reason-problem"
				onkeydown={(event) =>
					event.key === 'Enter' &&
					!event.shiftKey &&
					(event.preventDefault(), event.currentTarget.form?.requestSubmit())}
			/>
		</div>
		<p id="reason-problem" class="warn" role="alert">{problem}</p>
		<div class="dialog-foot">
			<button type="button" class="plain" onclick={onclose}>Leave it</button>
			<button class="go">{go}</button>
		</div>
	</form>
</Dialog>

<style>
	p {
		margin: 0 0 10px;
	}
	.warn:empty {
		display: none;
	}
</style>
