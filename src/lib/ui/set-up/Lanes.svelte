<script lang="ts">
	import { Input, Label, Select } from 'flowbite-svelte';
	import type { LaneView, ServiceClass } from '$core/pages/board';
	import type { SetUpPage } from '$core/pages/settings';
	import type { CommandInput } from '../../commands';
	import type { BoardState } from '../board/board-state.svelte';
	import { count } from '../words';
	import { CLASSES, className } from '../classes';
	import SlotSteps from './SlotSteps.svelte';

	let { board, setUp }: { board: BoardState; setUp: SetUpPage } = $props();
	const head = $derived(board.head);
	const mayChange = $derived(head.role === 'lead' && !head.away);
	const off = $derived(head.off.includes('lanes'));
	let name = $state('');
	let holds = $state('');
	let problem = $state('');
	const free = $derived(CLASSES.filter(({ value }) => !head.lanes.some((lane) => lane.class === value)));
	async function change(
		lane: string,
		what: Omit<CommandInput<'ChangeLane'>, 'board' | 'lane'>,
		done: string,
	) {
		const sent = await board.ask('ChangeLane', { board: head.id, lane, ...what });
		problem = sent.ok ? '' : sent.refusal.title;
		if (sent.ok)
			board.tell({ tone: 'done', text: done, undo: sent.answer.undoable ? sent.answer.id : undefined });
		return sent.ok;
	}
	async function rename(lane: LaneView, input: HTMLInputElement) {
		const to = input.value.trim();
		if (!to || to === lane.name || !(await change(lane.id, { name: to }, `${lane.name} is called ${to}.`)))
			input.value = lane.name;
	}
	async function add(event: SubmitEvent) {
		event.preventDefault();
		const sent = await board.ask('AddLane', {
			board: head.id,
			name: name.trim(),
			...(holds ? { class: holds as ServiceClass } : {}),
		});
		problem = sent.ok ? '' : sent.refusal.title;
		if (!sent.ok) return;
		board.tell({ tone: 'done', text: `The lane ${name.trim()} is on the board.`, undo: sent.answer.id });
		[name, holds] = ['', ''];
	}
</script>

<p class="warn" role="alert">{problem}</p>
<section aria-labelledby="set-lanes">
	<h2 id="set-lanes">Lanes across the columns</h2>
	{#if off}
		<p class="soft">
			This board uses no lanes. <a class="link" href="?part=board">Switch them on</a> among what it uses.
		</p>
	{:else}
		<ul>
			{#each head.lanes as lane, i (lane.id)}
				<li>
					{#if mayChange}<input
							class="name"
							aria-label="Name of the lane {lane.name}"
							maxlength="40"
							value={lane.name}
							onchange={(event) => void rename(lane, event.currentTarget)}
							onkeydown={(event) => event.key === 'Enter' && event.currentTarget.blur()}
						/>{:else}<b>{lane.name}</b>{/if}
					<small
						>{lane.class
							? `holds all cards of the class ${className(lane.class)}`
							: 'holds what is put there'}{setUp.inLanes[lane.id]
							? `, ${count(setUp.inLanes[lane.id]!, 'card')} now`
							: ''}</small
					>
					<SlotSteps
						of={lane.name}
						limit={lane.limit}
						standing={setUp.inLanes[lane.id] ?? 0}
						{mayChange}
						onchange={(limit) =>
							void change(
								lane.id,
								{ limit },
								limit === null ? `${lane.name} has no limit.` : `${lane.name} has ${count(limit, 'slot')}.`,
							)}
					/>
					{#if lane.limit !== null}<select
							aria-label="One more than the slots of {lane.name}"
							value={lane.mode}
							disabled={!mayChange}
							onchange={(event) =>
								void change(
									lane.id,
									{ mode: event.currentTarget.value as 'hold' },
									event.currentTarget.value === 'hold'
										? `One more in ${lane.name} is held until a reason is given.`
										: `One more in ${lane.name} is let in, and said so.`,
								)}
						>
							<option value="hold">one more is held until a reason is given</option>
							<option value="advise">one more is let in, and said so</option>
						</select>{/if}
					{#if mayChange}
						{#if i}<button
								type="button"
								class="link"
								aria-label="Up: {lane.name}"
								onclick={() => void change(lane.id, { place: i - 1 }, 'The order is kept.')}>Up</button
							>{/if}
						<button
							type="button"
							class="link"
							aria-label="Retire {lane.name}"
							onclick={() =>
								void change(
									lane.id,
									{ retired: true },
									`${lane.name} is off the board; its cards stand in no lane.`,
								)}>Retire</button
						>
					{/if}
				</li>
			{:else}<li>None yet: all cards stand in one.</li>{/each}
		</ul>
		{#if setUp.retiredLanes.length}<p class="soft">
				Retired: {#each setUp.retiredLanes as lane, i (lane.id)}{i ? ', ' : ''}{lane.name}
					{#if mayChange}<button
							type="button"
							class="link"
							aria-label="Offer {lane.name} again"
							onclick={() => void change(lane.id, { retired: false }, `${lane.name} is on the board again.`)}
							>Offer again</button
						>{/if}{/each}
			</p>{/if}
		{#if mayChange}<form onsubmit={add}>
				<div>
					<Label for="lane-name">A new lane, called</Label>
					<Input id="lane-name" required maxlength={40} autocomplete="off" bind:value={name} />
				</div>
				<div>
					<Label for="lane-holds">It holds</Label>
					<Select
						id="lane-holds"
						placeholder=""
						items={[
							{ value: '', name: 'what is put there' },
							...free.map((one) => ({ value: one.value, name: `all cards of the class ${one.name}` })),
						]}
						bind:value={holds}
					/>
				</div>
				<button class="go">Add the lane</button>
			</form>{/if}
	{/if}
</section>

<style>
	li {
		display: flex;
		flex-wrap: wrap;
		gap: 6px 12px;
		align-items: center;
	}
	small {
		flex: 1 0 calc(100% - 200px);
	}
	small {
		color: var(--soft);
	}
	.name,
	select {
		font: inherit;
		color: var(--ink);
		background-color: transparent;
		border: 0;
		border-bottom: 1px solid var(--rule);
		border-radius: 0;
		min-height: max(30px, var(--touch, 0px));
	}
	.name {
		font-weight: 650;
		border-bottom-color: var(--moss);
		width: 180px;
		padding: 2px 4px;
	}
	select {
		padding: 2px 26px 2px 4px;
	}
</style>
