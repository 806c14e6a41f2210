/** So long a pause in typing, and words of so many letters, before descriptions are looked through. */
const PAUSE_MS = 200;
const LETTERS = 3;

/** Cards whose description has the words that a board is narrowed to: descriptions are not on the page, so the server looks. */
export class Described {
	cards = $state.raw<ReadonlySet<string>>(new Set());

	constructor(slug: () => string, text: () => string) {
		$effect(() => {
			const [board, words] = [slug(), text().trim()];
			if (words.length < LETTERS) return void (this.cards = new Set());
			const leave = new AbortController();
			const timer = setTimeout(() => {
				void fetch(`/boards/${board}/words?q=${encodeURIComponent(words)}`, { signal: leave.signal })
					.then((answer) => (answer.ok ? (answer.json() as Promise<string[]>) : []))
					.then((ids) => (this.cards = new Set(ids)))
					// Not connected, or other words meanwhile: what the page knows still narrows it.
					.catch(() => undefined);
			}, PAUSE_MS);
			return () => {
				clearTimeout(timer);
				leave.abort();
			};
		});
	}
}
