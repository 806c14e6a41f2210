import { intoLane } from '$core/board/lanes';
import type { CardsChange, Change } from '$core/board/field';
import type { BoardHead, CardView } from '$core/pages/board';
import { enter, type CardClock } from '$core/flow/clock';
import type { DateTexts } from '$core/pages/dates';
import { sized } from '$core/sprint/left';
import type { Command, CommandInput } from '../../commands';

/** A change of one card: the command that does it, and what of the card shows at once. */
export interface CardStep<C extends Command = Command> {
	command: C;
	input: CommandInput<C>;
	/** @param reason why it was let through over a limit */
	patch(card: CardView, reason?: string): Partial<CardView>;
}

const step = <C extends Command>(
	command: C,
	input: CommandInput<C>,
	patch: Partial<CardView> | CardStep['patch'],
): CardStep => ({
	command,
	input,
	patch: typeof patch === 'function' ? patch : () => patch,
});

/** What changes of a card with a change of many cards at once. */
export function cardsPatch(head: BoardHead, change: CardsChange): (card: CardView) => Partial<CardView> {
	return (card) => ({
		...(change.type === undefined ? {} : { type: change.type }),
		...(change.class === undefined ? {} : { class: change.class }),
		...(change.lane === undefined
			? {}
			: intoLane(head.lanes, card, head.lanes.find(({ id }) => id === change.lane) ?? null)),
		...(change.initiative === undefined ? {} : { initiative: change.initiative }),
		...(change.ready === undefined ? {} : { ready: change.ready }),
		...(change.owners === undefined ? {} : { owners: change.owners }),
		labels: [...new Set([...card.labels, ...(change.label ?? [])])]
			.filter((label) => !change.unlabel?.includes(label))
			.sort(),
	});
}

/** A card on a sprint's list, or on none. */
export function planPatch(head: BoardHead, sprint: number | null): (card: CardView) => Partial<CardView> {
	const running = head.sprints.some((known) => known.number === sprint && known.startedAt);
	return (card) =>
		card.parts ? {} : { sprint, unplanned: running ? card.sprint !== sprint || card.unplanned : false };
}

/** A card's clock after it came into a column, or (null) into the backlog, at an instant. */
export function clockIn(
	head: BoardHead,
	card: CardView,
	column: string | null,
	now: Date,
): Partial<CardView> {
	if (column === card.column) return {};
	const index = (id: string | null) => {
		const found = head.columns.findIndex((known) => known.id === id);
		return found < 0 ? null : found;
	};
	const at = (text: string | null) => (text === null ? null : Date.parse(text));
	const text = (instant: number | null) => (instant === null ? null : new Date(instant).toISOString());
	const clock: CardClock = {
		state: card.clock,
		column: index(card.column),
		entered: at(card.entered),
		started: at(card.started),
		finished: at(card.finished),
		archived: card.archived !== null,
		before: card.started === null ? 'none' : 'running',
	};
	const layout = {
		columns: head.columns,
		commitment: head.columns.findIndex((known) => known.commitment),
	};
	const after = enter(layout, clock, index(column), now.getTime());
	const left = after.state === 'done' ? 0 : card.left;
	return {
		clock: after.state,
		entered: text(after.entered),
		started: text(after.started),
		finished: text(after.finished),
		left,
	};
}

/** The dates that a card gets by a step; none where it gives it none. */
export function datesIn({ command, input }: CardStep, card: CardView): { to?: DateTexts } {
	if (command !== 'DateCard') return {};
	const { start = card.start, due = card.due } = input as Partial<DateTexts>;
	return { to: { start, due } };
}

/**
 * The step that gives a card another value of a field.
 * @param moved how a card is moved to a column, or to the backlog
 */
export function stepFor(
	head: BoardHead,
	card: CardView,
	change: Change,
	moved: (card: CardView, column: string | null) => CardStep,
): CardStep {
	const seen = { card: card.id, version: card.version };
	const many = { board: head.id, cards: [seen] };
	switch (change.do) {
		case 'move':
			return moved(card, change.column);
		case 'cards':
			return step('ChangeCards', { ...many, ...change.change }, cardsPatch(head, change.change));
		case 'plan':
			return step('PlanCards', { ...many, sprint: change.sprint }, planPatch(head, change.sprint));
		case 'due':
		case 'length':
			return step('DateCard', { ...seen, due: change.due }, { due: change.due });
		case 'start':
			// What has a length keeps it: the due day moves along.
			return step(
				'DateCard',
				{ ...seen, ...(change.due === undefined ? {} : { due: change.due }), start: change.start },
				{ start: change.start, ...(change.due === undefined ? {} : { due: change.due }) },
			);
		case 'title':
			return step('RenameCard', { ...seen, title: change.title }, { title: change.title.trim() });
		case 'size':
			return step('SizeCard', { ...seen, size: change.size }, (one) =>
				sized(one, change.size, one.clock === 'done'),
			);
		case 'left':
			return step('CorrectLeft', { ...seen, left: change.left }, { left: change.left });
		case 'percent':
			return step('PercentCard', { ...seen, percent: change.percent }, { percent: change.percent });
		case 'review': {
			const { reviewer, due } = change;
			return step(
				'ReviewCard',
				{ ...seen, ...(reviewer === undefined ? {} : { reviewer }), ...(due === undefined ? {} : { due }) },
				({ review }) => {
					const by = reviewer === undefined ? review?.by : reviewer;
					return { review: by ? { by, due: due === undefined ? (review?.due ?? null) : due } : null };
				},
			);
		}
		case 'own': {
			const { field, value } = change;
			return step('SetField', { ...seen, field, value }, ({ fields: { [field]: _before, ...others } }) => ({
				fields: value === null ? others : { ...others, [field]: value },
			}));
		}
	}
}
