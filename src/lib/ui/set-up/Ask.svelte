<script lang="ts">
	import { untrack } from 'svelte';
	import { Label, Select, Textarea } from 'flowbite-svelte';
	import { ASK_FIELDS, type AskField, type AskPage } from '$core/ask/ask-page';
	import type { SetUpPage } from '$core/pages/settings';
	import type { BoardState } from '../board/board-state.svelte';

	let { board, setUp }: { board: BoardState; setUp: SetUpPage } = $props();
	const head = $derived(board.head);
	const lead = $derived(head.role === 'lead');
	const on = $derived(setUp.askPage !== null);
	const FIRST: AskPage = { words: '', fields: ['description', 'due'], column: null, top: false };
	let asks = $state<AskPage>(untrack(() => setUp.askPage ?? FIRST));
	let problem = $state('');
	const NAMES: Record<AskField, string> = {
		description: 'a description',
		due: 'by when',
		type: 'the kind of card',
		labels: 'labels',
		initiative: 'the initiative',
	};
	const places = $derived([
		{ value: 'end', name: 'at the end of the backlog' },
		{ value: 'top', name: 'on top of the backlog' },
		...head.columns
			.filter(({ kind }) => kind === 'queue')
			.map(({ id, name }) => ({ value: id, name: `in ${name}` })),
	]);
	const place = $derived(asks.column ?? (asks.top ? 'top' : 'end'));

	async function keep(page: AskPage | null, text: string): Promise<void> {
		const sent = await board.ask('ChangeAskPage', { board: head.id, page });
		problem = sent.ok ? '' : sent.refusal.title;
		if (sent.ok) board.tell({ tone: 'done', text, undo: sent.answer.undoable ? sent.answer.id : undefined });
	}
	/** Changes what it asks, and keeps it where the page is open already. */
	function change(what: Partial<AskPage>): void {
		asks = { ...asks, ...what };
		if (on) void keep(asks, 'What the ask page asks is kept.');
	}
	const ask = (field: string, wanted: boolean) =>
		change({ fields: wanted ? [...asks.fields, field] : asks.fields.filter((one) => one !== field) });
</script>

<p class="warn" role="alert">{problem}</p>
<section aria-labelledby="set-ask">
	<h2 id="set-ask">Ask page</h2>
	<p>
		{#if on}<b>Anyone signed in can ask for something</b> at
			<a class="link" href="/ask/{head.slug}">/ask/{head.slug}</a>. Whoever asked sees the way of their card
			and its talk, and nothing else of a board that they may not see.
		{:else}This board has no ask page: only its team makes cards.{/if}
	</p>
	{#if lead}
		<fieldset>
			<legend>Besides a title it asks for</legend>
			{#each [...ASK_FIELDS.map( (id) => ({ id, name: NAMES[id] }) ), ...head.fields] as { id, name } (id)}<label
					><input
						type="checkbox"
						checked={asks.fields.includes(id)}
						onchange={(event) => ask(id, event.currentTarget.checked)}
					/>{name}</label
				>{/each}
		</fieldset>
		<div class="place">
			<Label for="ask-place">What is asked for lands</Label>
			<Select
				id="ask-place"
				placeholder=""
				items={places}
				value={place}
				onchange={(event: Event) => {
					const { value } = event.currentTarget as HTMLSelectElement;
					change({ column: ['top', 'end'].includes(value) ? null : value, top: value === 'top' });
				}}
			/>
		</div>
		<Label for="ask-words">What whoever asks is told first</Label>
		<Textarea
			id="ask-words"
			rows={4}
			class="w-full"
			maxlength={3000}
			placeholder="What helps you to help them; Markdown"
			value={asks.words}
			onchange={(event: Event) => change({ words: (event.currentTarget as HTMLTextAreaElement).value })}
		/>
		<p>
			{#if on}<button
					type="button"
					class="plain"
					onclick={() => void keep(null, 'The ask page is taken away.')}>Take it away</button
				>{:else}<button type="button" class="go" onclick={() => void keep(asks, 'The ask page is open.')}
					>Open the ask page</button
				>{/if}
		</p>
	{/if}
</section>

<style>
	fieldset {
		margin: 10px 0;
	}
	legend {
		font-weight: 600;
		padding: 0;
	}
	label {
		display: flex;
		gap: 8px;
		align-items: center;
		min-height: max(30px, var(--touch, 0px));
	}
	.place {
		max-width: 320px;
		margin-bottom: 12px;
	}
	p {
		margin: 8px 0;
	}
</style>
