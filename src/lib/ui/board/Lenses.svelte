<script lang="ts">
	import { lensQuery } from '$core/board/lens';
	import Menu from '../frame/Menu.svelte';
	import type { BoardState } from './board-state.svelte';

	interface Props {
		board: BoardState;
		/** What the address says now. */
		params: URLSearchParams;
		onlens: (query: string) => void;
	}
	/** Ways of looking at the board that were kept, and keeping this one: the last word of the sentence. */
	let { board, params, onlens }: Props = $props();
	const head = $derived(board.head);
	const query = $derived(lensQuery(params));
	const lens = $derived(head.lenses.find((one) => one.query === query));
	let name = $state('');
	let shared = $state(false);

	async function keep(event: SubmitEvent, close: () => void): Promise<void> {
		event.preventDefault();
		const sent = await board.ask('KeepLens', { board: head.id, name: name.trim(), query, shared });
		if (!sent.ok) return;
		close();
		board.tell({ tone: 'done', text: `The lens ${name.trim()} is kept.`, undo: sent.answer.id });
		[name, shared] = ['', false];
	}
	async function drop(id: string, called: string): Promise<void> {
		const sent = await board.ask('DropLens', { board: head.id, lens: id });
		if (sent.ok) board.tell({ tone: 'done', text: `The lens ${called} is let go.`, undo: sent.answer.id });
	}
</script>

{#if query || head.lenses.length}
	<span class="lenses">
		<Menu id="lenses" look="words">
			{#snippet button()}<span class="word">{lens ? `through ${lens.name}` : 'lens'} ▾</span>{/snippet}
			{#snippet children(close)}
				{#each head.lenses as one (one.id)}
					<div class="one">
						<button
							type="button"
							aria-current={one.id === lens?.id}
							onclick={() => {
								onlens(one.query);
								close();
							}}
							>{one.name}{#if one.shared}<small>shared</small>{/if}</button
						>
						{#if one.mine || head.role === 'lead'}<button
								type="button"
								class="drop"
								aria-label="Let go of the lens {one.name}"
								title="Let it go"
								onclick={() => void drop(one.id, one.name)}>×</button
							>{/if}
					</div>
				{/each}
				{#if lens}<button
						type="button"
						onclick={() => {
							onlens('');
							close();
						}}>The board as it is</button
					>
				{:else if query}
					<form onsubmit={(event) => void keep(event, close)}>
						<label>Keep this lens as <input required maxlength="60" bind:value={name} /></label>
						{#if head.role !== 'viewer'}<label class="tick"
								><input type="checkbox" bind:checked={shared} /> for all who see the board</label
							>{/if}
						<button class="go">Keep it</button>
					</form>
				{/if}
			{/snippet}
		</Menu>
	</span>
{/if}

<style>
	.word {
		color: var(--moss);
		font-size: 0.93rem;
		border-bottom: 1px solid var(--moss);
	}
	.one {
		display: flex;
	}
	.one .drop {
		width: 34px;
		justify-content: center;
		flex: none;
		color: var(--soft);
	}
	small {
		margin-left: 8px;
		color: var(--soft);
	}
	[aria-current='true'] {
		font-weight: 650;
	}
	form {
		display: grid;
		gap: 8px;
		padding: 8px 10px;
		border-top: 1px solid var(--rule);
	}
	form .go {
		width: auto;
		justify-self: start;
		background: var(--moss);
		color: var(--on-moss, var(--paper));
		padding: 4px 14px;
	}
	input:not([type='checkbox']) {
		width: 100%;
		font: inherit;
		color: var(--ink);
		background: var(--paper);
		border: 1px solid var(--edge);
		border-radius: 3px;
		padding: 3px 6px;
		min-height: 30px;
	}
	.tick {
		display: flex;
		gap: 8px;
		align-items: center;
	}
	.tick input {
		width: 17px;
		height: 17px;
		accent-color: var(--moss);
		color: var(--moss);
	}
</style>
