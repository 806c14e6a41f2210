<script lang="ts">
	import { goto } from '$app/navigation';
	import { onMount } from 'svelte';
	import type { BoardHead } from '$core/pages/board';
	import type { Found } from '$core/pages/find';
	import { page } from '$app/state';
	import { send } from '../send';
	import { choose, placeAt, toDo, type Key } from './keymap';
	import type { placesToGo } from './find-places';

	/** A line of the list: what was found, or a place to go. */
	type Line = Omit<Found, 'id' | 'board'>;
	interface Props {
		slug?: string;
		/** The id of the board, for those who may add cards to it. */
		board?: string;
		/** Whether the board has sprints. */
		sprints?: boolean;
		/** Whether one may set the board up. */
		lead?: boolean;
		/** The id of the team, for those who are in it. */
		team?: string;
		keysOn: boolean;
	}
	let { slug, board, sprints = false, lead = false, team, keysOn }: Props = $props();

	let input = $state<HTMLInputElement>();
	let text = $state('');
	let cards = $state.raw<Line[]>([]);
	let open = $state(false);
	let chosen = $state(0);
	let problem = $state('');

	/** Where one can go and what one can do, by its words: fetched when somebody comes here. */
	let list = $state.raw<typeof placesToGo | null>(null);
	const load = () =>
		import('./find-places').then(
			(found) => void (list = found.placesToGo),
			() => undefined,
		);
	/** Settles once everything has come that was asked for about what is typed. */
	let coming: Promise<unknown> = Promise.resolve();
	const places = $derived(
		list?.({ slug, sprints, lead, team, lenses: (page.data.head as BoardHead | undefined)?.lenses ?? [] }) ??
			[],
	);
	/** What had the focus before: what is done is done there. */
	let before = $state.raw<Element | null>(null);
	const around = $derived(before?.isConnected ? before : null);
	const row = $derived(around?.closest('li[data-card], li[data-row], [data-stint]') ?? null);
	/** What can be done in the place that is open, to the card that had the focus. */
	const deeds = $derived.by(() => {
		const place = placeAt(page.url.pathname, page.url.searchParams.has('walk'));
		if (!place) return [];
		const number = /\d+/.exec(row?.textContent ?? '')?.[0];
		return toDo(place, { write: Boolean(board), card: row !== null }).map((key) => ({
			id: `key ${key.shown}`,
			key: '',
			words: key.card && number ? `Card ${number}: ${key.words}` : capital(key.words),
			place: key.shown,
			to: key,
		}));
	});
	const capital = (words: string) => words[0]!.toUpperCase() + words.slice(1);

	/** Any word of a place finds it, in any order. */
	const typed = $derived(text.toLowerCase().split(/\s+/).filter(Boolean));
	// Places come first: they are known at once, so cards that are found later never move them from under a pointer.
	const results = $derived([
		...places
			.filter(({ words }) => typed.every((word) => words.toLowerCase().includes(word)))
			.map((place) => ({ id: place.to, key: '', place: '', ...place })),
		...deeds.filter(({ words }) => typed.every((word) => words.toLowerCase().includes(word))),
		// Two people of one name lead to the same page.
		...cards.map(({ kind, key, title, place, to }, nth) => ({
			id: `${kind} ${to} ${nth}`,
			key,
			words: title,
			place: kind === 'card' ? place : [KINDS[kind], place].filter(Boolean).join(', '),
			to,
		})),
	]);

	const KINDS = {
		board: 'board',
		person: 'person',
		sprint: 'sprint',
		label: 'label',
		initiative: 'initiative',
	};

	/** Makes a card of the words that nothing was found for, at the end of the backlog. */
	async function make(title: string): Promise<void> {
		const sent = await send('AddCard', { board: board!, column: null, title });
		if (sent.ok) await go(`/boards/${slug}/backlog?card=${sent.answer.result.number}`);
		else problem = sent.refusal.title;
	}
	/** What has been looked for, once the answer is there. */
	let looked = $state('');
	const nothingFound = $derived(
		list !== null && !results.length && !problem && looked !== '' && looked === text.trim(),
	);

	function begin() {
		open = true;
		coming = load();
	}
	// Whoever was here before the page was awake has what they typed looked for as well.
	onMount(() => {
		if (document.activeElement !== input) return;
		begin();
		if (text) look();
	});

	let asked = 0;
	function look() {
		chosen = 0;
		problem = '';
		coming = Promise.all([list ?? load(), lookUp()]);
	}
	async function lookUp(): Promise<void> {
		const mine = ++asked;
		if (!text.trim()) return void (cards = []);
		try {
			const response = await fetch(`/api/find?q=${encodeURIComponent(text)}`);
			const found = await response.json();
			if (mine !== asked) return;
			looked = text.trim();
			if (response.ok) cards = found;
			else problem = found.title;
		} catch {
			problem = 'Not connected: cards cannot be looked for now.';
		}
	}

	/** Goes to a place, or does what a key does where the focus was. */
	async function go(to: string | Key) {
		const at = around ?? document.body;
		open = false;
		text = '';
		cards = [];
		input?.blur();
		if (typeof to === 'string') return goto(to);
		if (at instanceof HTMLElement) at.focus();
		choose(to, at);
	}

	/**
	 * Does what is chosen. To whoever types quicker than the line is, what would be there comes first; but a card is only
	 * made by those who have seen that there is nothing.
	 */
	async function enter(): Promise<void> {
		const seen = text;
		const nothing = nothingFound;
		if (!list || (!results[chosen] && !nothing)) await coming;
		if (!open || text !== seen) return;
		if (results[chosen]) return go(results[chosen]!.to);
		if (board && nothing) await make(looked);
	}

	function onkeydown(event: KeyboardEvent) {
		if (event.key === 'ArrowDown') chosen = Math.min(chosen + 1, results.length - 1);
		else if (event.key === 'ArrowUp') chosen = Math.max(chosen - 1, 0);
		else if (event.key === 'Enter') void enter();
		else if (event.key === 'Escape') input?.blur();
		else return;
		event.preventDefault();
	}

	function onspace(event: KeyboardEvent) {
		if (!keysOn || event.key !== ' ' || event.ctrlKey || event.metaKey || event.altKey) return;
		if (
			(event.target as HTMLElement).closest(
				'input, textarea, select, button, summary, [contenteditable], dialog',
			)
		)
			return;
		event.preventDefault();
		input?.focus();
	}
