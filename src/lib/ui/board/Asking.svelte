<script lang="ts">
	import { page } from '$app/state';
	import type { CardView, ColumnView } from '$core/pages/board';
	import type { Part } from '$core/capacity/promise';
	import type { Ask } from './ask';
	import { provideAsked } from '../dialogs/asked.svelte';
	import type { Sent } from '../send';
	import type { BoardState } from './board-state.svelte';

	interface Props {
		board: BoardState;
		ask: Ask;
		/** Cards in hand of each person on this board. */
		inHand?: ReadonlyMap<string, number>;
		onclose: () => void;
		/** Told of what is asked for instead. */
		onask?: (ask: Ask) => void;
		/** Told when what was asked for has been sent and answered. */
		ondone?: () => void;
		/** Gives a card the focus again; not called where the person has gone on to something else meanwhile. */
		onback?: (card: CardView) => void;
	}
	/** The dialog for what is asked, loaded when it is first needed. */
	let { board, ask, inHand = new Map(), onclose, onask, ondone, onback }: Props = $props();

	/** So many cards one command takes. */
	const MOST = 500;
	const asked = provideAsked();

	/** The dialog closes once what it asks for is kept; where that is refused it stays, and says why. */
	async function done(card: CardView | null, work: Promise<Sent | void>): Promise<void> {
		if (!(await asked.kept(work))) return;
		onclose();
		over(card);
	}

	function over(card: CardView | null): void {
		ondone?.();
		const { activeElement } = document;
		if (card && (activeElement === document.body || activeElement?.closest('dialog'))) onback?.(card);
	}

	async function block(card: CardView, reason: string): Promise<Sent> {
		const sent = await board.block(board.latest(card), reason);
		if (sent.ok) board.spoken = `Card ${card.number} is blocked: ${reason}.`;
		return sent;
	}

	async function size(
		card: CardView,
		size: number | null,
		left: number | null,
		reason?: string,
	): Promise<Sent | void> {
		const sized = size === null ? undefined : await board.size(board.latest(card), size);
		if (left === null || sized?.ok === false) return sized;
		return board.correctLeft(board.latest(card), left, reason);
	}

	const archive = (cards: readonly CardView[], reason: string) =>
		cards.length === 1 ? board.archive(board.latest(cards[0]!), reason) : board.archiveAll(cards, reason);

	async function log(
		card: CardView,
		time: { hours: number; day: string; note: string; billable: boolean },
	): Promise<string> {
		const sent = await board.ask('LogTime', { card: card.id, ...time });
		if (!sent.ok) return sent.refusal.title;
		board.tell({ tone: 'done', text: `${time.hours} h logged on ${card.number}.`, undo: sent.answer.id });
		return '';
	}

	/** Sends cards to another place: one to the top or the end of it, several to its end. */
	async function send(cards: readonly CardView[], column: string | null, top: boolean): Promise<Sent> {
		const sent =
			cards.length === 1
				? await board.move(board.latest(cards[0]!), column, top ? null : undefined)
				: await board.moveAll(
						cards.map((card) => board.latest(card)),
						column,
					);
		const name = board.head.columns.find(({ id }) => id === column)?.name ?? 'the backlog';
		if (sent.ok)
			board.spoken =
				cards.length === 1
					? `Card ${cards[0]!.number} is in ${name}.`
					: `${cards.length} cards are in ${name}.`;
		return sent;
	}

	/** What all of several cards have. */
	function inAll(cards: readonly CardView[], of: (card: CardView) => string[]): string[] {
		return of(cards[0]!).filter((item) => cards.every((card) => of(card).includes(item)));
	}

	const give = (cards: readonly CardView[], owners: string[]) =>
		cards.length === 1 ? board.assign(board.latest(cards[0]!), owners) : board.changeCards(cards, { owners });

	/** The card that stands right above a position of the backlog, those that move left out. */
	function above(cards: readonly CardView[], position: number): string | null {
		const others = board.backlog.filter((card) => !cards.some((one) => one.id === card.id));
		return others[position - 2]?.id ?? null;
	}

	async function room(card: CardView): Promise<{ sprint: number | null; parts: Part[] }> {
		try {
			const response = await fetch(`/api/boards/${board.head.slug}/room?sprint=${card.sprint ?? ''}`);
			if (response.ok) return await response.json();
		} catch {
			// Without a connection owners can be chosen all the same.
		}
		return { sprint: null, parts: [] };
	}

	async function checklistOf(card: CardView): Promise<{ id: string; text: string; done: boolean }[]> {
		try {
			const response = await fetch(`/api/cards/${board.head.key}-${card.number}`);
			return response.ok ? (await response.json()).checklist : [];
		} catch {
			return [];
		}
	}

	const change = (column: ColumnView, to: Pick<ColumnView, 'limit' | 'mode' | 'policy'>) =>
		board.ask('ChangeColumn', { column: column.id, version: column.version, ...to });
