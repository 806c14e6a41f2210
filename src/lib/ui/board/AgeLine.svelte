<script lang="ts">
	import type { Expectation } from '$core/flow/expectation';
	import { count } from '../words';

	/** How old a card is against what past cards took; the tick is the age that 85% did not exceed. */
	let {
		days,
		expectation,
		finished = false,
	}: { days: number; expectation: Expectation | null; finished?: boolean } = $props();
	const scale = $derived(Math.max(expectation ? expectation.days * 1.25 : 20, 1));
	const tone = $derived(
		!expectation || days <= expectation.median ? 'young' : days <= expectation.days ? 'late' : 'old',
	);
	const words = $derived(
		`day ${days}${expectation ? `; ${expectation.percentile}% of past cards took ${count(expectation.days, 'day')} or fewer` : ''}`,
	);
</script>

<span class="line" class:finished role="img" aria-label={words} title={words}>
	<i class={tone} style:width="{Math.min(100, (days / scale) * 100)}%"></i>
	{#if expectation}<u style:left="{(expectation.days / scale) * 100}%"></u>{/if}
</span>

<style>
	.line {
		display: block;
		position: relative;
		height: 4px;
		margin-top: 8px;
		border-radius: 2px;
		background: var(--sunk);
	}
	i {
		position: absolute;
		inset: 0 auto 0 0;
		border-radius: 2px;
		background: light-dark(#6f7d71, #93a096);
		transition: width 0.25s ease-out;
	}
	.late {
		background: var(--ochre-fill);
	}
	.old {
		background: var(--brick-fill);
	}
	u {
		position: absolute;
		top: -2px;
		bottom: -2px;
		width: 1.5px;
		background: var(--soft);
	}
	.finished i {
		animation: close 0.5s ease-out;
	}
	@keyframes close {
		to {
			width: 0;
		}
	}
</style>
