<script lang="ts">
	import { goto } from '$app/navigation';
	import { page as at } from '$app/state';
	import { ACTIVITY_GROUPS, ACTIVITY_NAMES } from '$core/activity/groups';
	import { dayText } from '$core/calendar/days';
	import type { ActivityRow } from '$core/pages/activity';
	import NameTag from '$lib/ui/board/NameTag.svelte';
	import Bar from '$lib/ui/frame/Bar.svelte';
	import { keys } from '$lib/ui/frame/keys.svelte';
	import DateField from '$lib/ui/form/DateField.svelte';
	import { count, dateWords, dayOf, momentWords } from '$lib/ui/words';

	let { data } = $props();
	const page = $derived(data.page);
	const asked = $derived(page.asked);
	const seedOf = (id: string | undefined) =>
		Math.max(
			0,
			page.all.people.findIndex((one) => one.id === id),
		);
	/** The address of the same page, asked otherwise; from its beginning. */
	function to(change: Record<string, string | null>, path = at.url.pathname): string {
		const params = new URLSearchParams(at.url.searchParams);
		params.delete('before');
		for (const [name, value] of Object.entries(change))
			if (value) params.set(name, value);
			else params.delete(name);
		return `${path}${params.size ? `?${params}` : ''}`;
	}
	const look = (change: Record<string, string | null>) =>
		void goto(to(change), { keepFocus: true, noScroll: true });
	const days = $derived.by(() => {
		const by = new Map<string, ActivityRow[]>();
		for (const row of page.rows) {
			const day = dayText(dayOf(row.at.getTime(), row.board.timeZone));
			by.set(day, [...(by.get(day) ?? []), row]);
		}
		return [...by];
	});
	const clock = (row: ActivityRow) =>
		momentWords(row.at.toISOString(), row.board.timeZone).split(', ').at(-1)!;
	const most = $derived(Math.max(1, ...[page.people, page.groups, page.boards].flat().map(({ n }) => n)));
</script>

