<script lang="ts">
	import { fsum } from 'd3-array';
	import { addMonths, format, parseISO } from 'date-fns';
	import { dayText, parseDay } from '$core/calendar/days';
	import type { BoardDays, CardView, PersonView } from '$core/pages/board';
	import { count, list, shortDate } from '../words';
	import type { BoardState } from '../board/board-state.svelte';
	import { dragDays } from '../board/drag';

	interface Props {
		board: BoardState;
		cards: CardView[];
		/** The weeks that are shown; null until they are there. */
		days: BoardDays | null;
		today: string;
		open: (card: CardView) => string;
		onlayout: (change: Record<string, string | null>) => void;
	}
	/** Cards by the day on which they are due, in the weeks of a month; dragging one to another day changes that. */
	let { board, cards, days, today, open, onlayout }: Props = $props();
	const head = $derived(board.head);
	const mayEdit = $derived(head.role !== 'viewer' && !head.away);
	const SHOWN = 4;
	let whole = $state.raw<ReadonlySet<string>>(new Set());
	let over = $state<string | null>(null);

	const people = $derived(new Map<string, PersonView>(head.people.map((person) => [person.id, person])));
	const due = $derived.by(() => {
		const by = new Map<string, CardView[]>();
		for (const card of cards) if (card.due) by.set(card.due, [...(by.get(card.due) ?? []), card]);
		return by;
	});
	const without = $derived(cards.filter((card) => !card.due && card.clock !== 'done').length);
	const weeks = $derived(
		days &&
			Array.from({ length: days.weeks }, (_, week) =>
				Array.from({ length: 7 }, (_, i) => dayText(parseDay(days.from)! + week * 7 + i)),
			),
	);
	const awayOn = (day: string) =>
		(days?.away ?? []).filter((one) => one.day === day).map(({ person }) => people.get(person)?.name ?? '');
	const holiday = (day: string) => days?.holidays.includes(day) ?? false;
	/** What begins or ends on a day. */
	const bounds = (day: string) =>
		head.sprints.flatMap((sprint) => [
			...(sprint.starts === day ? [`${head.sprintName} ${sprint.number} starts`] : []),
			...(sprint.ends === day ? [`${head.sprintName} ${sprint.number} ends`] : []),
		]);
	const inSprint = (day: string) => {
		const there = head.sprints.find((sprint) => sprint.starts <= day && day <= sprint.ends);
		return there ? (there.number % 2 ? 'odd' : 'even') : '';
	};
	const go = (by: number) =>
		onlayout({ month: format(addMonths(parseISO(`${days!.month}-01`), by), 'yyyy-MM') });

	function move(card: CardView, day: string): void {
		if (card.due === day) return;
		void board
			.date(board.latest(card), day)
			.then((sent) => sent.ok && (board.spoken = `Card ${card.number} is due on ${shortDate(day)}.`));
	}
	/** The card that is held, and how far it was drawn. */
	let held = $state.raw<{ id: string; x: number; y: number; dx: number; dy: number } | null>(null);
	/** A drag ends with a click on what it began with: that opens nothing. */
	let dragged = false;
	const dragging = (element: HTMLElement) => {
		const stop = dragDays(element, {
			start: (id, _card, x, y) => {
				held = { id, x, y, dx: 0, dy: 0 };
				dragged = true;
			},
			move: (x, y) => {
				if (!held) return;
				held = { ...held, dx: x - held.x, dy: y - held.y };
				over = document.elementFromPoint(x, y)?.closest<HTMLElement>('[data-day]')?.dataset.day ?? null;
			},
			end: () => {
				const card = held && board.cards.get(held.id);
				const day = over;
				held = over = null;
				setTimeout(() => (dragged = false));
				if (card && day) move(card, day);
			},
		});
		return () => void stop.then((end) => end());
	};
	function keys(event: KeyboardEvent, card: CardView, day: string): void {
		const by = { ArrowLeft: -1, ArrowRight: 1, ArrowUp: -7, ArrowDown: 7 }[event.key];
		if (!event.shiftKey || !by || !mayEdit) return;
		event.preventDefault();
		move(card, dayText(parseDay(day)! + by));
	}
</script>

