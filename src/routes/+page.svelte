<script lang="ts">
	import { fsum } from 'd3-array';
	import type { HomeBoard } from '$core/pages/home';
	import Bar from '$lib/ui/frame/Bar.svelte';
	import { keys } from '$lib/ui/frame/keys.svelte';
	import { count, dateWords } from '$lib/ui/words';

	let { data } = $props();
	const home = $derived(data.home);
	/** One's own teams, and below them the boards of others that are open to everyone. */
	const groups = $derived([
		...home.teams.map((team) => ({ ...team, boards: home.boards.filter((board) => board.team === team.id) })),
		...[...new Set(home.boards.filter((board) => !board.team).map((board) => board.teamName))].map(
			(name) => ({
				id: null,
				name,
				role: 'viewer' as const,
				boards: home.boards.filter((board) => !board.team && board.teamName === name),
			}),
		),
	]);
	const mine = $derived(fsum(home.boards, (board) => board.mine));
	const asking = $derived(home.boards.filter((board) => asks(board).some(({ tone }) => tone)).length);

	/** What a board asks for today, in a few words, each leading to where it is done. */
	function asks(board: HomeBoard): { text: string; to: string; tone: '' | 'warn' | 'care' }[] {
		const at = `/boards/${board.slug}`;
		const { sprint } = board;
		const said: { text: string; to: string; tone: '' | 'warn' | 'care' }[] = [];
		if (sprint?.over)
			said.push({
				text: `${sprint.name} ${sprint.number} is over: settle it`,
				to: `${at}/settle`,
				tone: 'warn',
			});
		else if (sprint)
			said.push({
				text: `${sprint.name} ${sprint.number} until ${dateWords(sprint.ends, home.today)}`,
				to: at,
				tone: '',
			});
		if (board.blocked) said.push({ text: `${board.blocked} blocked`, to: `${at}/rounds`, tone: 'warn' });
		if (board.late) said.push({ text: `${board.late} late`, to: `${at}/rounds`, tone: 'warn' });
		if (board.mine)
			said.push({ text: `${count(board.mine, 'card')} of yours in hand`, to: at, tone: 'care' });
		if (!board.open) said.push({ text: 'no cards yet', to: `${at}/backlog`, tone: '' });
		return said;
	}
</script>

<Bar person={data.person!} keysOn={keys.on} />
<main>
	<p class="sentence">
		{#if !home.boards.length && !home.teams.length}<b>You are in no team yet.</b> Open the link of an invitation,
			or make a team of your own.
		{:else if !home.boards.length}<b>No boards yet.</b> Make one from a template: it takes a minute.
		{:else}<b>{count(home.boards.length, 'board')}</b>{home.teams.length > 1
				? ` of ${count(home.teams.length, 'team')}`
				: ''}{asking
				? `; ${asking === 1 ? 'one asks' : `${asking} ask`} for something today`
				: '; none asks for anything today'}.
			{mine
				? `${count(mine, 'card')} of yours ${mine === 1 ? 'is' : 'are'} in hand.`
				: 'Nothing of yours is in hand.'}
		{/if}
	</p>
	{#each groups as group (group.id ?? group.name)}
		<section aria-labelledby="team-{group.id ?? group.name}">
			<div class="head">
				<h1 id="team-{group.id ?? group.name}">{group.name}</h1>
				{#if group.id}<nav aria-label="Pages of {group.name}">
						<a href="/teams/{group.id}">Team</a>
						<a href="/teams/{group.id}/people">People</a>
						<a href="/teams/{group.id}/timesheet">Timesheet</a>
						<a href="/teams/{group.id}/account">Account</a>
						{#if group.role === 'lead'}<a class="make" href="/teams/{group.id}/new-board">Make a board</a
							>{/if}
					</nav>{:else}<span class="soft">open to everyone here</span>{/if}
			</div>
			<ul>
				{#each group.boards as board (board.slug)}
					<li>
						<div>
							<a class="board" href="/boards/{board.slug}">{board.name}</a> <small>{board.key}</small>
							{#if board.purpose}<p>{board.purpose.split('\n')[0]}</p>{/if}
						</div>
						<p class="asks">
							{#each asks(board) as { text, to, tone }, i (text)}{i ? ', ' : ''}<a href={to} class={tone}
									>{text}</a
								>{/each}
						</p>
					</li>
				{:else}<li class="soft">
						No board yet{group.role === 'lead'
							? ': make one from a template'
							: '. A lead of the team makes one'}.
					</li>{/each}
			</ul>
		</section>
	{/each}
	<p class="ways">
		<a class="link" href="/teams/new">Make a team</a>
		<a class="link" href="/activity">What was done lately</a>
		<a class="link" href="/asked">Ask another team for something</a>
	</p>
</main>

<style>
	main {
		width: min(920px, 100%);
		margin: 0 auto;
		padding: 12px 20px 40px;
	}
	.ways {
		display: flex;
		gap: 20px;
	}
	.sentence {
		margin: 0 0 10px;
	}
	section {
		margin-top: 20px;
	}
	.head {
		display: flex;
		flex-wrap: wrap;
		align-items: baseline;
		gap: 4px 18px;
	}
	h1 {
		font-size: 1.5rem;
	}
	nav {
		display: flex;
		flex-wrap: wrap;
		gap: 2px 14px;
	}
	nav a {
		color: var(--moss);
		text-underline-offset: 3px;
	}
	.make {
		font-weight: 650;
	}
	ul {
		margin: 8px 0 0;
	}
	li {
		display: grid;
		grid-template-columns: minmax(0, 1fr) minmax(0, 320px);
		gap: 2px 24px;
		padding: 9px 0;
		border-top: 1px solid var(--rule);
	}
	.board {
		font: 650 1.2rem var(--display);
		color: var(--moss);
		text-underline-offset: 3px;
	}
	small,
	li p {
		color: var(--soft);
	}
	li p {
		margin: 1px 0 0;
	}
	.asks {
		padding-top: 3px;
	}
	.asks a {
		text-decoration-thickness: 1px;
		text-underline-offset: 3px;
	}
	@media (max-width: 700px) {
		main {
			padding: 10px 14px 40px;
		}
		li {
			grid-template-columns: 1fr;
		}
	}
	@media (pointer: coarse) {
		nav a,
		.board,
		.asks a {
			display: inline-block;
			min-width: 44px;
			padding: 12px 0;
		}
	}
</style>
