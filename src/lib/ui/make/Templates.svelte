<script lang="ts">
	import type { Template } from '$core/flow/set-up';
	import DrawnBoard from './DrawnBoard.svelte';

	interface Props {
		templates: readonly Template[];
		/** The id of the one that is chosen. */
		chosen: string;
		onchoose?: (template: Template) => void;
	}
	/** Templates as small drawn boards, of which one is chosen. */
	let { templates, chosen = $bindable(), onchoose }: Props = $props();
</script>

<div class="templates" role="radiogroup" aria-label="What the board begins with">
	{#each templates as template (template.id)}
		<label class:chosen={template.id === chosen}>
			<input
				type="radio"
				name="template"
				value={template.id}
				bind:group={chosen}
				onchange={() => onchoose?.(template)}
			/>
			<b>{template.name}</b>
			<DrawnBoard setUp={template.setUp} />
			<small>{template.sentence}</small>
		</label>
	{/each}
</div>

<style>
	.templates {
		display: grid;
		grid-template-columns: repeat(auto-fill, minmax(300px, 1fr));
		gap: 12px;
	}
	label {
		display: grid;
		grid-template-columns: auto 1fr;
		gap: 6px 8px;
		align-content: start;
		align-items: center;
		padding: 10px 12px;
		border: 1px solid var(--rule);
		border-left: 4px solid transparent;
		cursor: pointer;
	}
	label:hover {
		background: var(--sheet);
	}
	.chosen {
		border-color: var(--edge);
		border-left-color: var(--moss);
		background: var(--sheet);
	}
	label > :global(.board),
	small {
		grid-column: 1 / -1;
	}
	input {
		accent-color: var(--moss);
		width: 18px;
		height: 18px;
		box-shadow: none;
		color: var(--moss);
	}
	label:has(:focus-visible) {
		outline: 2.5px solid var(--river);
		outline-offset: 2px;
	}
	small {
		color: var(--soft);
		font-size: 0.95rem;
	}
	@media (max-width: 700px) {
		.templates {
			grid-template-columns: 1fr;
		}
	}
</style>
