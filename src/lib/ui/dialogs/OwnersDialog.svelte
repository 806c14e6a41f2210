<script lang="ts">
	import { Checkbox } from 'flowbite-svelte';
	import type { CardView, PersonView } from '$core/board/view';
	import Dialog from './Dialog.svelte';

	interface Props {
		card: CardView;
		people: PersonView[];
		/** Cards in hand of each person on this board. */
		inHand: ReadonlyMap<string, number>;
		onowners: (owners: string[]) => void;
		onclose: () => void;
	}
	let { card, people, inHand, onowners, onclose }: Props = $props();
	// svelte-ignore state_referenced_locally
	let chosen = $state([...card.owners]);
	const able = $derived(
		people.filter((person) => person.role !== 'viewer' || card.owners.includes(person.id)),
	);
	const take = (element: HTMLElement) => element.querySelector('input')?.focus();

	function submit(event: SubmitEvent) {
		event.preventDefault();
		onowners(chosen);
	}
</script>

<Dialog title="Who owns {card.number}?" {onclose}>
	<form onsubmit={submit}>
		<ul {@attach take}>
			{#each able as person (person.id)}
				<li>
					<Checkbox value={person.id} bind:group={chosen} class="text-base"
						><span class="name">{person.name}</span></Checkbox
					>
					<small
						>{person.title}{person.title && inHand.get(person.id) ? ', ' : ''}{inHand.get(person.id)
							? `${inHand.get(person.id)} in hand`
							: ''}</small
					>
				</li>
			{/each}
		</ul>
		<div class="foot">
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
	ul {
		list-style: none;
		margin: 0;
		padding: 0;
	}
	li {
		display: flex;
		justify-content: space-between;
		align-items: center;
		min-height: 34px;
	}
	.name {
		color: var(--ink);
	}
	small {
		color: var(--soft);
		font-size: 0.9rem;
	}
	.foot {
		display: flex;
		justify-content: flex-end;
		gap: 8px;
		margin-top: 12px;
	}
	@media (pointer: coarse) {
		li {
			min-height: 44px;
		}
	}
</style>
