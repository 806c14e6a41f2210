<script lang="ts">
	interface Row {
		name: string;
		value: number;
		words: string;
		/** Opens the cards behind it; none: it has none. */
		onpick?: () => void;
	}
	interface Props {
		rows: readonly Row[];
		look: 'left' | 'done' | 'river';
	}
	/** Named figures as bars beside their words, each opening to its cards. */
	let { rows, look }: Props = $props();
	const most = $derived(Math.max(1e-6, ...rows.map((row) => row.value)));
</script>

<ul>
	{#each rows as row, place (place)}
		<li>
			<button type="button" disabled={!row.onpick} onclick={row.onpick}>
				<span>{row.name}</span>
				<span class="bar" aria-hidden="true"
					><i class={look} style:width="{(row.value / most) * 100}%"></i></span
				>
				<span class="words">{row.words}</span>
			</button>
		</li>
	{/each}
</ul>

<style>
	ul {
		margin: 4px 0 0;
	}
	button {
		display: grid;
		grid-template-columns: 150px minmax(40px, 1fr) minmax(110px, auto);
		gap: 12px;
		align-items: center;
		width: 100%;
		min-height: max(28px, var(--touch, 0px));
		padding: 2px 0;
		border: 0;
		background: none;
		color: inherit;
		text-align: left;
	}
	button:disabled {
		cursor: default;
	}
	button:not(:disabled):hover {
		color: var(--moss);
	}
	.bar {
		height: 14px;
		background: var(--sunk);
	}
	i {
		display: block;
		height: 100%;
	}
	.left {
		background: var(--hatch-left);
	}
	.done {
		background: var(--moss);
	}
	.river {
		background: var(--river);
	}
	.words {
		color: var(--soft);
		text-align: right;
	}
	@media (max-width: 560px) {
		button {
			grid-template-columns: minmax(0, 1fr) auto;
		}
		.bar {
			grid-column: 1 / -1;
			grid-row: 2;
		}
	}
</style>
