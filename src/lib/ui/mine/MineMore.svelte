<script lang="ts">
	import { Checkbox } from 'flowbite-svelte';
	import type { CardPage } from '$core/pages/card';
	import type { MineCard } from '$core/pages/mine';
	import type { Command, CommandInput } from '../../commands';
	import { sendFile } from '../card/upload';
	import TimeDialog from '../dialogs/TimeDialog.svelte';
	import Answer from '../form/Answer.svelte';
	import { ask, type Refusal } from '../send';

	interface Props {
		card: MineCard;
		today: string;
		tell: <C extends Command>(command: C, input: CommandInput<C>, done: string) => Promise<Refusal | null>;
	}
	/** What else can be done with a card without opening it: its checklist, a word, a picture, time. */
	let { card, today, tell }: Props = $props();
	let read = $state.raw<CardPage | null>(null);
	let problem = $state('');
	let asking = $state<'say' | 'time' | null>(null);
	const works = $derived(card.board.role !== 'viewer');
	/** Ticks that were set here and are not answered yet. */
	let ticked = $state<Record<string, boolean>>({});
	/** How far a picture has gone, from 0 to 1. */
	let share = $state<number | null>(null);

	async function load(): Promise<void> {
		const found = await ask<CardPage>(`/api/cards/${card.key}`);
		if (found.ok) read = found.answer;
		else problem = found.refusal.title;
	}
	$effect(() => {
		if (card.version > (read?.version ?? 0)) void load();
	});
	async function tick(line: string, done: boolean): Promise<void> {
		ticked[line] = done;
		await tell('TickLine', { card: card.id, line, done }, '');
		await load();
		delete ticked[line];
	}
	async function picture(file: File | undefined): Promise<void> {
		if (!file) return;
		problem = '';
		share = 0;
		const sent = await sendFile(file, (part) => (share = part)).done;
		share = null;
		if (!sent) return;
		if (!sent.ok) return void (problem = sent.refusal.title);
		const files = [{ upload: sent.upload, name: file.name || 'picture.png' }];
		await tell('AttachFiles', { card: card.id, files }, `${files[0]!.name} is on ${card.key}.`);
	}
</script>

<div class="more">
	{#if problem}<p class="warn" role="alert">{problem}</p>{/if}
	{#if read?.checklist.length}
		<ul aria-label="Checklist of {card.key}">
			{#each read.checklist as { id, text, done, quantity } (id)}
				<li>
					<Checkbox
						class="font-normal"
						checked={ticked[id] ?? done}
						disabled={!works}
						onchange={(event) => void tick(id, event.currentTarget.checked)}
						>{text}{quantity ? `, ${quantity}` : ''}</Checkbox
					>
				</li>
			{/each}
		</ul>
	{/if}
	{#if asking === 'say'}<Answer
			label="What you say on {card.key}"
			onsay={async (text) => !(await tell('CommentCard', { card: card.id, text }, `Said on ${card.key}.`))}
			onleave={() => (asking = null)}
		/>
	{:else}<p class="acts">
			<button type="button" class="link" onclick={() => (asking = 'say')}>Say something</button>
			{#if works}
				<label class="link"
					><input
						class="sr-only"
						type="file"
						accept="image/*"
						disabled={share !== null}
						onchange={(event) => {
							const input = event.currentTarget;
							void picture(input.files?.[0]).then(() => (input.value = ''));
						}}
					/>{share === null ? 'A picture' : `Sending… ${Math.round(share * 100)}%`}</label
				>
				{#if card.board.unit === 'hours' && !card.parts}<button
						type="button"
						class="link"
						onclick={() => (asking = 'time')}>Time</button
					>{/if}
			{/if}
		</p>{/if}
</div>
{#if asking === 'time'}
	<TimeDialog
		title="Time on {card.key}"
		sentence={card.title}
		hours={null}
		day={today}
		{today}
		draft="time-{card.id}"
		ontime={async ({ hours, day, note, billable }) => {
			const refused = await tell(
				'LogTime',
				{ card: card.id, hours, day, note, billable },
				`Logged on ${card.key}.`,
			);
			return refused?.title ?? '';
		}}
		onclose={() => (asking = null)}
	/>
{/if}

<style>
	.more {
		padding: 8px 0 4px;
	}
	li {
		padding: 3px 0;
	}
	.acts {
		display: flex;
		flex-wrap: wrap;
		gap: 4px 18px;
	}
	label {
		position: relative;
		display: inline-flex;
		align-items: center;
		cursor: pointer;
	}
	label:focus-within {
		outline: 2px solid var(--moss);
		outline-offset: 2px;
	}
	@media (pointer: coarse) {
		li,
		.acts > :global(*) {
			min-height: 44px;
			align-content: center;
		}
	}
</style>
