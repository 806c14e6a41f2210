<script lang="ts">
	import type { PersonView } from '$core/pages/board';
	import { list } from '../words';
	import NameTag from './NameTag.svelte';

	interface Props {
		/** Ids of those who are here, and all people of the board. */
		who: readonly string[];
		people: readonly PersonView[];
		/** Where that is: `this board`. */
		where: string;
	}
	/** Who else looks at something now: quietly, as name tags. */
	let { who, people, where }: Props = $props();
	const MOST = 5;
	const known = $derived(
		people.map((person, seed) => ({ person, seed })).filter(({ person }) => who.includes(person.id)),
	);
</script>

{#if known.length}<span
		class="here"
		title="{list(known.map(({ person }) => person.name))} {known.length === 1
			? 'looks'
			: 'look'} at {where} too"
		><span class="sr-only"
			>Here too:
		</span>{#each known.slice(0, MOST) as { person, seed } (person.id)}<NameTag
				{person}
				{seed}
			/>{/each}{#if known.length > MOST}<small>and {known.length - MOST} more</small>{/if}</span
	>{/if}

<style>
	.here {
		display: inline-flex;
		gap: 3px;
		align-items: center;
		opacity: 0.85;
	}
</style>
