<script lang="ts">
	import type { LensView } from '$core/pages/board';
	import Menu from '../frame/Menu.svelte';

	interface Props {
		lenses: readonly LensView[];
		/** What the address says now, as a lens keeps it; empty where it is looked at as it is. */
		query: string;
		/** Whether one may share a lens, and let go of those of others. */
		mayShare: boolean;
		lead: boolean;
		/** What is looked at, and by whom a shared lens is had: `the board`, `all who see the board`. */
		what: string;
		whom: string;
		/** Keeps this one; false where it was refused. */
		onkeep: (lens: { name: string; query: string; shared: boolean }) => Promise<boolean>;
		ondrop: (lens: LensView) => void;
		onlens: (query: string) => void;
	}
	/** Ways of looking that were kept, and keeping this one: the last word of the sentence. */
	let { lenses, query, mayShare, lead, what, whom, onkeep, ondrop, onlens }: Props = $props();
	const lens = $derived(lenses.find((one) => one.query === query));
	let name = $state('');
	let shared = $state(false);

	async function keep(event: SubmitEvent, close: () => void): Promise<void> {
		event.preventDefault();
		if (!(await onkeep({ name: name.trim(), query, shared }))) return;
		close();
		[name, shared] = ['', false];
	}
</script>

{#if query || lenses.length}
	<span class="lenses">
		<Menu id="lenses" look="words">
			{#snippet button()}<span class="word">{lens ? `through ${lens.name}` : 'lens'} ▾</span>{/snippet}
			{#snippet children(close)}
				{#each lenses as one (one.id)}
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
						{#if one.mine || lead}<button
								type="button"
								class="drop"
								aria-label="Let go of the lens {one.name}"
								title="Let it go"
								onclick={() => ondrop(one)}>×</button
							>{/if}
					</div>
				{/each}
				{#if lens}<button
						type="button"
						onclick={() => {
							onlens('');
							close();
						}}>{what[0]!.toUpperCase() + what.slice(1)} as it is</button
					>
				{:else if query}
					<form onsubmit={(event) => void keep(event, close)}>
						<label>Keep this lens as <input required maxlength="60" bind:value={name} /></label>
						{#if mayShare}<label class="tick"
								><input type="checkbox" bind:checked={shared} /> for {whom}</label
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
		min-height: max(30px, var(--touch, 0px));
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
