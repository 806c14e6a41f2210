<script lang="ts">
	import type { CommandInput } from '../../commands';
	import type { RunningTimer } from '$core/pages/time';
	import { clockText } from '$core/capacity/hours-text';
	import { reread } from '../frame/reread';
	import { outbox } from '../outbox.svelte';
	import { send, type Refusal } from '../send';

	interface Props {
		timer: RunningTimer;
	}
	/** The running timer in the bar: how long, on which card, and stopping it. */
	let { timer }: Props = $props();
	let passed = $state(0);
	let problem = $state('');
	let asking = $state.raw<Refusal | null>(null);
	$effect(() => {
		const from = Date.now();
		void timer;
		passed = 0;
		const tick = setInterval(() => (passed = (Date.now() - from) / 3_600_000), 15_000);
		return () => clearInterval(tick);
	});
	const clock = $derived(clockText(timer.hours + passed));

	async function stop(more: Omit<CommandInput<'StopTimer'>, 'card'> = {}): Promise<string> {
		const sent = await send('StopTimer', { card: timer.card, ...more });
		if (sent.ok) {
			asking = null;
			problem = '';
			if (sent.answer.advice) outbox.tell(sent.answer.advice);
			await reread('harrow:timer');
			return '';
		}
		if (sent.refusal.code === 'timer.left_on') asking = sent.refusal;
		else problem = sent.refusal.title;
		return sent.refusal.title;
	}
</script>

<span class="timer" class:left-on={timer.leftOn}>
	<a href="/boards/{timer.slug}?card={timer.key}" title={timer.title}
		><span aria-hidden="true">●</span>
		{timer.leftOn ? 'left on' : clock}<span class="key-of">{timer.leftOn ? ',' : ' on'} {timer.key}</span></a
	>
	<button type="button" onclick={() => void stop()} aria-label="Stop the timer on {timer.key}">Stop</button>
	{#if problem}<span class="problem" role="alert">{problem}</span>{/if}
</span>

{#if asking}
	{@const { title } = asking}
	{#await import('../dialogs/TimeDialog.svelte') then { default: TimeDialog }}
		<TimeDialog
			title="How much of it was work?"
			sentence={title}
			hours={null}
			none={{ words: 'None of it', ontime: () => stop({ hours: 0 }) }}
			onclose={() => (asking = null)}
			ontime={({ hours, note, billable }) => stop({ hours, note, billable })}
		/>
	{/await}
{/if}

<style>
	.timer {
		position: relative;
		display: flex;
		align-items: center;
		gap: 8px;
		white-space: nowrap;
		font-variant-numeric: tabular-nums;
	}
	a {
		display: inline-flex;
		align-items: center;
		min-width: var(--touch, auto);
		min-height: var(--touch, auto);
		text-decoration: none;
		color: inherit;
	}
	.left-on a {
		color: var(--wheat);
		font-weight: 700;
	}
	button {
		border: 1px solid #ffffff66;
		border-radius: 3px;
		background: none;
		color: inherit;
		padding: 1px 8px;
		min-height: max(26px, var(--touch, 0px));
	}
	.problem {
		position: absolute;
		top: 34px;
		right: 0;
		z-index: 20;
		width: 260px;
		padding: 8px 12px;
		white-space: normal;
		background: var(--sheet);
		color: var(--brick);
		border: 1px solid var(--edge);
		border-radius: 4px;
	}
	/* Where there is little room, its own page says on which card it runs. */
	@media (max-width: 560px) {
		.key-of {
			position: absolute;
			width: 1px;
			height: 1px;
			overflow: hidden;
			clip-path: inset(50%);
		}
		.timer {
			gap: 5px;
		}
	}
</style>
