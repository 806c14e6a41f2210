import { LRUCache } from 'lru-cache';
import { odds, tooLittle, type Odds, type OddsInput } from '../../../core/capacity/odds.ts';
import { apart } from '../apart.ts';

/** What is so much work that it is done in a thread of its own, in draws. */
const MANY = 500_000;
const LONGEST_MS = 20_000;

/** Odds found already, by what they were asked of. */
const found = new LRUCache<string, Promise<Odds | null>>({ max: 60 });

/**
 * In what share of trials a sprint is all done; null where the past says too little, or it took too long to find.
 * @param board whose sprint it is
 */
export async function oddsOf(board: string, input: OddsInput): Promise<number | null> {
	if (tooLittle(input.past) || !input.cards.length) return null;
	const key = `${board} ${JSON.stringify(input)}`;
	let answer = found.get(key);
	if (!answer) {
		answer =
			input.cards.length * input.trials > MANY
				? apart<Odds | null>('sprint-odds', input, LONGEST_MS)
				: Promise.resolve(odds(input));
		found.set(key, answer);
		answer.catch(() => found.delete(key));
	}
	const said = await answer;
	return said && said.all / said.trials;
}
