import { odds, type OddsInput } from '../core/capacity/odds.ts';

/** Finds the odds of a sprint off the page's own thread; the answer carries the number of its question. */
self.onmessage = ({ data }: MessageEvent<{ asked: number; input: OddsInput }>) =>
	self.postMessage({ asked: data.asked, odds: odds(data.input) });
