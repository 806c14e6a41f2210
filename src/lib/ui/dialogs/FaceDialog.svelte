<script lang="ts">
	import { Checkbox } from 'flowbite-svelte';
	import { faceable, USUAL_FACE } from '$core/board/face';
	import type { Face } from '$core/pages/board';
	import type { BoardState } from '../board/board-state.svelte';
	import { provideAsked } from './asked.svelte';
	import Dialog from './Dialog.svelte';

	interface Props {
		board: BoardState;
		onclose: () => void;
	}
	/** What the cards of a board show: to whoever looks, or as a lead to everyone. */
	let { board, onclose }: Props = $props();
	const asked = provideAsked();
	const offered = $derived(faceable(board.fields));
	// svelte-ignore state_referenced_locally
	const begins = board.head.face ?? USUAL_FACE;
	let fields = $state([...begins.fields]);
	let spacing = $state<Face['spacing']>(begins.spacing);
	let width = $state<Face['width']>(begins.width);
	const take = (element: HTMLElement) => element.querySelector('input')?.focus();

	async function keep(everyone: boolean, chosen = true): Promise<void> {
		// In the order in which they are offered, so that two who chose the same have the same.
		const shown = offered.map(({ id }) => id).filter((id) => fields.includes(id));
		const input = { board: board.head.id, spacing, width, everyone, ...(chosen ? { fields: shown } : {}) };
		if (await asked.kept(board.ask('ChangeFace', input))) onclose();
	}
	const SPACINGS = [
		['compact', 'close together'],
		['usual', 'as usual'],
		['roomy', 'with room'],
	] as const;
	const WIDTHS = [
		['narrow', 'narrow'],
		['usual', 'as they fit'],
		['wide', 'wide'],
	] as const;
</script>

<Dialog title="What cards show" {onclose}>
	<form
		onsubmit={(event) => {
			event.preventDefault();
			void keep(false);
		}}
	>
		<ul {@attach take}>
			{#each offered as { id, name } (id)}
				<li>
					<Checkbox value={id} bind:group={fields} class="text-base"
						><span class="name">{name}</span></Checkbox
					>
				</li>
			{/each}
		</ul>
		<fieldset>
			<legend>Cards stand</legend>
			{#each SPACINGS as [value, words] (value)}<label
					><input type="radio" name="spacing" {value} bind:group={spacing} /> {words}</label
				>{/each}
		</fieldset>
		<fieldset>
			<legend>Columns are</legend>
			{#each WIDTHS as [value, words] (value)}<label
					><input type="radio" name="width" {value} bind:group={width} /> {words}</label
				>{/each}
		</fieldset>
		<div class="dialog-foot">
			{#if board.head.ownFace}<button type="button" class="link" onclick={() => void keep(false, false)}
					>As the board has it</button
				>{/if}
			<button type="button" class="plain" onclick={onclose}>Leave it</button>
			{#if board.head.role === 'lead'}<button type="button" class="plain" onclick={() => void keep(true)}
					>Keep it for everyone</button
				>{/if}
			<button class="go">Keep it for me</button>
		</div>
	</form>
</Dialog>

<style>
	ul {
		margin: 0 0 10px;
		max-height: 42vh;
		overflow-y: auto;
		columns: 2;
	}
	li {
		min-height: max(30px, var(--touch, 0px));
		display: flex;
		align-items: center;
		break-inside: avoid;
	}
	.name {
		color: var(--ink);
	}
	fieldset {
		margin: 0 0 6px;
		display: flex;
		flex-wrap: wrap;
		gap: 2px 12px;
		align-items: center;
	}
	legend {
		float: left;
		min-width: 92px;
		color: var(--soft);
	}
	label {
		display: inline-flex;
		gap: 6px;
		align-items: center;
		min-height: max(30px, var(--touch, 0px));
	}
	input {
		accent-color: var(--moss);
	}
</style>
