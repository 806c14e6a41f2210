<script lang="ts">
	import { Checkbox } from 'flowbite-svelte';
	import type { CommandInput } from '../../commands';
	import { count } from '../words';
	import Dialog from './Dialog.svelte';

	type Part = CommandInput<'CopyCards'>['with'][number];
	interface Props {
		/** How many cards are copied. */
		cards: number;
		oncopy: (parts: Part[]) => void;
		onclose: () => void;
	}
	/** What copies of cards take along. */
	let { cards, oncopy, onclose }: Props = $props();
	const PARTS: [Part, string][] = [
		['description', 'description'],
		['checklist', 'checklist, nothing ticked'],
		['labels', 'labels'],
		['initiative', 'initiative'],
		['size', 'size'],
		['owners', 'owners'],
		['dates', 'start and due'],
		['fields', 'the board’s own fields'],
		['files', 'files'],
	];
	let chosen = $state<Part[]>(['description', 'checklist', 'labels', 'initiative', 'size', 'fields']);
	const take = (element: HTMLElement) => element.querySelector('input')?.focus();
</script>

<Dialog title={cards === 1 ? 'Copy this card' : `Copy ${count(cards, 'card')}`} {onclose}>
	<form
		onsubmit={(event) => {
			event.preventDefault();
			oncopy(chosen);
		}}
	>
		<p class="soft">
			{cards === 1 ? 'The copy waits' : 'The copies wait'} at the end of the backlog. Beside title, type and class
			{cards === 1 ? 'it takes' : 'they take'} along:
		</p>
		<ul {@attach take}>
			{#each PARTS as [part, words] (part)}
				<li>
					<Checkbox value={part} bind:group={chosen} class="text-base"
						><span class="name">{words}</span></Checkbox
					>
				</li>
			{/each}
		</ul>
		<div class="dialog-foot">
			<button type="button" class="plain" onclick={onclose}>Leave it</button>
			<button class="go">Copy</button>
		</div>
	</form>
</Dialog>

<style>
	ul {
		margin: 0 0 10px;
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
	.soft {
		margin: 0 0 8px;
	}
</style>
