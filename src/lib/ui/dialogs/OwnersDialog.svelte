<script lang="ts">
	import { Checkbox, Input } from 'flowbite-svelte';
	import type { PersonView, Unit } from '$core/pages/board';
	import type { Part } from '$core/capacity/promise';
	import { amount, list, wholeNames } from '../words';
	import Dialog from './Dialog.svelte';

	interface Props {
		title: string;
		/** Who owns it now; of several cards, who owns all of them. */
		owners: readonly string[];
		people: PersonView[];
		unit: Unit;
		/** Labels of the card: someone who knows them is marked. */
		labels: readonly string[];
		/** How much room everyone has in the card's sprint. */
		room: Promise<{ sprint: number | null; parts: Part[] }>;
		/** Cards in hand of each person on this board. */
		inHand: ReadonlyMap<string, number>;
		onowners: (owners: string[]) => void;
		onclose: () => void;
	}
	let { title, owners, people, unit, labels, room, inHand, onowners, onclose }: Props = $props();
	// svelte-ignore state_referenced_locally
	let chosen = $state([...owners]);
	const able = $derived(
		people.filter((person) => (person.role !== 'viewer' && !person.gone) || owners.includes(person.id)),
	);
	/** With very many people those are shown whose name or title has the words, and whoever is chosen already. */
	const [MANY, SHOWN] = [12, 40];
	let words = $state('');
	const matching = $derived(
		able.filter((person) =>
			`${person.name} ${person.title}`.toLowerCase().includes(words.trim().toLowerCase()),
		),
	);
	const shown = $derived.by(() => {
		if (able.length <= MANY) return able;
		const first = matching.slice(0, SHOWN);
		return [...able.filter((person) => chosen.includes(person.id) && !first.includes(person)), ...first];
	});
	const take = (element: HTMLElement) => element.querySelector('input')?.focus();

	function roomWords(part: Part | undefined): { text: string; over: boolean } {
		if (!part) return { text: '', over: false };
		if (part.promise <= 0 && !part.placed) return { text: 'no hours', over: false };
		const room = part.promise - part.placed;
		return room < -0.05
			? { text: `${amount(-room, unit)} over`, over: true }
			: { text: `room for ${amount(room, unit)}`, over: false };
	}
	const called = $derived(wholeNames(people));
	const knows = (person: PersonView) => person.skills.filter((skill) => labels.includes(skill));

	function submit(event: SubmitEvent) {
		event.preventDefault();
		onowners(chosen);
	}
</script>

<Dialog {title} {onclose}>
	<form onsubmit={submit}>
		{#await room then found}{#if found.sprint !== null}<p class="soft">
					Room in sprint {found.sprint}
				</p>{/if}{/await}
		{#if able.length > MANY}<div {@attach take}>
				<Input
					bind:value={words}
					placeholder="part of a name or title"
					aria-label="Show people with these words"
				/>
			</div>{/if}
		<ul {@attach able.length > MANY ? undefined : take}>
			{#each shown as person (person.id)}
				{@const skills = knows(person)}
				<li>
					<Checkbox value={person.id} bind:group={chosen} class="text-base"
						><span class="name">{called(person.id)}</span></Checkbox
					>
					<small
						>{#if skills.length}<span class="knows">knows {list(skills)}</span>{/if}
						{#await room}<span>…</span>{:then found}{@const has = roomWords(
								found.parts.find((part) => part.person === person.id),
							)}{#if has.text}<span class:warn={has.over}>{has.text}</span
								>{:else if inHand.get(person.id)}<span>{inHand.get(person.id)} in hand</span
								>{/if}{/await}</small
					>
				</li>
			{/each}
		</ul>
		{#if able.length > MANY && matching.length > SHOWN}<p class="soft">
				{matching.length - SHOWN} more: write part of a name.
			</p>{/if}
		<div class="dialog-foot">
			<button type="button" class="plain" onclick={() => (chosen = [])}>Nobody</button>
			<button class="go"
				>Give it to {chosen.length === 0
					? 'nobody'
					: chosen.length === 1
						? 'them'
						: `these ${chosen.length}`}</button
			>
		</div>
	</form>
</Dialog>

<style>
	p {
		margin: 0 0 4px;
	}
	.soft {
		text-align: right;
		font-size: 0.9rem;
	}
	li {
		display: flex;
		justify-content: space-between;
		align-items: center;
		gap: 10px;
		min-height: max(34px, var(--touch, 0px));
	}
	.name {
		color: var(--ink);
	}
	small {
		color: var(--soft);
		font-size: 0.9rem;
		text-align: right;
	}
	.knows {
		color: var(--river);
		margin-right: 8px;
	}
</style>
