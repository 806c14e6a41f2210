<script lang="ts">
	import { fsum } from 'd3-array';
	import { getContext, untrack } from 'svelte';
	import { SvelteSet } from 'svelte/reactivity';
	import type { RetroAction, RetroNote } from '$core/pages/retrospective';
	import { PHASE_WORDS, PHASES, phaseAfter, pilesOf } from '$core/retrospective/phases';
	import type { Command, CommandInput } from '$lib/commands';
	import type { BoardState } from '$lib/ui/board/board-state.svelte';
	import { dragNotes } from '$lib/ui/board/drag';
	import { draftOf, keepDraft } from '$lib/ui/drafts';
	import Places from '$lib/ui/frame/Places.svelte';
	import { reread } from '$lib/ui/frame/reread';
	import Action from '$lib/ui/retrospective/Action.svelte';
	import Agree from '$lib/ui/retrospective/Agree.svelte';
	import Note from '$lib/ui/retrospective/Note.svelte';
	import { OwnNotes } from '$lib/ui/retrospective/own-notes.svelte';
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

	const own = $derived(new OwnNotes(retro.id));
	$effect(() => {
		if (phase !== 'write') untrack(() => own.forget());
	});

	const of = $derived({ board: head.id, retrospective: retro.id });
	async function tell<C extends Command>(command: C, input: CommandInput<C>, done = ''): Promise<boolean> {
		const sent = await send(command, input);
		problem = sent.ok ? '' : sent.refusal.title;
		said = sent.ok ? done : '';
		await reread('harrow:retrospective');
		return sent.ok;
	}

	/** What is begun and not written yet, column by column. */
	let begun = $state<Record<number, string>>({});
	$effect(() => {
		const drafts = retro.columns.map((_, place) => draftOf(`note-${retro.id}-${place}`) ?? '');
		untrack(() => (begun = Object.fromEntries(drafts.entries())));
	});
	const writing = new SvelteSet<number>();
	async function write(place: number): Promise<void> {
		const words = (begun[place] ?? '').trim();
		if (!words || writing.has(place)) return;
		writing.add(place);
		const key = retro.anonymous && phase === 'write' ? OwnNotes.key() : undefined;
		if (await tell('WriteNote', { ...of, place, words, ...(key ? { key } : {}) })) {
			if (key) own.put({ key, place, words });
			begun[place] = '';
			keepDraft(`note-${retro.id}-${place}`, null);
		}
		writing.delete(place);
	}
	/** One’s own notes of a column that lie face down. */
	const mineIn = (place: number): { id: string; key?: string; words: string }[] =>
		retro.anonymous
			? own.list.filter((note) => note.place === place).map(({ key, words }) => ({ id: key, key, words }))
			: retro.notes.filter((note) => note.place === place);
	const named = ({ id, key }: { id: string; key?: string }) => (key ? { key } : { note: id });
	async function change(note: { id: string; key?: string }, place: number, words: string): Promise<void> {
		if ((await tell('ChangeNote', { ...of, ...named(note), words })) && note.key)
			own.put({ key: note.key, place, words });
	}
	async function withdraw(note: { id: string; key?: string }): Promise<void> {
		if ((await tell('WithdrawNote', { ...of, ...named(note) })) && note.key) own.take(note.key);
	}

	const lay = (note: string, on: string | null, place?: number) =>
		tell('LayNote', { ...of, note, on, ...(place === undefined ? {} : { place }) });
	const left = $derived(retro.votes - retro.given);
	const vote = (note: RetroNote, by: number) =>
		tell('VoteNote', { ...of, note: note.id, votes: note.given + by });

	let columns = $state<HTMLElement>();
	let moving = $state('');
	let over = $state('');
	$effect(() => {
		if (!columns || phase !== 'lay' || !works) return;
		let target: { on: string | null; place?: number } | null = null;
		const stop = dragNotes(columns, {
			start: (id) => ((moving = id), (target = null)),
			move: (x, y) => {
				const under = document.elementFromPoint(x, y);
				const on = under?.closest<HTMLElement>('[data-note]')?.dataset.note;
				const place = under?.closest<HTMLElement>('[data-place]')?.dataset.place;
				over = on && on !== moving ? on : '';
				target = over
					? { on: over }
					: place !== undefined && on !== moving
						? { on: null, place: Number(place) }
						: null;
			},
			end: () => {
				const [note, to] = [moving, target];
				moving = over = '';
				if (to) void lay(note, to.on, to.place);
			},
		});
		return () => void stop.then((end) => end());
	});

	const actionDone = (action: RetroAction, done: boolean) =>
		tell('ChangeAction', { board: head.id, action: action.id, version: action.version, done });
	const takeBack = (action: RetroAction) =>
		tell('ChangeAction', { board: head.id, action: action.id, version: action.version, withdrawn: true });
	const total = $derived(fsum(retro.down));
	/** The note of which it is asked what it is laid on. */
	let laying = $state('');
	const tops = $derived(retro.notes.filter((note) => note.on === null));
	const seedOf = (name: string | undefined) =>
		Math.max(
			0,
			head.people.findIndex((one) => one.name === name),
		);
	const short = (words: string) => (words.length > 40 ? `${words.slice(0, 40).trimEnd()}…` : words);
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
						{#if phase === 'write' || phase === 'lay'}
							<form
								onsubmit={(event) => {
									event.preventDefault();
									void write(place);
								}}
							>
								<textarea
									aria-label="Write a note: {name}"
									rows="2"
									maxlength="500"
									placeholder="Write a note, Enter lays it down"
									bind:value={begun[place]}
									oninput={(event) =>
										keepDraft(`note-${retro.id}-${place}`, event.currentTarget.value || null)}
									onkeydown={(event) => {
										if (event.key !== 'Enter' || event.shiftKey || event.isComposing) return;
										event.preventDefault();
										void write(place);
									}}></textarea>
								<button class="link" disabled={!(begun[place] ?? '').trim()}>Lay it down</button>
							</form>
						{/if}
						{#if phase === 'write'}
							{@const mine = mineIn(place)}
							{#each mine as note (note.id)}<Note
									note={{ ...note, author: null, mine: true }}
									onchange={(words) => void change(note, place, words)}
									onwithdraw={() => void withdraw(note)}
								/>{/each}
							{@const others = Math.max(0, (retro.down[place] ?? 0) - mine.length)}
							{#if others}<div
									class="down"
									role="img"
									aria-label="{count(others, 'note')} of others, face down"
								>
									{#each { length: Math.min(others, 40) } as _, i (i)}<span></span>{/each}
								</div>{/if}
						{:else}
							{#each pilesOf(retro.notes, place) as { top, under, votes } (top.id)}
								<div class="pile" class:many={under.length}>
									<Note
										note={top}
										seed={seedOf(top.author?.name)}
										held={phase === 'lay' && works}
										moving={moving === top.id}
										over={over === top.id}
										onchange={phase === 'lay' && top.mine
											? (words) => void change(top, place, words)
											: undefined}
									>
										{#snippet foot()}
											{#if phase === 'lay' && tops.length > 1}{@render onto(top)}{/if}
											{#if phase === 'vote'}
												<span class="dots" role="img" aria-label="{top.given} of your votes"
													>{#each { length: top.given } as _, i (i)}<i></i>{/each}</span
												>
												{#if top.given}<button type="button" class="link" onclick={() => void vote(top, -1)}
														>Take one back<span class="sr-only">: {top.words}</span></button
													>{/if}
												{#if left}<button type="button" class="plain vote" onclick={() => void vote(top, 1)}
														>Vote<span class="sr-only">: {top.words}</span></button
													>{/if}
											{:else if votes}<span class="dots" role="img" aria-label={count(votes, 'vote')}
													>{#each { length: Math.min(votes, 30) } as _, i (i)}<i></i>{/each}</span
												>{/if}
										{/snippet}
									</Note>
									{#each under as note (note.id)}<div class="under">
											<Note
												{note}
												seed={seedOf(note.author?.name)}
												held={phase === 'lay' && works}
												moving={moving === note.id}
												onchange={phase === 'lay' && note.mine
													? (words) => void change(note, place, words)
													: undefined}
											>
												{#snippet foot()}{#if phase === 'lay'}<button
															type="button"
															class="link"
															onclick={() => void lay(note.id, null)}
															>By itself<span class="sr-only">: {note.words}</span></button
														>{/if}{/snippet}
											</Note>
										</div>{/each}
								</div>
							{:else}<p class="soft">Nothing was written here.</p>{/each}
						{/if}
					</section>
				{/each}
			</div>
		</div>
	</div>
</div>

{#snippet onto(note: RetroNote)}
	{#if laying === note.id}
		<select
			class="choice"
			aria-label="Lay it on: {note.words}"
			{@attach (box) => box.focus()}
			onblur={() => (laying = '')}
			onkeydown={(event) => event.key === 'Escape' && (laying = '')}
			onchange={(event) => {
				void lay(note.id, event.currentTarget.value);
				laying = '';
			}}
		>
			<option value="" disabled selected>lay it on…</option>
			{#each tops.filter(({ id }) => id !== note.id) as other (other.id)}<option value={other.id}
					>{short(other.words)}</option
				>{/each}
		</select>
	{:else}<button type="button" class="link" onclick={() => (laying = note.id)}
			>Lay on another<span class="sr-only">: {note.words}</span></button
		>{/if}
{/snippet}

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
	textarea {
		width: 100%;
		background: var(--sheet);
		border: 1px solid var(--edge);
		border-radius: 4px;
		resize: vertical;
	}
	form .link:disabled {
		visibility: hidden;
	}
	/* Face down: a furrowed back. */
	.down {
		display: flex;
		flex-wrap: wrap;
		gap: 6px;
	}
	.down span {
		width: 62px;
		height: 34px;
		border: 1px solid var(--rule);
		background: repeating-linear-gradient(115deg, var(--sheet) 0 5px, var(--rule) 5px 6px);
	}
	.many {
		border-bottom: 3px double var(--rule);
		padding-bottom: 4px;
	}
	.under {
		margin: 2px 0 0 14px;
	}
	.dots {
		display: inline-flex;
		flex-wrap: wrap;
		gap: 3px;
	}
	.dots i {
		width: 11px;
		height: 11px;
		border-radius: 2px 6px 2px 2px;
		background: var(--plum);
	}
	.vote {
		min-height: 28px;
		padding: 0 10px;
		margin-left: auto;
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
	@media (pointer: coarse) {
		.vote {
			min-height: 44px;
		}
	}
</style>
