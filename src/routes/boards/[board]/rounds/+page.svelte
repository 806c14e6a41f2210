<script lang="ts">
	import { goto } from '$app/navigation';
	import { page } from '$app/state';
	import { getContext, untrack } from 'svelte';
	import type { CardView } from '$core/pages/board';
	import { parseDay } from '$core/calendar/days';
	import type { Finding, Remedy } from '$core/rounds/state';
	import type { CommandInput } from '$lib/commands';
	import type { Ask } from '$lib/ui/board/ask';
	import { provideAsked } from '$lib/ui/dialogs/asked.svelte';
	import Asking from '$lib/ui/board/Asking.svelte';
	import type { BoardState } from '$lib/ui/board/board-state.svelte';
	import { cardAddress } from '$lib/ui/frame/card-address';
	import Gradual from '$lib/ui/frame/Gradual.svelte';
	import Part from '$lib/ui/frame/Part.svelte';
	import Term from '$lib/ui/frame/Term.svelte';
	import Places from '$lib/ui/frame/Places.svelte';
	import { reread } from '$lib/ui/frame/reread';
	import FindingRow from '$lib/ui/rounds/FindingRow.svelte';
	import Walk from '$lib/ui/rounds/Walk.svelte';
	import { SEVERITIES } from '$lib/ui/rounds/words';
	import { blockedWords, count } from '$lib/ui/words';

	let { data } = $props();
	const board = getContext<BoardState>('board');
	untrack(() => board.load(data.rounds));
	$effect.pre(() => {
		const { rounds } = data;
		untrack(() => board.load(rounds));
	});
	const head = $derived(board.head);
	const rounds = $derived(data.rounds);
	const mayEdit = $derived(head.role !== 'viewer');
	const walking = $derived(page.url.searchParams.has('walk'));
	const byNumber = $derived(new Map([...board.cards.values()].map((card) => [card.number, card])));
	const groups = $derived(
		([3, 2, 1] as const).flatMap((severity) => {
			const list = rounds.findings.filter((one) => one.severity === severity);
			return list.length ? [{ severity, list }] : [];
		}),
	);
	const now = $derived(rounds.findings.filter((one) => one.severity === 3).length);
	const open = (card: { number: number }) => cardAddress(page.url, card);
	const cardsOf = (finding: Finding) => finding.cards.flatMap((number) => byNumber.get(number) ?? []);

	// What others do changes what is found: it is read again, though not for every single change.
	$effect(() => {
		if (board.seq <= rounds.seq) return;
		const timer = setTimeout(() => void reread('harrow:rounds'), 700);
		return () => clearTimeout(timer);
	});

	let asking = $state.raw<Ask | null>(null);
	let aside = $state.raw<Finding | null>(null);
	let question = $state.raw<CardView | null>(null);
	/** The comment that is answered with what is said. */
	let answers: number | undefined;
	let waiting = $state.raw<CardView | null>(null);
	let stopping = $state.raw<Finding | null>(null);

	async function remedy(finding: Finding, what: Remedy, card: CardView | null): Promise<void> {
		const done = async (work: Promise<{ ok: boolean }>, words: string) => {
			if ((await work).ok) board.tell({ tone: 'done', text: words });
			await reread('harrow:rounds');
		};
		if (what === 'limit') asking = { kind: 'column', column: finding.column! };
		else if (what === 'stop-timer') stopping = finding;
		else if (!card) return;
		else if (what === 'unblock') await done(board.unblock(card), `Card ${card.number} is no longer blocked.`);
		else if (what === 'backlog')
			await done(board.move(card, null, null), `Card ${card.number} is back in the backlog.`);
		else if (what === 'pull' || what === 'move-on')
			await moveOn(card, what === 'pull' ? finding.person : null);
		else if (what === 'next-sprint') {
			const next = head.sprints.find((sprint) => !sprint.startedAt)!.number;
			await done(board.plan([card], next), `Card ${card.number} is planned for sprint ${next}.`);
		} else if (what === 'ask' || what === 'answer') {
			question = card;
			answers =
				what === 'answer'
					? rounds.questions.find((one) => one.card === card.number && one.person === finding.person)?.comment
					: undefined;
		} else if (what === 'wait-for') waiting = card;
		else if (what === 'owners') asking = { kind: 'owners', cards: [card] };
		else if (what === 'size' || what === 'split') asking = { kind: what, card };
	}
	/** Moves a card into the column after its own, for somebody who takes it; a limit that holds asks for a reason. */
	async function moveOn(card: CardView, person: string | null): Promise<void> {
		const to = head.columns[head.columns.findIndex((column) => column.id === card.column) + 1];
		if (!to) return;
		if (person && !card.owners.includes(person)) {
			const taken = await board.assign(board.latest(card), [...card.owners, person]);
			if (!taken.ok) return;
		}
		const moved = await board.move(board.latest(card), to.id, undefined);
		if (moved.ok)
			board.tell({ tone: 'done', text: `Card ${card.number} is in ${to.name}.`, undo: moved.answer.id });
		await reread('harrow:rounds');
	}
	const asked = provideAsked();
	const say = (card: CardView, text: string) =>
		board.ask('CommentCard', { card: card.id, text, ...(answers ? { replyTo: answers } : {}) });
	async function putAside(finding: Finding, reason: string): Promise<void> {
		const sent = board.ask('DismissFinding', { board: head.id, finding: finding.key, reason });
		if (!(await asked.kept(sent))) return;
		aside = null;
		await reread('harrow:rounds');
	}
	async function askOn(card: CardView, text: string): Promise<void> {
		if (!(await asked.kept(say(card, text)))) return;
		question = null;
		board.tell({ tone: 'done', text: `Said on card ${card.number}.` });
		await reread('harrow:rounds');
	}
	async function waitFor(card: CardView, waitingFor: string): Promise<void> {
		const { id, version } = board.latest(card);
		if (!(await asked.kept(board.ask('WaitFor', { card: id, version, waitingFor })))) return;
		waiting = null;
		await reread('harrow:rounds');
	}
	async function recall(key: string): Promise<void> {
		await board.ask('RecallFinding', { board: head.id, finding: key });
		await reread('harrow:rounds');
	}
	function walk(on: boolean): void {
		const url = new URL(page.url);
		if (on) url.searchParams.set('walk', '');
		else url.searchParams.delete('walk');
		void goto(url, { noScroll: true });
	}
	type Stop = Omit<CommandInput<'StopTimer'>, 'card' | 'person'>;
	async function stopFor({ card, person }: { card: string; person: string }, more: Stop): Promise<string> {
		const sent = await board.ask('StopTimer', { card, person, ...more });
		await Promise.all([reread('harrow:rounds'), reread('harrow:timer')]);
		return sent.ok ? '' : sent.refusal.title;
	}
	const stopped = $derived(stopping && rounds.timers.find((timer) => timer.person === stopping!.person));
