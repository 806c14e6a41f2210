<script lang="ts">
	interface Props {
		/** Lines of the checklist that are not ticked. */
		lines: readonly { id: string; text: string }[];
		/** Whether they are come to with Tab. */
		tabbable: boolean;
		/** Ticks one off; left out where nobody may. */
		ontick?: (line: string) => void;
	}
	/** The open lines of a card's checklist below its face, ticked off there. */
	let { lines, tabbable, ontick }: Props = $props();
	/** So many of them stand there. */
	const MOST = 5;
</script>

<ul>
	{#each lines.slice(0, MOST) as line (line.id)}
		<li>
			<label
				><input
					type="checkbox"
					disabled={!ontick}
					tabindex={tabbable ? 0 : -1}
					onchange={() => ontick?.(line.id)}
				/>{line.text}</label
			>
		</li>
	{/each}
	{#if lines.length > MOST}<li class="rest">and {lines.length - MOST} more</li>{/if}
</ul>

<style>
	ul {
		margin: -2px 0 0;
		padding: 5px 9px 6px;
		border: 1px solid var(--rule);
		border-top: 1px dotted var(--rule);
		border-radius: 0 0 3px 3px;
		background: var(--sheet);
		font-size: 0.9rem;
		color: var(--soft);
	}
	label {
		display: flex;
		gap: 7px;
		align-items: baseline;
		min-height: max(24px, var(--touch, 0px));
		overflow-wrap: anywhere;
	}
	input {
		flex: none;
		position: relative;
		top: 2px;
		width: 15px;
		height: 15px;
		accent-color: var(--moss);
	}
	.rest {
		color: var(--faint);
	}
	@media (pointer: coarse) {
		label {
			min-height: 44px;
			align-items: center;
		}
	}
</style>
