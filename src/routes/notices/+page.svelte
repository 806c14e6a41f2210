<script lang="ts">
	import { goto } from '$app/navigation';
	import { page } from '$app/state';
	import { onMount, tick } from 'svelte';
	import { mondayOf } from '$core/calendar/days';
	import type { DatesPage } from '$core/pages/dates';
	import type { NoticeView } from '$core/pages/notices';
	import Bar from '$lib/ui/frame/Bar.svelte';
	import { keys } from '$lib/ui/frame/keys.svelte';
	import { pressed } from '$lib/ui/frame/keymap';
	import { forPlace } from '$lib/ui/frame/place-keys';
	import { reread } from '$lib/ui/frame/reread';
	import NoticeRow from '$lib/ui/notices/NoticeRow.svelte';
	import type { Command, CommandInput } from '$lib/commands';
	import { ask, send } from '$lib/ui/send';
	import { count, dayOf } from '$lib/ui/words';

	let { data } = $props();
	const told = $derived(data.page);
	let zone = $state('UTC');
	onMount(() => (zone = Intl.DateTimeFormat().resolvedOptions().timeZone));
	let problem = $state('');
	let said = $state('');
	let choosing = $state(false);
	let keysShown = $state(false);
	/** Put away here, and not read again yet. */
	let gone = $state.raw<ReadonlySet<string>>(new Set());
	const shown = $derived(told.notices.filter(({ id }) => data.of === 'away' || !gone.has(id)));
	/** By when it was: today, yesterday, this week, before. */
	const groups = $derived.by(() => {
		const dayIn = (at: string | number) => dayOf(at, zone);
		const today = dayIn(Date.now());
		const named = (at: string) => {
			const day = dayIn(at);
			return day >= today
				? 'Today'
				: day === today - 1
					? 'Yesterday'
					: day >= mondayOf(today)
						? 'Earlier this week'
						: 'Before';
		};
		const by = new Map<string, NoticeView[]>();
		for (const notice of shown) by.set(named(notice.at), [...(by.get(named(notice.at)) ?? []), notice]);
		return [...by];
	});
	const LISTS = [
		['all', 'all'],
		['asks', 'asked of me'],
		['away', 'put away'],
	] as const;

	async function tell<C extends Command>(command: C, input: CommandInput<C>): Promise<boolean> {
		const sent = await send(command, input);
		problem = sent.ok ? '' : sent.refusal.title;
		await reread('harrow:notices');
		return sent.ok;
	}
	async function putAway(notices: readonly NoticeView[]): Promise<void> {
		const ids = notices.map(({ id }) => id);
		const at = shown.findIndex(({ id }) => id === ids[0]);
		gone = new Set([...gone, ...ids]);
		said = `${count(ids.length, 'notice')} put away.`;
		await tick();
		const next = shown[Math.min(at, shown.length - 1)];
		if (next) focus(next.id);
		if (!(await tell('MarkNotices', { notices: ids, as: 'away' }))) gone = new Set();
	}
	async function answer(notice: NoticeView, text: string): Promise<boolean> {
		const replyTo = notice.comment ?? undefined;
		const words = { text, ...(replyTo ? { replyTo } : {}) };
		const initiative = notice.page?.initiative;
		const sent = notice.card
			? await send('CommentCard', { card: notice.card.id, ...words })
			: await send('CommentPage', {
					board: notice.board.id,
					...(initiative ? { initiative } : {}),
					...words,
				});
		problem = sent.ok ? (sent.answer.advice ?? '') : sent.refusal.title;
		if (sent.ok) {
			said = 'Answered.';
			await tell('MarkNotices', { notices: [notice.id], as: 'read' });
		}
		return sent.ok;
	}

	/** How many cards would have to move along, or be in the way, if a card were due on another day. */
	async function hanging(key: string, due: string): Promise<number> {
		const found = await ask<DatesPage>(`/api/cards/${key}/dates?due=${due}`);
		if (!found.ok) return 0;
		const { moved, conflicts } = found.answer;
		return moved.length + conflicts.filter((one) => one.key !== key).length;
	}

	/** Takes the card of a notice, or moves its due date; then the notice is read. */
	async function act(notice: NoticeView, does: 'take' | (string & {})): Promise<boolean> {
		const { id: card, key, version, owners } = notice.card!;
		const hang = does === 'take' ? 0 : await hanging(key, does);
		if (hang) {
			problem = `${count(hang, 'card')} that ${hang === 1 ? 'waits' : 'wait'} for ${key} would start before it ends then. Open it and give it the date there: what hangs on it is shown, and moves along.`;
			return false;
		}
		const sent =
			does === 'take'
				? await send('AssignCard', { card, version, owners: [...owners, data.person!.id] })
				: await send('DateCard', { card, version, due: does });
		problem = sent.ok ? '' : sent.refusal.title;
		if (sent.ok) said = does === 'take' ? `${key} is yours too.` : `${key} has another due date.`;
		if (sent.ok) await tell('MarkNotices', { notices: [notice.id], as: 'read' });
		else await reread('harrow:notices');
		return sent.ok;
	}

	let timer: ReturnType<typeof setTimeout> | undefined;
	const PAUSE_MS = 250;
	function look(change: Record<string, string | null>, pause = 0): void {
		clearTimeout(timer);
		timer = setTimeout(() => {
			const url = new URL(page.url);
			url.searchParams.delete('before');
			for (const [key, value] of Object.entries(change))
				if (value === null || value === '') url.searchParams.delete(key);
				else url.searchParams.set(key, value);
			void goto(url, { replaceState: true, keepFocus: true, noScroll: true });
		}, pause);
	}

	let rows = $state<HTMLElement>();
	let answering = $state<string | null>(null);
	const focus = (id: string | undefined) =>
		rows?.querySelector<HTMLElement>(`[data-notice="${id}"] [data-first]`)?.focus();
	function onkeydown(event: KeyboardEvent): void {
		if (!forPlace(event)) return;
		const does = pressed('notices', event, { single: keys.on, write: true });
		if (!does) return;
		if (does === 'help') return void ((keysShown = true), event.preventDefault());
		const here = (event.target as HTMLElement).closest<HTMLElement>('[data-notice]')?.dataset.notice;
		const at = shown.findIndex(({ id }) => id === here);
		const notice = shown[at];
		if (does === 'go') {
			const to = event.key === 'ArrowDown' ? Math.min(at + 1, shown.length - 1) : Math.max(at - 1, 0);
			focus(shown[to]?.id);
		} else if (does === 'open' || !notice) return;
		else if (does === 'answer' && notice.comment) answering = notice.id;
		else if (does === 'away') void putAway([notice]);
		event.preventDefault();
	}
