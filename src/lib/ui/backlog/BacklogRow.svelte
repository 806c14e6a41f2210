<script lang="ts">
	import type { BoardHead, CardView, PersonView } from '$core/pages/board';
	import type { Field } from '$core/board/field';
	import NameTag from '../board/NameTag.svelte';
	import { count, dueWords, figure, list, shortDate } from '../words';

	interface Props {
		card: CardView;
		head: BoardHead;
		/** The fields of the board’s cards. */
		fields: readonly Field[];
		people: ReadonlyMap<string, PersonView & { seed: number }>;
		today: number;
		/** It is a sub-card of a card that is shown too. */
		part: boolean;
		picked: boolean;
		/** It is the one that keys speak of. */
		current: boolean;
		mayEdit: boolean;
		href: string;
		onpick: (range: boolean) => void;
		/** Gives it another one of a field’s values. */
		onchoose: (field: Field, key: string) => void;
		onsize: (size: number) => void;
		onowners: () => void;
		onlabels: () => void;
	}
	let props: Props = $props();
	const { card, head, fields, current, mayEdit } = $derived(props);
	/** What is chosen from its values in the row itself, as far as the board has it. */
	const chosen = $derived(fields.filter(({ id }) => id === 'type' || id === 'initiative'));
	const ready = $derived(fields.find(({ id }) => id === 'ready')!);
	const own = $derived(fields.filter((field) => head.fields.some(({ id }) => id === field.id)));
	/** What it has may be among the values no more. */
	const values = (field: Field) => {
		const { known, name } = field.values!;
		const [key] = field.values!.of(card) as [string];
		return known.some((one) => one.key === key) ? known : [...known, { key, name: name(key) }];
	};
	const due = $derived(card.due ? dueWords(card.due, props.today, null) : null);
	/** How many working days it takes. */
	const length = $derived(fields.find(({ id }) => id === 'length')?.order(card) ?? null);
	const tab = $derived(current ? 0 : -1);
	let wrong = $state(false);
	/** Whether Shift was down at the last click: then all cards since the last picked one are picked. */
	let shift = false;

	function size(input: HTMLInputElement) {
		const text = input.value.trim().replace(',', '.');
		const known = card.size === null ? '' : figure(card.size, 2);
		wrong = text !== '' && !/^\d{1,4}(\.\d{1,2})?$/.test(text);
		if (wrong) return;
		if (text === '' || Number(text) === card.size) input.value = known;
		else props.onsize(Number(text));
	}
</script>

<div
	class="row"
	class:part={props.part}
	class:picked={props.picked}
	class:quiet={card.class === 'background'}
