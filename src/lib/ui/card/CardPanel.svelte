<script lang="ts">
	import { Input, Select, Textarea } from 'flowbite-svelte';
	import type { CardView, PersonView } from '$core/board/view';
	import { historySentences, type CardEvent } from '$core/board/history-sentences';
	import { parseDay } from '$core/calendar/days';
	import type { Ask } from '../board/ask';
	import Asking from '../board/Asking.svelte';
	import type { BoardState } from '../board/board-state.svelte';
	import NameTag from '../board/NameTag.svelte';
	import { amount, count, daysSince, dateWords, momentWords } from '../words';

	interface CardPage extends CardView {
		key: string;
		board: string;
		description: string;
		created: string;
		archivedReason: string | null;
		history: CardEvent[];
	}
	let {
		board,
		cardKey,
		today,
		onclose,
	}: { board: BoardState; cardKey: string; today: string; onclose: () => void } = $props();

	let read = $state.raw<CardPage | null>(null);
	let problem = $state('');
	let title = $state('');
	let description = $state('');
	let heading = $state<HTMLElement>();
	let asking = $state.raw<Ask | null>(null);

	const head = $derived(board.head);
	const mayEdit = $derived(head.role !== 'viewer');
	/** The card as the board has it, where it has it: that is never older than what was read. */
	const card = $derived.by(() => {
		if (!read) return null;
		const live = board.cards.get(read.id);
		return live && live.version >= read.version ? { ...read, ...live } : read;
	});
	const column = $derived(head.columns.find((known) => known.id === card?.column));
	const people = $derived(
		new Map<string, PersonView & { seed: number }>(
			head.people.map((person, seed) => [person.id, { ...person, seed }]),
		),
	);
	const history = $derived(card ? historySentences(card.history, head.unit).toReversed() : []);
	const draftKey = $derived(`harrow-draft-${cardKey}`);

	async function load(key: string): Promise<void> {
		try {
			const response = await fetch(`/api/cards/${encodeURIComponent(key)}`);
			const answer = await response.json();
			if (key !== cardKey) return;
			if (!response.ok) return void (problem = answer.title);
			const first = read?.id !== answer.id;
			const clean = !first && description === read?.description;
			read = answer;
			problem = '';
			if (!first && !clean) return;
			title = answer.title;
			// A draft that was not kept survives a reload.
			description = (first && sessionStorage.getItem(draftKey)) || answer.description;
			// Whoever is typing elsewhere by now keeps the focus.
			if (first && !document.activeElement?.matches('input, textarea'))
				queueMicrotask(() => heading?.focus());
		} catch {
			problem = 'Not connected: this card cannot be read now. It is tried again when something changes.';
		}
	}

	// Read when another card is opened, and again whenever this one changes on the board.
	const version = $derived(read ? (board.cards.get(read.id)?.version ?? 0) : 0);
	$effect(() => {
		const key = cardKey;
		if (read?.key === key && version <= read.version) return;
		if (read && board.pending.has(read.id)) return;
		void load(key);
	});

	const dirty = $derived(read !== null && description !== read.description);
	$effect(() => {
		if (dirty) sessionStorage.setItem(draftKey, description);
		else if (read) sessionStorage.removeItem(draftKey);
	});

	function rename() {
		if (!card) return;
		const text = title.trim();
		if (text && text !== card.title) void board.rename(card, text);
		else title = card.title;
	}

	async function keep() {
		if (!card) return;
		const text = description;
		const sent = await board.describe(card, text);
		if (!sent.ok) {
			// Somebody else wrote meanwhile: what was typed stays here, to be put together with theirs.
			if (sent.refusal.code === 'card.changed') await load(cardKey);
			return;
		}
		sessionStorage.removeItem(draftKey);
		read = null;
		await load(cardKey);
	}

	async function again(work: Promise<unknown>) {
		await work;
		await load(cardKey);
	}

	const CLASSES = [
		{ value: 'expedite', name: 'Expedite' },
		{ value: 'fixed', name: 'Fixed date' },
		{ value: 'standard', name: 'Standard' },
		{ value: 'background', name: 'Background' },
	];
	const small = { select: 'py-1 px-2 text-base' };

	function onkeydown(event: KeyboardEvent) {
		if (event.key === 'Escape' && !asking) onclose();
	}
