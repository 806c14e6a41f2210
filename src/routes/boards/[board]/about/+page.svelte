<script lang="ts">
	import { getContext, untrack } from 'svelte';
	import { NO_FILTER, passing, withCondition, writeFilter, type Filter } from '$core/board/filter';
	import { leftOf } from '$core/board/left';
	import { page } from '$app/state';
	import NameTag from '$lib/ui/board/NameTag.svelte';
	import type { BoardState } from '$lib/ui/board/board-state.svelte';
	import { className } from '$lib/ui/classes';
	import Written from '$lib/ui/form/Written.svelte';
	import OwnPage from '$lib/ui/page/OwnPage.svelte';
	import Places from '$lib/ui/frame/Places.svelte';
	import { initiativeAddress, initiativeWords } from '$lib/ui/initiative-words';
	import { amount, count, list } from '$lib/ui/words';

	let { data } = $props();
	const board = getContext<BoardState>('board');
	untrack(() => board.load(data.board));
	$effect.pre(() => {
		const { board: cards } = data;
		untrack(() => board.load(cards));
	});
	const head = $derived(board.head);
	const running = $derived(head.sprints.find((sprint) => sprint.startedAt && !sprint.closedAt));
	/** Cards in columns that are not done, as the board shows them: while a sprint runs, its own. */
	const unfinished = $derived(
		withCondition(
			NO_FILTER,
			'column',
			head.columns.flatMap(({ id, kind }) => (kind === 'done' ? id : [])),
			true,
		),
	);
	const those = (filter: Filter) =>
		[...board.columns.values()].flat().filter(passing(filter, board.fields, running?.number));
	const open = $derived(those(unfinished));
	/** How many of them a condition lets through, and where they are shown. */
	const like = (field: string, key: string) => {
		const filter = withCondition(unfinished, field, [key]);
		const url = writeFilter(new URL(`/boards/${head.slug}`, page.url), filter);
		return { cards: those(filter).length, to: url.pathname + url.search };
	};
	const whole = $derived.by(() => {
		const url = writeFilter(new URL(`/boards/${head.slug}?as=tally`, page.url), unfinished);
		return url.pathname + url.search;
	});
	const glance = $derived(
		[
			{ name: 'late', ...like('due', '~late') },
			{ name: 'blocked', ...like('blocked', 'yes') },
			{ name: 'of nobody', ...like('owners', '') },
			// Of fewer than ten cards nobody knows how long one takes.
			...(data.board.expectation
				? [{ name: 'older than most past cards took', ...like('age', '~old') }]
				: []),
		].filter(({ name }) => name !== 'late' || !head.off.includes('dates')),
	);
	const left = $derived(leftOf(open));
	const share = (n: number) => (open.length ? ` (${Math.round((n / open.length) * 100)}%)` : '');
	const shared = $derived(head.lenses.filter((lens) => lens.shared));
	const about = $derived(data.about);
	let shifting = $state(false);
	const lead = $derived(head.role === 'lead' && !head.away);
	const people = $derived(head.people.filter((person) => !person.gone));
	const ROLES = { lead: 'leads', member: 'works on it', viewer: 'looks on' };
	const KINDS = { queue: 'cards wait', work: 'cards are worked on', done: 'cards are done' };
	const SEEN = {
		team: 'its team',
		named: 'named people of its team',
		'signed-in': 'everyone who is signed in',
	};

	/** How it works, in a sentence or two. */
	const words = $derived(
		[
			`Cards are called ${head.key}-1 and on, and ${head.unit === 'none' ? 'are not sized' : `sized in ${head.unit}`}.`,
			head.sprintDays === null
				? 'They flow without sprints.'
				: `A ${head.sprintName.toLowerCase()} starts every ${head.sprintDays % 7 ? count(head.sprintDays, 'day') : count(head.sprintDays / 7, 'week')}.`,
			head.personLimit === null ? '' : `One person has at most ${count(head.personLimit, 'card')} in hand.`,
			`${head.name} is seen by ${SEEN[about.visibleTo]}${about.changedBy === 'named' ? ', and changed by leads and named members' : ''}.`,
		]
			.filter(Boolean)
			.join(' '),
	);
	async function keep(purpose: string): Promise<boolean> {
		const sent = await board.ask('ChangeBoard', { board: head.id, purpose });
		if (sent.ok) board.tell({ tone: 'done', text: 'What the board is for is kept.', undo: sent.answer.id });
		return sent.ok;
	}
</script>

