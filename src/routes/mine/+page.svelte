<script lang="ts">
	import { fsum } from 'd3-array';
	import { mineGroups } from '$core/mine/groups';
	import { MINE, type MineCard, type MineOf } from '$core/pages/mine';
	import Bar from '$lib/ui/frame/Bar.svelte';
	import { keys } from '$lib/ui/frame/keys.svelte';
	import { reread } from '$lib/ui/frame/reread';
	import AskedRow from '$lib/ui/mine/AskedRow.svelte';
	import MineRow from '$lib/ui/mine/MineRow.svelte';
	import type { Command, CommandInput } from '$lib/commands';
	import { send, type Refusal } from '$lib/ui/send';
	import { amount, count } from '$lib/ui/words';

	let { data } = $props();
	const mine = $derived(data.page);
	const me = $derived(data.person!.id);
	const groups = $derived(mineGroups(mine.cards, me));
	const WORDS: Record<MineOf, string> = {
		mine: 'mine',
		given: 'given by me',
		reviewing: 'reviewing',
		watched: 'watched',
		done: 'finished',
		days: 'next 7 days',
	};
	const NONE: Record<MineOf, string> = {
		mine: 'Nothing of yours is in hand, and nobody asks you anything.',
		given: 'Nothing that you gave to others is open.',
		reviewing: 'Nobody asks you to review anything.',
		watched: 'You watch no open card that is not your own.',
		done: 'Nothing of yours was finished in the last 14 days.',
		days: 'Nothing of yours is due in the next seven days.',
	};
	const HEADS = [
		['inHand', 'In hand', 'finish these first'],
		['asked', 'Asked of you', 'somebody waits'],
		['next', 'Next', 'in the order of the board'],
		['waits', 'Waits for others', 'you are told when it is free'],
	] as const;
	const blocked = $derived(groups.inHand.filter((card) => card.blocked).length);
	/** What is left of what is in hand, by the unit of its board. */
	const left = $derived(
		(['hours', 'points'] as const).flatMap((unit) => {
			const sum = fsum(
				groups.inHand.filter((card) => card.board.unit === unit),
				(card) => card.left,
			);
			return sum ? [amount(sum, unit)] : [];
		}),
	);
	const questions = $derived(groups.asked.length + mine.asked.length);
	let problem = $state('');
	let said = $state('');

	async function tell<C extends Command>(
		command: C,
		input: CommandInput<C>,
		done: string,
	): Promise<Refusal | null> {
		problem = '';
		const sent = await send(command, input);
		if (sent.ok) said = done;
		else problem = sent.refusal.title;
		if (sent.ok && sent.answer.advice) said = `${done} ${sent.answer.advice}`;
		await reread('harrow:mine');
		return sent.ok ? null : sent.refusal;
	}
	/** Where something else of the card was changed meanwhile, and it stands where it stood, it is moved on all the same. */
	async function move(card: MineCard, reason?: string): Promise<Refusal | null> {
		const next = card.next!;
		const send = (version: number) =>
			tell(
				'MoveCard',
				{ card: card.id, version, column: next.id, ...(reason ? { reason } : {}) },
				`${card.key} is in ${next.name}.`,
			);
		const refused = await send(card.version);
		const now = mine.cards.find(({ id }) => id === card.id);
		if (refused?.code !== 'card.changed' || now?.column !== card.column || now?.next?.id !== next.id)
			return refused;
		return send(now.version);
	}
	const timer = (card: MineCard, runs: boolean) =>
		tell(
			runs ? 'StopTimer' : 'StartTimer',
			{ card: card.id },
			runs ? `The timer on ${card.key} is stopped.` : `The timer runs on ${card.key}.`,
		);
</script>

<Bar person={data.person!} keysOn={keys.on} />
<main>
	<h1>
		{#if mine.of !== 'mine'}<b>{count(mine.cards.length, 'card')}</b> {WORDS[mine.of]}.
		{:else if groups.inHand.length}<b>{count(groups.inHand.length, 'card')} in hand</b>{blocked
				? `, ${blocked} of them blocked`
				: ''}{left.length
				? `; ${left.join(' and ')} left in ${groups.inHand.length === 1 ? 'it' : 'them'}`
				: ''}.
		{:else}Nothing of yours is in hand.{/if}
		{#if mine.of === 'mine' && questions}<b>{count(questions, 'question')}</b>
			{questions === 1 ? 'waits' : 'wait'} for you.{/if}
	</h1>
	<nav aria-label="Which cards">
		{#each MINE as of (of)}<a
				class="reach"
				href={of === 'mine' ? '/mine' : `/mine?of=${of}`}
				aria-current={mine.of === of ? 'page' : undefined}>{WORDS[of]}</a
			>{/each}
	</nav>
	<p class="warn" role="alert">{problem}</p>
	<p class="said" role="status">{said}</p>
	{#snippet row(card: MineCard, group: (typeof HEADS)[number][0] | null)}
		<MineRow
			{card}
			{group}
			today={mine.today}
			{me}
			of={mine.of}
			timer={data.timer?.card === card.id ? data.timer : null}
			{tell}
			onmove={(reason) => move(card, reason)}
			ontimer={(runs) => void timer(card, runs)}
			onanswer={(text) =>
				tell(
					'CommentCard',
					{ card: card.id, text, ...(card.asked ? { replyTo: card.asked.comment } : {}) },
					`Said on ${card.key}.`,
				)}
		/>
	{/snippet}
	{#if !mine.cards.length && !mine.asked.length}<p class="soft">{NONE[mine.of]}</p>
	{:else if mine.of === 'mine'}
		{#each HEADS as [group, head, about] (group)}
			{@const onPages = group === 'asked' ? mine.asked : []}
			{#if groups[group].length || onPages.length}
				<section aria-labelledby="mine-{group}">
					<h2 id="mine-{group}">{head} <small>{about}</small></h2>
					<ul>
						{#each groups[group] as card (card.id)}{@render row(card, group)}{/each}
						{#each onPages as asked (`${asked.board.id} ${asked.comment}`)}<AskedRow
								{asked}
								onanswer={async (text) =>
									!(await tell(
										'CommentPage',
										{
											...{ board: asked.board.id, text, replyTo: asked.comment },
											...(asked.initiative === null ? {} : { initiative: asked.initiative }),
										},
										'Answered.',
									))}
							/>{/each}
					</ul>
				</section>
			{/if}
		{/each}
	{:else}
		<ul>
			{#each mine.cards as card (card.id)}{@render row(card, null)}{/each}
		</ul>
	{/if}
</main>

<style>
	main {
		width: min(560px, 100%);
		margin: 0 auto;
		padding: 12px 14px 40px;
	}
	h1 {
		font: 1.05rem/1.4 var(--text);
		letter-spacing: 0;
		margin: 0 0 4px;
	}
	nav {
		display: flex;
		flex-wrap: wrap;
		gap: 2px 16px;
	}
	nav a {
		color: var(--soft);
		text-decoration: none;
	}
	nav a[aria-current] {
		color: var(--moss);
		text-decoration: underline;
		text-underline-offset: 3px;
	}
	h2 {
		font-size: 1.05rem;
		margin: 16px 0 2px;
	}
	h2 small {
		font: 400 0.9rem var(--text);
		color: var(--soft);
		margin-left: 6px;
	}
	.said {
		margin: 0;
		color: var(--moss);
	}
	.said:empty,
	.warn:empty {
		display: none;
	}
</style>