</script>

<svelte:window {onkeydown} />
<Bar person={data.person!} keysOn={keys.on} />
<main>
	<div class="top">
		<h1>
			{#if told.asks}<b>{count(told.asks, 'question')}</b>
				{`${told.asks === 1 ? 'waits' : 'wait'} for your answer; `}{/if}{told.unread
				? `${count(told.unread, 'notice')} not read yet`
				: 'everything is read'}.
		</h1>
		<nav aria-label="Which notices">
			{#each LISTS as [of, words] (of)}<a
					class="reach"
					href={of === 'all' ? '/notices' : `/notices?of=${of}`}
					aria-current={data.of === of ? 'page' : undefined}>{words}</a
				>{/each}
		</nav>
		<span class="acts">
			{#if told.unread}<button
					type="button"
					class="link"
					onclick={() => void tell('MarkNotices', { as: 'read' })}>All read</button
				>{/if}
			{#if shown.length > 1 && data.of === 'all' && !data.text}<button
					type="button"
					class="link"
					onclick={() => void putAway(shown.filter((notice) => !notice.open))}>Put these away</button
				>{/if}
			<button type="button" class="link" aria-expanded={choosing} onclick={() => (choosing = !choosing)}
				>What you are told</button
			>
		</span>
		<input
			type="search"
			aria-label="Search the notices"
			placeholder="key, title or board"
			value={data.text}
			oninput={(event) => look({ q: event.currentTarget.value.trim() }, PAUSE_MS)}
		/>
	</div>
	<p class="warn" role="alert">{problem}</p>
	<p class="sr-only" role="status">{said}</p>
	{#if choosing}
		{#await import('$lib/ui/notices/Choices.svelte') then { default: Choices }}
			<Choices
				choices={told.choices}
				mail={told.mail}
				boards={told.boards}
				{tell}
				onclose={() => (choosing = false)}
			/>
		{/await}
	{/if}
	<div bind:this={rows}>
		{#each groups as [when, notices] (when)}
			<h2>{when}</h2>
			<ul>
				{#each notices as notice (notice.id)}
					<NoticeRow
						{notice}
						timeZone={zone}
						answering={answering === notice.id}
						onanswering={(on) => {
							answering = on ? notice.id : null;
							if (!on) focus(notice.id);
						}}
						onanswer={(text) => answer(notice, text)}
						me={data.person!.id}
						today={told.today}
						ontake={() => void act(notice, 'take')}
						ondate={(due) => act(notice, due)}
						onread={(read) =>
							void tell('MarkNotices', { notices: [notice.id], as: read ? 'read' : 'unread' })}
						onaway={() => void putAway([notice])}
						onback={() => void tell('MarkNotices', { notices: [notice.id], as: 'back' })}
					/>
				{/each}
			</ul>
		{:else}<p class="soft none">
				{data.text
					? 'No notice here has these words in its key, its title or the name of its board.'
					: data.of === 'asks'
						? 'Nobody waits for an answer of yours.'
						: data.of === 'away'
							? 'Nothing was put away.'
							: 'Nothing to tell you. What happens to cards that you own, review, made, talked on or watch stands here.'}
			</p>{/each}
	</div>
	{#if told.next}<p>
			<a
				class="link"
				href="?{new URLSearchParams({
					...(data.text ? { q: data.text } : {}),
					...(data.of === 'all' ? {} : { of: data.of }),
					before: told.next,
				})}">Earlier ones</a
			>
		</p>{/if}
</main>
{#if keysShown}
	{#await import('$lib/ui/dialogs/KeysDialog.svelte') then { default: KeysDialog }}
		<KeysDialog
			title="Keys of the notices"
			place="notices"
			bind:on={keys.on}
			onclose={() => (keysShown = false)}
		/>
	{/await}
{/if}

<style>
	main {
		width: min(680px, 100%);
		margin: 0 auto;
		padding: 12px 20px 60px;
	}
	.top {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 6px 16px;
	}
	h1 {
		font: 1.05rem/1.4 var(--text);
		letter-spacing: 0;
		flex: 1 1 100%;
		margin: 0 0 4px;
	}
	input[type='search'] {
		font: inherit;
		color: var(--ink);
		background: var(--sheet);
		border: 1px solid var(--edge);
		border-radius: 4px;
		padding: 4px 10px;
		flex: 1 1 180px;
	}
	nav {
		display: flex;
		gap: 16px;
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
		margin: 14px 0 2px;
	}
	.acts {
		display: flex;
		gap: 14px;
	}
	.none {
		padding: 14px 0;
	}
	@media (max-width: 700px) {
		main {
			padding: 10px 14px 60px;
		}
	}
</style>
