<script lang="ts">
	import { fsum } from 'd3-array';
	import { getContext } from 'svelte';
	import type { RetroAction, RetroNote } from '$core/pages/retrospective';
	import { PHASE_WORDS, PHASES, phaseAfter, pilesOf } from '$core/retrospective/phases';
	import type { Command, CommandInput } from '$lib/commands';
	import type { BoardState } from '$lib/ui/board/board-state.svelte';
	import Places from '$lib/ui/frame/Places.svelte';
	import { reread } from '$lib/ui/frame/reread';
	import Action from '$lib/ui/retrospective/Action.svelte';
	import Agree from '$lib/ui/retrospective/Agree.svelte';
	import { CarryNotes } from '$lib/ui/retrospective/carry-notes.svelte';
	import FaceDown from '$lib/ui/retrospective/FaceDown.svelte';
	import Pile from '$lib/ui/retrospective/Pile.svelte';
	import WriteNote from '$lib/ui/retrospective/WriteNote.svelte';
	import { Writing } from '$lib/ui/retrospective/writing.svelte';
	import { send } from '$lib/ui/send';
	import { count } from '$lib/ui/words';

	let { data } = $props();
	const board = getContext<BoardState>('board');
	const head = $derived(board.head);
	const retro = $derived(data.retro);
	const phase = $derived(retro.phase);
	const lead = $derived(head.role === 'lead');
	const works = $derived(head.role !== 'viewer');
	let problem = $state('');
	let said = $state('');

	const of = $derived({ board: head.id, retrospective: retro.id });
	async function tell<C extends Command>(command: C, input: CommandInput<C>, done = ''): Promise<boolean> {
		const sent = await send(command, input);
		problem = sent.ok ? '' : sent.refusal.title;
		said = sent.ok ? done : '';
		await reread('harrow:retrospective');
		return sent.ok;
	}

	const writing = new Writing(
		() => head.id,
		() => retro,
		tell,
	);
	const lay = (note: string, on: string | null, place?: number) =>
		tell('LayNote', { ...of, note, on, ...(place === undefined ? {} : { place }) });
	const left = $derived(retro.votes - retro.given);
	const vote = (note: RetroNote, by: number) =>
		tell('VoteNote', { ...of, note: note.id, votes: note.given + by });

	let columns = $state<HTMLElement>();
	const carry = new CarryNotes((note, on, place) => void lay(note, on, place));
	$effect(() => (columns && phase === 'lay' && works ? carry.attach(columns) : undefined));

	const actionDone = (action: RetroAction, done: boolean) =>
		tell('ChangeAction', { board: head.id, action: action.id, version: action.version, done });
	const takeBack = (action: RetroAction) =>
		tell('ChangeAction', { board: head.id, action: action.id, version: action.version, withdrawn: true });
	const total = $derived(fsum(retro.down));
	const tops = $derived(retro.notes.filter((note) => note.on === null));
	const seedOf = (name: string | undefined) =>
		Math.max(
			0,
			head.people.findIndex((one) => one.name === name),
		);
</script>

