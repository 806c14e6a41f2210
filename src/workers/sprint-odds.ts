import { parentPort } from 'node:worker_threads';
import { odds, type OddsInput } from '../core/capacity/odds.ts';

/** Finds the odds of a sprint on the server, apart from everything else: of many cards that takes a while. */
parentPort!.once('message', (input: OddsInput) => parentPort!.postMessage({ answer: odds(input) }));
