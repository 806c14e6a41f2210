<script lang="ts">
	import type { Condition } from '$core/board/filter';
	import type { Offered } from '$core/pages/board';

	interface Props {
		/** The fields that there are; none while they are still asked for. */
		offered: readonly Offered[];
		where: Condition[];
		/** They could not be had. */
		failed?: boolean;
		/** What a condition says. */
		words: (condition: Condition) => string;
		onwhere: (where: Condition[]) => void;
		onopen?: () => void;
	}
	/** Conditions on any field: one of its values, or what plain words of it say; or none of them. */
	let { offered, where, failed = false, words, onwhere, onopen }: Props = $props();
	let menu = $state<HTMLElement>();
	let trigger = $state<HTMLElement>();
	let open = $state(false);
	let chosen = $state('due');

	function place(event: ToggleEvent): void {
		open = event.newState === 'open';
		if (open) onopen?.();
		if (!open || !trigger || !menu) return;
		const box = trigger.getBoundingClientRect();
		menu.style.top = `${box.bottom + 4}px`;
		menu.style.left = `${Math.max(8, Math.min(box.left, innerWidth - 288))}px`;
	}
</script>

<button
	type="button"
	class="link"
	popovertarget="conditions"
	aria-expanded={open}
	aria-label="and… by any field"
	bind:this={trigger}>and…</button
>
<div
	id="conditions"
	class="aloft"
	popover="auto"
	bind:this={menu}
	onbeforetoggle={place}
	role="group"
	aria-label="Narrow by any field"
>
	{#if open}{#await import('./ConditionChoices.svelte') then { default: ConditionChoices }}<ConditionChoices
				{offered}
				{where}
				{failed}
				{words}
				{onwhere}
				bind:chosen
			/>{/await}{/if}
</div>

<style>
	.link {
		min-height: max(26px, var(--touch, 0px));
		min-width: max(26px, var(--touch, 0px));
	}
	div {
		position: fixed;
		inset: auto;
		margin: 0;
		width: 280px;
		padding: 10px 12px;
	}
</style>
