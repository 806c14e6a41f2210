import { TRIALS, type OddsInput } from '../capacity/odds.ts';
import { partsInHours, type Part } from '../capacity/promise.ts';
import { sprintOrder } from '../sprint/order.ts';
import type { PlanPage } from '../pages/plan.ts';
import type { BoardHead, CardView } from '../pages/board.ts';

/** The odds of a sprint are found with this seed, so that the same plan always has the same odds. */
const SEED = 2026;

/** The unfinished cards of a sprint that odds are about, in the sprint's order: parents have no work of their own. */
export function sprintCards(
	head: Pick<BoardHead, 'columns'>,
	cards: Iterable<CardView>,
	sprint: number | null,
): CardView[] {
	const columns = new Map(head.columns.map((column, i) => [column.id, i]));
	const placed = (card: CardView) => ({
		column: card.column === null ? null : (columns.get(card.column) ?? null),
		rank: card.rank,
	});
	return [...cards]
		.filter(
			(card) =>
				sprint !== null && card.sprint === sprint && !card.archived && card.clock !== 'done' && !card.parts,
		)
		.sort((a, b) => sprintOrder(placed(a), placed(b)));
}

/** The skills that a card asks for: its labels that people of the team can do. */
export const skillsOf = (card: CardView, skills: readonly string[]) =>
	card.labels.filter((label) => skills.includes(label));

/** What people hold of a sprint in hours, and what they can take on. */
export function sprintParts(
	head: Pick<BoardHead, 'sprints'>,
	plan: Pick<PlanPage, 'people' | 'learned' | 'sprint'>,
	cards: readonly CardView[],
): Part[] {
	const sprint = head.sprints.find((known) => known.number === plan.sprint);
	return partsInHours(
		new Map(plan.people.map((person) => [person.person, person.raw])),
		sprint?.focus ?? plan.learned.focus,
		sprint?.keepBack ?? plan.learned.keepBack,
		cards.map((card) => ({ ...card, card: String(card.number) })),
	);
}

/** What the odds of the sprint that a plan is about are asked of, the same on every page that tells them. */
export function sprintOdds(
	head: Pick<BoardHead, 'columns' | 'people'>,
	plan: Pick<PlanPage, 'people' | 'past' | 'skills' | 'sprint'>,
	parts: readonly Part[],
	cards: Iterable<CardView>,
): OddsInput {
	const able = new Map(head.people.map((person) => [person.id, person.skills]));
	return {
		cards: sprintCards(head, cards, plan.sprint).map((card) => ({
			card: String(card.number),
			left: card.left,
			owners: card.owners,
			skills: skillsOf(card, plan.skills),
		})),
		hands: parts.map(({ person, promise, placed }) => ({
			person,
			promise,
			placed,
			skills: able.get(person) ?? [],
		})),
		raw: Object.fromEntries(plan.people.map((person) => [person.person, person.after])),
		past: plan.past,
		trials: TRIALS,
		seed: SEED,
	};
}
