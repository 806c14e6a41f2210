<script lang="ts">
	import type { CardView, ColumnView, LaneView } from '$core/pages/board';
	import { count } from '../words';
	import { asked } from './asked.svelte';
	import Dialog from './Dialog.svelte';

	interface Props {
		cards: readonly CardView[];
		columns: readonly ColumnView[];
		/** How many cards stand in each column. */
		standing: ReadonlyMap<string, number>;
		lanes: readonly LaneView[];
		/** Puts them to the end of a column, or to the top or the end of the backlog. */
		onplace: (column: string | null, top: boolean) => void;
		/** Puts them into another lane; null for none. */
		onlane: (lane: string | null) => void;
		onclose: () => void;
	}
	/** Where cards go, chosen with one key or one tap. */
	let { cards, columns, standing, lanes, onplace, onlane, onclose }: Props = $props();
	const sent = asked();
	const one = $derived(cards.length === 1 ? cards[0]! : null);
	const places = $derived([
		...columns
			.filter((column) => !column.hidden)
			.map(({ id, name, limit, policy }) => ({
				name,
				note:
					limit === null
						? count(standing.get(id) ?? 0, 'card')
						: `${standing.get(id) ?? 0} of ${limit}${(standing.get(id) ?? 0) >= limit ? ', full' : ''}`,
				policy,
				here: one?.column === id,
				go: () => onplace(id, false),
			})),
		{
			name: 'the top of the backlog',
			note: '',
			policy: '',
			here: false,
			go: () => onplace(null, true),
		},
		{
			name: 'the end of the backlog',
			note: '',
			policy: '',
			here: false,
			go: () => onplace(null, false),
		},
	]);
	let list = $state<HTMLElement>();
	const take = (element: HTMLElement) =>
		element.querySelector<HTMLElement>('button:not([disabled])')?.focus();
	function onkeydown(event: KeyboardEvent): void {
		const buttons = [...(list?.querySelectorAll<HTMLElement>('button:not([disabled])') ?? [])];
		const at = buttons.indexOf(document.activeElement as HTMLElement);
		const step = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
		if (step) {
			event.preventDefault();
			buttons[(at + step + buttons.length) % buttons.length]?.focus();
		} else if (/^[1-9]$/.test(event.key)) {
			const place = places[Number(event.key) - 1];
			if (place && !place.here && !sent?.sending) place.go();
		}
	}
</script>

<svelte:window onkeydowncapture={onkeydown} />
<Dialog title={one ? `Where does ${one.number} go?` : `Where do these ${cards.length} go?`} {onclose}>
	<ol bind:this={list} {@attach take}>
		{#each places as place, i (place.name)}<li>
				<button type="button" disabled={place.here} onclick={place.go}
					><span class="key" aria-hidden="true">{i < 9 ? i + 1 : ''}</span>
					<span class="name">{place.name}</span>
					<small>{place.here ? 'it stands there' : place.note}</small>
					{#if place.policy}<small class="policy">{place.policy}</small>{/if}</button
				>
			</li>{/each}
	</ol>
	{#if lanes.length}<p class="lanes">
			In the lane {#each lanes as lane (lane.id)}<button
					type="button"
					class="link"
					onclick={() => onlane(lane.id)}>{lane.name}</button
				>{/each}<button type="button" class="link" onclick={() => onlane(null)}>none</button>
		</p>{/if}
</Dialog>

<style>
	li button {
		display: flex;
		flex-wrap: wrap;
		gap: 2px 10px;
		align-items: baseline;
		width: 100%;
		min-height: max(36px, var(--touch, 0px));
		padding: 6px 8px;
		border: 0;
		border-bottom: 1px dotted var(--rule);
		background: none;
		color: inherit;
		font: inherit;
		text-align: left;
	}
	li button:hover:not([disabled]) {
		background: var(--moss-2);
	}
	li button[disabled] {
		color: var(--soft);
		cursor: default;
	}
	.key {
		width: 1.2em;
		color: var(--soft);
	}
	.name {
		font-weight: 560;
	}
	small {
		color: var(--soft);
	}
	.policy {
		flex-basis: 100%;
		padding-left: calc(1.2em + 10px);
	}
	.lanes {
		display: flex;
		flex-wrap: wrap;
		gap: 4px 14px;
		margin: 10px 0 0;
	}
	.link {
		min-height: var(--touch, auto);
	}
</style>