{#snippet tally(
	name: string,
	lines: { id: string; name: string; n: number }[],
	key: string,
	chosen: string | null,
)}
	{#if lines.length}<section aria-label={name}>
			<h2>{name}</h2>
			<ul>
				{#each lines as line (line.id)}<li>
						<a
							href={to({ [key]: chosen === line.id ? null : line.id })}
							aria-current={chosen === line.id ? 'true' : undefined}
							data-sveltekit-noscroll
							><span>{line.name}</span><b>{line.n}</b><i style:width="{(line.n / most) * 100}%"></i></a
						>
					</li>{/each}
			</ul>
		</section>{/if}
{/snippet}

<Bar person={data.person!} keysOn={keys.on} />
<main>
	<div class="top">
		<p class="sentence">
			What
			<select
				class="choice"
				aria-label="Who"
				value={asked.person ?? ''}
				onchange={(event) => look({ person: event.currentTarget.value })}
			>
				<option value="">everyone</option>
				{#each page.all.people as { id, name } (id)}<option value={id}>{name}</option>{/each}
			</select>
			did on
			<select
				class="choice"
				aria-label="Board"
				value={asked.board ?? ''}
				onchange={(event) => look({ board: event.currentTarget.value })}
			>
				<option value="">{asked.team ? 'all boards of the team' : 'all boards'}</option>
				{#each page.all.boards as { slug, name } (slug)}<option value={slug}>{name}</option>{/each}
			</select>:
			<select
				class="choice"
				aria-label="Kind"
				value={asked.group ?? ''}
				onchange={(event) => look({ group: event.currentTarget.value })}
			>
				<option value="">all of it</option>
				{#each ACTIVITY_NAMES as group (group)}<option value={group}>{ACTIVITY_GROUPS[group]}</option>{/each}
			</select>
		</p>
		<span class="days">
			from <DateField
				id="activity-from"
				label="From"
				value={asked.from}
				today={data.today}
				onchange={(day) => look({ from: day })}
			/>
			to <DateField
				id="activity-to"
				label="To"
				value={asked.to}
				today={data.today}
				onchange={(day) => look({ to: day })}
			/>
		</span>
		<a class="link" download href={to({}, '/activity/file')}>CSV</a>
	</div>
	<p class="sentence"><b>{count(page.total, 'thing')}</b> {page.total === 1 ? 'was' : 'were'} done.</p>
	<div class="two">
		<aside>
			{@render tally('By whom', page.people, 'person', asked.person)}
			{@render tally(
				'Of which kind',
				page.groups.map(({ group, n }) => ({ id: group, name: ACTIVITY_GROUPS[group], n })),
				'group',
				asked.group,
			)}
			{@render tally(
				'Where',
				page.boards.map(({ slug, name, n }) => ({ id: slug, name, n })),
				'board',
				asked.board,
			)}
		</aside>
		<div>
			{#each days as [day, rows] (day)}
				<section aria-label={dateWords(day, data.today)}>
					<h2>{dateWords(day, data.today)}</h2>
					<ol>
						{#each rows as row, i (`${row.at.getTime()} ${i}`)}<li>
								<time datetime={row.at.toISOString()}>{clock(row)}</time>
								{#if row.who}<NameTag person={row.who} seed={seedOf(row.who.id)} />{:else}<span></span>{/if}
								<p>
									{#if row.card}<a class="link" href="/boards/{row.board.slug}?card={row.card.key}"
											>{row.card.key}</a
										>
										<span class="title">{row.card.title}</span>: {row.who?.name ?? 'Somebody'}
										{row.text}
									{:else if row.team}<a class="link" href="/teams/{row.team.id}/people">{row.team.name}</a>: {row.text}
									{:else}<a class="link" href="/boards/{row.board.slug}">{row.board.name}</a>: {row.text}{/if}
								</p>
							</li>{/each}
					</ol>
				</section>
			{:else}<p class="soft">Nothing was done in these days that you may see.</p>{/each}
			{#if page.next}<p>
					<a class="plain more" href={to({ before: page.next })}>What was before</a>
				</p>{/if}
		</div>
	</div>
</main>

<style>
	main {
		width: min(1100px, 100%);
		margin: 0 auto;
		padding: 10px 20px 60px;
	}
	.top {
		display: flex;
		flex-wrap: wrap;
		gap: 6px 22px;
		align-items: center;
	}
	.sentence {
		margin: 0;
	}
	.top .sentence {
		flex: 1 1 320px;
	}
	.days {
		display: flex;
		flex-wrap: wrap;
		gap: 8px;
		align-items: center;
	}
	.two {
		display: grid;
		grid-template-columns: 260px minmax(0, 1fr);
		gap: 32px;
	}
	h2 {
		font-size: 1.05rem;
		margin: 16px 0 4px;
	}
	aside a {
		position: relative;
		display: flex;
		justify-content: space-between;
		gap: 10px;
		padding: 4px 4px 7px;
		color: inherit;
		text-decoration: none;
	}
	aside a:hover span {
		text-decoration: underline;
	}
	aside i {
		position: absolute;
		left: 0;
		bottom: 2px;
		height: 3px;
		background: var(--moss);
	}
	aside [aria-current] {
		background: var(--sunk);
		font-weight: 650;
	}
	ol li {
		display: grid;
		grid-template-columns: 3.2rem 2rem minmax(0, 1fr);
		gap: 8px;
		align-items: baseline;
		padding: 5px 0;
		border-top: 1px dotted var(--rule);
	}
	ol p {
		margin: 0;
		overflow-wrap: anywhere;
	}
	time {
		color: var(--soft);
	}
	.title {
		font-weight: 560;
	}
	.more {
		display: inline-block;
		padding: 8px 14px;
		text-decoration: none;
	}
	@media (max-width: 760px) {
		.two {
			grid-template-columns: minmax(0, 1fr);
			gap: 8px;
		}
		aside {
			order: 2;
		}
	}
	@media (pointer: coarse) {
		aside a {
			min-height: 44px;
			align-items: center;
		}
	}
</style>
