<script lang="ts">
	import { invalidate } from '$app/navigation';
	import { page } from '$app/state';
	import type { Command, CommandInput, CommandResult } from '$lib/commands';
	import TeamFrame from '$lib/ui/frame/TeamFrame.svelte';
	import { send, type Sent } from '$lib/ui/send';
	import { count } from '$lib/ui/words';
	import Boards from '$lib/ui/team/Boards.svelte';
	import Invitations from '$lib/ui/team/Invitations.svelte';
	import Members from '$lib/ui/team/Members.svelte';
	import TeamSettings from '$lib/ui/team/TeamSettings.svelte';

	let { data } = $props();
	const team = $derived(data.team);
	const lead = $derived(team.role === 'lead');
	const here = $derived(team.people.filter((person) => !person.gone));
	const leads = $derived(here.filter((person) => person.role === 'lead'));
	let said = $state('');
	let problem = $state('');
	/** A link that was made: it is shown this once. */
	let link = $state<{ words: string; address: string } | null>(null);
	let undo = $state<{ id: string; words: string } | null>(null);

	/** Sends a command, says what came of it, and reads the page again. */
	async function tell<C extends Command>(
		command: C,
		input: CommandInput<C>,
		done: string,
	): Promise<Sent<CommandResult<C>>> {
		const sent = await send(command, input);
		problem = sent.ok ? '' : sent.refusal.title;
		said = sent.ok ? done : '';
		undo = sent.ok && sent.answer.undoable ? { id: sent.answer.id, words: done } : null;
		link = null;
		await invalidate('harrow:team');
		return sent;
	}
	async function tellLink(
		command: 'Invite' | 'MakeReset',
		input: CommandInput<'Invite'> | CommandInput<'MakeReset'>,
		words: string,
	): Promise<void> {
		const sent = await tell(command, input as CommandInput<typeof command>, '');
		const place = command === 'Invite' ? 'join' : 'reset';
		if (!sent.ok) return;
		const mailed = 'email' in input && input.email ? ` It is on its way to ${input.email}.` : '';
		const also =
			'mailed' in sent.answer.result && sent.answer.result.mailed ? ' It was mailed to them, too.' : '';
		link = { words: words + mailed + also, address: `${page.url.origin}/${place}/${sent.answer.secret}` };
	}
	async function takeBack() {
		if (!undo) return;
		await tell('UndoCommand', { of: undo.id }, 'Taken back.');
	}
</script>

<TeamFrame person={data.person!} {team} boards={team.boards.filter((board) => !board.away)} here="Team">
	<main>
		<p class="sentence">
			<b>{team.name} has {count(here.length, 'person', 'people')}</b>, {leads.length === 1
				? `led by ${leads[0]!.name}`
				: `${leads.length} of them leads`}{here.length === 1 ? '. Invite those you work with' : ''}.{team
				.invitations.length
				? ` ${count(team.invitations.length, 'invitation')} ${team.invitations.length === 1 ? 'waits' : 'wait'}.`
				: ''}
			{#if team.away}<b class="warn">This team is put away.</b>{/if}
		</p>
		<div class="told" aria-live="polite">
			{#if problem}<p class="warn" role="alert">{problem}</p>{/if}
			{#if said}<p>
					{said}
					{#if undo}<button type="button" class="link" onclick={takeBack}>Take it back</button>{/if}
				</p>{/if}
			{#if link}<p class="linked">
					{link.words} It is shown this once: <code>{link.address}</code>
					<button
						type="button"
						class="link"
						onclick={() => void navigator.clipboard?.writeText(link!.address).then(() => (said = 'Copied.'))}
						>Copy it</button
					>
				</p>{/if}
		</div>
		<div class="two">
			<div>
				<Members {team} {lead} {tell} onreset={(input, words) => tellLink('MakeReset', input, words)} />
				{#if lead}<Invitations {team} {tell} oninvite={(input, words) => tellLink('Invite', input, words)} />
					<p class="way">
						<a class="link" href="/teams/{team.id}/letters">What was mailed, and what waits</a>
					</p>{/if}
			</div>
			<div>
				<Boards {team} {lead} {tell} />
				<p class="way"><a class="link" href="/activity?team={team.id}">What was done lately</a></p>
				{#if lead}<TeamSettings {team} {tell} />{/if}
			</div>
		</div>
	</main>
</TeamFrame>

<style>
	main {
		flex: 1;
		min-height: 0;
		overflow-y: auto;
		padding: 0 20px 40px;
	}
	.sentence {
		padding: 9px 0 4px;
		margin: 0;
	}
	.told p {
		margin: 0 0 6px;
	}
	.way .link {
		display: inline-block;
		padding: 6px 0;
	}
	.linked {
		padding: 8px 10px;
		border-left: 4px solid var(--moss);
		background: var(--sheet);
	}
	code {
		overflow-wrap: anywhere;
		font-weight: 600;
	}
	.two {
		display: grid;
		grid-template-columns: minmax(0, 3fr) minmax(0, 2fr);
		gap: 12px 40px;
	}
	@media (max-width: 900px) {
		.two {
			grid-template-columns: minmax(0, 1fr);
		}
		main {
			padding: 0 14px 40px;
		}
	}
</style>
