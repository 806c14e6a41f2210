<script lang="ts">
	import { page } from '$app/state';
	import { setContext } from 'svelte';
	import type { Command, CommandInput } from '../../commands';
	import type { Ask } from '../board/ask';
	import Asking from '../board/Asking.svelte';
	import type { BoardState } from '../board/board-state.svelte';
	import HereTags from '../board/HereTags.svelte';
	import { cardAddress } from '../frame/card-address';
	import Files from './Files.svelte';
	import History from './History.svelte';
	import { OpenCard } from './open-card.svelte';
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
	import TitleField from './TitleField.svelte';

	let {
		board,
		cardKey,
		today,
		onclose,
	}: { board: BoardState; cardKey: string; today: string; onclose: () => void } = $props();

	let heading = $state<HTMLElement>();
	let asking = $state.raw<Ask | null>(null);

	const head = $derived(board.head);
	const mayEdit = $derived(head.role !== 'viewer');
	const opened = new OpenCard(
		() => board,
		() => cardKey,
		() => {
			// Whoever is typing elsewhere by now keeps the focus.
			if (!document.activeElement?.matches('input, textarea')) queueMicrotask(() => heading?.focus());
		},
	);
	const card = $derived(opened.card);
	setContext('named-cards', () => opened.named);

	// Others who look at the board see which card is open here, and where somebody writes.
	const id = $derived(opened.id);
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

	/** Says something on the card, or about who is told of it; gives whether it was kept. */
	async function talk<C extends Command>(command: C, input: CommandInput<C>): Promise<boolean> {
		return (await opened.send(command, input)).ok;
	}
	/** A picture in the talk is a file of the card. */
	const picture = (file: File) =>
		pictureFor(file, async (sent) => {
			const kept = await board.ask('AttachFiles', { card: card!.id, files: [sent] });
			return kept.ok ? kept.answer.result.files[0] : undefined;
		});
	async function again(work: Promise<unknown>) {
		await work;
		await opened.load();
	}
	async function part(text: string): Promise<boolean> {
		const cards = [{ title: text, partOf: card!.id }];
		const below = card!.column === null ? { below: card!.id } : {};
		return (await opened.send('AddCards', { board: head.id, cards, ...below })).ok;
	}
	/** Makes a card of a line of the checklist. */
	async function lineToCard(line: { id: string; text: string }): Promise<void> {
		const made = await opened.send('LineToCard', { card: card!.id, version: card!.version, line: line.id });
		const text = made.ok && `“${line.text}” is card ${made.answer.result.number} in the backlog now.`;
		if (text) board.tell({ tone: 'done', text, undo: made.answer.id });
	}
	async function takeOff(file: { id: string; name: string }): Promise<void> {
		const sent = await opened.send('RemoveFile', { card: card!.id, file: file.id });
		if (sent.ok) board.tell({ tone: 'done', text: `${file.name} was taken off.`, undo: sent.answer.id });
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
		{#if opened.problem}<p class="warn" role="alert">{opened.problem}</p>{/if}
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
			<TitleField title={opened.title} {mayEdit} onend={() => opened.rename()} />
			<Fields {board} {card} {today} {mayEdit} onask={(one) => (asking = one)} {again} />
			{#key card.id}
				<Written
					title="Description"
					of={cardKey}
					text={card.description}
					{mayEdit}
					onkeep={(description) => opened.ask('DescribeCard', { description })}
				/>
				<Checklist
					lines={opened.checklist}
					states={head.lineStates}
					{mayEdit}
					onlines={(lines) => void opened.tick(lines)}
					oncard={(line) => lineToCard(line)}
				/>
				<Files
					bind:this={files}
					files={card.attachments}
					timeZone={head.timeZone}
					mayEdit={mayEdit && !card.archived}
					onattach={async (sent) => (await opened.send('AttachFiles', { card: card.id, files: sent })).ok}
					onremove={(file) => void takeOff(file)}
					onfront={(file) => void opened.ask('PictureCard', { file: file?.id ?? null })}
				/>
				{#if !card.parentCard}<SubCards
						cards={card.children}
						{head}
						mayEdit={mayEdit && !card.archived}
						mayAdd={mayEdit && !card.archived}
						{href}
						onpart={part}
						onmove={(one, column) => void opened.ask('MoveCard', { column }, one.id)}
						onleft={(one, left) =>
							void (one.size === null
								? opened.ask('SizeCard', { size: left }, one.id)
								: opened.ask('CorrectLeft', { left }, one.id))}
						onowners={async (one) => {
							const found = await opened.other(`${head.key}-${one.number}`);
							if (found) asking = { kind: 'owners', cards: [found] };
						}}
					/>{/if}
				<Related
					{card}
					{mayEdit}
					{href}
					onlink={(kind, to) => opened.link(kind, to)}
					onunlink={(link) => void opened.unlink(link)}
					onfree={() => void opened.ask('NestCard', { parent: null })}
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
							ask={(command, input) => opened.time(command, input)}
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
			<History events={card.history} unit={head.unit} timeZone={head.timeZone} />
		{:else if !opened.problem}<p class="soft">Reading…</p>{/if}
	</div>
</aside>

{#if asking}
	<Asking {board} ask={asking} onclose={() => (asking = null)} ondone={() => void opened.load()} />
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
	.acts {
		display: flex;
		flex-wrap: wrap;
		gap: 4px 16px;
		margin-top: 18px;
	}
	@media (max-width: 900px) {
		.panel {
			flex: 1;
			border-left: 0;
		}
	}
	.link {
		min-height: var(--touch, auto);
	}
</style>
