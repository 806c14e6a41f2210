<script lang="ts">
	import { keys } from '../frame/keys.svelte';
	import { pressed, type Place } from '../frame/keymap';
	import { forPlace } from '../frame/place-keys';
	import type { Doing } from './doing.svelte';

	interface Props {
		place: Extract<Place, 'panorama' | 'days'>;
		title: string;
		doing: Doing;
		/** Closes what is open. */
		onleave?: () => void;
	}
	/** The keys of a page of a team that are not those of a row: taking back, leaving, and the list of keys. */
	let { place, title, doing, onleave }: Props = $props();
	let shown = $state(false);
	function onkeydown(event: KeyboardEvent): void {
		if (!forPlace(event)) return;
		const does = pressed(place, event, { single: keys.on, write: true });
		if (does === 'help') shown = true;
		else if (does === 'undo') void doing.undo();
		else if (does === 'leave') return onleave?.();
		else return;
		event.preventDefault();
	}
</script>

<svelte:document {onkeydown} />
{#if shown}
	{#await import('../dialogs/KeysDialog.svelte') then { default: KeysDialog }}
		<KeysDialog {title} {place} bind:on={keys.on} onclose={() => (shown = false)} />
	{/await}
{/if}