{#if shifting}
	{#await import('$lib/ui/dialogs/ShiftDialog.svelte') then { default: ShiftDialog }}
		<ShiftDialog
			{board}
			of="board"
			called={head.name}
			today={data.today}
			onclose={() => (shifting = false)}
		/>
	{/await}
{/if}
<Places board={head} here="about">
	<span class="links">
		{#if head.role !== 'viewer' && !head.away && !head.off.includes('dates')}<button
				type="button"
				class="link"
				onclick={() => (shifting = true)}>Shift its dates</button
			>{/if}
		<a class="link" href="/activity?board={head.slug}">What was done lately</a>
	</span>
</Places>
<p class="sentence">{words}</p>
<div class="page">
	<div class="about">
		<section class="purpose">
			{#key head.id}<Written
					title="What {head.name} is for"
					of="board-{head.slug}"
					text={about.purpose}
					mayEdit={lead}
					onkeep={keep}
				/>{/key}
		</section>
		<section aria-labelledby="about-now">
			<h2 id="about-now">At a glance</h2>
			<p>
				<a href={whole}>{count(open.length, 'open card')}</a>{running
					? ` of ${head.sprintName.toLowerCase()} ${running.number}`
					: ' in its columns'}{head.unit === 'none' ? '' : `, ${amount(left, head.unit)} left`}; of them
				{#each glance as { name, cards, to }, i (name)}{i ? (i < glance.length - 1 ? ', ' : ' and ') : ''}<a
						href={to}>{cards} {name}</a
					>{share(cards)}{/each}.
			</p>
			<p>
				<a href="/boards/{head.slug}?as=tally&rows=owners&across=column">Who has what where</a
				>{#if head.unit !== 'none'},
					<a href="/boards/{head.slug}?as=tally&rows=owners&across=class&of=left"
						>what is left by person and class</a
					>{/if}{#each shared as lens (lens.id)}, <a href="/boards/{head.slug}?{lens.query}">{lens.name}</a
					>{/each}.
			</p>
		</section>
		<section aria-labelledby="about-columns">
			<h2 id="about-columns">How a card goes</h2>
			<ol>
				{#each head.columns.filter((column) => !column.hidden) as column (column.id)}
					<li class={column.kind}>
						<b>{column.name}</b>
						<small
							>{KINDS[column.kind]}{column.limit ? `, ${count(column.limit, 'slot')}` : ''}{column.commitment
								? '; the clock starts here'
								: ''}</small
						>
						{#if column.policy}<p>{column.policy}</p>{/if}
					</li>
				{/each}
			</ol>
			{#if head.lanes.length}
				<h3>Lanes across them</h3>
				<ul>
					{#each head.lanes as lane (lane.id)}<li>
							<b>{lane.name}</b>
							<small
								>{lane.class
									? `all cards of the class ${className(lane.class)}`
									: 'what is put there'}{lane.limit ? `, ${count(lane.limit, 'slot')}` : ''}</small
							>
						</li>{/each}
				</ul>
			{/if}
		</section>
		<section aria-labelledby="about-people">
			<h2 id="about-people">Who</h2>
			<ul>
				{#each people as person, seed (person.id)}<li class="person">
						<NameTag {person} {seed} /> <span aria-hidden="true">{person.name}</span>
						<small>{[person.title, ROLES[person.role]].filter(Boolean).join(', ')}</small>
					</li>{/each}
			</ul>
		</section>
		{#if head.types.length && !head.off.includes('types')}
			<section aria-labelledby="about-kinds">
				<h2 id="about-kinds">Kinds of card</h2>
				<ul>
					{#each head.types as type (type.name)}<li>
							<b>{type.name}</b>
							<small
								>{[
									...(type.size !== null && head.unit !== 'none' ? [amount(type.size, head.unit)] : []),
									...(type.class ? [className(type.class)] : []),
									...(type.checklist.length ? [`done when: ${list(type.checklist)}`] : []),
								].join(', ')}</small
							>
						</li>{/each}
				</ul>
			</section>
		{/if}
		{#if head.initiatives.length}
			<section aria-labelledby="about-initiatives">
				<h2 id="about-initiatives">Initiatives</h2>
				<ul>
					{#each head.initiatives as name (name)}<li>
							<a href={initiativeAddress(head.slug, name)}>{name}</a>
							<small
								>{about.initiatives[name]
									? initiativeWords(about.initiatives[name], head.people, data.today)
									: ''}</small
							>
						</li>{/each}
				</ul>
			</section>
		{/if}
	</div>
	<section class="own" aria-label="Notes, files and talk">
		<OwnPage {board} page={data.own} />
	</section>
</div>

<style>
	.links {
		display: flex;
		flex-wrap: wrap;
		gap: 0 18px;
	}
	.links .link {
		min-height: max(24px, var(--touch, 0px));
		align-content: center;
	}
	.sentence {
		margin: 0;
		padding: 9px 20px 8px;
		flex: none;
	}
	.page {
		padding: 0 20px 40px;
	}
	.about {
		columns: 2 420px;
		column-gap: 44px;
	}
	.own {
		max-width: 720px;
	}
	section {
		break-inside: avoid;
		margin-bottom: 24px;
	}
	.purpose :global(h3:first-child) {
		margin-top: 0;
	}
	h2 {
		font-size: 1.15rem;
		margin-bottom: 4px;
	}
	h3 {
		font-size: 1rem;
		margin: 12px 0 2px;
	}
	li {
		padding: 5px 0 5px 10px;
		border-left: 1px solid var(--edge);
		margin-bottom: 3px;
	}
	ul li > a {
		display: inline-block;
		min-height: var(--touch, auto);
		align-content: center;
	}
	.queue {
		border-left-style: dashed;
	}
	.done {
		border-left: 4px solid var(--moss);
	}
	ul li {
		border-left: 0;
		padding-left: 0;
		border-bottom: 1px dotted var(--rule);
	}
	.person {
		display: flex;
		gap: 8px;
		align-items: center;
	}
	small {
		color: var(--soft);
	}
	section > p {
		margin: 0 0 6px;
	}
	section > p a {
		color: var(--moss);
		text-underline-offset: 3px;
	}
	li p {
		margin: 2px 0 0;
	}
	@media (max-width: 700px) {
		.sentence {
			padding: 8px 14px 4px;
		}
		.page {
			padding: 0 14px 30px;
		}
	}
</style>
