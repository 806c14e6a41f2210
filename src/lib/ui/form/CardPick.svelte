<script lang="ts">
	import { ask } from '../send';

	interface Card {
		kind: string;
		id: string;
		key: string;
		title: string;
		place: string;
		board: string;
	}
	interface Props {
		id: string;
		label: string;
		placeholder: string;
		/** Only cards of this board; any that one sees where it is left out. */
		board?: string;
		/** Cards that are not offered, by their keys. */
		but?: readonly string[];
		/** Takes a card; where it is refused the words stay. */
		onpick: (card: Card) => Promise<boolean> | boolean;
	}
	/** A card chosen by words of its title, by its number or its key. */
	let { id, label, placeholder, board, but = [], onpick }: Props = $props();
	let text = $state('');
	let found = $state.raw<Card[]>([]);
	let chosen = $state(0);
	let open = $state(false);
	let problem = $state('');
	let looked = $state('');
	let asked = 0;

	async function look(): Promise<void> {
		const mine = ++asked;
		const words = text.trim();
		[problem, open, chosen] = ['', true, 0];
		if (!words) return void ([found, looked] = [[], '']);
		const answer = await ask<Card[]>(
			`/api/find?q=${encodeURIComponent(words)}${board ? `&board=${encodeURIComponent(board)}` : ''}`,
		);
		if (mine !== asked) return;
		looked = words;
		if (!answer.ok) return void (problem = answer.refusal.title);
		found = answer.answer.filter((one) => one.kind === 'card' && !but.includes(one.key));
	}
	async function pick(card: Card | undefined): Promise<void> {
		if (!card) return void (problem = text.trim() ? `No card has “${text.trim()}” in its key or title.` : '');
		open = false;
		if (await onpick(card)) [text, found, looked] = ['', [], ''];
	}
	async function onkeydown(event: KeyboardEvent): Promise<void> {
		const { key } = event;
		if (key === 'Escape' && open && found.length) open = false;
		else if (key === 'Escape') return;
		else if (key === 'ArrowDown') chosen = Math.min(chosen + 1, found.length - 1);
		else if (key === 'ArrowUp') chosen = Math.max(chosen - 1, 0);
		else if (key === 'Enter') {
			event.preventDefault();
			event.stopPropagation();
			// Whoever types quickly and presses Enter is not ahead of the answer.
			if (looked !== text.trim()) await look();
			return pick(found[chosen]);
		} else return event.stopPropagation();
		event.preventDefault();
		event.stopPropagation();
	}
</script>

<div class="pick">
	<input
		{id}
		bind:value={text}
		oninput={look}
		onfocus={() => (open = true)}
		onblur={() => (open = false)}
		onkeydown={(event) => void onkeydown(event)}
		role="combobox"
		aria-label={label}
		aria-expanded={open && found.length > 0}
		aria-controls="{id}-list"
		aria-autocomplete="list"
		aria-activedescendant={open && found[chosen] ? `${id}-${chosen}` : undefined}
		aria-describedby="{id}-problem"
		{placeholder}
		autocomplete="off"
	/>
	<ul class="offered aloft" id="{id}-list" role="listbox" aria-label="Cards" hidden={!open || !found.length}>
		{#each found as card, i (card.id)}
			<!-- svelte-ignore a11y_click_events_have_key_events -->
			<li
				id="{id}-{i}"
				role="option"
				aria-selected={i === chosen}
				onpointerdown={(event) => event.preventDefault()}
				onclick={() => void pick(card)}
			>
				<b>{card.key}</b> <span>{card.title}</span> <small>{card.place}</small>
			</li>
		{/each}
	</ul>
	<p id="{id}-problem" class="warn" role="alert">{problem}</p>
</div>

<style>
	.pick {
		position: relative;
		flex: 1;
		min-width: 0;
	}
	input {
		width: 100%;
		min-height: max(34px, var(--touch, 0px));
		padding: 3px 8px;
		border: 1px solid var(--rule);
		border-radius: 3px;
		background: var(--sheet);
		color: var(--ink);
		font: inherit;
	}
	input::placeholder {
		color: var(--faint);
		opacity: 1;
	}
	ul {
		inset: calc(100% + 2px) 0 auto 0;
		max-height: 40vh;
	}
	p {
		margin: 2px 0 0;
	}
	p:empty {
		display: none;
	}
</style>
