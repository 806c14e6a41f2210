<script lang="ts">
	import type { TeamPage } from '$core/pages/people';
	import type { Tell } from './tell';

	let { team, lead, tell }: { team: TeamPage; lead: boolean; tell: Tell } = $props();
	const shown = $derived(team.boards.filter((board) => !board.away));
	const away = $derived(team.boards.filter((board) => board.away));
</script>

<section aria-labelledby="team-boards">
	<h2 id="team-boards">Boards</h2>
	<ul>
		{#each shown as board, i (board.id)}
			<li>
				<a href="/boards/{board.slug}">{board.name}</a> <small>{board.key}</small>
				{#if lead}<span class="acts">
						{#if i}<button
								type="button"
								class="link"
								aria-label="{board.name} one up"
								onclick={() =>
									void tell('ChangeBoard', { board: board.id, place: i - 1 }, 'The order is kept.')}
								>Up</button
							>{/if}
						<a class="link" href="/boards/{board.slug}/set-up">Set-up</a>
						<button
							type="button"
							class="link"
							aria-label="Put away {board.name}"
							onclick={() =>
								void tell('ChangeBoard', { board: board.id, away: true }, `${board.name} is put away.`)}
							>Put away</button
						></span
					>{/if}
			</li>
		{:else}<li>None yet.</li>{/each}
	</ul>
	{#if lead}<p class="make"><a class="link" href="/teams/{team.id}/new-board">Make a board</a></p>{/if}
	{#if away.length}
		<h3>Put away</h3>
		<ul>
			{#each away as board (board.id)}
				<li>
					<a href="/boards/{board.slug}">{board.name}</a> <small>{board.key}</small>
					{#if lead}<span class="acts"
							><button
								type="button"
								class="link"
								aria-label="Bring back {board.name}"
								onclick={() =>
									void tell('ChangeBoard', { board: board.id, away: false }, `${board.name} is back.`)}
								>Bring back</button
							></span
						>{/if}
				</li>
			{/each}
		</ul>
	{/if}
</section>

<style>
	.make .link {
		display: inline-block;
		padding: 6px 0;
	}
	h2 {
		font-size: 1.15rem;
		margin: 12px 0 4px;
	}
	h3 {
		font-size: 1rem;
		margin: 14px 0 2px;
		color: var(--soft);
	}
	li {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 2px 8px;
		min-height: max(42px, var(--touch, 0px));
		border-top: 1px dotted var(--rule);
	}
	li > a {
		min-height: var(--touch, auto);
		align-content: center;
		font-weight: 600;
		text-underline-offset: 3px;
	}
	small {
		color: var(--soft);
	}
	.acts {
		margin-left: auto;
		display: flex;
		gap: 12px;
	}
	p {
		margin: 8px 0 0;
	}
</style>