{#if days && weeks}
	<div class="top">
		<button type="button" class="plain" aria-label="The month before" onclick={() => go(-1)}>‹</button>
		<h2>{format(parseISO(`${days.month}-01`), 'MMMM yyyy')}</h2>
		<button type="button" class="plain" aria-label="The month after" onclick={() => go(1)}>›</button>
		{#if days.month !== today.slice(0, 7)}<button
				type="button"
				class="link"
				onclick={() => onlayout({ month: null })}>This month</button
			>{/if}
		<span class="soft"
			>{count(
				fsum(weeks.flat(), (day) => due.get(day)?.length ?? 0),
				'card',
			)} due in these weeks{without ? `; ${count(without, 'card')} without a date` : ''}</span
		>
	</div>
	<div
		class="month"
		role="grid"
		aria-label="Cards by the day on which they are due"
		{@attach mayEdit ? dragging : undefined}
	>
		<div class="names" role="row">
			{#each ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'] as name (name)}<span role="columnheader"
					>{name}</span
				>{/each}
		</div>
		{#each weeks as week (week[0])}
			<div class="week" role="row">
				{#each week as day (day)}
					{@const there = due.get(day) ?? []}
					{@const shown = whole.has(day) ? there : there.slice(0, SHOWN)}
					{@const away = awayOn(day)}
					<div
						class="day {inSprint(day)}"
						class:other={day.slice(0, 7) !== days.month}
						class:today={day === today}
						class:closed={holiday(day)}
						class:over={over === day}
						role="gridcell"
						tabindex="-1"
						data-day={day}
					>
						<span class="date"
							>{Number(day.slice(8)) === 1 ? shortDate(day) : Number(day.slice(8))}
							{#if holiday(day)}<small>closed</small>{/if}
							{#if away.length}<small class="away" title="Away: {list(away)}"
									><span aria-hidden="true">{away.length} away</span><span class="sr-only"
										>Away: {list(away)}</span
									></small
								>{/if}</span
						>
						{#each days.milestones.filter((one) => one.day === day) as one (one.id)}<a
								class="milestone"
								href="/teams/{head.teamId}/panorama?from={head.slug}">{one.name}</a
							>{/each}
						{#each bounds(day) as words (words)}<span class="bound">{words}</span>{/each}
						{#each shown as card (card.id)}
							<a
								class="card"
								class:late={day < today && card.clock !== 'done'}
								class:done={card.clock === 'done'}
								href={open(card)}
								data-sveltekit-noscroll
								data-sveltekit-keepfocus
								data-card={card.id}
								draggable="false"
								class:held={held?.id === card.id}
								style:transform={held?.id === card.id ? `translate(${held.dx}px, ${held.dy}px)` : undefined}
								onclickcapture={(event) => {
									if (!dragged) return;
									event.preventDefault();
									event.stopPropagation();
								}}
								onkeydown={(event) => keys(event, card, day)}
								title="{card.number} {card.title}"><b>{card.number}</b> {card.title}</a
							>
						{/each}
						{#if there.length > shown.length}<button
								type="button"
								class="link"
								onclick={() => (whole = new Set([...whole, day]))}
								>{count(there.length - shown.length, 'more', 'more')}</button
							>{/if}
					</div>
				{/each}
			</div>
		{/each}
	</div>
{/if}

<style>
	.top {
		display: flex;
		flex-wrap: wrap;
		align-items: center;
		gap: 4px 12px;
		padding: 0 20px 6px;
		flex: none;
	}
	h2 {
		font-size: 1.15rem;
		min-width: 9.5rem;
		text-align: center;
	}
	.month {
		flex: 1;
		min-height: 0;
		overflow: auto;
		padding: 0 20px 20px;
	}
	.names,
	.week {
		display: grid;
		grid-template-columns: repeat(5, minmax(104px, 1fr)) repeat(2, minmax(74px, 0.6fr));
		min-width: 680px;
	}
	.names {
		position: sticky;
		top: 0;
		z-index: 2;
		background: var(--paper);
		color: var(--soft);
		border-bottom: 1.5px solid var(--edge);
		padding: 2px 0;
	}
	.names span {
		padding-left: 7px;
	}
	.day {
		min-height: 84px;
		min-width: 0;
		padding: 3px 5px 6px;
		border-right: 1px solid var(--rule);
		border-bottom: 1px solid var(--rule);
		display: flex;
		flex-direction: column;
		gap: 3px;
		border-top: 3px solid transparent;
	}
	.odd {
		border-top-color: var(--moss);
	}
	.even {
		border-top-color: var(--edge);
	}
	.other .date {
		color: var(--soft);
		font-weight: 400;
	}
	.other {
		background: color-mix(in srgb, var(--sunk) 45%, transparent);
	}
	.closed {
		background: var(--sunk);
	}
	.over {
		outline: 2px solid var(--river);
		outline-offset: -2px;
	}
	.date {
		display: flex;
		gap: 8px;
		font-size: 0.93rem;
		font-weight: 600;
	}
	.today .date {
		color: var(--moss);
		text-decoration: underline 2px;
		text-underline-offset: 3px;
	}
	.date small {
		font-weight: 400;
		color: var(--soft);
	}
	.away {
		margin-left: auto;
	}
	.bound {
		font-size: 12px;
		color: var(--moss);
	}
	.milestone {
		font-size: 12px;
		font-weight: 650;
		color: var(--plum);
		border-left: 8px solid var(--plum);
		padding-left: 5px;
		text-decoration: none;
		min-height: max(24px, var(--touch, 0px));
	}
	.card {
		display: block;
		padding: 2px 5px;
		border: 1px solid var(--rule);
		border-radius: 3px;
		background: var(--sheet);
		font-size: 0.9rem;
		line-height: 1.25;
		text-decoration: none;
		overflow: hidden;
		text-overflow: ellipsis;
		white-space: nowrap;
		min-height: max(24px, var(--touch, 0px));
	}
	.held {
		position: relative;
		z-index: 5;
		pointer-events: none;
		border-color: var(--river);
		box-shadow: 0 4px 12px #0003;
	}
	.card:hover {
		border-color: var(--edge);
	}
	.card b {
		color: var(--soft);
		font-weight: 600;
	}
	.late {
		border-left: 4px solid var(--brick);
	}
	.done {
		border-left: 4px solid var(--moss);
		color: var(--soft);
	}
	@media (pointer: coarse) {
		.plain,
		.link {
			min-height: 44px;
		}
		/* A finger on a card holds it; anywhere else it scrolls. */
		.card {
			line-height: 38px;
			touch-action: none;
		}
		.plain {
			min-width: 44px;
		}
	}
	@media (max-width: 700px) {
		.top,
		.month {
			padding-inline: 14px;
		}
	}
</style>
