<script lang="ts">
	import type { Snippet } from 'svelte';

	interface Props {
		id: string;
		/** What the button says to those who do not see it, where its words are not enough. */
		label?: string;
		look: 'words' | 'tag';
		button: Snippet;
		children: Snippet<[() => void]>;
	}
	/** A button and what it opens: the browser's own popover, so that Escape and a click elsewhere close it. */
	let { id, label, look, button, children }: Props = $props();
	let trigger = $state<HTMLElement>();
	let menu = $state<HTMLElement>();
	let open = $state(false);

	/** Lays the menu under its button, inside the window. */
	function place(event: ToggleEvent) {
		open = event.newState === 'open';
		if (!open || !trigger || !menu) return;
		const box = trigger.getBoundingClientRect();
		menu.style.top = `${box.bottom + 4}px`;
		menu.style.left = `${Math.max(8, Math.min(box.left, innerWidth - 256))}px`;
	}
</script>

<button
	type="button"
	class={look}
	popovertarget={id}
	aria-label={label}
	aria-expanded={open}
	bind:this={trigger}>{@render button()}</button
>
<div class="aloft" {id} popover="auto" bind:this={menu} onbeforetoggle={place}>
	{@render children(() => menu?.hidePopover())}
</div>

<style>
	div {
		position: fixed;
		inset: auto;
		margin: 0;
		width: 248px;
		padding: 4px;
	}
	div :global(:is(a, button)) {
		display: flex;
		align-items: center;
		width: 100%;
		min-height: max(34px, var(--touch, 0px));
		padding: 4px 10px;
		border: 0;
		border-radius: 3px;
		background: none;
		color: inherit;
		text-align: left;
		text-decoration: none;
		font: inherit;
	}
	div :global(:is(a, button):hover) {
		background: var(--moss-2);
	}
	div :global(:focus-visible) {
		outline-color: var(--river);
	}
	.words {
		border: 0;
		background: none;
		color: inherit;
		padding: 6px 2px;
		white-space: nowrap;
		overflow: hidden;
		text-overflow: ellipsis;
		min-width: var(--touch, 0px);
	}
	.tag {
		border: 0;
		min-width: max(28px, var(--touch, 0px));
		height: 24px;
		padding: 0 4px;
		background: var(--wheat);
		color: #2a1f10;
		font-weight: 700;
		font-size: 12px;
		border-radius: 2px 8px 2px 2px;
	}
</style>
