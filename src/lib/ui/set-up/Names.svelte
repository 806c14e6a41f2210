<script lang="ts">
	import { count } from '../words';

	interface Props {
		kind: 'type' | 'label' | 'initiative';
		names: readonly string[];
		retired: readonly string[];
		/** How many cards carry each. */
		carried: Readonly<Record<string, number>>;
		/** What else is to be said of each. */
		says?: (name: string) => string;
		/** Changes what is said of one. */
		onmore?: (name: string) => void;
		/** Where more is set of it, where that is another page. */
		more?: (name: string) => string;
		mayChange: boolean;
		/** Gives why it was refused; empty when it was done. */
		onchange: (name: string, change: { to?: string; retired?: boolean }) => Promise<string>;
	}
	/** Names of a board: each can be called otherwise, become one with another, or be offered no more. */
	let { kind, names, retired, carried, says, onmore, more, mayChange, onchange }: Props = $props();
	let renaming = $state<string | null>(null);
	let text = $state('');
	let problem = $state('');
	let field = $state<HTMLInputElement>();
	const twin = $derived(names.includes(text.trim()) && text.trim() !== renaming);

	function begin(name: string): void {
		[renaming, text, problem] = [name, name, ''];
		queueMicrotask(() => field?.select());
	}
	async function keep(event: SubmitEvent): Promise<void> {
		event.preventDefault();
		const name = renaming!;
		const to = text.trim();
		if (!to || to === name) return void (renaming = null);
		problem = await onchange(name, { to });
		if (!problem) renaming = null;
	}
	async function retire(name: string, on: boolean): Promise<void> {
		problem = await onchange(name, { retired: on });
	}
</script>

<ul>
	{#each names as name (name)}
		<li>
			{#if renaming === name}
				<form onsubmit={keep}>
					<input
						bind:value={text}
						bind:this={field}
						maxlength={80}
						aria-label="What {name} is called from now on"
						onkeydown={(event) => event.key === 'Escape' && (event.stopPropagation(), (renaming = null))}
					/>
					<button class="plain">{twin ? 'Make them one' : 'Keep'}</button>
					<button type="button" class="link" onclick={() => (renaming = null)}>Leave it</button>
					<small
						>{twin
							? `There is a ${kind} of that name: all cards of ${name} become ${text.trim()}, and ${name} is retired.`
							: 'The name of another one makes the two one.'}</small
					>
				</form>
			{:else}
				<span class="name"
					>{name}
					<small
						>{carried[name] ? count(carried[name], 'card') : 'no cards'}{says ? `, ${says(name)}` : ''}</small
					></span
				>
				{#if mayChange && more}<a class="link" href={more(name)} aria-label="Change the {kind} {name}"
						>Change</a
					>{/if}
				{#if mayChange && onmore}<button
						type="button"
						class="link"
						aria-label="Change the {kind} {name}"
						onclick={() => onmore(name)}>Change</button
					>{/if}
				{#if mayChange}<button
						type="button"
						class="link"
						aria-label="Rename {name}, or make it one with another"
						onclick={() => begin(name)}>Rename</button
					>
					<button
						type="button"
						class="link"
						aria-label="Retire {name}"
						onclick={() => void retire(name, true)}>Retire</button
					>{/if}
			{/if}
		</li>
	{:else}<li class="soft">None yet; a card begins one.</li>{/each}
</ul>
{#if retired.length}
	<details>
		<summary>{count(retired.length, 'retired one')}</summary>
		<ul>
			{#each retired as name (name)}<li>
					<span class="name">{name}</span>
					{#if mayChange}<button
							type="button"
							class="link"
							aria-label="Offer {name} again"
							onclick={() => void retire(name, false)}>Offer again</button
						>{/if}
				</li>{/each}
		</ul>
	</details>
{/if}
<p class="warn" role="alert">{problem}</p>

<style>
	ul {
		margin: 0 0 8px;
	}
	li {
		display: flex;
		flex-wrap: wrap;
		gap: 2px 12px;
		align-items: center;
		padding: 4px 0;
		border-bottom: 1px dotted var(--rule);
	}
	.name {
		flex: 1;
		min-width: 8rem;
	}
	small {
		color: var(--soft);
	}
	form {
		display: flex;
		flex-wrap: wrap;
		gap: 6px 10px;
		align-items: center;
	}
	input {
		min-height: max(32px, var(--touch, 0px));
		padding: 2px 8px;
		font: inherit;
		color: var(--ink);
		background: var(--sheet);
		border: 1px solid var(--edge);
		border-radius: 4px;
	}
	summary {
		min-height: var(--touch, auto);
	}
	.link {
		min-height: var(--touch, auto);
	}
</style>
