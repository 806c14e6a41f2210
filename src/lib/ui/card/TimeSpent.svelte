<script lang="ts">
	import { fsum } from 'd3-array';
	import type { RunningTimer, TimeEntry } from '$core/pages/time';
	import type { PersonView, Unit } from '$core/pages/board';
	import type { Command, CommandInput } from '../../commands';
	import type { Refusal } from '../send';
	import { amount, dateWords, figure } from '../words';

	interface Props {
		cardId: string;
		number: number;
		entries: readonly TimeEntry[];
		people: readonly PersonView[];
		me: string;
		role: 'viewer' | 'member' | 'lead';
		today: string;
		unit: Unit;
		size: number | null;
		left: number;
		timer: RunningTimer | null;
		/** A card with sub-cards has no time of its own. */
		hasParts: boolean;
		/** Sends a command about this time; gives why it was refused, or null. */
		ask: <C extends Command>(command: C, input: CommandInput<C>) => Promise<Refusal | null>;
	}
	/** Hours worked on a card, with logging, correcting and the timer. */
	let props: Props = $props();
	const { entries, people, me, role, today } = $derived(props);
	const may = $derived(role !== 'viewer' && !props.hasParts);
	const sum = $derived(fsum(entries, (entry) => entry.hours));
	const name = (id: string) => people.find((person) => person.id === id)?.name ?? 'Someone';
	const here = $derived(props.timer?.card === props.cardId);
	const able = $derived(
		people
			.filter((person) => !person.gone && person.role !== 'viewer')
			.map((person) => ({ value: person.id, name: person.name })),
	);
	let asking = $state.raw<{ entry: TimeEntry | null } | null>(null);
	let all = $state(false);
	const SHOWN = 5;
	const shown = $derived(all ? entries : entries.slice(0, SHOWN));
	const said = (refusal: Refusal | null) => refusal?.title ?? '';
</script>

<h3>Time</h3>
{#if props.hasParts}<p class="soft">Time is logged on its sub-cards.</p>{/if}
{#if entries.length || may}
	<p>
		{entries.length ? `${amount(sum, 'hours')} worked` : 'Nothing worked yet'}{props.size !== null &&
		props.unit === 'hours'
			? `, ${amount(props.left, 'hours')} left of ${amount(props.size, 'hours')}`
			: ''}.
	</p>
{/if}
{#if may}
	<p class="buttons">
		<button type="button" class="plain" onclick={() => (asking = { entry: null })}>Log time</button>
		{#if here}<button
				type="button"
				class="plain"
				onclick={() => void props.ask('StopTimer', { card: props.cardId })}>Stop the timer</button
			>{:else}<button
				type="button"
				class="plain"
				onclick={() => void props.ask('StartTimer', { card: props.cardId })}>Start the timer</button
			>{/if}
	</p>
{/if}
{#if entries.length}
	<ul>
		{#each shown as entry (entry.id)}
			<li>
				<span class="hours">{figure(entry.hours, 2)} h</span>
				<span
					>{name(entry.person)}, {dateWords(entry.day, today)}{entry.billable
						? ', billable'
						: ''}{#if entry.note}<br /><span class="soft">{entry.note}</span>{/if}</span
				>
				{#if role === 'lead' || (may && entry.person === me)}<button
						type="button"
						class="link"
						aria-label="Correct {figure(entry.hours, 2)} h of {name(entry.person)}, {dateWords(
							entry.day,
							today,
						)}"
						onclick={() => (asking = { entry })}>Correct</button
					>{/if}
			</li>
		{/each}
	</ul>
	{#if entries.length > SHOWN && !all}<button type="button" class="link" onclick={() => (all = true)}
			>All {entries.length} entries</button
		>{/if}
{/if}

{#if asking}
	{@const { entry } = asking}
	{#await import('../dialogs/TimeDialog.svelte') then { default: TimeDialog }}
		<TimeDialog
			title={entry ? `Time on ${props.number}` : `Log time on ${props.number}`}
			hours={entry?.hours ?? null}
			draft={entry ? undefined : `time-${props.cardId}`}
			day={entry?.day ?? today}
			{today}
			note={entry?.note}
			billable={entry?.billable}
			people={!entry && role === 'lead' ? able : undefined}
			person={me}
			onclose={() => (asking = null)}
			onremove={entry
				? async () =>
						said(
							await props.ask('RemoveTime', {
								card: entry.card ?? props.cardId,
								entry: entry.id,
								version: entry.version,
							}),
						)
				: undefined}
			ontime={async ({ hours, day, note, billable, person }) =>
				said(
					await (entry
						? props.ask('ChangeTime', {
								card: entry.card ?? props.cardId,
								entry: entry.id,
								version: entry.version,
								hours,
								day,
								note,
								billable,
							})
						: props.ask('LogTime', {
								card: props.cardId,
								hours,
								day,
								note,
								billable,
								...(person && person !== me ? { person } : {}),
							})),
				)}
		/>
	{/await}
{/if}

<style>
	p {
		margin: 0 0 6px;
	}
	.buttons {
		display: flex;
		gap: 8px;
	}
	li {
		display: grid;
		grid-template-columns: 54px 1fr auto;
		gap: 8px;
		padding: 4px 0;
		border-top: 1px dotted var(--rule);
		font-size: 0.95rem;
	}
	.hours {
		font-weight: 650;
	}
	.link {
		min-height: var(--touch, auto);
	}
</style>