<Places board={head} here="look-back">
	<span class="files">
		<a class="link" href="/boards/{head.slug}/retrospectives">All retrospectives</a>
		{#if phase !== 'write'}<a
				class="link"
				download
				href="/boards/{head.slug}/retrospectives/{retro.number}/file">Markdown</a
			>{/if}
	</span>
</Places>
<div class="page">
	<div class="top">
		<h1>
			Retrospective {retro.number}{retro.sprint === null
				? ''
				: `, of ${head.sprintName.toLowerCase()} ${retro.sprint}`}
		</h1>
		<ol aria-label="How it goes">
			{#each PHASES as one (one)}<li aria-current={one === phase ? 'step' : undefined}>
					{PHASE_WORDS[one].called}
				</li>{/each}
		</ol>
		{#if lead && phaseAfter(phase)}<button
				type="button"
				class="go"
				onclick={() => void tell('MoveRetrospective', { ...of, from: phase })}>{PHASE_WORDS[phase].on}</button
			>{/if}
	</div>
	<p class="sentence">
		{PHASE_WORDS[phase].does}
		{#if phase === 'write'}<b>{count(total, 'note')}</b>
			{total === 1 ? 'lies' : 'lie'} here so far{retro.anonymous
				? '. It is stored nowhere whose they are'
				: ''}.
		{:else if phase === 'vote'}<b
				>{left
					? `${count(left, 'vote')} of yours ${left === 1 ? 'is' : 'are'} left`
					: 'All your votes are given'}.</b
			>
			{count(retro.voters, 'person has', 'people have')} voted.{/if}
	</p>
	<div class="told" aria-live="polite">
		{#if problem}<p class="warn" role="alert">{problem}</p>{/if}
		{#if said}<p>{said}</p>{/if}
	</div>
	<div class="all">
		<aside aria-labelledby="facts">
			<h2 id="facts">To talk about</h2>
			<ul>
				{#each retro.facts as { words, href } (words)}<li><a {href}>{words}</a></li>{/each}
			</ul>
		</aside>
		<div class="rest">
			{#if retro.before.length}<section aria-labelledby="before">
					<h2 id="before">Agreed last time</h2>
					<ul>
						{#each retro.before as action (action.id)}<Action
								{action}
								seed={seedOf(action.owner?.name)}
								slug={head.slug}
								today={data.today}
								changes={works}
								ondone={(done) => void actionDone(action, done)}
							/>{/each}
					</ul>
				</section>{/if}
			{#if phase !== 'write' && (retro.actions.length || phase !== 'closed')}
				<section class="agreed" aria-labelledby="agreed">
					<h2 id="agreed">{phase === 'closed' ? 'Agreed' : 'Agreed now'}</h2>
					{#if retro.actions.length}<ul>
							{#each retro.actions as action (action.id)}<Action
									{action}
									seed={seedOf(action.owner?.name)}
									slug={head.slug}
									today={data.today}
									changes={works}
									ondone={(done) => void actionDone(action, done)}
									onwithdraw={phase === 'closed' ? undefined : () => void takeBack(action)}
								/>{/each}
						</ul>{/if}
					{#if works && phase !== 'closed'}<Agree
							people={head.people}
							today={data.today}
							onagree={(agreed) => tell('AgreeAction', { ...of, ...agreed }, 'Agreed.')}
						/>{/if}
				</section>
			{/if}
			<div class="columns" style:--columns={retro.columns.length} bind:this={columns}>
				{#each retro.columns as name, place (place)}
					<section data-place={place} aria-label={name}>
						<h2>{name}</h2>
						{#if phase === 'write' || phase === 'lay'}<WriteNote {name} {place} {writing} />{/if}
						{#if phase === 'write'}<FaceDown {place} down={retro.down[place] ?? 0} {writing} />
						{:else}
							{#each pilesOf(retro.notes, place) as pile (pile.top.id)}<Pile
									{pile}
									{phase}
									{works}
									{left}
									{tops}
									moving={carry.moving}
									over={carry.over}
									{seedOf}
									onchange={(note, words) => void writing.change(note, place, words)}
									onlay={(note, on) => void lay(note, on)}
									onvote={(note, by) => void vote(note, by)}
								/>{:else}<p class="soft">Nothing was written here.</p>{/each}
						{/if}
					</section>
				{/each}
			</div>
		</div>
	</div>
</div>

<style>
	.page {
		padding: 0 20px 40px;
	}
	.files {
		display: flex;
		gap: 16px;
	}
	.top {
		display: flex;
		flex-wrap: wrap;
		gap: 6px 24px;
		align-items: center;
		padding-top: 8px;
	}
	h1 {
		font-size: 1.35rem;
	}
	ol {
		display: flex;
		flex-wrap: wrap;
		gap: 4px 18px;
		flex: 1 0 320px;
		color: var(--soft);
	}
	ol li[aria-current] {
		color: var(--ink);
		font-weight: 700;
		box-shadow: 0 3px 0 var(--wheat);
	}
	.sentence {
		margin: 0;
		padding: 6px 0;
	}
	.told p {
		margin: 0 0 6px;
	}
	.all {
		display: grid;
		grid-template-columns: 230px minmax(0, 1fr);
		gap: 24px;
	}
	h2 {
		font-size: 1.1rem;
		margin: 10px 0 4px;
	}
	aside li {
		border-top: 1px dotted var(--rule);
	}
	aside a {
		display: block;
		min-height: var(--touch, auto);
		align-content: center;
		padding: 7px 0;
		color: inherit;
		text-decoration: none;
	}
	aside a:hover {
		text-decoration: underline;
	}
	.agreed {
		padding: 0 12px 6px;
		border-left: 4px solid var(--moss);
		background: var(--sheet);
	}
	.columns {
		display: grid;
		grid-template-columns: repeat(var(--columns), minmax(180px, 1fr));
		gap: 18px;
	}
	.columns section {
		display: flex;
		flex-direction: column;
		gap: 8px;
		min-width: 0;
		min-height: 160px;
	}
	.columns h2 {
		border-bottom: 3px solid var(--wheat);
	}
	.soft {
		margin: 0;
	}
	@media (max-width: 900px) {
		.all {
			grid-template-columns: minmax(0, 1fr);
			gap: 8px;
		}
		aside {
			order: 2;
		}
		.columns {
			grid-template-columns: minmax(0, 1fr);
		}
	}
</style>
