<script lang="ts">
	import { initiativeAddress } from '../initiative-words';
	import { Input, Select } from 'flowbite-svelte';
	import { parseDay } from '$core/calendar/days';
	import type { Field } from '$core/board/field';
	import type { BoardHead, PersonView } from '$core/pages/board';
	import type { Ask } from '../board/ask';
	import type { BoardState } from '../board/board-state.svelte';
	import FieldRow from './FieldRow.svelte';
	import NameTag from '../board/NameTag.svelte';
	import { amount, blockedWords, count, daysSince, dayOf, dueWords, momentWords, wholeNames } from '../words';
	import type { CardPage } from '$core/pages/card';

	interface Props {
		board: BoardState;
		card: CardPage;
		today: string;
		mayEdit: boolean;
		onask: (ask: Ask) => void;
		/** Told of work that changes what the panel has read. */
		again: (work: Promise<unknown>) => Promise<void>;
	}
	let { board, card, today, mayEdit, onask, again }: Props = $props();
	const head = $derived<BoardHead>(board.head);
	const column = $derived(head.columns.find((known) => known.id === card.column));
	const people = $derived(
		new Map<string, PersonView & { seed: number }>(
			head.people.map((person, seed) => [person.id, { ...person, seed }]),
		),
	);
	const called = $derived(wholeNames(head.people));
	const running = $derived(head.sprints.find((sprint) => sprint.startedAt && !sprint.closedAt));
	const coming = $derived(head.sprints.filter((sprint) => !sprint.startedAt));
	const small = { select: 'py-1 px-2 text-base' };
	const value = (event: Event) => (event.currentTarget as HTMLSelectElement | HTMLInputElement).value;
	const initiatives = $derived([
		{ value: '', name: 'none' },
		...[...new Set([...head.initiatives, ...(card.initiative ? [card.initiative] : [])])].map((name) => ({
			value: name,
			name,
		})),
	]);
	const sprints = $derived([
		{
			value: '',
			// A card that stands in a column goes on standing there.
			name:
				running && card.column !== null
					? `none: it stays in ${column?.name ?? 'its column'}, outside the sprint`
					: 'none',
		},
		...(running
			? [
					{
						value: String(running.number),
						name:
							card.sprint === running.number
								? `${running.number}, running`
								: `${running.number}, running: as unplanned`,
					},
				]
			: []),
		...coming.map((sprint) => ({ value: String(sprint.number), name: `${sprint.number}, planned` })),
	]);
	/** Where a card can stand, with the slots of each place. */
	const places = $derived([
		...(card.column === null ? [{ value: 'backlog', name: 'the backlog' }] : []),
		...head.columns.map(({ id, name, limit }) => {
			const standing = board.columns.get(id)?.length ?? 0;
			return { value: id, name: limit === null ? name : `${name}, ${standing} of ${limit}` };
		}),
		...(card.column === null
			? []
			: [
					{ value: 'top', name: 'the top of the backlog' },
					{ value: 'end', name: 'the end of the backlog' },
				]),
	]);
	function moveTo(place: string): void {
		if (place === (card.column ?? 'backlog') || place === 'backlog') return;
		const live = board.latest(card);
		void again(
			place === 'top'
				? board.move(live, null, null)
				: place === 'end'
					? board.move(live, null, undefined)
					: board.move(live, place, undefined),
		);
	}
	/** Fields that stand elsewhere in the panel, or follow from what does. */
	const ELSEWHERE = [
		'number',
		'title',
		'left',
		'waits',
		'files',
		'private',
		'checks',
		'age',
		'carried',
		'finished',
	];
	function shown({ id }: Field): boolean {
		if (ELSEWHERE.includes(id)) return false;
		if (id === 'sprint') return !card.parts;
		if (id === 'ready') return card.column === null;
		// What has no day says nothing of its length; nobody reviews by a day.
		if (id === 'length') return Boolean(card.start || card.due);
		if (id === 'review') return Boolean(card.review);
		return id !== 'done' || (card.clock !== 'done' && !card.parts);
	}
	let naming = $state(false);
	const take = (element: HTMLElement) => element.querySelector('input')?.focus();
</script>

