<script lang="ts">
	import { goto } from '$app/navigation';
	import { page } from '$app/state';
	import { getContext, untrack } from 'svelte';
	import { parseDay } from '$core/calendar/days';
	import { readFilter, writeFilter } from '$core/board/filter';
	import Backlog from '$lib/ui/backlog/Backlog.svelte';
	import { arrangeable } from '$core/board/arrange';
	import { fieldNamed } from '$core/board/field';
	import { Described } from '$lib/ui/board/described.svelte';
	import { backlogSentence } from '$lib/ui/backlog/sentence';
	import type { Ask } from '$lib/ui/board/ask';
	import Asking from '$lib/ui/board/Asking.svelte';
	import type { BoardState } from '$lib/ui/board/board-state.svelte';
	import FilterLine from '$lib/ui/board/FilterLine.svelte';
	import { keys } from '$lib/ui/frame/keys.svelte';
	import Term from '$lib/ui/frame/Term.svelte';
	import Places from '$lib/ui/frame/Places.svelte';
	import { cardAddress } from '$lib/ui/frame/card-address';
	import { amount, count } from '$lib/ui/words';

	let { data } = $props();
	const board = getContext<BoardState>('board');
	untrack(() => board.load(data.backlog));
	$effect.pre(() => {
		const { backlog } = data;
		untrack(() => board.load(backlog));
	});

	const head = $derived(board.head);
	const filter = $derived(readFilter(page.url.searchParams));
	/** Groups by any field but where a card stands: all stand in the backlog. */
	const groups = $derived(arrangeable(board.fields).filter(({ id }) => id !== 'column' && id !== 'finished'));
	const grouping = $derived(
		fieldNamed(groups, (page.url.searchParams.get('group') ?? '').replace(/^label$/, 'labels')) ?? null,
	);
	const described = new Described(
		() => head.slug,
		() => filter.text,
	);
	const says = $derived(backlogSentence(head, board.backlog, data.backlog));
	let keysShown = $state(false);
	let asking = $state.raw<Ask | null>(null);

	const go = (url: URL) => void goto(url, { replaceState: true, keepFocus: true, noScroll: true });
	function group(by: string): void {
		const url = new URL(page.url);
		if (by) url.searchParams.set('group', by);
		else url.searchParams.delete('group');
		go(url);
	}
</script>

<Places board={head} here="backlog">
	<div class="right">
		<FilterLine {board} {filter} onfilter={(next) => go(writeFilter(page.url, next))} />
		<select
			class="choice"
			aria-label="Arranged"
			value={grouping?.id ?? ''}
			onchange={(event) => group(event.currentTarget.value)}
		>
			<option value="">in order</option>
			{#each groups as field (field.id)}<option value={field.id}>by {field.name.toLowerCase()}</option>{/each}
		</select>
	</div>
</Places>
<div class="sentence">
	<h1>
		<b>{says.waits}</b>{says.takes ? `, ${says.takes}` : ''}.
		{#if says.unsized}<span class="care">{says.unsized} {says.unsized === 1 ? 'is' : 'are'} not sized.</span
			>{/if}
		{#if says.ready}{count(says.ready, 'card')}
			{says.ready === 1 ? 'is' : 'are'}
			<Term
				word="ready"
				says="Ready marks a card of the backlog as refined enough to be planned: {says.ready} of {count(
					data.backlog.cards.length,
					'card',
				)} here."
			/>.{/if}
		{#if data.backlog.next && data.backlog.next.promise !== null}
			<a class="link" href="/boards/{head.slug}/plan">Sprint {data.backlog.next.number}</a> holds {amount(
				data.backlog.next.placed,
				head.unit,
			)} of the {amount(data.backlog.next.promise, head.unit)}
			<Term
				word="promise"
				says="What people can take on in sprint {data.backlog.next
					.number}: the hours they have to give less what is kept back for surprises, {amount(
					data.backlog.next.promise,
					head.unit,
				)}."
			/>.
		{/if}
	</h1>
	<span class="files">
		{#if head.role !== 'viewer'}<button
				type="button"
				class="link"
				onclick={() => (asking = { kind: 'import' })}>Read a table</button
			>{/if}
		<a class="link" href="/boards/{head.slug}/archive">Archive</a>
		<a class="link" href="/boards/{head.slug}/backlog/cards{page.url.search}" download>Save as CSV</a>
	</span>
</div>
<Backlog
	{board}
	page={data.backlog}
	{filter}
	{grouping}
	described={described.cards}
	today={parseDay(data.today)!}
	keysOn={keys.on}
	open={(card) => cardAddress(page.url, card)}
	onkeys={() => (keysShown = true)}
/>

{#if asking}<Asking {board} ask={asking} onclose={() => (asking = null)} />{/if}
{#if keysShown}
	{#await import('$lib/ui/dialogs/KeysDialog.svelte') then { default: KeysDialog }}
		<KeysDialog
			title="Keys in the backlog"
			place="backlog"
			bind:on={keys.on}
			onclose={() => (keysShown = false)}
		/>
	{/await}
{/if}

<style>
	.right {
		display: flex;
		flex-wrap: wrap;
		gap: 2px 12px;
		align-items: center;
		font-size: 0.93rem;
	}
	.sentence {
		display: flex;
		flex-wrap: wrap;
		justify-content: space-between;
		gap: 4px 20px;
		padding: 9px 20px 8px;
		flex: none;
	}
	h1 {
		font: 1rem/1.4 var(--text);
		letter-spacing: 0;
	}
	.files {
		display: flex;
		gap: 16px;
		align-items: center;
	}
	.files .link {
		display: inline-flex;
		align-items: center;
		min-height: max(24px, var(--touch, 0px));
	}
	@media (max-width: 700px) {
		.sentence {
			padding: 8px 14px 4px;
		}
	}
</style>
