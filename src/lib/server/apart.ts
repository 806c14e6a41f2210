import { pathToFileURL } from 'node:url';
import { Worker } from 'node:worker_threads';

/** They are built beside what was started. */
const worker = (name: string) => new URL(`workers/${name}.js`, pathToFileURL(process.argv[1]!));

/**
 * Computes something in a thread of its own, so that nobody else waits for it, and no longer than a while.
 * @param name of a file in src/workers; it gets the data as a message and posts one answer
 * @returns the answer; null when it took too long or too much memory
 */
export function apart<T>(name: string, data: unknown, milliseconds: number): Promise<T | null> {
	return new Promise((resolve, reject) => {
		const begin = `import('${worker(name).href}').then(() => require('node:worker_threads').parentPort.postMessage({ ready: true }))`;
		const thread = new Worker(begin, { eval: true, resourceLimits: { maxOldGenerationSizeMb: 256 } });
		let clock: NodeJS.Timeout | undefined;
		const end = (say: () => void) => {
			clearTimeout(clock);
			void thread.terminate();
			say();
		};
		thread.on('message', (said: { ready: true } | { answer: T }) => {
			if ('answer' in said) return end(() => resolve(said.answer));
			// Its time counts from when it has loaded, however busy the machine is.
			clock = setTimeout(() => end(() => resolve(null)), milliseconds);
			thread.postMessage(data);
		});
		thread.once('error', (error: Error & { code?: string }) =>
			end(() => (error.code === 'ERR_WORKER_OUT_OF_MEMORY' ? resolve(null) : reject(error))),
		);
	});
}
