<script lang="ts">
	import type { RoundsPage } from '$core/pages/rounds';
	import type { BoardHead, CardView } from '$core/pages/board';
	import type { Day } from '$core/calendar/zone';
	import NameTag from '../board/NameTag.svelte';
	import { amount, blockedWords, calledAmong, count, daysSince, dueWords, list } from '../words';
	import { pressed } from '../frame/keymap';
	import { summaryText, walkOrder } from './walk';

	interface Props {
		head: BoardHead;
		cards: readonly CardView[];
		rounds: RoundsPage;
		today: Day;
		open: (card: { number: number }) => string;
		/** Says something on a card; gives whether it was kept. */
		onsay: (card: CardView, text: string) => Promise<boolean>;
		onend: () => void;
	}
	/** The board, card by card: from the last column backwards, oldest first. */
	let { head, cards, rounds, today, open, onsay, onend }: Props = $props();
	// svelte-ignore state_referenced_locally
	const order = walkOrder(head, cards).map((card) => card.id);
	let at = $state(0);
	let note = $state('');
	let notes = $state.raw<{ card: CardView; text: string }[]>([]);
	let spoken = $state.raw<ReadonlySet<string>>(new Set());
	let field = $state<HTMLTextAreaElement>();
	let copied = $state(false);
	const here = $derived(order.map((id) => cards.find((card) => card.id === id)).filter((card) => !!card));
	const card = $derived(here[at] ?? null);
	const columnOf = (of: CardView | null) => head.columns.find((known) => known.id === of?.column);
	const column = $derived(columnOf(card));
	const people = $derived(
		head.people.map((person, seed) => ({ ...person, seed })).filter((person) => !person.gone),
	);
	const present = $derived(people.filter((person) => rounds.people.some((one) => one.id === person.id)));
	const called = $derived(calledAmong(present));
	const silent = $derived(present.filter((person) => !spoken.has(person.id)));
	const age = $derived(card?.started ? daysSince(card.started, today, head.timeZone) : null);
	const due = $derived(card?.due ? dueWords(card.due, today, null) : null);
	const summary = $derived(
		summaryText(head, {
			cards: here.slice(0, at),
			notes,
			silent: silent.map((person) => person.name),
			today,
		}),
	);

	function heard(ids: readonly string[]): void {
		spoken = new Set([...spoken, ...ids]);
	}
	function toggle(id: string): void {
		const next = new Set(spoken);
		if (!next.delete(id)) next.add(id);
		spoken = next;
	}
	async function keep(): Promise<boolean> {
		const text = note.trim();
		if (!card || !text) return true;
		const about = card;
		note = '';
		notes = [...notes, { card: about, text }];
		const kept = await onsay(about, text);
		if (!kept) {
			notes = notes.filter((one) => one.text !== text || one.card.id !== about.id);
			note ||= text;
		}
		return kept;
	}
	/** What was written is said first, however the walk is ended. */
	async function end(): Promise<void> {
		if (await keep()) onend();
	}
	function go(by: 1 | -1): void {
		if (by === 1 && card) heard(card.owners);
		goTo(Math.max(0, Math.min(here.length, at + by)));
	}
	function goTo(place: number): void {
		void keep();
		at = place;
		copied = false;
	}
	function onkeydown(event: KeyboardEvent): void {
		const typing = (event.target as HTMLElement).matches('textarea, input, select');
		if (event.key === 'Escape') {
			if (typing) (event.target as HTMLElement).blur();
			else void end();
		} else if (typing) {
			if (event.key !== 'Enter' || event.shiftKey) return;
			void keep();
			field?.blur();
		} else {
			const does = pressed('walk', event, { single: true, write: true });
			if (does === 'on') go(1);
			else if (does === 'back') go(-1);
			else if (does === 'note' && card) field?.focus();
			else return;
		}
		event.preventDefault();
	}
	async function copy(): Promise<void> {
		await navigator.clipboard.writeText(summary);
		copied = true;
	}
