<script lang="ts">
	import { Checkbox } from 'flowbite-svelte';
	import { tick } from 'svelte';
	import { figure } from '../words';
	import type { ChecklistLine } from '$core/pages/card';

	type Line = ChecklistLine;
	interface Props {
		lines: readonly Line[];
		/** The states that lines can have here, in their order. */
		states: readonly string[];
		mayEdit: boolean;
		/** The whole list as it is to be. */
		onlines: (lines: Line[]) => void;
		/** Makes a card of a line. */
		oncard: (line: Line) => void;
	}
	let { lines, states, mayEdit, onlines, oncard }: Props = $props();
	/** How many lines are in each state, those without one last; a state that the board has no more is named too. */
	const shares = $derived.by(() => {
		const counts = new Map<string, number>(states.map((state) => [state, 0]));
		for (const { state = '' } of lines) counts.set(state, (counts.get(state) ?? 0) + 1);
		return [...counts].filter(([, n]) => n > 0);
	});
	/** The line whose quantity and link are open. */
	let more = $state<string | null>(null);

	/** Reaching the last state ticks a line off; ticked off by hand, it is in that one. */
	function setState(line: Line, state: string): void {
		const last = states.at(-1);
		change(line.id, { state: state || undefined, done: state === last ? true : state ? false : line.done });
	}
	function tickLine(line: Line): void {
		const last = states.at(-1);
		change(line.id, { done: !line.done, ...(last && !line.done && line.state ? { state: last } : {}) });
	}
	/** Many lines at once: each of what was pasted is one. */
	function paste(event: ClipboardEvent): void {
		const texts = (event.clipboardData?.getData('text/plain') ?? '')
			.split(/\r?\n/)
			.map((text) =>
				text
					.replace(/^\s*(?:[-*•]\s+|\d+[.)]\s+)?(?:\[[ xX]?\]\s*)?/, '')
					.trim()
					.slice(0, 300),
			)
			.filter(Boolean);
		if (texts.length < 2) return;
		event.preventDefault();
		onlines([...lines, ...texts.map((text) => ({ id: crypto.randomUUID(), text, done: false }))]);
	}
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
	const stop = (event: KeyboardEvent) => {
		if (event.key === 'Escape') return;
		event.stopPropagation();
		if (event.key === 'Enter') (event.currentTarget as HTMLInputElement).blur();
	};
	function detail(line: Line, what: 'quantity' | 'link', typed: string): void {
		let text = typed.trim();
		if (what === 'link' && text && !/^https?:\/\//i.test(text)) text = `https://${text}`;
		if (text !== (line[what] ?? '')) change(line.id, { [what]: text || undefined });
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
{#if states.length && shares.some(([state]) => state)}<p class="shares">
		{shares
			.map(([state, n]) => `${n} ${state || 'without a state'} (${figure((n / lines.length) * 100, 0)}%)`)
			.join(', ')}
	</p>{/if}
<ul bind:this={list}>
	{#each lines as line, i (line.id)}
		<li>
			<Checkbox
				checked={line.done}
				disabled={!mayEdit}
				aria-label={line.text}
				onchange={() => tickLine(line)}
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
				{#if line.quantity}<span class="quantity">{line.quantity}</span>{/if}
				{#if line.link}<a
						href={line.link}
						target="_blank"
						rel="noopener noreferrer"
						aria-label="Where {line.text} is to be found">↗</a
					>{/if}
				{#if states.length || line.state}<select
						aria-label="{line.text}: state"
						value={line.state ?? ''}
						onchange={(event) => setState(line, event.currentTarget.value)}
					>
						<option value="">–</option>
						{#each [...new Set([...states, ...(line.state ? [line.state] : [])])] as state (state)}<option
								>{state}</option
							>{/each}
					</select>{/if}
				<button
					type="button"
					aria-label="{line.text}: more"
					aria-expanded={more === line.id}
					onclick={() => (more = more === line.id ? null : line.id)}>…</button
				>
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
			{:else}<span class:done={line.done}>{line.text}</span>
				{#if line.quantity}<span class="quantity">{line.quantity}</span>{/if}
				{#if line.state}<span class="quantity">{line.state}</span>{/if}
				{#if line.link}<a
						href={line.link}
						target="_blank"
						rel="noopener noreferrer"
						aria-label="Where {line.text} is to be found">↗</a
					>{/if}{/if}
		</li>
		{#if more === line.id && mayEdit}
			<li class="more">
				<label
					>How much <input
						value={line.quantity ?? ''}
						maxlength={30}
						placeholder="12 m"
						onkeydown={stop}
						onblur={(event) => detail(line, 'quantity', event.currentTarget.value)}
					/></label
				>
				<label
					>Where to find it <input
						value={line.link ?? ''}
						maxlength={500}
						placeholder="https://…"
						inputmode="url"
						onkeydown={stop}
						onblur={(event) => detail(line, 'link', event.currentTarget.value)}
					/></label
				>
				<button type="button" class="link" onclick={() => ((more = null), oncard(line))}
					>Make it a card</button
				>
			</li>
		{/if}
	{/each}
</ul>
{#if mayEdit}
	<form onsubmit={add}>
		<input
			bind:value={fresh}
			maxlength={300}
			aria-label="A new checklist line"
			placeholder="A new line, then Enter; or paste many"
			onpaste={paste}
			onkeydown={(event) => event.key !== 'Escape' && event.stopPropagation()}
		/>
	</form>
{:else if !lines.length}<p class="soft">None.</p>{/if}

<style>
	.shares {
		margin: 0 0 4px;
		font-size: 0.9rem;
		color: var(--soft);
	}
	.quantity {
		color: var(--soft);
		font-size: 0.9rem;
		white-space: nowrap;
	}
	select {
		border: 0;
		border-bottom: 1px solid var(--rule);
		border-radius: 0;
		background-color: transparent;
		color: var(--ink);
		font: inherit;
		font-size: 0.9rem;
		padding: 1px 18px 1px 2px;
		max-width: 96px;
	}
	.more {
		flex-wrap: wrap;
		padding: 2px 0 8px 26px;
		gap: 6px 12px;
	}
	.more label {
		display: inline-flex;
		gap: 6px;
		align-items: center;
		color: var(--soft);
		font-size: 0.9rem;
	}
	.more input {
		border: 1px solid var(--rule);
		border-radius: 3px;
		background: var(--sheet);
		color: var(--ink);
		font: inherit;
		padding: 2px 6px;
		width: 130px;
	}
	.more .link {
		padding: 0 4px;
		color: var(--moss);
	}
	li {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 4px;
		min-height: max(32px, var(--touch, 0px));
	}
	/* A line keeps room for its words; what else it says comes below. */
	.text {
		flex: 1 1 180px;
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
		min-height: max(32px, var(--touch, 0px));
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
		min-width: max(24px, var(--touch, 0px));
		min-height: max(24px, var(--touch, 0px));
		padding: 0;
		font: inherit;
	}
	button:disabled {
		opacity: 0.35;
		cursor: default;
	}
	.soft {
		margin: 0;
	}
</style>
