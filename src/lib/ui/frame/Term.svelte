<script lang="ts">
	interface Props {
		/** The word itself. */
		word: string;
		/** What it means, in one sentence with this board's own figure. */
		says: string;
	}
	/** A word of Harrow's own that explains itself where it stands: on hover, on focus, by a tap. */
	let { word, says }: Props = $props();
	let element = $state<HTMLElement>();
	/** Near the foot of the window it opens upwards, near its right edge so far to the left that it fits. */
	let up = $state(false);
	let left = $state(0);
	$effect(() => {
		if (!open || !element) return;
		const box = element.getBoundingClientRect();
		// Not innerWidth: on a phone it grows with what sticks out.
		const wide = document.documentElement.clientWidth;
		up = box.bottom + 110 > innerHeight;
		left = Math.min(0, wide - 12 - Math.min(320, wide * 0.8) - box.left);
	});
	const id = $props.id();
	let open = $state(false);
	let shut = false;
</script>

<span
	class="term"
	bind:this={element}
	role="presentation"
	onpointerenter={(event) => event.pointerType === 'mouse' && !shut && (open = true)}
	onpointerleave={() => ((open = false), (shut = false))}
	><button
		type="button"
		aria-describedby={id}
		aria-expanded={open}
		onfocus={() => (open = true)}
		onblur={() => (open = false)}
		onclick={() => (open = true)}
		onkeydown={(event) => {
			if (event.key !== 'Escape' || !open) return;
			event.stopPropagation();
			open = false;
			shut = true;
		}}>{word}</button
	><span class="aloft" {id} role="tooltip" class:open class:up style:margin-left="{left}px">{says}</span
	></span
>

<style>
	.term {
		position: relative;
		display: inline-block;
	}
	button {
		padding: 0;
		border: 0;
		border-bottom: 1.5px dotted currentcolor;
		border-radius: 0;
		background: none;
		color: inherit;
		font: inherit;
		cursor: help;
	}
	[role='tooltip'] {
		position: absolute;
		inset: calc(100% + 4px) auto auto 0;
		z-index: 40;
		width: max-content;
		max-width: min(320px, 80vw);
		padding: 7px 10px;
		font: 400 0.93rem/1.35 var(--text);
		display: none;
	}
	.up {
		inset: auto auto calc(100% + 4px) 0;
	}
	.open {
		display: block;
	}
	@media (pointer: coarse) {
		button {
			min-height: 24px;
		}
	}
</style>
