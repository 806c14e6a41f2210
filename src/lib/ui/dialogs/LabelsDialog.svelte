<script lang="ts">
	import { Checkbox, Input, Label } from 'flowbite-svelte';
	import Dialog from './Dialog.svelte';

	interface Props {
		title: string;
		/** Labels that the board knows. */
		labels: readonly string[];
		/** Those that are on the cards now. */
		on: readonly string[];
		onlabels: (label: string[], unlabel: string[]) => void;
		onclose: () => void;
	}
	let { title, labels, on, onlabels, onclose }: Props = $props();
	// svelte-ignore state_referenced_locally
	let chosen = $state([...on]);
	let fresh = $state('');
	const take = (element: HTMLElement) => element.querySelector('input')?.focus();

	function submit(event: SubmitEvent) {
		event.preventDefault();
		const named = fresh
			.split(/[;,]/)
			.map((name) => name.trim().slice(0, 40))
			.filter(Boolean);
		const wanted = [...new Set([...chosen, ...named])];
		onlabels(
			wanted.filter((label) => !on.includes(label)),
			on.filter((label) => !wanted.includes(label)),
		);
	}
</script>

<Dialog {title} {onclose}>
	<form onsubmit={submit}>
		<ul {@attach take}>
			{#each labels as label (label)}
				<li>
					<Checkbox value={label} bind:group={chosen} class="text-base"
						><span class="name">{label}</span></Checkbox
					>
				</li>
			{/each}
		</ul>
		<Label for="new-label">A new label</Label>
		<Input id="new-label" bind:value={fresh} autocomplete="off" maxlength={200} />
		<div class="dialog-foot">
			<button type="button" class="plain" onclick={onclose}>Leave it</button>
			<button class="go">Keep</button>
		</div>
	</form>
</Dialog>

<style>
	ul {
		margin: 0 0 10px;
		max-height: 45vh;
		overflow-y: auto;
		columns: 2;
	}
	li {
		min-height: max(32px, var(--touch, 0px));
		display: flex;
		align-items: center;
		break-inside: avoid;
	}
	.name {
		color: var(--ink);
	}
</style>
