<script lang="ts">
	import type { Day } from '$core/calendar/zone';
	import type { Closed, Flag } from './ground';
	import type { Lie } from './scale';

	interface Props {
		closed: readonly Closed[];
		ticks: readonly { day: Day }[];
		flags: readonly Flag[];
		today: Day;
		lie: Lie;
		/** How many pixels wide a day is. */
		wide: number;
	}
	/** What lies under the rows of a timeline: days on which nobody works, the ruler's lines, milestones, today. */
	let { closed, ticks, flags, today, lie, wide }: Props = $props();
</script>

{#each closed as { day, days, name } (day)}<span style:left="{lie.left(day)}px" style:width="{days * wide}px"
		>{#if name && days * wide > 50}<small>{name}</small>{/if}</span
	>{/each}
{#each ticks as { day } (day)}<i class="line" style:left="{lie.left(day)}px"></i>{/each}
{#each flags as { one, x } (one.id)}<i class="dotted" style:left="{x}px"></i>{/each}
<i class="now" style:left="{lie.left(today) + wide / 2}px"></i>

<style>
	i,
	span {
		position: absolute;
		top: 0;
		bottom: 0;
	}
	.line {
		border-left: 1px solid var(--rule);
	}
	.dotted {
		border-left: 1.5px dotted var(--plum);
	}
	.now {
		border-left: 2px solid var(--brick-fill);
	}
	span {
		background: color-mix(in srgb, var(--sunk) 65%, transparent);
	}
	small {
		position: sticky;
		top: 70px;
		padding: 0 3px;
		color: var(--soft);
		white-space: nowrap;
		overflow: hidden;
		display: block;
	}
</style>