</script>

<svelte:window {onkeydown} />
<section class="walk" aria-label="Walk the board">
	<div class="one">
		<div class="where" role="status">
			{#if card}<b>{column?.name ?? ''}</b> · card {at + 1} of {here.length}{:else}<b>That was the board.</b>
				{count(here.length, 'card')}, {count(notes.length, 'note')}.{/if}
		</div>
		{#if card}
			<article>
				<p class="top">
					<span class="number">{card.number}</span>
					{#if card.class === 'expedite'}<b>Expedite</b>{/if}
					{#if rounds.carried[card.number]}<span class="care">carried ×{rounds.carried[card.number]}</span
						>{/if}
					{#if due}<span class:warn={due.tone === 'late'} class:care={due.tone === 'soon'}>{due.text}</span
						>{/if}
				</p>
				<h2><a href={open(card)} data-sveltekit-noscroll data-sveltekit-keepfocus>{card.title}</a></h2>
				<p class="owners">
					{#each card.owners as owner (owner)}{@const person = people.find(
							(one) => one.id === owner,
						)}{#if person}<span><NameTag {person} seed={person.seed} /> {person.name}</span>{/if}{:else}<span
							class="warn">Nobody owns it.</span
						>{/each}
				</p>
				{#if card.blocked}<p class="blocked">
						<b
							>Blocked for {count(
								Math.max(1, daysSince(card.blocked.since, today, head.timeZone)),
								'day',
							)}:</b
						>
						{blockedWords(card.blocked)}
					</p>{/if}
				<p>
					{#if age}On day {age}{rounds.expectation
							? `; ${rounds.expectation.percentile}% of past cards took ${count(rounds.expectation.days, 'day')} or fewer`
							: ''}.{/if}
					{#if head.unit !== 'none' && card.size !== null}{amount(card.left, head.unit)} left of {amount(
							card.size,
							head.unit,
						)}.{/if}
					{#if card.checks}{card.checks.done} of {card.checks.lines} checklist lines done.{/if}
				</p>
				<label for="walk-note">Note, said on the card <span class="key" aria-hidden="true">N</span></label>
				<textarea id="walk-note" rows="2" maxlength="2000" bind:value={note} bind:this={field}></textarea>
				{#each notes.filter((one) => one.card.id === card.id) as one (one.text)}<p class="said">
						{one.text}
					</p>{/each}
			</article>
		{:else}
			<pre aria-label="Summary">{summary}</pre>
			<p>
				<button type="button" class="go" onclick={() => void copy()}
					>{copied ? 'Copied' : 'Copy the summary'}</button
				>
			</p>
		{/if}
		<div class="foot">
			<button type="button" class="plain" disabled={at === 0} onclick={() => go(-1)}
				>Before <span class="key" aria-hidden="true">←</span></button
			>
			{#if card}<button type="button" class="go" onclick={() => go(1)}
					>Next <span class="key" aria-hidden="true">→</span></button
				>{/if}
			<button type="button" class="plain" onclick={() => void end()}>End the walk</button>
			<p class="silent">
				{#if silent.length}Not yet heard: {list(silent.map(({ id }) => called(id)))}.{:else}Everyone has
					spoken.{/if}
			</p>
		</div>
		<p class="present" role="group" aria-label="Who has spoken">
			{#each present as person (person.id)}<button
					type="button"
					aria-pressed={spoken.has(person.id)}
					onclick={() => toggle(person.id)}
					><NameTag {person} seed={person.seed} />
					{called(person.id)}{spoken.has(person.id) ? ' ✓' : ''}</button
				>{/each}
		</p>
	</div>
	<ol class="order" aria-label="The way through the board">
		{#each here as one, i (one.id)}
			{#if one.column !== here[i - 1]?.column}<li class="place">{columnOf(one)?.name}</li>{/if}
			<li>
				<button
					type="button"
					class:walked={i < at}
					aria-current={i === at ? 'step' : undefined}
					onclick={() => goTo(i)}
					><span>{one.number}</span>
					{one.title}{#if one.blocked}<b class="warn blocked-too">blocked</b>{/if}</button
				>
			</li>
		{/each}
	</ol>
</section>

<style>
	.walk {
		flex: 1;
		min-height: 0;
		overflow-y: auto;
		display: grid;
		grid-template-columns: minmax(0, 800px) minmax(0, 360px);
		gap: 0 40px;
		align-items: start;
		padding: 12px 20px 30px;
	}
	.order {
		list-style: none;
		margin: 24px 0 0;
		padding: 0;
	}
	.order .place {
		margin-top: 8px;
		font: 650 0.95rem var(--display);
	}
	.order button {
		width: 100%;
		min-height: max(26px, var(--touch, 0px));
		padding: 2px 8px;
		border: 0;
		border-left: 3px solid var(--rule);
		border-radius: 0;
		background: none;
		color: var(--ink);
		text-align: left;
	}
	.order button:hover {
		color: var(--moss);
	}
	.order .walked {
		border-left-color: var(--moss);
		color: var(--soft);
	}
	.order [aria-current] {
		border-left: 6px solid var(--ink);
		padding-left: 5px;
		background: var(--sheet);
		font-weight: 650;
	}
	.blocked-too {
		margin-left: 6px;
	}
	.order span {
		color: var(--soft);
		font-weight: 400;
	}
	.where {
		color: var(--soft);
		font-size: 1.1rem;
	}
	article {
		margin: 10px 0 14px;
		padding: 14px 20px 16px;
		background: var(--sheet);
		border: 1px solid var(--edge);
		border-radius: 4px;
		min-height: 250px;
	}
	h2 {
		font-size: 1.7rem;
		line-height: 1.2;
	}
	h2 a {
		text-decoration: none;
	}
	.top,
	.owners {
		display: flex;
		flex-wrap: wrap;
		gap: 4px 14px;
		margin: 0 0 4px;
	}
	.number {
		color: var(--soft);
	}
	.owners span {
		display: inline-flex;
		gap: 5px;
		align-items: center;
	}
	.blocked {
		padding: 6px 12px;
		border-left: 8px solid;
		border-image: var(--hatch-brick) 8;
		background: var(--brick-2);
	}
	p {
		margin: 6px 0;
	}
	label {
		font-size: 12px;
		color: var(--soft);
	}
	textarea {
		display: block;
		width: 100%;
		font: inherit;
		color: var(--ink);
		background: var(--paper);
		border: 1px solid var(--edge);
		border-radius: 4px;
		padding: 6px 9px;
	}
	.said {
		padding-left: 10px;
		border-left: 2px solid var(--moss);
	}
	.foot {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 8px 12px;
	}
	.silent {
		color: var(--soft);
	}
	.present {
		display: flex;
		flex-wrap: wrap;
		gap: 6px;
	}
	.present button {
		display: inline-flex;
		gap: 6px;
		align-items: center;
		border: 1px solid var(--rule);
		border-radius: 4px;
		background: none;
		color: var(--soft);
		padding: 3px 8px;
		min-height: max(30px, var(--touch, 0px));
	}
	.present [aria-pressed='true'] {
		background: var(--moss-2);
		color: var(--ink);
	}
	pre {
		white-space: pre-wrap;
		font: 1rem/1.45 var(--text);
		background: var(--sheet);
		border: 1px solid var(--rule);
		padding: 12px 16px;
	}
	@media (max-width: 1000px) {
		.walk {
			grid-template-columns: minmax(0, 1fr);
		}
		.order {
			display: none;
		}
	}
	@media (max-width: 700px) {
		.walk {
			padding: 8px 12px 24px;
		}
	}
</style>