</script>

{#snippet findingRow(finding: Finding)}
	<Part name="This finding"
		><FindingRow
			{finding}
			cards={cardsOf(finding)}
			slug={head.slug}
			team={head.teamId}
			{mayEdit}
			{open}
			onremedy={(what, card) => void remedy(finding, what, card)}
			onaside={() => (aside = finding)}
		/></Part
	>
{/snippet}
<Places board={head} here="rounds">
	{#if !walking}<button type="button" class="plain walk" onclick={() => walk(true)}>Walk the board</button
		>{/if}
</Places>
{#if walking}
	<Walk
		{head}
		cards={[...board.cards.values()]}
		{rounds}
		today={parseDay(data.today)!}
		{open}
		onsay={async (card, text) => (await say(card, text)).ok}
		onend={() => walk(false)}
	/>
{:else}
	<h1 class="sentence">
		{#if rounds.findings.length}
			<b
				>{count(rounds.findings.length, 'thing')}
				{rounds.findings.length === 1 ? 'needs' : 'need'} somebody</b
			>{#if now}, <span class="warn">{now} of them now</span>{/if}. Each comes from the board as it stands;
			what is
			<Term
				word="put aside"
				says="Put aside is left out for the rest of today, with the reason that was given, and is back tomorrow: {count(
					rounds.aside.length,
					'thing',
				)} now."
			/> is back tomorrow.
		{:else}
			<b>Nothing needs anybody just now.</b> No card is blocked, late or too old; nobody is over their promise or
			without work.
		{/if}
	</h1>
	<div class="page">
		{#each groups as group (group.severity)}
			<section>
				<h2>{SEVERITIES[group.severity].name} <small>{SEVERITIES[group.severity].says}</small></h2>
				<ul>
					<Gradual list={group.list} key={({ key }) => key} row={findingRow} as="li" px={72} />
				</ul>
			</section>
		{/each}
		{#if rounds.aside.length}
			<section class="aside">
				<h2>Put aside for today</h2>
				<ul>
					{#each rounds.aside as finding (finding.key)}
						<li>
							<span
								>{#each cardsOf(finding).slice(0, 1) as card (card.id)}<b>{card.number}</b>
								{/each}{finding.sentence}
								<span class="soft">{finding.by}: {finding.reason}</span></span
							>
							{#if mayEdit}<button type="button" class="link" onclick={() => void recall(finding.key)}
									>Show it again</button
								>{/if}
						</li>
					{/each}
				</ul>
			</section>
		{/if}
	</div>
{/if}

{#if asking}<Asking
		{board}
		ask={asking}
		onclose={() => (asking = null)}
		ondone={() => void reread('harrow:rounds')}
	/>{/if}
{#if aside}
	{@const finding = aside}
	{#await import('$lib/ui/dialogs/ReasonDialog.svelte') then { default: ReasonDialog }}
		<ReasonDialog
			title="Put it aside for today?"
			sentence={finding.sentence}
			label="Why it can wait until tomorrow"
			go="Not today"
			onclose={() => (aside = null)}
			onreason={(reason) => void putAside(finding, reason)}
		/>
	{/await}
{/if}
{#if question}
	{@const card = question}
	{#await import('$lib/ui/dialogs/ReasonDialog.svelte') then { default: ReasonDialog }}
		<ReasonDialog
			title="Ask on {card.number}"
			sentence={card.title}
			label="What you say stands in the card’s talk"
			go="Ask"
			most={2000}
			onclose={() => (question = null)}
			onreason={(text) => void askOn(card, text)}
		/>
	{/await}
{/if}
{#if waiting}
	{@const card = waiting}
	{#await import('$lib/ui/dialogs/ReasonDialog.svelte') then { default: ReasonDialog }}
		<ReasonDialog
			title="What does {card.number} wait for?"
			sentence={card.blocked ? blockedWords(card.blocked) : card.title}
			label="Who or what unblocks it"
			go="Keep"
			most={200}
			onclose={() => (waiting = null)}
			onreason={(waitingFor) => void waitFor(card, waitingFor)}
		/>
	{/await}
{/if}
{#if stopping && stopped}
	{@const finding = stopping}
	{@const timer = stopped}
	{#await import('$lib/ui/dialogs/TimeDialog.svelte') then { default: TimeDialog }}
		<TimeDialog
			title="How much of it was work?"
			sentence={finding.sentence}
			hours={null}
			none={{ words: 'None of it', ontime: () => stopFor(timer, { hours: 0 }) }}
			onclose={() => (stopping = null)}
			ontime={({ hours, note, billable }) => stopFor(timer, { hours, note, billable })}
		/>
	{/await}
{/if}

<style>
	.sentence {
		font: 1rem/1.4 var(--text);
		letter-spacing: 0;
		padding: 9px 20px 4px;
		flex: none;
	}
	h2 {
		font-size: 1.15rem;
		margin: 14px 0 4px;
	}
	h2 small {
		font: 400 0.93rem var(--text);
		color: var(--soft);
		margin-left: 6px;
	}
	ul {
		border-top: 1px solid var(--rule);
	}
	.aside li {
		display: flex;
		justify-content: space-between;
		gap: 14px;
		padding: 6px 0;
		border-bottom: 1px dotted var(--rule);
	}
	.walk {
		padding: 2px 12px;
		min-height: max(30px, var(--touch, 0px));
	}
	@media (max-width: 700px) {
		.sentence {
			padding: 8px 14px 4px;
		}
		.page {
			padding: 0 12px 24px;
		}
	}
</style>