</script>

{#if ask.kind === 'block'}
	{@const { card } = ask}
	{#await import('../dialogs/ReasonDialog.svelte') then { default: ReasonDialog }}
		<ReasonDialog
			title="What blocks {card.number}?"
			sentence=""
			label="Reason, and who or what is waited for"
			go="Mark as blocked"
			most={500}
			{onclose}
			onreason={(reason) => void done(card, block(card, reason))}
		/>
	{/await}
{:else if ask.kind === 'archive'}
	{@const { cards } = ask}
	{#await import('../dialogs/ReasonDialog.svelte') then { default: ReasonDialog }}
		<ReasonDialog
			title={cards.length === 1 ? `Archive ${cards[0]!.number}?` : `Archive these ${cards.length} cards?`}
			sentence="It stays findable and can be restored to where it stands now."
			label={cards.every(({ clock }) => clock === 'done') ? 'Why, in a word' : 'Why it is not done'}
			go="Archive"
			{onclose}
			onreason={(reason) => void done(cards[0]!, archive(cards, reason))}
		/>
	{/await}
{:else if ask.kind === 'owners'}
	{@const { cards } = ask}
	{#await import('../dialogs/OwnersDialog.svelte') then { default: OwnersDialog }}
		<OwnersDialog
			title={cards.length === 1 ? `Who owns ${cards[0]!.number}?` : `Who owns these ${cards.length}?`}
			owners={inAll(cards, (card) => card.owners)}
			people={board.head.people}
			unit={board.head.unit}
			labels={[...new Set(cards.flatMap((card) => card.labels))]}
			room={room(cards[0]!)}
			{inHand}
			{onclose}
			onowners={(owners) => void done(cards[0]!, give(cards, owners))}
		/>
	{/await}
{:else if ask.kind === 'labels'}
	{@const { cards } = ask}
	{#await import('../dialogs/LabelsDialog.svelte') then { default: LabelsDialog }}
		<LabelsDialog
			title={cards.length === 1 ? `Labels of ${cards[0]!.number}` : `Labels of these ${cards.length}`}
			labels={board.head.labels}
			on={inAll(cards, (card) => card.labels)}
			{onclose}
			onlabels={(label, unlabel) =>
				void done(
					cards[0]!,
					label.length || unlabel.length ? board.changeCards(cards, { label, unlabel }) : Promise.resolve(),
				)}
		/>
	{/await}
{:else if ask.kind === 'position'}
	{@const { cards } = ask}
	{#await import('../dialogs/PositionDialog.svelte') then { default: PositionDialog }}
		<PositionDialog
			what={cards.length === 1 ? `card ${cards[0]!.number}` : `these ${cards.length} cards`}
			most={board.backlog.length}
			{onclose}
			onposition={(position) => void done(cards[0]!, board.place(cards, above(cards, position)))}
		/>
	{/await}
{:else if ask.kind === 'split'}
	{@const { card } = ask}
	{#await Promise.all( [import('../dialogs/SplitDialog.svelte'), checklistOf(card)] ) then [{ default: SplitDialog }, checklist]}
		<SplitDialog
			{card}
			unit={board.head.unit}
			{checklist}
			{onclose}
			onsplit={(split) =>
				void done(
					card,
					board.ask('SplitCard', { card: card.id, version: board.latest(card).version, ...split }),
				)}
		/>
	{/await}
{:else if ask.kind === 'paste'}
	{@const { text, below } = ask}
	{#await import('../dialogs/PasteDialog.svelte') then { default: PasteDialog }}
		<PasteDialog
			{text}
			unit={board.head.unit}
			{onclose}
			onadd={(cards) => void done(null, board.addPasted(cards, below))}
		/>
	{/await}
{:else if ask.kind === 'import'}
	{#await import('../dialogs/ImportDialog.svelte') then { default: ImportDialog }}
		<ImportDialog
			slug={board.head.slug}
			unit={board.head.unit}
			{onclose}
			onadd={(cards) => void done(null, board.addFromTable(cards))}
		/>
	{/await}
{:else if ask.kind === 'size'}
	{@const { card } = ask}
	{#await import('../dialogs/SizeDialog.svelte') then { default: SizeDialog }}
		<SizeDialog
			{card}
			unit={board.head.unit}
			{onclose}
			onsize={(to, left, reason) => void done(card, size(card, to, left, reason))}
		/>
	{/await}
{:else if ask.kind === 'time'}
	{@const { card } = ask}
	{#await import('../dialogs/TimeDialog.svelte') then { default: TimeDialog }}
		<TimeDialog
			title="Log time on {card.number}"
			draft="time-{board.head.key}-{card.number}"
			hours={null}
			day={page.data.today}
			today={page.data.today}
			onclose={() => {
				// Taken before the dialog closes: with it goes what it was about.
				const about = card;
				onclose();
				over(about);
			}}
			ontime={({ hours, day, note, billable }) => log(card, { hours, day, note, billable })}
		/>
	{/await}
{:else if ask.kind === 'place'}
	{@const { cards } = ask}
	{#await import('../dialogs/PlaceDialog.svelte') then { default: PlaceDialog }}
		<PlaceDialog
			{cards}
			columns={board.head.columns}
			standing={new Map([...board.columns].map(([id, there]) => [id, there.length]))}
			lanes={board.head.lanes}
			{onclose}
			onplace={(column, top) => void done(cards[0]!, send(cards, column, top))}
			onlane={(lane) => void done(cards[0]!, board.changeCards(cards, { lane }))}
		/>
	{/await}
{:else if ask.kind === 'copy'}
	{@const { cards } = ask}
	{#await import('../dialogs/CopyDialog.svelte') then { default: CopyDialog }}
		<CopyDialog
			cards={cards.length}
			{onclose}
			oncopy={(parts) => void done(cards[0]!, board.copy(cards, parts))}
		/>
	{/await}
{:else if ask.kind === 'send'}
	{@const { cards } = ask}
	{#await import('../dialogs/SendDialog.svelte') then { default: SendDialog }}
		<SendDialog
			cards={cards.length}
			boards={board.head.boards.filter(({ id }) => id !== board.head.id)}
			{onclose}
			onsend={(to, leave) => board.sendTo(cards, to, leave)}
			ondone={() => {
				onclose();
				over(null);
			}}
		/>
	{/await}
{:else if ask.kind === 'field'}
	{@const { cards } = ask}
	{#await import('../dialogs/AnyFieldDialog.svelte') then { default: AnyFieldDialog }}
		<AnyFieldDialog
			{board}
			{cards}
			{onclose}
			onchanges={(changes) => void done(cards[0]!, board.putAll(changes))}
		/>
	{/await}
{:else if ask.kind === 'column'}
	{@const column = board.head.columns.find((known) => known.id === (ask.kind === 'column' && ask.column))!}
	{@const standing = board.columns.get(column.id) ?? []}
	{#await import('../dialogs/ColumnDialog.svelte') then { default: ColumnDialog }}
		<ColumnDialog
			{column}
			{onclose}
			onchange={(to) => void done(null, change(column, to))}
			onarchive={column.kind === 'done' && standing.length
				? () => onask?.({ kind: 'archive', cards: standing.slice(0, MOST) })
				: undefined}
		/>
	{/await}
{/if}
