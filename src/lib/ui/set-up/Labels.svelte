<script lang="ts">
	import type { SetUpPage } from '$core/pages/settings';
	import type { BoardState } from '../board/board-state.svelte';
	import Names from './Names.svelte';
	import { namesOf } from './names';

	let { board, setUp }: { board: BoardState; setUp: SetUpPage } = $props();
	const head = $derived(board.head);
	const lead = $derived(head.role === 'lead');
</script>

<section aria-labelledby="set-labels">
	<h2 id="set-labels">Labels</h2>
	<Names
		kind="label"
		names={head.labels}
		retired={setUp.retired.label}
		carried={setUp.carried.label}
		mayChange={lead}
		onchange={namesOf(board, 'label')}
	/>
</section>
