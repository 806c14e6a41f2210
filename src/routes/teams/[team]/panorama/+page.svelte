<script lang="ts">
	import { goto } from '$app/navigation';
	import { page as here } from '$app/state';
	import { tick } from 'svelte';
	import { readAsked, writeAsked, type Asked } from '$core/panorama/asked';
	import type { CardColumns, NamedCards, PanoramaPage } from '$core/pages/panorama';
	import { cardsOf } from '$core/panorama/columns';
	import { boardsMeant } from '$core/panorama/rows';
	import TeamFrame from '$lib/ui/frame/TeamFrame.svelte';
	import { followTeam } from '$lib/ui/frame/team-stream';
	import { handOver } from '$lib/ui/hand-over';
	import Lenses from '$lib/ui/board/Lenses.svelte';
	import CardsBehind from '$lib/ui/behind/CardsBehind.svelte';
	import AskLine from '$lib/ui/panorama/AskLine.svelte';
	import Timeline from '$lib/ui/panorama/Timeline.svelte';
	import { cardAddress, namedOf, sentenceOf, type SaidPart } from '$lib/ui/panorama/words';
	import TeamKeys from '$lib/ui/team/TeamKeys.svelte';
	import Said from '$lib/ui/team/Said.svelte';
	import { Doing } from '$lib/ui/team/doing.svelte';
	import { ask } from '$lib/ui/send';

	let { data } = $props();
	const page = $derived<PanoramaPage>({
		...data.panorama,
		...cardsOf(JSON.parse(data.columns) as CardColumns),
	});
	const asked = $derived(readAsked(here.url.searchParams));
	const doing = new Doing('harrow:panorama');
	const team = $derived(page.team.id);
	$effect(() => followTeam(team, 'harrow:panorama'));
	/** Sprints of the first board that is shown and has some rule the picture. */
	const ruler = $derived.by(() => {
		const meant = boardsMeant(page, asked);
		return (
			page.boards.find(({ id }) => meant.has(id) && page.sprints.some(({ board }) => board === id))?.id ??
			null
		);
	});
	const said = $derived(sentenceOf(page, asked));
	const address = (change: Partial<Asked>) => `?${writeAsked(here.url.searchParams, change)}`;
	const onask = (change: Partial<Asked>) =>
		void goto(address(change), { keepFocus: true, noScroll: true, replaceState: true });
	/** The milestone that is open; a new one where it has no id. */
	let milestone = $state.raw<{ id: string | null } | null>(null);

	/** The figure whose cards are looked at; those that stand on no page are asked for. */
	let figure = $state.raw<{ title: string; loose: NamedCards | null } | null>(null);
	const behind = $derived.by(() => {
		const part = said.find((one) => one.behind?.title === figure?.title)?.behind;
		if (!figure || !part) return null;
		const found = part.cards === 'loose' ? figure.loose : namedOf(page, part.cards);
		return found && { title: part.title, found };
	});
	async function look({ title, cards }: NonNullable<SaidPart['behind']>): Promise<void> {
		if (figure?.title === title) figure = null;
		else if (cards !== 'loose') figure = { title, loose: null };
		else {
			const found = await ask<NamedCards>(`/api/teams/${team}/loose`);
			if (found.ok) figure = { title, loose: found.answer };
			else doing.message = { text: found.refusal.title, tone: 'warn' };
		}
	}

	/** The whole picture, drawn for paper. */
	let paper = $state('');
	const draw = async () => (await import('$lib/ui/panorama/picture')).timelinePicture(page, asked, ruler);
	async function print(): Promise<void> {
		paper = await draw();
		await tick();
		window.print();
	}
	const keep = async () => handOver(`panorama-${page.today}.svg`, 'image/svg+xml', await draw());
</script>

<svelte:window onafterprint={() => (paper = '')} />