</script>

<aside class="panel" aria-label="Card {cardKey}">
	<!-- svelte-ignore a11y_no_static_element_interactions -->
	<div class="inside" {onkeydown}>
		<div class="top">
			<h2 tabindex="-1" bind:this={heading}>{cardKey}</h2>
			<button type="button" class="plain" onclick={onclose}>Close</button>
		</div>
		{#if problem}<p class="warn" role="alert">{problem}</p>{/if}
		{#if card}
			{#if card.archived}
				<p class="care">
					Archived{card.archivedReason ? `: ${card.archivedReason}` : ''}.
					{#if mayEdit}<button type="button" class="link" onclick={() => void again(board.restore(card))}
							>Restore it</button
						>{/if}
				</p>
			{/if}
			<textarea
				class="title"
				aria-label="Title"
				rows="2"
				maxlength="300"
				bind:value={title}
				readonly={!mayEdit}
				onblur={rename}
				onkeydown={(event) => event.key === 'Enter' && (event.preventDefault(), event.currentTarget.blur())}
			></textarea>
			<dl>
				<dt>Stands in</dt>
				<dd>
					{column?.name ?? 'the backlog'}{#if card.clock === 'running' && card.started}, on day {Math.max(
							1,
							daysSince(card.started, parseDay(today)!, head.timeZone),
						)}{/if}
					{#if card.clock === 'done' && card.finished}, finished {momentWords(
							card.finished,
							head.timeZone,
						)}{/if}
					{#if card.letThrough}<br /><span class="warn">let through: {card.letThrough}</span>{/if}
				</dd>
				<dt>Owners</dt>
				<dd>
					{#each card.owners as owner (owner)}{@const person = people.get(owner)}{#if person}<span
								class="owner"
								><NameTag {person} seed={person.seed} /> <span aria-hidden="true">{person.name}</span></span
							>{/if}{:else}nobody{/each}
					{#if mayEdit}<button
							type="button"
							class="link"
							aria-label="Change owners"
							onclick={() => (asking = { kind: 'owners', cards: [card] })}>Change</button
						>{/if}
				</dd>
				{#if head.unit !== 'none'}
					<dt>Size</dt>
					<dd>
						{card.size === null
							? 'not sized'
							: `${amount(card.size, head.unit)}, ${amount(card.left, head.unit)} left`}
						{#if mayEdit}<button
								type="button"
								class="link"
								aria-label="Change size"
								onclick={() => (asking = { kind: 'size', card })}>Change</button
							>{/if}
					</dd>
				{/if}
				<dt>Blocked</dt>
				<dd>
					{#if card.blocked}<span class="warn"
							>{card.blocked.reason}, {count(
								Math.max(1, daysSince(card.blocked.since, parseDay(today)!, head.timeZone)),
								'day',
							)}</span
						>
						{#if mayEdit}<button type="button" class="link" onclick={() => void again(board.unblock(card))}
								>Unblock</button
							>{/if}
					{:else}no {#if mayEdit && card.clock !== 'done'}<button
								type="button"
								class="link"
								onclick={() => (asking = { kind: 'block', card })}>Block</button
							>{/if}{/if}
				</dd>
				<dt><label for="card-class">Class</label></dt>
				<dd>
					{#if mayEdit}<Select
							id="card-class"
							items={CLASSES}
							placeholder=""
							classes={small}
							value={card.class}
							onchange={(event: Event) =>
								void again(
									board.classify(card, (event.currentTarget as HTMLSelectElement).value as CardView['class']),
								)}
						/>{:else}{CLASSES.find((known) => known.value === card.class)?.name}{/if}
				</dd>
				<dt><label for="card-due">Due</label></dt>
				<dd>
					{#if mayEdit}<Input
							id="card-due"
							type="date"
							class="px-2 py-1 text-base"
							value={card.due ?? ''}
							onchange={(event: Event) =>
								void again(board.date(card, (event.currentTarget as HTMLInputElement).value || null))}
						/>{:else}{card.due ? dateWords(card.due, today) : 'no date'}{/if}
				</dd>
				{#if head.sprintDays !== null}
					<dt>Sprint</dt>
					<dd>{card.sprint === null ? 'none' : card.sprint}{card.unplanned ? ', unplanned' : ''}</dd>
				{/if}
				{#if card.type}<dt>Type</dt>
					<dd>{card.type}</dd>{/if}
			</dl>
			<h3><label for="card-description">Description</label></h3>
			{#if mayEdit}
				<Textarea id="card-description" class="w-full text-base" rows={6} bind:value={description} />
				{#if dirty}
					<p class="keep">
						<button type="button" class="go" onclick={() => void keep()}>Keep</button>
						<button type="button" class="plain" onclick={() => (description = read!.description)}
							>Take back</button
						>
					</p>
				{/if}
			{:else}<p class="text">{card.description || 'None yet.'}</p>{/if}
			{#if mayEdit && !card.archived}<p>
					<button type="button" class="link" onclick={() => void again(board.archive(card))}
						>Archive this card</button
					>
				</p>{/if}
			<h3>History</h3>
			<ol>
				{#each history as { seq, at, text, undone } (seq)}
					<li class:undone>
						<time datetime={at}>{momentWords(at, head.timeZone)}</time>
						{text}{undone ? ' (taken back)' : ''}
					</li>
				{/each}
			</ol>
		{:else if !problem}<p class="soft">Reading…</p>{/if}
	</div>
</aside>

{#if asking}
	<Asking {board} ask={asking} onclose={() => (asking = null)} ondone={() => void load(cardKey)} />
{/if}

<style>
	.panel {
		flex: 0 0 400px;
		min-width: 0;
		overflow-y: auto;
		border-left: 1px solid var(--edge);
		background: var(--sheet);
	}
	.inside {
		padding: 10px 18px 30px;
	}
	.top {
		display: flex;
		justify-content: space-between;
		align-items: center;
	}
	h2 {
		font-size: 1.1rem;
		color: var(--soft);
	}
	h3 {
		font-size: 1.05rem;
		margin: 18px 0 5px;
	}
	.title {
		width: 100%;
		margin: 6px 0 4px -6px;
		padding: 4px 6px;
		border: 1px solid transparent;
		border-radius: 3px;
		background: none;
		color: var(--ink);
		font: 650 1.35rem/1.2 var(--display);
		resize: none;
		field-sizing: content;
	}
	.title:not([readonly]):hover {
		border-color: var(--rule);
	}
	dl {
		display: grid;
		grid-template-columns: 84px 1fr;
		gap: 5px 10px;
		margin: 6px 0;
		align-items: center;
	}
	dt {
		color: var(--soft);
	}
	dd {
		margin: 0;
		display: flex;
		flex-wrap: wrap;
		gap: 3px 10px;
		align-items: center;
		min-height: 26px;
	}
	.owner {
		display: inline-flex;
		gap: 5px;
		align-items: center;
	}
	.text {
		white-space: pre-wrap;
		margin: 0;
	}
	.keep {
		display: flex;
		gap: 8px;
		margin: 8px 0 0;
	}
	ol {
		list-style: none;
		margin: 0;
		padding: 0;
	}
	li {
		padding: 4px 0;
		border-top: 1px dotted var(--rule);
		font-size: 0.95rem;
		overflow-wrap: anywhere;
	}
	time {
		display: block;
		font-size: 12px;
		color: var(--faint);
	}
	.undone {
		color: var(--faint);
		text-decoration: line-through;
	}
	.soft {
		color: var(--soft);
	}
	@media (max-width: 900px) {
		.panel {
			flex: 1;
			border-left: 0;
		}
	}
	@media (pointer: coarse) {
		.link {
			min-height: 44px;
		}
	}
</style>
