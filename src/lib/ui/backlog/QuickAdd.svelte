<script lang="ts">
	import { readPaste } from '$core/backlog/paste';
	import type { Unit } from '$core/pages/board';

	interface Props {
		unit: Unit;
		onadd: (cards: ReturnType<typeof readPaste>) => Promise<boolean>;
		/** Many lines were pasted: they are shown before anything is made. */
		onpaste: (text: string) => void;
		onend?: () => void;
	}
	let { unit, onadd, onpaste, onend }: Props = $props();
	let text = $state('');
	let problem = $state('');
	let input = $state<HTMLInputElement>();
	export const focus = () => input?.focus();

	async function add() {
		const line = text.trim();
		const cards = readPaste(line, unit);
		if (!cards.length) return;
		problem = cards[0]!.title.length > 300 ? 'The title may have at most 300 characters.' : '';
		if (problem) return;
		text = '';
		if (!(await onadd(cards))) text ||= line;
	}

	function onkeydown(event: KeyboardEvent) {
		event.stopPropagation();
		if (event.key === 'Enter' && !event.isComposing) {
			event.preventDefault();
			void add();
		}
		if (event.key === 'Escape') {
			text = '';
			onend?.();
		}
	}
	function paste(event: ClipboardEvent) {
		const pasted = event.clipboardData?.getData('text/plain') ?? '';
		if (!/\S[\s\S]*\n[\s\S]*\S/.test(pasted)) return;
		event.preventDefault();
		onpaste(pasted);
	}
</script>

<div class="adding">
	<input
		bind:this={input}
		bind:value={text}
		aria-label="Add a card to the backlog"
		placeholder="Add a card{unit === 'hours'
			? ', 8h at its end sizes it'
			: unit === 'points'
				? ', 5 pt at its end sizes it'
				: ''}; paste many lines at once"
		maxlength="2000"
		autocomplete="off"
		{onkeydown}
		onpaste={paste}
	/>
	<button type="button" class="plain" onclick={() => void add()} disabled={!text.trim()}>Add</button>
	{#if problem}<p role="alert" class="warn">{problem}</p>{/if}
</div>

<style>
	.adding {
		display: flex;
		flex-wrap: wrap;
		gap: 8px;
		flex: none;
	}
	input {
		flex: 1;
		min-width: 0;
		min-height: max(36px, var(--touch, 0px));
		padding: 4px 10px;
		border: 1.5px solid var(--edge);
		border-radius: 4px;
		background: var(--sheet);
		color: var(--ink);
		font: inherit;
		text-overflow: ellipsis;
	}
	input::placeholder {
		color: var(--faint);
		opacity: 1;
	}
	p {
		flex-basis: 100%;
	}
</style>
