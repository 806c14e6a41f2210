import { LRUCache } from 'lru-cache';
import { sprintOdds } from '../../../core/board/odds.ts';
import { odds, tooLittle, type Odds, type OddsInput } from '../../../core/capacity/odds.ts';
import type { Part } from '../../../core/capacity/promise.ts';
import type { BoardHead } from '../../../core/pages/board.ts';
import type { PlanPage } from '../../../core/pages/plan.ts';
import { apart } from '../apart.ts';

/** What is so much work that it is done in a thread of its own, in draws. */
const MANY = 500_000;
const LONGEST_MS = 20_000;

/** Odds found already, by what they were asked of; what was asked of the same plan is not written out again. */
const found = new LRUCache<string, Promise<number | null>>({ max: 60 });
const ofPlan = new LRUCache<string, Promise<number | null>>({ max: 60 });

const numbers = new WeakMap<object, number>();
let last = 0;

/** A number for something that is never changed in place, as long as it is the same: to write it out takes longer. */
function numberOf(one: object): number {
	const number = numbers.get(one) ?? ++last;
	numbers.set(one, number);
	return number;
}

/**
 * In what share of trials the sprint that a plan is about is all done; null where the past says too little, or it took too
 * long to find.
 * @param parts what people hold of it
 */
export async function oddsOf(
	head: BoardHead,
	plan: PlanPage,
	parts: readonly Part[],
): Promise<number | null> {
	if (tooLittle(plan.past)) return null;
	const { cards, past, sprint, people, skills } = plan;
	const able = head.people.map((person) => [person.id, person.skills]);
	const key = JSON.stringify([head.id, numberOf(cards), numberOf(past), sprint, people, skills, parts, able]);
	let answer = ofPlan.get(key);
	if (!answer) {
		ofPlan.set(key, (answer = oddsFrom(head.id, sprintOdds(head, plan, parts, plan.cards))));
		answer.catch(() => ofPlan.delete(key));
	}
	return answer;
}

function oddsFrom(board: string, input: OddsInput): Promise<number | null> {
	const key = `${board} ${JSON.stringify(input)}`;
	let answer = found.get(key);
	if (!answer) {
		found.set(key, (answer = find(input)));
		answer.catch(() => found.delete(key));
	}
	return answer;
}

async function find(input: OddsInput): Promise<number | null> {
	if (!input.cards.length) return null;
	const said =
		input.cards.length * input.trials > MANY
			? await apart<Odds | null>('sprint-odds', input, LONGEST_MS)
			: odds(input);
	return said && said.all / said.trials;
}
