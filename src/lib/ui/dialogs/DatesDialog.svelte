<script lang="ts">
	import type { DatesPage } from '$core/pages/dates';
	import { count } from '../words';
	import Dialog from './Dialog.svelte';
	import Following from './Following.svelte';

	interface Props {
		/** What the card is called: `Card 12`, or its key; several: `3 cards`. */
		called: string;
		/** How many cards get other dates by hand. */
		given?: number;
		follows: DatesPage;
		today: string;
		/** Moves all, this one only, or nothing. */
		onanswer: (moves: 'all' | 'one' | null) => void;
	}
	/** What would follow from other dates of a card, before anything is moved. */
	let { called, given = 1, follows, today, onanswer }: Props = $props();
	const moved = $derived(follows.moved);
	const title = $derived(
		moved.length
			? `${called} ${given > 1 ? 'move' : 'moves'} ${count(moved.length, 'other')}`
			: `${called} and ${given > 1 ? 'their' : 'its'} dates`,
	);
</script>

<Dialog {title} wide onclose={() => onanswer(null)}>
	<Following {given} {follows} {today} />
	<div class="dialog-foot">
		<button type="button" class="plain" onclick={() => onanswer(null)}>Leave it</button>
		<button type="button" class={moved.length ? 'plain' : 'go'} onclick={() => onanswer('one')}
			>{moved.length
				? given > 1
					? 'Only these'
					: 'Only this one'
				: `Move ${given > 1 ? 'them' : 'it'} all the same`}</button
		>
		{#if moved.length}<button type="button" class="go" onclick={() => onanswer('all')}
				>Move all {moved.length + given}</button
			>{/if}
	</div>
</Dialog>
