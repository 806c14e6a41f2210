<script lang="ts">
	import { Checkbox, Input, Label } from 'flowbite-svelte';
	import type { SprintView } from '$core/pages/board';
	import type { Learned } from '$core/capacity/promise';
	import { figure } from '../words';
	import DateField from '../form/DateField.svelte';
	import Dialog from './Dialog.svelte';

	interface Props {
		sprint: SprintView;
		today: string;
		learned: Learned;
		/** Focus and keep-back are for boards in hours. */
		hours: boolean;
		/** Sprints after it, that could follow its dates. */
		later: number;
		onchange: (change: Record<string, unknown>) => Promise<string>;
		onclose: () => void;
	}
	let { sprint, today, learned, hours, later, onchange, onclose }: Props = $props();
	// svelte-ignore state_referenced_locally
	const was = sprint;
	let goal = $state(was.goal);
	let starts = $state(was.starts);
	let ends = $state(was.ends);
	let follow = $state(true);
	let focus = $state(was.focus === null ? '' : figure(was.focus, 2));
	let kept = $state(was.keepBack === null ? '' : figure(was.keepBack * 100));
	let problem = $state('');
	const moved = $derived(starts !== was.starts || ends !== was.ends);
	const frozen = was.startedAt !== null;

	async function submit(event: SubmitEvent) {
		event.preventDefault();
		const share = (text: string, by: number) =>
			text.trim() ? Number(text.trim().replace(',', '.')) / by : null;
		const [f, k] = [share(focus, 1), share(kept, 100)];
		if (!starts || !ends) problem = 'A sprint needs the day it starts and the day it ends.';
		else if (ends < starts) problem = 'A sprint ends on or after the day it starts.';
		else if (f !== null && !(f > 0 && f <= 1))
			problem = 'The focus must be above 0 and at most 1, such as 0.7.';
		else if (k !== null && !(k >= 0 && k < 100 / 100))
			problem = 'The keep-back must be from 0 to 99 in a hundred.';
		else {
			const change: Record<string, unknown> = { goal };
			if (moved) Object.assign(change, { starts, ends, follow });
			if (hours && !frozen)
				Object.assign(change, {
					focus: f === null ? null : Math.round(f * 10_000) / 10_000,
					keepBack: k === null ? null : Math.round(k * 10_000) / 10_000,
				});
			problem = await onchange(change);
			if (!problem) onclose();
		}
	}
</script>

<Dialog title="Sprint {sprint.number}" {onclose}>
	<form onsubmit={submit}>
		<div>
			<Label for="sprint-goal">Goal</Label>
			<Input id="sprint-goal" bind:value={goal} maxlength={500} autocomplete="off" />
		</div>
		<div class="two">
			<div>
				<Label for="sprint-starts">Starts</Label>
				<DateField id="sprint-starts" label="Starts" bind:value={starts} {today} disabled={frozen} />
			</div>
			<div>
				<Label for="sprint-ends">Ends</Label>
				<DateField id="sprint-ends" label="Ends" bind:value={ends} {today} />
			</div>
		</div>
		{#if moved && later}
			<Checkbox bind:checked={follow} class="text-base"
				><span class="name"
					>The {later === 1 ? 'sprint' : `${later} sprints`} after it follow by as many days</span
				></Checkbox
			>
		{/if}
		{#if hours && !frozen}
			<div class="two">
				<div>
					<Label for="sprint-focus">Focus, 0 to 1</Label>
					<Input
						id="sprint-focus"
						bind:value={focus}
						inputmode="decimal"
						placeholder={figure(learned.focus, 2)}
						autocomplete="off"
					/>
				</div>
				<div>
					<Label for="sprint-kept">Kept back, in a hundred</Label>
					<Input
						id="sprint-kept"
						bind:value={kept}
						inputmode="decimal"
						placeholder={figure(learned.keepBack * 100)}
						autocomplete="off"
					/>
				</div>
			</div>
			<p class="soft">
				Left empty they are {learned.from
					? `as learned from the last ${learned.from} sprints: focus ${figure(learned.focus, 2)}, ${figure(learned.keepBack * 100, 0)}% kept back`
					: `as usual to begin with: focus ${figure(learned.focus, 2)}, ${figure(learned.keepBack * 100, 0)}% kept back`}.
			</p>
		{/if}
		<p class="warn" role="alert">{problem}</p>
		<div class="dialog-foot">
			<button type="button" class="plain" onclick={onclose}>Leave it</button>
			<button class="go">Keep</button>
		</div>
	</form>
</Dialog>

<style>
	form {
		display: grid;
		gap: 10px;
	}
	.two {
		display: grid;
		grid-template-columns: 1fr 1fr;
		gap: 12px;
	}
	.name {
		color: var(--ink);
	}
</style>
