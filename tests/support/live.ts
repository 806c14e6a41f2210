import assert from 'node:assert/strict';
import type { CardView } from '../../src/core/pages/board.ts';

/** What the stream of a board tells. */
export interface Told {
	seq: number;
	cards: CardView[];
	board: boolean;
}

/**
 * Opens the stream of a board or of a person, to be read until what it tells satisfies.
 * @param kind of what is read: nothing for what happens on a board, `notices` for that there are new ones
 */
export async function listenTo(url: string, headers: Record<string, string>, kind = '') {
	const ended = new AbortController();
	const response = await fetch(url, { headers, signal: ended.signal });
	assert.equal(response.headers.get('content-type'), 'text/event-stream');
	const reader = response.body!.pipeThrough(new TextDecoderStream()).getReader();
	let text = '';
	return {
		async until(satisfies: (told: Told) => boolean): Promise<Told> {
			for (;;) {
				const end = text.indexOf('\n\n');
				if (end < 0) {
					const { value, done } = await reader.read();
					if (done) throw new Error('The stream ended.');
					text += value;
					continue;
				}
				const said = text.slice(0, end);
				const data = /^data: (.*)$/m.exec(said)?.[1];
				text = text.slice(end + 2);
				if ((/^event: (.*)$/m.exec(said)?.[1] ?? '') !== kind) continue;
				if (data && satisfies(JSON.parse(data))) return JSON.parse(data);
			}
		},
		stop: () => ended.abort(),
	};
}
