import { fsum } from 'd3-array';
import type { PlanPage, PlanPerson } from '$core/pages/plan';
import type { CardView, PersonView, SprintView } from '$core/pages/board';
import { sprintCards, sprintOdds } from '$core/board/odds';
import { partsInHours, partsInPoints, type Part, type PlannedCard } from '$core/capacity/promise';
import type { BoardState } from '../board/board-state.svelte';
import { inFamilies } from '../backlog/rows';

/** A card in someone's row: the part of what is left that is theirs. */
export interface Block {
	card: CardView;
	hours: number;
	/** Where it begins in the row, in the board's unit. */
	from: number;
	shared: boolean;
}

export interface PlanRow {
	/** Null: cards that nobody in the team owns. */
	person: (PersonView & { seed: number }) | null;
	hours: PlanPerson | null;
	part: Part | null;
	blocks: Block[];
	placed: number;
}

/** The plan of one sprint as the page shows it, following every change of its cards. */
export class PlanState {
	page = $state.raw<PlanPage>()!;

	constructor(private readonly board: BoardState) {}

	readonly sprint = $derived.by<SprintView | null>(
		() => this.board.head.sprints.find((known) => known.number === this.page.sprint) ?? null,
	);
	readonly running = $derived.by(
		() => this.board.head.sprints.find((sprint) => sprint.startedAt && !sprint.closedAt) ?? null,
	);
	/** Cards that a sprint can hold: not parents, not done, not archived. */
	readonly cards = $derived.by(() =>
		sprintCards(this.board.head, this.board.cards.values(), this.page.sprint),
	);
	/** The backlog, without what is on this sprint's list. */
	readonly backlog = $derived.by(() =>
		inFamilies(this.board.backlog).filter((card) => card.sprint === null || card.sprint !== this.page.sprint),
	);
	readonly focus = $derived(this.sprint?.focus ?? this.page.learned.focus);
	readonly keepBack = $derived(this.sprint?.keepBack ?? this.page.learned.keepBack);
	readonly points = $derived.by(() => this.board.head.unit === 'points');
	readonly planned = $derived(
		this.cards.map((card): PlannedCard => ({
			card: String(card.number),
			left: card.left,
			owners: card.owners,
			unplanned: card.unplanned,
		})),
	);
	readonly parts = $derived.by(() => {
		const raw = new Map(this.page.people.map((person) => [person.person, person.raw]));
		return this.points
			? partsInPoints(raw, this.page.learned.perDay, this.planned)
			: partsInHours(raw, this.focus, this.keepBack, this.planned);
	});
	readonly promise = $derived(fsum(this.parts, (part) => part.promise));
	readonly held = $derived(fsum(this.planned, (card) => (card.unplanned ? 0 : card.left)));
	readonly surprises = $derived(fsum(this.planned, (card) => (card.unplanned ? card.left : 0)));
	/** Points are promised by the count of past sprints: how far somebody is in the middle of one, they do not say. */
	readonly over = $derived(
		this.points && this.sprint?.startedAt ? [] : this.parts.filter((part) => part.standing === 'over'),
	);

	/** A row for everyone with hours or cards in the sprint, and one for what is nobody's. */
	readonly rows = $derived.by((): PlanRow[] => {
		const part = new Map(this.parts.map((one) => [one.person, one]));
		const hours = new Map(this.page.people.map((one) => [one.person, one]));
		const blocks = new Map<string | null, { card: CardView; hours: number; shared: boolean }[]>();
		const put = (row: string | null, card: CardView, amount: number, shared: boolean) =>
			blocks.set(row, [...(blocks.get(row) ?? []), { card, hours: amount, shared }]);
		for (const card of this.cards) {
			const owners = card.owners.filter((owner) => part.has(owner));
			if (!owners.length) put(null, card, card.left, false);
			for (const owner of owners) put(owner, card, card.left / owners.length, owners.length > 1);
		}
		const row = (id: string | null, person: PlanRow['person']): PlanRow => {
			const own = [...(blocks.get(id) ?? [])].sort(
				(a, b) =>
					Number(a.card.unplanned) - Number(b.card.unplanned) ||
					Number(a.card.column === null) - Number(b.card.column === null),
			);
			let from = 0;
			const promise = (id && part.get(id)?.promise) || 0;
			const laid = own.map((block, i) => {
				// Surprises are drawn on what is kept back: they begin at the promise, or where planned work ends.
				if (block.card.unplanned && !own[i - 1]?.card.unplanned) from = Math.max(from, promise);
				const at = from;
				from += block.hours;
				return { ...block, from: at };
			});
			return {
				person,
				hours: (id && hours.get(id)) || null,
				part: (id && part.get(id)) || null,
				blocks: laid,
				placed: from,
			};
		};
		const people = this.board.head.people
			.map((person, seed) => ({ ...person, seed }))
			.filter((person) => part.has(person.id))
			.map((person) => row(person.id, person))
			.filter((one) => one.blocks.length || (one.hours?.whole ?? 0) > 0 || (one.hours?.raw ?? 0) > 0);
		return [...people, row(null, null)];
	});
	/** Where the axis ends: a little past the most that anyone can give or holds. */
	readonly end = $derived(
		Math.max(
			this.points ? 5 : 10,
			...this.rows.map((row) => Math.max(row.part?.give ?? 0, row.part?.promise ?? 0, row.placed)),
		) * 1.06,
	);

	/** What odds are asked of: the sprint's unfinished cards, with the hours still to come. */
	readonly oddsInput = $derived.by(() => sprintOdds(this.board.head, this.page, this.parts, this.cards));
}
