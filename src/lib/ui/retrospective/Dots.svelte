<script lang="ts">
	interface Props {
		votes: number;
		label: string;
	}
	/** Votes as dots. */
	let { votes, label }: Props = $props();
	const MOST = 30;
</script>

<span role="img" aria-label={label}
	>{#each { length: Math.min(votes, MOST) } as _, i (i)}<i></i>{/each}</span
>

<style>
	span {
		display: inline-flex;
		flex-wrap: wrap;
		gap: 3px;
	}
	i {
		width: 11px;
		height: 11px;
		border-radius: 2px 6px 2px 2px;
		background: var(--plum);
	}
</style>
