<script lang="ts">
	import { invalidate } from '$app/navigation';
	import type { LetterView } from '$core/pages/letters';
	import TeamFrame from '$lib/ui/frame/TeamFrame.svelte';
	import { send } from '$lib/ui/send';
	import { count, momentWords } from '$lib/ui/words';

	let { data } = $props();
	const { team } = $derived(data.page);
	let said = $state('');
	let problem = $state('');

	const KINDS: Record<LetterView['kind'], string> = {
		notice: 'told at once',
		digest: 'the daily digest',
		invitation: 'an invitation',
		reset: 'a link to a new password',
	};
	const TASKS: Record<string, string> = {
		'tell-of-days': 'Tells people of days that are near or past',
		'make-digests': 'Makes the daily digests',
		'resume-mail': 'Takes up letters that nobody is at any more',
	};
	const when = (at: string | Date) => momentWords(new Date(at).toISOString(), team.timeZone);

	async function retry(letter: LetterView): Promise<void> {
		const sent = await send('RetryLetter', { team: team.id, letter: letter.id });
		problem = sent.ok ? '' : sent.refusal.title;
		said = sent.ok ? `The letter to ${letter.to} is tried again.` : '';
		await invalidate('harrow:letters');
	}
</script>

<TeamFrame person={data.person!} {team} boards={data.page.boards} here="Team">
	<main>
		<p class="sentence">
			{#if !data.page.on}<b>This Harrow has no mail server</b>: nothing is mailed.
			{:else}<b
					>{count(data.page.waiting, 'letter')}
					{data.page.waiting === 1 ? 'waits' : 'wait'} to be sent</b
				>{data.page.refused
					? `, ${data.page.refused} ${data.page.refused === 1 ? 'was' : 'were'} refused`
					: ''}, {data.page.sent} went out within a week.{/if}
			What a letter says stands here for nobody.
			<button type="button" class="link" onclick={() => void invalidate('harrow:letters')}>Look again</button>
		</p>
		<div aria-live="polite">
			{#if problem}<p class="warn" role="alert">{problem}</p>{/if}
			{#if said}<p>{said}</p>{/if}
		</div>
		<table>
			<thead><tr><th>To</th><th>What</th><th>Since</th><th>How it fares</th><th></th></tr></thead>
			<tbody>
				{#each data.page.letters as letter (letter.id)}
					<tr>
						<td>{letter.to}</td>
						<td>{KINDS[letter.kind]}</td>
						<td>{when(letter.madeAt)}</td>
						<td>
							{#if letter.state === 'sent'}sent {when(letter.sentAt!)}{:else if letter.state === 'over'}<span
									class="soft">{letter.trouble}</span
								>{:else if letter.state === 'refused'}<b class="warn">refused</b>: {letter.trouble}
							{:else}<b>waits</b>{letter.trouble
									? `, tried ${letter.tries === 1 ? 'once' : `${letter.tries} times`}: ${letter.trouble}`
									: ''}{letter.next
									? `. Next ${when(letter.next)}`
									: letter.tries
										? '. It is not tried again'
										: ''}{/if}
						</td>
						<td
							>{#if letter.state === 'refused' || (letter.state === 'waits' && letter.trouble)}<button
									type="button"
									class="link"
									onclick={() => void retry(letter)}
									>Try again<span class="sr-only">: to {letter.to}</span></button
								>{/if}</td
						>
					</tr>
				{:else}
					<tr><td colspan="5" class="soft">No letters yet.</td></tr>
				{/each}
			</tbody>
		</table>
		<h2>What else is done behind the scenes</h2>
		<ul>
			{#each data.page.jobs as job, i (i)}
				<li>
					{TASKS[job.task] ?? job.task}: {job.running ? 'at it now' : `next ${when(job.runAt)}`}{job.trouble
						? `, failed ${job.tries === 1 ? 'once' : `${job.tries} times`}: ${job.trouble}`
						: ''}
				</li>
			{:else}<li class="soft">Nothing waits, and nothing failed.</li>{/each}
		</ul>
	</main>
</TeamFrame>

<style>
	main {
		flex: 1;
		min-height: 0;
		overflow: auto;
		padding: 0 20px 40px;
	}
	.sentence {
		padding: 9px 0 4px;
		margin: 0;
	}
	table {
		width: 100%;
		border-collapse: collapse;
	}
	th {
		text-align: left;
		font-weight: 600;
		border-bottom: 1px solid var(--rule);
		padding: 6px 10px 6px 0;
	}
	td {
		padding: 7px 10px 7px 0;
		border-bottom: 1px dotted var(--rule);
		vertical-align: top;
		overflow-wrap: anywhere;
	}
	h2 {
		font-size: 1.15rem;
		margin: 26px 0 6px;
	}
	@media (max-width: 700px) {
		thead {
			display: none;
		}
		tr {
			display: block;
			padding: 6px 0;
			border-bottom: 1px solid var(--rule);
		}
		td {
			display: inline;
			border: 0;
			padding: 0 8px 0 0;
		}
		td:first-child {
			font-weight: 600;
		}
	}
</style>
