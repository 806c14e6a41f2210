<script lang="ts">
	interface Props {
		worked: number;
		left: number;
		/** Where the tick stands: what was planned, or a budget. */
		mark: number;
		/** What the whole width means. */
		most: number;
	}
	/** Work as a bar: what was worked, what is left, and a tick at what was meant. Its figures stand beside it in words. */
	let { worked, left, mark, most }: Props = $props();
	const share = (n: number) => `${Math.min(100, (n / Math.max(1e-6, most)) * 100)}%`;
</script>

<div class="bar" aria-hidden="true">
	<i class="worked" style:width={share(worked)}></i><i
		class="left"
		style:left={share(worked)}
		style:width={share(left)}
	></i><i class="mark" style:left={share(mark)}></i>
</div>

<style>
	.bar {
		position: relative;
		height: 18px;
		background: var(--sunk);
		overflow: hidden;
	}
	i {
		position: absolute;
		top: 0;
		bottom: 0;
	}
	.worked {
		left: 0;
		background: var(--moss);
	}
	.left {
		background: var(--hatch-left);
	}
	.mark {
		width: 3px;
		margin-left: -3px;
		background: var(--ink);
	}
</style>
