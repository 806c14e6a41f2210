<script lang="ts">
	import { goto } from '$app/navigation';
	import { page } from '$app/state';
	import { setContext } from 'svelte';
	import { historySentences } from '$core/board/history-sentences';
	import type { CardInput, Command, CommandOnCard, CommandInput } from '../../commands';
	import type { Ask } from '../board/ask';
	import Asking from '../board/Asking.svelte';
	import type { BoardState } from '../board/board-state.svelte';
	import HereTags from '../board/HereTags.svelte';
	import { cardAddress } from '../frame/card-address';
	import { draftOf, keepDraft } from '../drafts';
	import { momentWords } from '../words';
	import type { CardLink, CardPage } from '$core/pages/card';
	import Files from './Files.svelte';
	import SubCards from './SubCards.svelte';
	import { uses } from '$core/board/used';
	import Checklist from './Checklist.svelte';
	import Written from '../form/Written.svelte';
	import Fields from './Fields.svelte';
	import Related from './Related.svelte';
	import Reminders from './Reminders.svelte';
	import Talk from './Talk.svelte';
	import { pictureFor } from './upload';
	import TimeSpent from './TimeSpent.svelte';
	import { reread } from '../frame/reread';
	import { ask as readFrom, type Refusal } from '../send';

	let {
		board,
		cardKey,
		today,
		onclose,
	}: { board: BoardState; cardKey: string; today: string; onclose: () => void } = $props();

	let read = $state.raw<CardPage | null>(null);
	let problem = $state('');
	let title = $state('');
	/** The title as it was when typing began, and what somebody else made of it meanwhile. */
	let base = $state('');
	let theirs = $state<string | null>(null);
	let heading = $state<HTMLElement>();
	let asking = $state.raw<Ask | null>(null);

	setContext('named-cards', () => read?.named);
	const head = $derived(board.head);
	const mayEdit = $derived(head.role !== 'viewer');
	/** The card as the board has it, where it has it: that is never older than what was read. */
	const card = $derived.by(() => {
		if (!read) return null;
		const live = board.cards.get(read.id);
		return live && live.version >= read.version ? { ...read, ...live } : read;
	});
	const history = $derived(card ? historySentences(card.history, head.unit).toReversed() : []);

	// Others who look at the board see which card is open here, and where somebody writes.
	const id = $derived(read?.id ?? null);
	$effect(() => {
		board.here.open(id);
		return () => board.here.open(null);
	});
	const others = $derived(id ? board.here.who(id).filter((person) => person !== head.me) : []);
	const writing = $derived(
		board.here.people.filter(({ person, card, field }) => card === id && field && person !== head.me),
	);
	const nameOf = (person: string) => head.people.find((one) => one.id === person)?.name ?? 'Somebody';
	function onfocusin({ target }: FocusEvent): void {
		if (
			!(target instanceof HTMLElement) ||
			!target.matches('textarea, input:not([type]), input[type="text"]')
		)
			return;
		const { labels } = target as HTMLInputElement;
		board.here.writes(
			(target.getAttribute('aria-label') ?? labels?.[0]?.textContent ?? '').trim().slice(0, 60) || null,
		);
	}

	$effect(() => {
		if (read) keepDraft(`title-${read.key}`, title.trim() && title.trim() !== base ? title : null);
	});
	let readings = 0;
	async function load(key: string): Promise<void> {
		const mine = ++readings;
		try {
			const response = await fetch(`/api/cards/${encodeURIComponent(key)}`);
			const answer = await response.json();
			// An answer that comes after a later one is passed over.
			if (key !== cardKey || mine !== readings) return;
			if (!response.ok) return void (problem = answer.title);
			// One that went on to another board is looked at there.
			if (answer.board !== head.slug)
				return void goto(`/boards/${answer.board}?card=${answer.key}`, { replaceState: true });
			const first = read?.id !== answer.id;
			// What is being typed stays, whatever somebody else wrote meanwhile.
			const typing = !first && title.trim() !== base;
			if (typing && answer.title !== base) theirs = answer.title;
			else if (!typing) {
				base = answer.title;
				title = (first && mayEdit ? draftOf(`title-${answer.key}`) : null) ?? answer.title;
			}
			read = answer;
			problem = '';
			// Whoever is typing elsewhere by now keeps the focus.
			if (first && !document.activeElement?.matches('input, textarea'))
				queueMicrotask(() => heading?.focus());
		} catch {
			problem = 'Not connected: this card cannot be read now. It is tried again when something changes.';
		}
	}

	// Read when another card is opened, and again whenever this one changes on the board.
	const version = $derived(read ? (board.cards.get(read.id)?.version ?? 0) : 0);
	$effect(() => {
		const key = cardKey;
		if (read?.key === key && (version <= read.version || waiting)) return;
		if (read && board.changing(read.id)) return;
		void load(key);
	});

	function rename() {
		if (!card) return;
		const text = title.trim();
		// Two titles are not mixed: whose it shall be is asked for.
		if (theirs !== null && text !== theirs) return;
		if (text && text !== card.title) void board.rename(card, text);
		else title = card.title;
		base = title.trim();
		theirs = null;
	}
	function decide(mine: boolean) {
		const other = theirs ?? '';
		theirs = null;
		if (!mine) title = base = other;
		rename();
	}

	let last: Promise<unknown> = Promise.resolve();
	/** Changes of this panel that have not been answered yet. */
	let waiting = 0;
	/** The version that a card, or a part of it, has once what was sent has happened. */
	const ahead = new Map<string, number>();

	/**
	 * Sends a change of the card, or of a part of it, whose effect is read again; gives whether it was kept. What
	 * follows quickly waits for what went before, so that a person's own changes never meet each other.
	 */
	function ask<C extends CommandOnCard>(command: C, input: CardInput<C>, part?: string): Promise<boolean> {
		waiting++;
		const work = last.then(async () => {
			let kept = false;
			const of = part ? card?.children.find(({ id }) => id === part) : card;
			if (of) {
				const version = Math.max(ahead.get(of.id) ?? 0, of.version, board.cards.get(of.id)?.version ?? 0);
				const sent = await board.ask(command, {
					card: of.id,
					version,
					...input,
				} as unknown as CommandInput<C>);
				kept = sent.ok;
				if (kept) ahead.set(of.id, version + 1);
				else ahead.delete(of.id);
				// Where somebody else wrote meanwhile, what was typed stays, beside what they wrote.
				if (waiting === 1 || !kept) await load(cardKey);
			}
			waiting--;
			return kept;
		});
		last = work;
		return work;
	}

	/** Sends a command about time; what the bar shows of the timer follows. */
	async function time<C extends Command>(command: C, input: CommandInput<C>): Promise<Refusal | null> {
		const sent = await board.ask(command, input);
		await load(cardKey);
		if (command.endsWith('Timer')) await reread('harrow:timer');
		return sent.ok ? null : sent.refusal;
	}

	/** The checklist as it was last changed here, until the server has it so. */
	let wanted = $state.raw<CardPage['checklist'] | null>(null);
	async function tick(lines: CardPage['checklist']): Promise<void> {
		wanted = lines;
		const kept = await ask('ChecklistCard', { lines });
		if (!kept || wanted === lines) wanted = null;
	}
	/** Sends what is said on the card; the talk is read again. */
	async function talk<C extends Command>(command: C, input: CommandInput<C>): Promise<boolean> {
		const sent = await board.ask(command, input);
		await load(cardKey);
		return sent.ok;
	}
	/** A picture in the talk is a file of the card. */
	const picture = (file: File) =>
		pictureFor(file, async (sent) => {
			const kept = await board.ask('AttachFiles', { card: card!.id, files: [sent] });
			return kept.ok ? kept.answer.result.files[0] : undefined;
		});
	async function again(work: Promise<unknown>) {
		await work;
		await load(cardKey);
	}
	async function part(text: string): Promise<boolean> {
		const cards = [{ title: text, partOf: card!.id }];
		const below = card!.column === null ? { below: card!.id } : {};
		const made = await board.ask('AddCards', { board: head.id, cards, ...below });
		await load(cardKey);
		return made.ok;
	}
	/** Another card as it stands now; where it cannot be read, why is said. */
	async function other(key: string): Promise<CardPage | null> {
		const found = await readFrom<CardPage>(`/api/cards/${key}`);
		if (found.ok) return found.answer;
		board.tell({ tone: 'warn', text: found.refusal.title });
		return null;
	}
	async function linkTo(kind: 'blocks' | 'waits' | 'relates' | 'part', to: string): Promise<boolean> {
		if (kind === 'blocks' || kind === 'relates') return ask('LinkCard', { kind, to });
		const found = await other(to);
		if (!found) return false;
		if (kind === 'part') return ask('NestCard', { parent: found.id });
		// The other one blocks this card: it is that one which changes.
		const sent = await board.ask('LinkCard', {
			card: found.id,
			version: found.version,
			kind: 'blocks',
			to: cardKey,
		});
		await load(cardKey);
		return sent.ok;
	}
	async function unlink(link: CardLink): Promise<void> {
		if (!link.comes) return void ask('UnlinkCard', { kind: link.kind, to: link.key! });
		// The link belongs to the other card: it is that one which changes.
		const found = await other(link.key!);
		if (!found) return;
		await board.ask('UnlinkCard', {
			card: found.id,
			version: found.version,
			kind: link.kind,
			to: card!.key,
		});
		await load(cardKey);
	}
	let files = $state<ReturnType<typeof Files>>();
	/** Pictures and files that are pasted anywhere in the panel come to the card. */
	function onpaste(event: ClipboardEvent): void {
		const pasted = event.clipboardData?.files;
		if (!pasted?.length || !mayEdit || !card || card.archived) return;
		event.preventDefault();
		void files?.add([...pasted]);
	}
	const href = (number: number | string) => cardAddress(page.url, { number });

	function onkeydown(event: KeyboardEvent) {
		if (event.key === 'Escape' && !asking) onclose();
		const typing = (event.target as HTMLElement).matches('input:not([type="checkbox"]), textarea');
		if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'z' && !event.shiftKey && !typing) {
			event.preventDefault();
			void again(board.undo());
		}
	}