<TeamFrame person={data.person!} team={page.team} boards={page.boards} here="Panorama">
	{#snippet right()}
		<div class="line">
			<AskLine {page} {asked} {onask} />
			<Lenses
				lenses={page.lenses}
				query={String(writeAsked(new URLSearchParams(), asked))}
				mayShare={page.role !== 'viewer'}
				lead={page.role === 'lead'}
				what="the panorama"
				whom="all of the team"
				onkeep={async (lens) =>
					(await doing.ask('KeepTeamLens', { team, ...lens }, `The lens ${lens.name} is kept.`)).ok}
				ondrop={({ id, name }) =>
					void doing.ask('DropTeamLens', { team, lens: id }, `The lens ${name} is let go.`)}
				onlens={(query) =>
					onask({ ...readAsked(new URLSearchParams()), ...readAsked(new URLSearchParams(query)) })}
			/>
		</div>
	{/snippet}
	<main>
		<h1>
			{#each said as { text, tone, to, behind: part }, i (i)}
				{#if to}<a class="part {tone}" href={address(to)}>{text}</a>{:else if part}<button
						type="button"
						class="part {tone}"
						aria-pressed={behind?.title === part.title}
						onclick={() => void look(part)}>{text}</button
					>{:else if tone === 'strong'}<b>{text}</b>{:else}<span class={tone}>{text}</span>{/if}
			{/each}
			<span class="acts screen-only">
				{#if page.role === 'lead'}<button
						type="button"
						class="link"
						onclick={() => (milestone = { id: null })}>Add a milestone</button
					>{/if}
				{#if asked.as === 'timeline'}<button type="button" class="link" onclick={() => void print()}
						>Print</button
					><button type="button" class="link" onclick={() => void keep()}>SVG</button><a
						class="link"
						href="/teams/{team}/panorama/file{here.url.search}"
						download
						data-sveltekit-reload>CSV</a
					>{/if}
			</span>
		</h1>
		<div class="body">
			<div class="picture">
				{#if asked.as === 'timeline'}
					<Timeline {page} {asked} {doing} {ruler} onmilestone={(id) => (milestone = { id })} />
				{:else if asked.as === 'kinds'}
					{#await import('$lib/ui/panorama/Kinds.svelte') then { default: Kinds }}<Kinds
							{page}
							{asked}
						/>{/await}
				{:else}
					{#await import('$lib/ui/panorama/Stages.svelte') then { default: Stages }}<Stages
							{page}
							{asked}
							{doing}
						/>{/await}
				{/if}
			</div>
			{#if behind}<aside class="screen-only">
					<CardsBehind
						title={behind.title}
						cards={behind.found.cards}
						titles={behind.found.titles}
						open={(key) => cardAddress(page.boards, key)}
						onclose={() => (figure = null)}
					/>
				</aside>{/if}
		</div>
	</main>
	<Said {doing} />
	<TeamKeys place="panorama" title="Keys of the panorama" {doing} />
</TeamFrame>
{#if paper}<div class="paper">
		<!-- eslint-disable-next-line svelte/no-at-html-tags -- drawn here, every word in it escaped -->
		{@html paper}
	</div>{/if}
{#if milestone}
	{#await import('$lib/ui/dialogs/MilestoneDialog.svelte') then { default: MilestoneDialog }}
		{#key milestone}<MilestoneDialog
				{page}
				{doing}
				milestone={milestone.id}
				onclose={() => (milestone = null)}
			/>{/key}
	{/await}
{/if}

<style>
	.line {
		display: flex;
		flex-wrap: wrap;
		gap: 0 14px;
		align-items: baseline;
	}
	main {
		flex: 1;
		min-height: 0;
		display: flex;
		flex-direction: column;
	}
	h1 {
		font: 1rem/1.45 var(--text);
		letter-spacing: 0;
		padding: 9px 20px 8px;
		flex: none;
	}
	h1 > * {
		margin-right: 0.2em;
	}
	.part {
		border: 0;
		padding: 0;
		background: none;
		min-height: 24px;
		text-align: left;
		text-decoration: underline;
		text-decoration-thickness: 1px;
		text-underline-offset: 3px;
		cursor: pointer;
	}
	.part.strong {
		font-weight: 650;
	}
	.acts {
		white-space: nowrap;
	}
	.acts .link {
		margin-left: 14px;
		min-height: 24px;
	}
	.body {
		flex: 1;
		min-height: 0;
		display: flex;
	}
	.picture {
		flex: 1;
		min-width: 0;
		min-height: 0;
		display: flex;
		flex-direction: column;
	}
	aside {
		flex: 0 0 340px;
		padding: 0 14px 14px 0;
		overflow: auto;
	}
	.paper {
		display: none;
	}
	@media print {
		.paper {
			display: block;
		}
		.paper :global(svg) {
			width: 100%;
			height: auto;
			max-height: 92vh;
		}
	}
	@media (max-width: 700px) {
		h1 {
			padding: 8px 14px 4px;
		}
		.acts {
			white-space: normal;
		}
		.body {
			flex-direction: column-reverse;
		}
		aside {
			flex: 0 1 auto;
			max-height: 50%;
			padding: 0 14px 8px;
		}
	}
	@media (pointer: coarse) {
		.part {
			display: inline-block;
			min-height: 44px;
			line-height: 44px;
			/* Lines of the sentence lie as close as they would without it; what a finger meets is larger. */
			margin-block: -10px;
		}
		.acts .link {
			min-height: 44px;
			display: inline-grid;
			align-items: center;
		}
	}
</style>
