<script lang="ts">
	import type { SetUpPage } from '$core/pages/settings';
	import type { BoardState } from '../board/board-state.svelte';
	import { initiativeAddress, initiativeWords } from '../initiative-words';
	import Names from './Names.svelte';
	import { namesOf } from './names';

	let { board, setUp, today }: { board: BoardState; setUp: SetUpPage; today: string } = $props();
	const head = $derived(board.head);
</script>

<section aria-labelledby="set-initiatives">
	<h2 id="set-initiatives">Initiatives, their targets and budgets</h2>
	<Names
		kind="initiative"
		names={head.initiatives}
		retired={setUp.retired.initiative}
		carried={setUp.carried.initiative}
		says={(name) =>
			(setUp.initiatives[name] && initiativeWords(setUp.initiatives[name], head.people, today)) ||
			'no target, no budget'}
		more={(name) => `${initiativeAddress(head.slug, name)}?set`}
		mayChange={head.role === 'lead'}
		onchange={namesOf(board, 'initiative')}
	/>
</section>
