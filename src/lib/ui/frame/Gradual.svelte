<script lang="ts" generics="T">
	import { flushSync, type Snippet } from 'svelte';
	import { whenNear } from '../board/near';

	interface Props {
		list: readonly T[];
		key: (one: T, place: number) => string | number;
		row: Snippet<[T]>;
		/** What each row is, and about how high, in pixels. */
		as: 'li' | 'div' | 'tr';
		px: number;
		/** The place of a row that is to be there, however far down. */
		reach?: number;
	}
	/** The rows of a list that may be very long: those on top, more each time that their end comes near; on paper all. */
	let { list, key, row, as, px, reach = -1 }: Props = $props();

	const FIRST = 60;
	let near = $state(0);
	const drawn = $derived(list.slice(0, Math.max(FIRST, near, reach + 1)));
	const height = $derived(`${(list.length - drawn.length) * px}px`);
	const more = () => (near = drawn.length * 2);
	const come = (element: Element) => whenNear(element, more);
</script>

<svelte:window onbeforeprint={() => flushSync(() => (near = list.length))} />
{#each drawn as one, place (key(one, place))}{@render row(one)}{/each}
{#if drawn.length < list.length}
	{#key drawn.length}
		{#if as === 'tr'}<tr aria-hidden="true" {@attach come}><td colspan="99" style:height></td></tr>
		{:else}<svelte:element this={as} aria-hidden="true" style:height {@attach come}></svelte:element>{/if}
	{/key}
{/if}
