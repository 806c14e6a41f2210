<script lang="ts">
	import { page } from '$app/state';

	/** The two ways of looking at people: their hours by week, and who is where by day. */
	let { team, here }: { team: string; here: 'weeks' | 'days' } = $props();
	const from = $derived(page.data.from ? `?from=${page.data.from.slug}` : '');
	const to = $derived({ weeks: `/teams/${team}/people${from}`, days: `/teams/${team}/people/days${from}` });
</script>

<p>
	{#each ['weeks', 'days'] as const as one (one)}<a
			class="link"
			href={to[one]}
			aria-current={one === here ? 'page' : undefined}
			>{one === 'weeks' ? 'Hours by week' : 'Who is where, by day'}</a
		>{/each}
</p>

<style>
	p {
		display: flex;
		gap: 16px;
	}
	a {
		min-height: max(24px, var(--touch, 0px));
	}
	[aria-current] {
		color: var(--ink);
		font-weight: 650;
		text-decoration: none;
	}
	@media (pointer: coarse) {
		a {
			min-height: 44px;
			align-content: center;
		}
	}
</style>