>
	{#if mayEdit}<input
			type="checkbox"
			class="pick"
			tabindex={tab}
			checked={props.picked}
			aria-label="Pick {card.number}"
			onclick={(event) => (shift = event.shiftKey)}
			onchange={() => props.onpick(shift)}
		/>{/if}
	<a
		class="title"
		href={props.href}
		data-sveltekit-noscroll
		data-sveltekit-keepfocus
		draggable="false"
		tabindex={tab}
		aria-describedby="backlog-keys"
	>
		<span class="number">{card.number}</span>
		{#if card.class === 'expedite'}<b class="expedite">Expedite</b>{/if}
		<span class="words">{card.title}</span>
		{#if card.parts}<small>{card.parts.done} of {card.parts.cards} parts</small>{/if}
		{#if card.checks}<small>{card.checks.done}/{card.checks.lines} ticked</small>{/if}
		{#if card.blocked}<small class="warn">blocked</small>{/if}
		{#each own as field (field.id)}{@const held = field.text(card)}{#if held}<small
					class="own"
					title="{field.name}: {held}"
					>{#if /^(yes|no)$/.test(held)}{field.name}:
					{:else}<span class="sr-only">{field.name}: </span>{/if}{held}</small
				>{/if}{/each}
		{#if card.waits.length}<small title="Waits for {list(card.waits)}"
				>waits for {card.waits[0]}{card.waits.length > 1 ? ` and ${card.waits.length - 1} more` : ''}</small
			>{/if}
		{#if card.start}<small title={length === null ? undefined : count(Number(length), 'working day')}
				>from {shortDate(card.start)}{length === null ? '' : `, ${count(Number(length), 'day')}`}</small
			>{/if}
		{#if due}<small class={due.tone || undefined}>{due.text}</small>{/if}
	</a>
	<span class="fields">
		{#if card.sprint !== null}<a
				class="sprint reach"
				tabindex={tab}
				href="/boards/{head.slug}/plan?sprint={card.sprint}"
				title="On the list of sprint {card.sprint}">S{card.sprint}</a
			>{/if}
		{#if mayEdit}
			<button type="button" class="labels" tabindex={tab} onclick={props.onlabels}
				><span class="sr-only">Labels of {card.number}: </span>{#each card.labels as label (label)}<span
						class="label">{label}</span
					>{:else}<span class="empty">label</span>{/each}</button
			>
			{#each chosen as field (field.id)}<select
					class={field.id}
					tabindex={tab}
					aria-label="{field.name} of {card.number}"
					value={field.values!.of(card)[0]}
					onchange={(event) => props.onchoose(field, event.currentTarget.value)}
				>
					{#each values(field) as { key, name } (key)}<option value={key}>{name}</option>{/each}
				</select>{/each}
			<button type="button" class="owners" tabindex={tab} onclick={props.onowners}
				><span class="sr-only"
					>Owners of {card.number}:
				</span>{#each card.owners as owner (owner)}{@const person =
						props.people.get(owner)}{#if person}<NameTag {person} seed={person.seed} />{/if}{:else}<span
						class="empty">nobody</span
					>{/each}</button
			>
			<button
				type="button"
				class="ready"
				tabindex={tab}
				aria-pressed={card.ready}
				title="Refined enough to be planned"
				aria-label="Ready: {card.number}"
				onclick={() => props.onchoose(ready, card.ready ? '' : 'yes')}
				>{card.ready ? '✓ ready' : 'ready?'}</button
			>
		{:else}
			{#each card.labels as label (label)}<span class="label">{label}</span>{/each}
			{#each card.owners as owner (owner)}{@const person = props.people.get(owner)}{#if person}<NameTag
						{person}
						seed={person.seed}
					/>{/if}{/each}
			{#if card.ready}<span>✓ ready</span>{/if}
		{/if}
		{#if head.unit !== 'none'}
			{#if card.parts}<span class="sum" title="The sum of its parts">{figure(card.parts.left)}</span>
			{:else if mayEdit}<input
					class="size"
					class:wrong
					class:unsized={card.size === null}
					tabindex={tab}
					inputmode="decimal"
					autocomplete="off"
					aria-label="Size of {card.number} in {head.unit}"
					aria-invalid={wrong}
					title={wrong ? 'A number from 0 to 9,999 with at most two decimals' : undefined}
					placeholder="size"
					value={card.size === null ? '' : figure(card.size, 2)}
					onfocus={(event) => event.currentTarget.select()}
					onblur={(event) => size(event.currentTarget)}
					onkeydown={(event) => {
						if (event.key === 'Escape')
							event.currentTarget.value = card.size === null ? '' : figure(card.size, 2);
						if (event.key === 'Enter' || event.key === 'Escape')
							event.currentTarget.closest('li')?.querySelector('a')?.focus();
					}}
				/>
			{:else}<span class="sum">{card.size === null ? 'not sized' : figure(card.left)}</span>{/if}
			<span class="unit" aria-hidden="true">{head.unit === 'hours' ? 'h' : 'pt'}</span>
		{/if}
		{#if mayEdit}<span class="grip" aria-hidden="true">⠿</span>{/if}
	</span>
</div>

<style>
	.row {
		display: flex;
		align-items: center;
		gap: 8px;
		min-height: max(36px, var(--touch, 0px));
		padding: 1px 8px 1px 5px;
		border-left: 4px solid transparent;
		border-bottom: 1px dotted var(--rule);
	}
	.row:hover {
		background: var(--sheet);
	}
	.picked {
		border-left-color: var(--ink);
		background: var(--sheet);
	}
	.part {
		padding-left: 33px;
	}
	.part .title::before {
		content: '└';
		color: var(--faint);
	}
	.pick {
		width: 18px;
		height: 18px;
		border: 1px solid var(--edge);
		border-radius: 2px;
		background-color: var(--sheet);
		color: var(--ink);
		flex: none;
	}
	.title {
		flex: 1;
		min-width: 0;
		display: flex;
		gap: 4px 9px;
		align-items: baseline;
		text-decoration: none;
		user-select: none;
	}
	.number {
		color: var(--faint);
		min-width: 30px;
		font-size: 12px;
		font-weight: 600;
	}
	.words {
		min-width: 0;
		overflow: hidden;
		text-overflow: ellipsis;
		white-space: nowrap;
		font-weight: 520;
	}
	.quiet .words {
		color: var(--soft);
		font-weight: 430;
	}
	.expedite {
		font-size: 12px;
		border-top: 3px double var(--ink);
	}
	small {
		flex: none;
		font-size: 12px;
		color: var(--soft);
		font-weight: 450;
	}
	.own {
		max-width: 14ch;
		overflow: hidden;
		text-overflow: ellipsis;
		white-space: nowrap;
		border-bottom: 1px dotted var(--rule);
	}
	small.late,
	small.warn {
		color: var(--brick);
	}
	small.soon {
		color: var(--ochre);
	}
	.fields {
		display: flex;
		align-items: center;
		gap: 8px;
		flex: none;
		font-size: 0.9rem;
		color: var(--soft);
	}
	select,
	.fields button,
	.size {
		border: 1px solid transparent;
		border-radius: 3px;
		background: none;
		color: var(--soft);
		font: inherit;
		min-height: max(26px, var(--touch, 0px));
		padding: 0 4px;
		box-shadow: none;
	}
	select {
		background-image: none;
		cursor: pointer;
		text-overflow: ellipsis;
	}
	.row:hover :is(select, button, .size),
	:is(select, button, .size):focus-visible {
		border-color: var(--rule);
	}
	.type {
		width: 72px;
	}
	.initiative {
		width: 150px;
	}
	.labels {
		display: flex;
		align-items: center;
		gap: 4px;
		justify-content: flex-end;
		min-width: 60px;
	}
	.label {
		padding: 0 6px;
		border: 1px solid var(--rule);
		border-radius: 9px;
		font-size: 12px;
		white-space: nowrap;
	}
	.owners {
		display: flex;
		align-items: center;
		gap: 2px;
		min-width: 56px;
		justify-content: center;
	}
	.empty {
		color: var(--faint);
		font-style: italic;
	}
	.ready {
		width: 64px;
	}
	.ready[aria-pressed='true'] {
		color: var(--moss);
		font-weight: 650;
	}
	.size {
		width: 46px;
		text-align: right;
		font-weight: 700;
		color: var(--ink);
	}
	.size::placeholder {
		color: var(--faint);
		font-weight: 400;
		font-style: italic;
		opacity: 1;
	}
	.wrong {
		border-color: var(--brick);
		color: var(--brick);
	}
	.sum {
		min-width: 46px;
		text-align: right;
		font-weight: 700;
	}
	.unit {
		margin-left: -6px;
		width: 14px;
	}
	.sprint {
		color: var(--river);
		font-weight: 650;
		text-decoration: none;
		border-bottom: 2px solid var(--river);
	}
	.grip {
		display: none;
	}
	@container (max-width: 900px) {
		.initiative {
			display: none;
		}
	}
	@container (max-width: 720px) {
		.row {
			display: grid;
			grid-template-columns: auto 1fr;
			gap: 0 6px;
			padding-block: 4px;
		}
		.title:first-child,
		.fields {
			grid-column: 1 / -1;
		}
		.title {
			flex-wrap: wrap;
		}
		.words {
			white-space: normal;
		}
		.fields {
			flex-wrap: wrap;
			justify-content: flex-end;
		}
		.labels {
			flex-wrap: wrap;
			min-width: var(--touch, 0px);
		}
		.type {
			display: none;
		}
	}
	@media (pointer: coarse) {
		.pick {
			width: 28px;
			height: 28px;
			margin: 8px;
		}
		.fields :is(select, button, .size),
		.title {
			min-height: 44px;
			align-items: center;
		}
		.size {
			width: 54px;
		}
		.grip {
			display: grid;
			place-items: center;
			width: 44px;
			height: 44px;
			color: var(--faint);
			touch-action: none;
		}
	}
</style>
