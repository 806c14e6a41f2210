<script lang="ts">
	import { getContext } from 'svelte';
	import NameTag from '$lib/ui/board/NameTag.svelte';
	import type { BoardState } from '$lib/ui/board/board-state.svelte';
	import { className } from '$lib/ui/classes';
	import Written from '$lib/ui/form/Written.svelte';
	import Places from '$lib/ui/frame/Places.svelte';
	import { initiativeWords } from '$lib/ui/initiative-words';
	import { amount, count, list } from '$lib/ui/words';

	let { data } = $props();
	const board = getContext<BoardState>('board');
	const head = $derived(board.head);
	const about = $derived(data.about);
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

<Places board={head} here="about" />
<p class="sentence">{words}</p>
<div class="page">
	<section class="purpose">
		{#key head.id}<Written
				title="What {head.name} is for"
				of="board-{head.slug}"
				text={about.purpose}
				mayEdit={lead}
				onkeep={keep}
			/>{/key}
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
						<a href="/boards/{head.slug}/backlog?group=initiative">{name}</a>
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

<style>
	.sentence {
		margin: 0;
		padding: 9px 20px 8px;
		flex: none;
	}
	.page {
		flex: 1;
		min-height: 0;
		overflow-y: auto;
		padding: 0 20px 40px;
		columns: 2 420px;
		column-gap: 44px;
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
	ul,
	ol {
		list-style: none;
		margin: 0;
		padding: 0;
	}
	li {
		padding: 5px 0 5px 10px;
		border-left: 1px solid var(--edge);
		margin-bottom: 3px;
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
