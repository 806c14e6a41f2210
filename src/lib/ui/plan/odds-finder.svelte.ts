import type { Odds, OddsInput } from '$core/capacity/odds';

/** Asks a web worker for the odds of what is planned; while it works, the last answer stands and is marked as old. */
export class OddsFinder {
	found = $state.raw<Odds | null>(null);
	looking = $state(false);
	private worker: Worker | undefined;
	private asked = 0;
	private timer: ReturnType<typeof setTimeout> | undefined;

	/** Asks anew, once what changes has come to rest for a moment. */
	ask(input: OddsInput): void {
		this.looking = true;
		clearTimeout(this.timer);
		this.timer = setTimeout(() => {
			this.worker ??= this.start();
			this.worker.postMessage({ asked: ++this.asked, input });
		}, 120);
	}

	/** Ends the worker. */
	stop(): void {
		clearTimeout(this.timer);
		this.worker?.terminate();
		this.worker = undefined;
	}

	private start(): Worker {
		const worker = new Worker(new URL('../../../workers/odds.ts', import.meta.url), { type: 'module' });
		worker.onmessage = ({ data }: MessageEvent<{ asked: number; odds: Odds | null }>) => {
			// An answer to an older question is passed over.
			if (data.asked !== this.asked) return;
			this.found = data.odds;
			this.looking = false;
		};
		return worker;
	}
}
