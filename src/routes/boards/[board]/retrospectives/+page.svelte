<script lang="ts">
	import { fsum } from 'd3-array';
	import { goto } from '$app/navigation';
	import { getContext, untrack } from 'svelte';
	import { Input, Label, Select } from 'flowbite-svelte';
	import { PHASE_WORDS } from '$core/retrospective/phases';
	import type { BoardState } from '$lib/ui/board/board-state.svelte';
	import Places from '$lib/ui/frame/Places.svelte';
	import { send } from '$lib/ui/send';
	import { count, dateWords, dayOf } from '$lib/ui/words';
	import { dayText } from '$core/calendar/days';

	let { data } = $props();
	const board = getContext<BoardState>('board');
	const head = $derived(board.head);
	const back = $derived(data.back);
	const open = $derived(back.lines.find(({ phase }) => phase !== 'closed'));
	const waiting = $derived(fsum(back.lines, ({ actions, done }) => actions - done));
	const dayAt = (at: Date) => dateWords(dayText(dayOf(at.getTime(), head.timeZone)), data.today);

	let columns = $state(untrack(() => [...back.columns, '', ''].slice(0, Math.max(3, back.columns.length))));
	let sprint = $state(untrack(() => String(back.sprints[0] ?? '')));
	let anonymous = $state(untrack(() => back.anonymous));
	let votes = $state(untrack(() => back.votes));
	let problem = $state('');

	async function hold(event: SubmitEvent): Promise<void> {
		event.preventDefault();
		const sent = await send('HoldRetrospective', {
			board: head.id,
			columns: columns.map((name) => name.trim()).filter(Boolean),
			anonymous,
			votes,
			...(sprint ? { sprint: Number(sprint) } : {}),
		});
		problem = sent.ok ? '' : sent.refusal.title;
		if (sent.ok) await goto(`/boards/${head.slug}/retrospectives/${sent.answer.result.number}`);
	}
</script>

<Places board={head} here="look-back" />
<div class="page">
	<p class="sentence">
		{#if open}<b>Retrospective {open.number} is held now</b>:
			<a class="link" href="/boards/{head.slug}/retrospectives/{open.number}">join it</a>.
		{:else if back.lines.length}<b>{count(back.lines.length, 'retrospective')}</b>.
		{:else}<b>No retrospective yet.</b> Look back together: what went well, what held you up, what to try.{/if}
		{#if waiting}{count(waiting, 'thing')} that {waiting === 1 ? 'was' : 'were'} agreed {waiting === 1
				? 'is'
				: 'are'} not done yet.{/if}
	</p>
	{#if head.role === 'lead' && !open}
		<form onsubmit={hold} aria-labelledby="hold">
			<h2 id="hold">Hold one</h2>
			<div class="fields">
				<div>
					<Label for="hold-sprint">About</Label>
					<Select
						id="hold-sprint"
						placeholder=""
						items={[
							...back.sprints.map((number) => ({
								value: String(number),
								name: `${head.sprintName} ${number}`,
							})),
							{ value: '', name: 'no one sprint' },
						]}
						bind:value={sprint}
					/>
				</div>
				{#each columns as _, i (i)}<div>
						<Label for="hold-column-{i}">Column {i + 1}</Label>
						<Input id="hold-column-{i}" maxlength={40} autocomplete="off" bind:value={columns[i]} />
					</div>{/each}
			</div>
			<p class="more">
				{#if columns.length < 5}<button
						type="button"
						class="link"
						onclick={() => (columns = [...columns, ''])}>Another column</button
					>{/if}
				<label
					>votes a person <select
						class="choice"
						value={String(votes)}
						onchange={(event) => (votes = Number(event.currentTarget.value))}
						>{#each Array.from({ length: 10 }, (_, n) => n + 1) as n (n)}<option value={String(n)}>{n}</option
							>{/each}</select
					></label
				>
				<label
					><input type="checkbox" bind:checked={anonymous} />anonymous: nobody is stored with their notes</label
				>
			</p>
			<p class="warn" role="alert">{problem}</p>
			<button class="go">Begin</button>
		</form>
	{/if}
	{#if back.lines.length}
		<h2>Held</h2>
		<ul>
			{#each back.lines as line (line.number)}<li>
					<a class="link" href="/boards/{head.slug}/retrospectives/{line.number}"
						>Retrospective {line.number}{line.sprint === null
							? ''
							: `, of ${head.sprintName.toLowerCase()} ${line.sprint}`}</a
					>
					<span>{dayAt(line.openedAt)}</span>
					<span class="soft"
						>{line.phase === 'closed' ? '' : `${PHASE_WORDS[line.phase].called.toLowerCase()}; `}{line.actions
							? `${line.done} of ${count(line.actions, 'thing')} agreed done`
							: 'nothing agreed'}</span
					>
				</li>{/each}
		</ul>
	{/if}
</div>

<style>
	.page {
		padding: 0 20px 40px;
	}
	.sentence {
		padding: 9px 0 4px;
		margin: 0;
	}
	h2 {
		font-size: 1.15rem;
		margin: 20px 0 6px;
	}
	.fields {
		display: grid;
		grid-template-columns: repeat(auto-fit, minmax(180px, 1fr));
		gap: 10px 16px;
		max-width: 900px;
	}
	.more {
		display: flex;
		flex-wrap: wrap;
		gap: 8px 22px;
		align-items: center;
		margin: 10px 0;
	}
	.more label {
		display: flex;
		gap: 8px;
		align-items: center;
	}
	ul {
		max-width: 900px;
	}
	li {
		display: flex;
		flex-wrap: wrap;
		gap: 4px 16px;
		align-items: center;
		min-height: max(38px, var(--touch, 0px));
		border-top: 1px dotted var(--rule);
	}
	.soft {
		margin-left: auto;
	}
</style>
