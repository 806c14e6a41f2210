import { odds, takeOff, type OddsInput } from '../core/capacity/odds.ts';

/**
 * Finds the odds of a sprint off the page's own thread, or what to take off it to reach a level; the answer carries the
 * number of its question.
 */
self.onmessage = ({ data }: MessageEvent<{ asked: number; input: OddsInput; level?: number }>) =>
	self.postMessage(
		data.level === undefined
			? { asked: data.asked, odds: odds(data.input) }
			: { asked: data.asked, off: takeOff(data.input, data.level) },
	);
