import type { Odds, OddsInput } from '$core/capacity/odds';

/** Asks a web worker for the odds of what is planned; while it works, the last answer stands and is marked as old. */
export class OddsFinder {
	found = $state.raw<Odds | null>(null);
	looking = $state(false);
	/** What to take off to reach the level that was asked for; null while it is being found. */
	off = $state.raw<string[] | null>(null);
	private worker: Worker | undefined;
	private asked = 0;
	private levels: Worker | undefined;
	private askedLevel = 0;
	private timer: ReturnType<typeof setTimeout> | undefined;

	/** Asks anew, once what changes has come to rest for a moment. */
	ask(input: OddsInput): void {
		this.looking = true;
		clearTimeout(this.timer);
		this.timer = setTimeout(() => {
			this.worker ??= start<{ odds: Odds | null }>(({ asked, odds }) => {
				// An answer to an older question is passed over.
				if (asked !== this.asked) return;
				this.found = odds;
				this.looking = false;
			});
			this.worker.postMessage({ asked: ++this.asked, input });
		}, 120);
	}

	/** Asks what to take off so that all that stays is done in so large a share of tries. */
	askLevel(input: OddsInput, level: number): void {
		this.off = null;
		// Reckoning anew for each card takes its time: an older question is not waited for.
		this.levels?.terminate();
		this.levels = start<{ off: string[] | null }>(({ asked, off }) => {
			if (asked === this.askedLevel) this.off = off ?? [];
		});
		this.levels.postMessage({ asked: ++this.askedLevel, input, level });
	}

	/** Ends the workers. */
	stop(): void {
		clearTimeout(this.timer);
		this.worker?.terminate();
		this.levels?.terminate();
		this.worker = this.levels = undefined;
	}
}

function start<A>(answer: (data: A & { asked: number }) => void): Worker {
	const worker = new Worker(new URL('../../../workers/odds.ts', import.meta.url), { type: 'module' });
	worker.onmessage = ({ data }: MessageEvent<A & { asked: number }>) => answer(data);
	return worker;
}
