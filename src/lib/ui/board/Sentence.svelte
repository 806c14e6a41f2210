<script lang="ts">
	import { withCondition, type Filter } from '$core/board/filter';
	import Term from '../frame/Term.svelte';
	import type { Words } from './sentence';

	interface Props {
		words: Words[];
		filter: Filter;
		/** Where the running sprint is settled. */
		settle: string;
		open: (card: { number: number }) => string;
		onfilter: (filter: Filter) => void;
	}
	let { words, filter, settle, open, onfilter }: Props = $props();
	const follow = (to: { blocked: true } | { outside: true }) =>
		onfilter(
			'blocked' in to
				? withCondition(
						filter,
						'blocked',
						filter.where.some(({ field }) => field === 'blocked') ? [] : ['yes'],
					)
				: { ...filter, outside: !filter.outside },
		);
</script>

<h1 class="sentence">
	{#each words as { text, tone, to, says }, i (i)}{#if says}<b><Term word={text} {says} /></b
			>{:else if to && 'card' in to}<a
				class={tone}
				href={open({ number: to.card })}
				data-sveltekit-noscroll
				data-sveltekit-keepfocus>{text}</a
			>{:else if to && 'settle' in to}<a class="link" href={settle}>{text}</a>{:else if to && 'place' in to}<a
				class="link"
				href={to.place}>{text}</a
			>{:else if to}<button type="button" class="link {tone}" onclick={() => follow(to)}>{text}</button
			>{:else if tone === 'strong'}<b>{text}</b>{:else}<span class={tone}>{text}</span>{/if}{/each}
</h1>

<style>
	.sentence {
		font: 1rem/1.4 var(--text);
		letter-spacing: 0;
		padding: 9px 20px 8px;
		flex: none;
	}
	.link.warn {
		color: var(--brick);
	}
	@media (max-width: 700px) {
		.sentence {
			padding: 8px 14px 4px;
		}
	}
</style>
