<script lang="ts">
	import { Toast } from 'flowbite-svelte';

	interface Props {
		text: string;
		tone: 'done' | 'care' | 'warn';
		onundo?: () => void;
		onclose: () => void;
	}
	let { text, tone, onundo, onclose }: Props = $props();
</script>

<Toast
	toastStatus
	dismissable={false}
	transition={() => ({ duration: 0 })}
	role="presentation"
	class="max-w-md border border-gray-300 text-gray-900"
>
	<span class:warn={tone === 'warn'} class:care={tone === 'care'}>{text}</span>
	{#if onundo}<button type="button" class="link" onclick={onundo}>Take it back</button>{/if}
	<button type="button" class="link" onclick={onclose}>Close</button>
</Toast>

<style>
	.link {
		margin-left: 12px;
		min-height: max(24px, var(--touch, 0px));
	}
</style>
