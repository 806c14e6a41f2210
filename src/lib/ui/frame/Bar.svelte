<script lang="ts">
	import { forgetDrafts } from '../drafts';
	import { page } from '$app/state';
	import type { Snippet } from 'svelte';
	import Find from './Find.svelte';
	import Menu from './Menu.svelte';
	import Mark from './Mark.svelte';

	interface Props {
		person: { name: string; initials: string };
		/** The board, or of a team's own page only the team. */
		here?: {
			team: string;
			name: string;
			id?: string;
			slug?: string;
			teamId?: string;
			sprintDays?: number | null;
			role?: string;
		};
		boards?: { name: string; slug: string; team: string }[];
		keysOn?: boolean;
		/** What stands beside the name of the board. */
		beside?: Snippet;
	}
	let { person, here, boards = [], keysOn = true, beside }: Props = $props();

	function choose(name: 'theme' | 'density', value: string) {
		document.cookie = `harrow_${name}=${value}; path=/; max-age=31536000; samesite=lax`;
		document.documentElement.dataset[name] = value;
	}
	const LOOKS = [
		['theme', 'light', 'Light'],
		['theme', 'dark', 'Dark'],
		['theme', '', 'As this device has it'],
		['density', 'compact', 'Smaller text'],
		['density', '', 'Usual text'],
		['density', 'comfortable', 'Larger text'],
	] as const;
</script>

<header class="bar screen-only">
	<a class="mark reach" href="/" aria-label="Harrow, all boards">
		<Mark width={20} />
		<span class="name">Harrow</span>
	</a>
	{#if here}
		<Menu id="boards-menu" look="words">
			{#snippet button()}<span class="team">{here.team} /</span> <b>{here.name}</b>
				<span aria-hidden="true">▾</span>{/snippet}
			{#snippet children(close)}
				{#each boards as board (board.slug)}<a href="/boards/{board.slug}" onclick={close}>{board.name}</a
					>{/each}
				<a href="/" onclick={close}>All boards</a>
			{/snippet}
		</Menu>
	{/if}
	{@render beside?.()}
	<span class="space"></span>
	<Find
		slug={here?.slug}
		board={here?.role && here.role !== 'viewer' ? here.id : undefined}
		team={here?.teamId}
		sprints={here?.sprintDays != null}
		lead={here?.role === 'lead'}
		{keysOn}
	/>
	{#if page.data.timer}{#await import('../time/Timer.svelte') then { default: Timer }}<Timer
				timer={page.data.timer}
			/>{/await}{/if}
	<a class="mine" href="/mine">My cards</a>
	{#if page.data.notices}{@const { asks, unread } = page.data.notices}<a
			class="notices"
			class:asks
			href="/notices"
			title={asks ? `${asks} ${asks === 1 ? 'question waits' : 'questions wait'} for your answer` : undefined}
			>Notices<span class="sign" aria-hidden="true">{asks || (unread ? '•' : '–')}</span>
			<span class="sr-only"
				>{asks ? `, ${asks} asked of you` : ''}{unread ? `, ${unread} not read` : ', all read'}</span
			></a
		>{/if}
	<Menu id="you-menu" look="tag" label="{person.initials}, you: {person.name}">
		{#snippet button()}<span aria-hidden="true">{person.initials}</span>{/snippet}
		{#snippet children(close)}
			<a href="/you" onclick={close}>{person.name}: you, sessions, tokens and keys</a>
			{#each LOOKS as [name, value, words] (words)}
				<button
					type="button"
					onclick={() => {
						choose(name, value);
						close();
					}}>{words}</button
				>
			{/each}
			<form method="POST" action="/sign-out" onsubmit={forgetDrafts}><button>Sign out</button></form>
		{/snippet}
	</Menu>
</header>

<style>
	.bar {
		position: relative;
		display: flex;
		align-items: center;
		gap: 16px;
		min-height: max(42px, var(--touch, 0px));
		padding: 0 20px;
		background: var(--soil);
		color: var(--soil-ink);
		flex: none;
	}
	.mark {
		display: flex;
		gap: 8px;
		align-items: center;
		min-height: max(42px, var(--touch, 0px));
		color: var(--wheat);
		text-decoration: none;
	}
	.name {
		color: var(--soil-ink);
		font: 700 17px var(--display);
	}
	.space {
		flex: 1;
	}
	.mine,
	.notices {
		display: flex;
		align-items: center;
		gap: 7px;
		min-height: max(42px, var(--touch, 0px));
		color: inherit;
		text-decoration: none;
	}
	.mine:hover,
	.notices:hover {
		text-decoration: underline;
	}
	.sign {
		min-width: 20px;
		padding: 0 5px;
		border: 1px solid color-mix(in srgb, currentColor 45%, transparent);
		border-radius: 3px;
		text-align: center;
		font-size: 12px;
		line-height: 19px;
		font-weight: 700;
	}
	.asks .sign {
		background: var(--wheat);
		color: var(--soil);
		border-color: var(--wheat);
	}
	.bar :focus-visible {
		outline-color: var(--wheat);
	}
	@media (max-width: 700px) {
		.bar {
			padding: 0 12px;
			gap: 10px;
		}
		/* On a phone they stand at the foot. */
		.mine,
		.notices,
		.name,
		.team {
			display: none;
		}
	}
</style>
