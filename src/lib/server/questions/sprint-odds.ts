import { LRUCache } from 'lru-cache';
import { odds, tooLittle, type Odds, type OddsInput, type Past } from '../../../core/capacity/odds.ts';
import { apart } from '../apart.ts';

/** What is so much work that it is done in a thread of its own, in draws. */
const MANY = 500_000;
const LONGEST_MS = 20_000;

/** Odds found already, by what they were asked of. */
const found = new LRUCache<string, Promise<Odds | null>>({ max: 60 });

const texts = new WeakMap<Past, string>();

/** A past in JSON, written once as long as it is the same. */
function textOf(past: Past): string {
	const text = texts.get(past) ?? JSON.stringify(past);
	texts.set(past, text);
	return text;
}

/**
 * In what share of trials a sprint is all done; null where the past says too little, or it took too long to find.
 * @param board whose sprint it is
 */
export async function oddsOf(board: string, input: OddsInput): Promise<number | null> {
	if (tooLittle(input.past) || !input.cards.length) return null;
	const { past, ...plan } = input;
	const key = `${board} ${textOf(past)} ${JSON.stringify(plan)}`;
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