<dl>
	{#each board.fields.filter(shown) as field (field.id)}
		{#if field.id === 'column'}
			<dt>
				{#if mayEdit && !card.archived}<label for="card-place">Stands in</label>{:else}Stands in{/if}
			</dt>
			<dd>
				{#if mayEdit && !card.archived}<Select
						id="card-place"
						items={places}
						placeholder=""
						classes={small}
						value={card.column ?? 'backlog'}
						onchange={(event: Event) => moveTo(value(event))}
					/>{:else}{column?.name ?? 'the backlog'}{/if}
				{#if card.clock === 'running' && card.started}on day {Math.max(
						1,
						daysSince(card.started, parseDay(today)!, head.timeZone),
					)}{/if}
				{#if card.clock === 'done' && card.finished}finished {momentWords(
						card.finished,
						head.timeZone,
					)}{#if card.due}{@const on = dueWords(
							card.due,
							parseDay(today)!,
							dayOf(card.finished, head.timeZone),
						)}, <span class={on.tone}>{on.tone === 'late' ? on.text : 'on time'}</span>{/if}{/if}
				{#if card.letThrough}<br /><span class="warn">let through: {card.letThrough}</span>{/if}
			</dd>
		{:else if field.id === 'owners'}
			<dt>Owners</dt>
			<dd>
				{#each card.owners as owner (owner)}{@const person = people.get(owner)}{#if person}<span class="owner"
							><NameTag {person} seed={person.seed} /> <span aria-hidden="true">{called(owner)}</span></span
						>{/if}{:else}nobody{/each}
				{#if mayEdit}<button
						type="button"
						class="link"
						aria-label="Change owners"
						onclick={() => onask({ kind: 'owners', cards: [card] })}>Change</button
					>{/if}
			</dd>
		{:else if field.id === 'size'}
			<dt>Size</dt>
			<dd>
				{#if card.parts}{amount(card.parts.size, head.unit)} in its sub-cards, {amount(
						card.parts.left,
						head.unit,
					)} left
				{:else}
					{card.size === null
						? 'not sized'
						: `${amount(card.size, head.unit)}, ${amount(card.left, head.unit)} left`}
					{#if mayEdit}<button
							type="button"
							class="link"
							aria-label="Change size"
							onclick={() => onask({ kind: 'size', card })}>Change</button
						>
						{#if card.clock !== 'done' && !card.archived}<button
								type="button"
								class="link"
								onclick={() => onask({ kind: 'split', card })}>Split</button
							>{/if}{/if}
				{/if}
			</dd>
		{:else if field.id === 'sprint'}
			<dt><label for="card-sprint">Sprint</label></dt>
			<dd>
				{#if mayEdit && card.clock !== 'done' && !card.archived}<Select
						id="card-sprint"
						items={sprints}
						placeholder=""
						classes={small}
						value={card.sprint === null ? '' : String(card.sprint)}
						onchange={(event: Event) =>
							void again(board.plan([card], value(event) ? Number(value(event)) : null))}
					/>{:else}{card.sprint === null ? 'none' : card.sprint}{/if}
				{#if card.sprint !== null && card.sprint === running?.number}
					{#if card.unplanned}unplanned{/if}
					{#if mayEdit && card.clock !== 'done'}<button
							type="button"
							class="link"
							onclick={() =>
								void again(
									board.ask('PlanCards', {
										board: head.id,
										cards: [{ card: card.id, version: card.version }],
										sprint: card.sprint,
										planned: card.unplanned,
									}),
								)}>{card.unplanned ? 'It was planned' : 'It was not planned'}</button
						>{/if}
				{/if}
			</dd>
		{:else if field.id === 'blocked'}
			<dt>Blocked</dt>
			<dd>
				{#if card.blocked}<span class="warn"
						>{blockedWords(card.blocked)}, {count(
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
							onclick={() => onask({ kind: 'block', card })}>Block</button
						>{/if}{/if}
			</dd>
		{:else if field.id === 'labels'}
			<dt>Labels</dt>
			<dd>
				{card.labels.join(', ') || 'none'}
				{#if mayEdit}<button
						type="button"
						class="link"
						aria-label="Change labels"
						onclick={() => onask({ kind: 'labels', cards: [card] })}>Change</button
					>{/if}
			</dd>
		{:else if field.id === 'initiative'}
			<dt><label for="card-initiative">Initiative</label></dt>
			<dd>
				{#if mayEdit && naming}<span {@attach take}
						><Input
							id="card-initiative"
							class="px-2 py-1 text-base"
							maxlength={80}
							placeholder="its name"
							onblur={() => (naming = false)}
							onkeydown={(event: KeyboardEvent) => {
								event.stopPropagation();
								const name = value(event).trim();
								if (event.key === 'Escape') naming = false;
								if (event.key !== 'Enter' || !name) return;
								naming = false;
								void again(board.changeCards([card], { initiative: name }));
							}}
						/></span
					>
				{:else if mayEdit}<Select
						id="card-initiative"
						items={initiatives}
						placeholder=""
						classes={small}
						value={card.initiative ?? ''}
						onchange={(event: Event) =>
							void again(board.changeCards([card], { initiative: value(event) || null }))}
					/><button type="button" class="link" onclick={() => (naming = true)}>Name a new one</button
					>{:else}{card.initiative ?? 'none'}{/if}
				{#if card.initiative && !naming}<a class="link" href={initiativeAddress(head.slug, card.initiative)}
						>Its page</a
					>{/if}
			</dd>
		{:else if field.id === 'ready'}
			<dt>Ready</dt>
			<dd>
				{card.ready ? 'yes' : 'not yet'}
				{#if mayEdit}<button
						type="button"
						class="link"
						onclick={() => void again(board.changeCards([card], { ready: !card.ready }))}
						>{card.ready ? 'Not ready after all' : 'Mark it as ready'}</button
					>{/if}
			</dd>
		{:else}
			<dt><label for="field-{field.id}">{field.name}</label></dt>
			<dd>
				<FieldRow
					{field}
					{card}
					looking={board.looking}
					{today}
					mayEdit={mayEdit && !(field.id === 'lane' && card.archived)}
					none={field.day
						? 'no date'
						: field.id === 'reviewer'
							? 'nobody'
							: field.id === 'done'
								? 'not said'
								: 'none'}
					onchange={(change) => void again(board.put(card, change))}
				/>
			</dd>
		{/if}
	{/each}
</dl>

<style>
	dl {
		display: grid;
		grid-template-columns: 92px 1fr;
		gap: 5px 10px;
		margin: 6px 0;
		align-items: center;
	}
	dt {
		color: var(--soft);
	}
	dd {
		display: flex;
		flex-wrap: wrap;
		gap: 3px 10px;
		align-items: center;
		min-height: max(26px, var(--touch, 0px));
	}
	dl :global(:is(select, input:not([type='checkbox']))) {
		min-height: var(--touch, auto);
	}
	.late {
		color: var(--brick);
	}
	.owner {
		display: inline-flex;
		gap: 5px;
		align-items: center;
	}
</style>
