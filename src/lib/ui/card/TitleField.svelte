<script lang="ts">
	import type { Title } from './title.svelte';

	interface Props {
		title: Title;
		mayEdit: boolean;
		/** Somebody is done with it. */
		onend: () => void;
	}
	/** The title of a card, changed where it stands; two titles are not mixed. */
	let { title, mayEdit, onend }: Props = $props();

	function decide(mine: boolean): void {
		title.decide(mine);
		onend();
	}
</script>

<textarea
	aria-label="Title"
	rows="2"
	maxlength="300"
	bind:value={title.text}
	readonly={!mayEdit}
	onblur={onend}
	onkeydown={(event) => event.key === 'Enter' && (event.preventDefault(), event.currentTarget.blur())}
></textarea>
{#if title.theirs !== null}<p class="care" role="alert">
		Meanwhile somebody called it “{title.theirs}”.
		<button type="button" class="link" onclick={() => decide(true)}>Keep mine</button>
		<button type="button" class="link" onclick={() => decide(false)}>Take theirs</button>
	</p>{/if}

<style>
	textarea {
		width: 100%;
		margin: 6px 0 4px -6px;
		padding: 4px 6px;
		border: 1px solid transparent;
		border-radius: 3px;
		background: none;
		color: var(--ink);
		font: 650 1.35rem/1.2 var(--display);
		resize: none;
		field-sizing: content;
	}
	textarea:not([readonly]):hover {
		border-color: var(--rule);
	}
	.link {
		min-height: var(--touch, auto);
	}
</style>