</script>

<svelte:window onkeydown={onspace} />

<div class="find">
	<input
		bind:this={input}
		bind:value={text}
		oninput={look}
		onfocus={(event) => {
			begin();
			if (event.relatedTarget instanceof Element) before = event.relatedTarget;
			else before = null;
		}}
		onblur={() => (open = false)}
		{onkeydown}
		role="combobox"
		aria-label="Find a card or do something"
		aria-expanded={open}
		aria-controls="find-list"
		aria-autocomplete="list"
		aria-activedescendant={open && results[chosen] ? `find-${chosen}` : undefined}
		placeholder="Find a card or do something…"
		autocomplete="off"
		spellcheck="false"
	/>
	{#if keysOn}<span class="key" aria-hidden="true">Space</span>{/if}
	<ul class="offered aloft" id="find-list" role="listbox" aria-label="Found" hidden={!open}>
		{#each results as result, i (result.id)}
			<!-- svelte-ignore a11y_click_events_have_key_events -->
			<li
				id="find-{i}"
				role="option"
				aria-selected={i === chosen}
				onpointerdown={(event) => event.preventDefault()}
				onclick={() => go(result.to)}
			>
				{#if result.key}<b>{result.key}</b>{/if}
				<span>{result.words}</span>
				{#if result.place}<small>{result.place}</small>{/if}
			</li>
		{/each}
		{#if nothingFound}<li class="nothing" role="option" aria-selected="false" aria-disabled="true">
				Nothing has “{looked}”: looked at cards by key and title, boards, people, sprints, labels, initiatives
				and places.
			</li>
			{#if board}<!-- svelte-ignore a11y_click_events_have_key_events -->
				<li
					role="option"
					aria-selected="true"
					onpointerdown={(event) => event.preventDefault()}
					onclick={() => void make(looked)}
				>
					<span>Make a card of it in the backlog: “{looked}”</span>
				</li>{/if}{/if}
		{#if problem}<li class="problem" role="option" aria-selected="false">{problem}</li>{/if}
	</ul>
</div>

<style>
	.find {
		position: relative;
		width: min(300px, 45vw);
	}
	input {
		width: 100%;
		min-height: max(30px, var(--touch, 0px));
		padding: 3px 62px 3px 12px;
		border: 1px solid #6d6053;
		border-radius: 4px;
		background: #ffffff14;
		color: var(--soil-ink);
		font: 0.95rem var(--text);
	}
	input::placeholder {
		color: #e6dac3;
		opacity: 1;
	}
	.key {
		position: absolute;
		right: 8px;
		top: 50%;
		transform: translateY(-50%);
		color: #cfc2ab;
		pointer-events: none;
	}
	ul {
		inset: calc(100% + 4px) 0 auto auto;
		width: max(100%, min(420px, 92vw));
		max-height: 60vh;
	}
	.nothing {
		color: var(--soft);
		cursor: default;
	}
	.problem {
		color: var(--brick);
	}
	@media (pointer: coarse) {
		.key {
			display: none;
		}
		input {
			padding-right: 8px;
		}
	}
	@media (max-width: 700px) {
		/* On a phone the list is as wide as the bar. */
		.find {
			position: static;
		}
		ul {
			inset: calc(100% + 4px) 8px auto 8px;
			width: auto;
		}
		.key {
			display: none;
		}
		input {
			padding-right: 8px;
		}
	}
</style>
