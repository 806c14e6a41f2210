<script lang="ts">
	import { settingSentence } from '$core/board/setting-sentence';
	import type { SetUpPage } from '$core/pages/settings';
	import type { BoardState } from '../board/board-state.svelte';
	import { momentWords } from '../words';

	let { board, setUp }: { board: BoardState; setUp: SetUpPage } = $props();
	const head = $derived(board.head);
</script>

<section aria-labelledby="set-changes">
	<h2 id="set-changes">What was changed here lately</h2>
	<ol>
		{#each setUp.changes as change (change.seq)}
			<li class:undone={change.undone}>
				{settingSentence(change)}
				<small
					>{change.who ?? 'Someone'}, {momentWords(change.at, head.timeZone)}{change.undone
						? ', taken back'
						: ''}</small
				>
				{#if change.takeBack}{@const command = change.takeBack}<button
						type="button"
						class="link"
						onclick={() => void board.undo(command)}>Take it back</button
					>{/if}
			</li>
		{:else}<li>Nothing yet.</li>{/each}
	</ol>
</section>

<style>
	small {
		color: var(--soft);
	}
	.undone {
		color: var(--soft);
		text-decoration: line-through;
	}
</style>
