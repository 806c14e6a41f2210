import type { FaceMore } from '$core/pages/board';

/** Many changes that come at once are asked for once. */
const PAUSE_MS = 300;

/** What faces show that a board's page does not hold: asked for while they want it, and again after changes. */
export class AskedFaces {
	more = $state.raw<Readonly<Record<string, FaceMore>>>({});
	private asks = $state(0);

	constructor(slug: () => string, wanted: () => boolean, seq: () => number) {
		let first = true;
		$effect(() => {
			const [board] = [slug(), seq(), this.asks];
			if (!wanted()) return void (first = true);
			const leave = new AbortController();
			const timer = setTimeout(
				() => {
					void fetch(`/boards/${board}/faces`, { signal: leave.signal })
						.then((answer) => (answer.ok ? answer.json() : this.more))
						.then((more: typeof this.more) => (this.more = more))
						// Not connected: what was known stays.
						.catch(() => undefined);
				},
				first ? 0 : PAUSE_MS,
			);
			first = false;
			return () => {
				clearTimeout(timer);
				leave.abort();
			};
		});
	}

	/** A face without one of its lines, as long as nothing new was heard. */
	without(card: string, line: string): void {
		const known = this.more[card];
		if (!known) return;
		this.more = { ...this.more, [card]: { ...known, lines: known.lines.filter(({ id }) => id !== line) } };
	}

	again(): void {
		this.asks++;
	}
}
