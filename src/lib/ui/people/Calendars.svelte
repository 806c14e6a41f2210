<script lang="ts">
	import { Select } from 'flowbite-svelte';
	import { invalidate } from '$app/navigation';
	import { page } from '$app/state';
	import { send } from '../send';
	import { momentWords } from '../words';

	interface Props {
		addresses: { id: string; board: string | null; name: string | null; made: Date }[];
		boards: { id: string; name: string }[];
		timeZone: string;
	}
	/** Private addresses under which calendars read one's own days, and sprints and milestones of boards. */
	let { addresses, boards, timeZone }: Props = $props();
	let of = $state('');
	let address = $state('');
	let problem = $state('');
	let copied = $state(false);
	const called = (board: string | null, name: string | null) =>
		board === null ? 'Your days and due dates' : `Sprints and milestones of ${name ?? 'a board'}`;

	async function make(event: SubmitEvent): Promise<void> {
		event.preventDefault();
		const sent = await send('MakeCalendarAddress', { board: of || null });
		problem = sent.ok ? '' : sent.refusal.title;
		address = sent.ok ? `${page.url.origin}/calendar/${sent.answer.secret}.ics` : '';
		copied = false;
		await invalidate('harrow:tokens');
	}
	async function end(id: string): Promise<void> {
		const sent = await send('EndCalendarAddress', { address: id });
		problem = sent.ok ? '' : sent.refusal.title;
		await invalidate('harrow:tokens');
	}
</script>

<h2 id="calendars">Calendars</h2>
<p>
	A calendar that reads one of these addresses shows what stands in Harrow. Whoever has the address can read
	it: it is shown once, and ends when you end it or make another one.
</p>
{#if address}
	<p role="status">
		<label for="calendar-address">The address, to be put into your calendar:</label>
		<input id="calendar-address" readonly value={address} onfocus={(event) => event.currentTarget.select()} />
		<button
			type="button"
			class="plain"
			onclick={() => void navigator.clipboard?.writeText(address).then(() => (copied = true))}
			>{copied ? 'Copied' : 'Copy'}</button
		>
	</p>
{/if}
{#if addresses.length}
	<ul>
		{#each addresses as one (one.id)}
			<li>
				<span
					><b>{called(one.board, one.name)}</b>
					<small>made {momentWords(one.made.toISOString(), timeZone)}</small></span
				>
				<button
					type="button"
					class="link"
					aria-label="End the address of {called(one.board, one.name)}"
					onclick={() => void end(one.id)}>End</button
				>
			</li>
		{/each}
	</ul>
{/if}
<form onsubmit={make}>
	<Select
		aria-label="What the calendar shows"
		placeholder=""
		bind:value={of}
		items={[
			{ value: '', name: 'Your days and due dates' },
			...boards.map(({ id, name }) => ({ value: id, name: `Sprints and milestones of ${name}` })),
		]}
	/>
	<button class="go"
		>{addresses.some((one) => (one.board ?? '') === of) ? 'Make another address' : 'Make an address'}</button
	>
</form>
<p class="warn" role="alert">{problem}</p>

<style>
	h2 {
		margin-top: 26px;
		font-size: 1.25rem;
	}
	form {
		display: flex;
		flex-wrap: wrap;
		gap: 10px;
	}
	form > :global(:first-child) {
		flex: 1 1 240px;
	}
	ul {
		margin: 8px 0;
	}
	li {
		display: flex;
		justify-content: space-between;
		gap: 12px;
		padding: 5px 0;
		border-bottom: 1px dotted var(--rule);
	}
	li .link {
		min-height: max(24px, var(--touch, 0px));
	}
	input {
		width: 100%;
		min-height: max(36px, var(--touch, 0px));
		font: inherit;
		color: var(--ink);
		background: var(--sheet);
		border: 1px solid var(--edge);
		border-radius: 4px;
		padding: 4px 8px;
		margin: 4px 0;
	}
	small {
		color: var(--soft);
	}
	.warn:empty {
		display: none;
	}
</style>
