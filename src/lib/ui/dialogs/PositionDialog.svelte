<script lang="ts">
	import { Input, Label } from 'flowbite-svelte';
	import Dialog from './Dialog.svelte';

	interface Props {
		what: string;
		/** How many cards the backlog holds. */
		most: number;
		onposition: (position: number) => void;
		onclose: () => void;
	}
	let { what, most, onposition, onclose }: Props = $props();
	let text = $state('');
	let problem = $state('');
	const take = (element: HTMLElement) => element.querySelector('input')?.focus();

	function submit(event: SubmitEvent) {
		event.preventDefault();
		const position = Number(text);
		if (!Number.isInteger(position) || position < 1 || position > most)
			problem = `The position must be a whole number from 1 to ${most}.`;
		else onposition(position);
	}
</script>

<Dialog title="Where to put {what}" {onclose}>
	<form onsubmit={submit}>
		<div {@attach take}>
			<Label for="position">Position in the backlog, 1 to {most}</Label>
			<Input
				id="position"
				bind:value={text}
				inputmode="numeric"
				autocomplete="off"
				aria-describedby="position-problem"
			/>
		</div>
		<p id="position-problem" class="warn" role="alert">{problem}</p>
		<div class="dialog-foot">
			<button type="button" class="plain" onclick={onclose}>Leave it</button>
			<button class="go">Put it there</button>
		</div>
	</form>
</Dialog>

<style>
	p {
		margin: 6px 0 0;
	}
</style>