</script>

<aside class="panel screen-only" aria-label="Card {cardKey}">
	<!-- svelte-ignore a11y_no_static_element_interactions -->
	<div class="inside" {onkeydown} {onpaste} {onfocusin} onfocusout={() => board.here.writes(null)}>
		<div class="top">
			<h2 tabindex="-1" bind:this={heading}>{cardKey}</h2>
			{#if card}<HereTags who={others} people={head.people} where="this card" />{/if}
			<button type="button" class="plain" onclick={onclose}>Close</button>
		</div>
		{#if problem}<p class="warn" role="alert">{problem}</p>{/if}
		{#each writing as { person, field }, i (i)}<p class="soft">
				{nameOf(person)} is writing: {field}.
			</p>{/each}
		{#if card}
			{#if card.archived}
				<p class="care">
					Archived{card.archivedReason ? `: ${card.archivedReason}` : ''}.
					{#if mayEdit}<button type="button" class="link" onclick={() => void again(board.restore(card))}
							>Restore it</button
						>{/if}
				</p>
			{/if}
			{#if card.private}<p class="soft">
					Private: its owners, its reviewer and those who watch it see it. For everyone else it only counts.
				</p>{/if}
			<textarea
				class="title"
				aria-label="Title"
				rows="2"
				maxlength="300"
				bind:value={title}
				readonly={!mayEdit}
				onblur={rename}
				onkeydown={(event) => event.key === 'Enter' && (event.preventDefault(), event.currentTarget.blur())}
			></textarea>
			{#if theirs !== null}<p class="care" role="alert">
					Meanwhile somebody called it “{theirs}”.
					<button type="button" class="link" onclick={() => decide(true)}>Keep mine</button>
					<button type="button" class="link" onclick={() => decide(false)}>Take theirs</button>
				</p>{/if}
			<Fields {board} {card} {today} {mayEdit} onask={(one) => (asking = one)} {again} />
			{#key card.id}
				<Written
					title="Description"
					of={cardKey}
					text={card.description}
					{mayEdit}
					onkeep={(description) => ask('DescribeCard', { description })}
				/>
				<Checklist
					lines={wanted ?? card.checklist}
					states={head.lineStates}
					{mayEdit}
					onlines={(lines) => void tick(lines)}
					oncard={async (line) => {
						const made = await board.ask('LineToCard', {
							card: card.id,
							version: card.version,
							line: line.id,
						});
						if (made.ok)
							board.tell({
								tone: 'done',
								text: `“${line.text}” is card ${made.answer.result.number} in the backlog now.`,
								undo: made.answer.id,
							});
						await load(cardKey);
					}}
				/>
				<Files
					bind:this={files}
					files={card.attachments}
					timeZone={head.timeZone}
					mayEdit={mayEdit && !card.archived}
					onattach={async (sent) => {
						const kept = await board.ask('AttachFiles', { card: card.id, files: sent });
						await load(cardKey);
						return kept.ok;
					}}
					onremove={(file) =>
						void again(
							board.ask('RemoveFile', { card: card.id, file: file.id }).then((sent) => {
								if (sent.ok)
									board.tell({ tone: 'done', text: `${file.name} was taken off.`, undo: sent.answer.id });
							}),
						)}
					onfront={(file) => void ask('PictureCard', { file: file?.id ?? null })}
				/>
				{#if !card.parentCard}<SubCards
						cards={card.children}
						{head}
						mayEdit={mayEdit && !card.archived}
						mayAdd={mayEdit && !card.archived}
						{href}
						onpart={part}
						onmove={(one, column) => void ask('MoveCard', { column }, one.id)}
						onleft={(one, left) =>
							void (one.size === null
								? ask('SizeCard', { size: left }, one.id)
								: ask('CorrectLeft', { left }, one.id))}
						onowners={async (one) => {
							const found = await other(`${head.key}-${one.number}`);
							if (found) asking = { kind: 'owners', cards: [found] };
						}}
					/>{/if}
				<Related
					{card}
					{mayEdit}
					{href}
					onlink={linkTo}
					onunlink={(link) => void unlink(link)}
					onfree={() => void ask('NestCard', { parent: null })}
				/>
				{#if mayEdit || card.time.length}
					{#if uses(head, 'hours')}<TimeSpent
							cardId={card.id}
							number={card.number}
							entries={card.time}
							people={head.people}
							me={page.data.person?.id ?? ''}
							role={head.role}
							{today}
							unit={head.unit}
							size={card.size}
							left={card.left}
							timer={page.data.timer}
							hasParts={card.parts !== null}
							ask={time}
						/>{/if}
				{/if}
				{#if !card.archived && card.clock !== 'done'}<Reminders
						{card}
						{today}
						timeZone={head.timeZone}
						mayRemind={mayEdit}
						onremind={(input) => talk('RemindCard', { card: card.id, ...input })}
						ondrop={(reminder) => void talk('DropReminder', { card: card.id, reminder })}
					/>{/if}
				<Talk
					{card}
					people={head.people}
					me={head.me}
					timeZone={head.timeZone}
					mayAsk={mayEdit && !card.archived}
					onpicture={mayEdit && !card.archived ? picture : undefined}
					onsay={(text, replyTo) => talk('CommentCard', { card: card.id, text, replyTo })}
					onchange={(comment, text) => talk('ChangeComment', { card: card.id, comment, text })}
					onwithdraw={(comment) => void talk('WithdrawComment', { card: card.id, comment })}
					onwatch={(watch) => void talk('WatchCard', { card: card.id, watch })}
					onaskwatch={(person) => void talk('AskToWatch', { card: card.id, people: [person] })}
				/>
			{/key}
			{#if mayEdit && !card.archived}<p class="acts">
					<button type="button" class="link" onclick={() => (asking = { kind: 'copy', cards: [card] })}
						>Copy</button
					>
					{#if card.clock !== 'done'}<button
							type="button"
							class="link"
							onclick={() => (asking = { kind: 'send', cards: [card] })}>To another board</button
						>{/if}
					<button
						type="button"
						class="link"
						onclick={() =>
							void again(
								board.ask('PrivateCard', { card: card.id, version: card.version, private: !card.private }),
							)}>{card.private ? 'Let everyone on the board see it' : 'Make it private'}</button
					>
					<button type="button" class="link" onclick={() => (asking = { kind: 'archive', cards: [card] })}
						>Archive this card</button
					>
				</p>{/if}
			<h3>History</h3>
			<ol>
				{#each history as { seq, at, text, undone } (seq)}
					<li class:undone>
						<time datetime={at}>{momentWords(at, head.timeZone)}</time>
						{text}{undone ? ' (taken back)' : ''}
					</li>
				{/each}
			</ol>
		{:else if !problem}<p class="soft">Reading…</p>{/if}
	</div>
</aside>

{#if asking}
	<Asking {board} ask={asking} onclose={() => (asking = null)} ondone={() => void load(cardKey)} />
{/if}

<style>
	.panel {
		flex: 0 0 400px;
		min-width: 0;
		overflow-y: auto;
		border-left: 1px solid var(--edge);
		background: var(--sheet);
	}
	.inside {
		padding: 10px 18px 30px;
	}
	/* The parts of a card. */
	:global(:where(.panel) h3) {
		font-size: 1.05rem;
		margin: 18px 0 5px;
	}
	:global(:where(.panel) small) {
		font: 400 0.9rem var(--text);
		color: var(--soft);
	}
	.top {
		display: flex;
		justify-content: space-between;
		align-items: center;
	}
	h2 {
		font-size: 1.1rem;
		color: var(--soft);
	}
	.title {
		width: 100%;
		margin: 6px 0 4px -6px;
		padding: 4px 6px;
		border: 1px solid transparent;
		border-radius: 3px;
		background: none;
		color: var(--ink);
		font: 650 1.35rem/1.2 var(--display);
		resize: none;
		field-sizing: content;
	}
	.title:not([readonly]):hover {
		border-color: var(--rule);
	}
	li {
		padding: 4px 0;
		border-top: 1px dotted var(--rule);
		font-size: 0.95rem;
		overflow-wrap: anywhere;
	}
	time {
		display: block;
		font-size: 12px;
		color: var(--faint);
	}
	.acts {
		display: flex;
		flex-wrap: wrap;
		gap: 4px 16px;
		margin-top: 18px;
	}
	.undone {
		color: var(--faint);
		text-decoration: line-through;
	}
	@media (max-width: 900px) {
		.panel {
			flex: 1;
			border-left: 0;
		}
	}
	@media (pointer: coarse) {
		.link {
			min-height: 44px;
		}
	}
</style>
