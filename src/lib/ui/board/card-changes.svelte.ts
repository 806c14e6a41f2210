import { count } from '$core/words';
import type { CardsChange, Change as FieldChange, Field as FieldOfCards } from '$core/board/field';
import { intoLane } from '$core/board/lanes';
import type { CardView, LaneView } from '$core/pages/board';
import type { DatesPage, DateTexts } from '$core/pages/dates';
import { ask as read, type Sent } from '../send';
import { cardsPatch, clockIn, datesIn, stepFor, type CardStep } from './card-steps';
import { Sending } from './sending.svelte';
import { rankBelow } from './ranks';

/** Gives cards other values of their fields, of one card or of many, their place among them; and asks what follows from other dates. */
export class CardChanges extends Sending {
	/** What would follow from other dates of cards: asked for before anything is moved. */
	following = $state.raw<{
		cards: readonly CardView[];
		page: DatesPage;
		answer: (moves: 'all' | 'one' | null) => void;
	} | null>(null);

	/** Moves a card: below another one, on top (null) or at the end (undefined) of a column; into a lane (null: none), where one is given. */
	move(
		card: CardView,
		column: string | null,
		below: string | null | undefined,
		lane?: LaneView | null,
	): Promise<Sent> {
		const { command, input, patch } = this.moveStep(card, column, below, lane);
		return this.apply([card], command, input, patch);
	}

	private moveStep(
		card: CardView,
		column: string | null,
		below: string | null | undefined,
		lane?: LaneView | null,
	): CardStep<'MoveCard'> {
		const others = column ? (this.columns.get(column) ?? []) : [];
		const rank = rankBelow(
			others.filter(({ id }) => id !== card.id),
			below,
		);
		const into = lane === undefined ? {} : this.intoLane(card, lane?.id ?? null);
		return {
			command: 'MoveCard',
			input: {
				card: card.id,
				version: card.version,
				column,
				...(below === undefined ? {} : { below }),
				...(lane === undefined ? {} : { lane: lane?.id ?? null }),
			},
			patch: (_, reason) => ({
				...into,
				rank,
				column,
				...clockIn(this.head, card, column, this.now()),
				letThrough: column === card.column ? card.letThrough : (reason ?? null),
			}),
		};
	}

	/** Changes type, class, lane, labels, initiative, owners or ready mark of cards, in one step. */
	changeCards(cards: readonly CardView[], change: CardsChange): Promise<Sent> {
		return this.changeAll(cards, 'ChangeCards', change, cardsPatch(this.head, change));
	}

	private intoLane(card: CardView, id: string | null): Pick<CardView, 'lane' | 'class'> {
		return intoLane(this.head.lanes, card, this.head.lanes.find((lane) => lane.id === id) ?? null);
	}

	/** Gives a card another value of a field, as the field says how. */
	put(card: CardView, change: FieldChange): Promise<Sent> {
		const live = this.latest(card);
		const step = this.stepFor(live, change);
		const { to } = datesIn(step, live);
		if (!to) return this.apply([live], step.command, step.input, step.patch);
		return this.moveDates([{ card: live, to }], () => {
			const again = this.stepFor(this.latest(card), change);
			return this.apply([this.latest(card)], again.command, again.input, again.patch);
		});
	}

	/**
	 * Gives cards other dates: where others hang on them, what follows is shown first, and asked.
	 * @param alone moves these cards only
	 */
	private async moveDates(
		dated: readonly { card: CardView; to: DateTexts }[],
		alone: () => Promise<Sent>,
	): Promise<Sent> {
		const found = await read<DatesPage>(`/api/teams/${this.head.teamId}/dates`, {
			cards: dated.map(({ card, to }) => ({ card: card.id, ...to })),
		});
		// Without a connection it is moved alone, as soon as there is one.
		if (!found.ok) return alone();
		const { moved, conflicts, milestones } = found.answer;
		const missed = milestones.some((one) => one.missed.length > 0);
		if (!moved.length && !conflicts.length && !missed) return alone();
		const moves = await new Promise<'all' | 'one' | null>((answer) => {
			this.following = { cards: dated.map(({ card }) => card), page: found.answer, answer };
		});
		this.following = null;
		if (moves === 'one') return alone();
		if (!moves) return { ok: false, refusal: { status: 0, code: 'left', title: 'Nothing was moved.' } };
		const sent = await this.ask('MoveDates', {
			team: this.head.teamId,
			cards: dated.map(({ card, to }) => ({ card: card.id, version: this.latest(card).version, ...to })),
			followers: moved.map(({ card: id, version, to: dates }) => ({ card: id, version, ...dates })),
		});
		const many = dated.length > 1;
		const moving = many
			? `${count(dated.length, 'card')} are moved`
			: `Card ${dated[0]!.card.number} is moved`;
		if (sent.ok)
			this.tell({
				tone: 'done',
				text: `${moving}, and ${count(moved.length, 'card')} with ${many ? 'them' : 'it'}.`,
				undo: sent.answer.id,
			});
		return sent;
	}

	/** Changes of cards that are one step: all of them happen or none, and they are taken back at once. */
	putAll(changes: readonly { card: CardView; change: FieldChange }[]): Promise<Sent> {
		const [first] = changes;
		if (changes.length === 1) return this.put(first!.card, first!.change);
		const cards = changes.map(({ card }) => this.latest(card));
		const once = new Set(cards.map(({ id }) => id)).size === cards.length;
		const dated = changes.map(({ change }, i) => ({
			card: cards[i]!,
			...datesIn(this.stepFor(cards[i]!, change), cards[i]!),
		}));
		const together = () => this.doTogether(changes);
		return once && dated.every((one): one is typeof one & { to: DateTexts } => one.to !== undefined)
			? this.moveDates(dated, together)
			: together();
	}

	private doTogether(changes: readonly { card: CardView; change: FieldChange }[]): Promise<Sent> {
		const cards = new Map<string, CardView>();
		const shown = new Map<string, CardView>();
		const steps = changes.map(({ card, change }) => {
			const live = this.latest(card);
			cards.set(card.id, live);
			const { command, input, patch } = this.stepFor(live, change);
			const now = shown.get(card.id) ?? live;
			shown.set(card.id, { ...now, ...patch(now) });
			return { command, input: input as Record<string, unknown> };
		});
		return this.apply([...cards.values()], 'DoTogether', { board: this.head.id, steps }, ({ id }) =>
			shown.get(id)!,
		);
	}

	/** Gives cards one of the values of a field, in one step. */
	async choose(cards: readonly CardView[], { values }: FieldOfCards, key: string): Promise<void> {
		const changes = cards.flatMap((card) => {
			const live = this.latest(card);
			const change = values!.put!(live, key, values!.of(live)[0]!);
			return change ? [{ card: live, change }] : [];
		});
		const [first] = changes;
		if (!first) return;
		const alike = changes.every(({ change }) => JSON.stringify(change) === JSON.stringify(first.change));
		// What is the same for all is one change of many; anything else as many of one each.
		if (alike && first.change.do === 'cards')
			await this.changeCards(
				changes.map(({ card }) => card),
				first.change.change,
			);
		else await this.putAll(changes);
	}

	/** A card as it will be after a change. */
	after(card: CardView, change: FieldChange): CardView {
		return { ...card, ...this.stepFor(card, change).patch(card) };
	}

	private stepFor(card: CardView, change: FieldChange): CardStep {
		return stepFor(this.head, card, change, (one, column) => this.moveStep(one, column, undefined));
	}
}
