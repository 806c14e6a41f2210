<script lang="ts">
	import { Checkbox } from 'flowbite-svelte';
	import { tick } from 'svelte';

	interface Line {
		id: string;
		text: string;
		done: boolean;
	}
	interface Props {
		lines: readonly Line[];
		mayEdit: boolean;
		/** The whole list as it is to be. */
		onlines: (lines: Line[]) => void;
	}
	let { lines, mayEdit, onlines }: Props = $props();
	let fresh = $state('');
	let list = $state<HTMLElement>();
	const done = $derived(lines.filter((line) => line.done).length);

	function change(id: string, to: Partial<Line>) {
		onlines(lines.map((line) => (line.id === id ? { ...line, ...to } : line)));
	}
	function rename(line: Line, input: HTMLInputElement) {
		const text = input.value.trim();
		if (!text) input.value = line.text;
		else if (text !== line.text) change(line.id, { text });
	}
	/** Moves a line one place, and the focus with it. */
	async function move(i: number, by: number) {
		const next = [...lines];
		const [line] = next.splice(i, 1);
		if (!line || i + by < 0 || i + by > next.length) return;
		next.splice(i + by, 0, line);
		onlines(next);
		await tick();
		list?.querySelectorAll<HTMLElement>('li .text')[i + by]?.focus();
	}
	function add(event: SubmitEvent) {
		event.preventDefault();
		const text = fresh.trim();
		if (!text) return;
		fresh = '';
		onlines([...lines, { id: crypto.randomUUID(), text, done: false }]);
	}
</script>

<h3>
	Checklist {#if lines.length}<small>{done} of {lines.length} ticked</small>{/if}
</h3>
<ul bind:this={list}>
	{#each lines as line, i (line.id)}
		<li>
			<Checkbox
				checked={line.done}
				disabled={!mayEdit}
				aria-label={line.text}
				onchange={() => change(line.id, { done: !line.done })}
			/>
			{#if mayEdit}
				<input
					class="text"
					class:done={line.done}
					value={line.text}
					maxlength={300}
					aria-label="Checklist line {i + 1}"
					onblur={(event) => rename(line, event.currentTarget)}
					onkeydown={(event) => {
						event.stopPropagation();
						if (event.key === 'Enter') event.currentTarget.blur();
						if (event.shiftKey && (event.key === 'ArrowUp' || event.key === 'ArrowDown')) {
							event.preventDefault();
							void move(i, event.key === 'ArrowUp' ? -1 : 1);
						}
					}}
				/>
				<button type="button" aria-label="{line.text}: up" disabled={i === 0} onclick={() => void move(i, -1)}
					>↑</button
				>
				<button
					type="button"
					aria-label="{line.text}: down"
					disabled={i === lines.length - 1}
					onclick={() => void move(i, 1)}>↓</button
				>
				<button
					type="button"
					aria-label="{line.text}: take off"
					onclick={() => onlines(lines.filter((one) => one.id !== line.id))}>×</button
				>
			{:else}<span class:done={line.done}>{line.text}</span>{/if}
		</li>
	{/each}
</ul>
{#if mayEdit}
	<form onsubmit={add}>
		<input
			bind:value={fresh}
			maxlength={300}
			aria-label="A new checklist line"
			placeholder="A new line, then Enter"
			onkeydown={(event) => event.key !== 'Escape' && event.stopPropagation()}
		/>
	</form>
{:else if !lines.length}<p class="soft">None.</p>{/if}

<style>
	h3 {
		font-size: 1.05rem;
		margin: 18px 0 5px;
	}
	small {
		font: 400 0.9rem var(--text);
		color: var(--soft);
	}
	ul {
		list-style: none;
		margin: 0;
		padding: 0;
	}
	li {
		display: flex;
		align-items: center;
		gap: 4px;
		min-height: 32px;
	}
	.text {
		flex: 1;
		min-width: 0;
	}
	input.text,
	form input {
		border: 1px solid transparent;
		border-radius: 3px;
		background: none;
		color: var(--ink);
		font: inherit;
		padding: 3px 6px;
	}
	input.text:hover,
	input.text:focus {
		border-color: var(--rule);
	}
	form input {
		width: 100%;
		border-color: var(--rule);
		min-height: 32px;
	}
	form input::placeholder {
		color: var(--faint);
		opacity: 1;
	}
	.done {
		color: var(--soft);
		text-decoration: line-through;
	}
	button {
		border: 0;
		background: none;
		color: var(--soft);
		min-width: 24px;
		min-height: 24px;
		padding: 0;
		font: inherit;
	}
	button:disabled {
		opacity: 0.35;
		cursor: default;
	}
	.soft {
		color: var(--soft);
		margin: 0;
	}
	@media (pointer: coarse) {
		li,
		button,
		form input {
			min-height: 44px;
		}
		button {
			min-width: 40px;
		}
	}
</style>
