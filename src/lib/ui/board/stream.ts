import type { CardView } from '$core/pages/board';
import { reread } from '../frame/reread';

/** What a page open on a board is told. */
interface Change {
	seq: number;
	cards: CardView[];
	board: boolean;
}

/** Who hears what of a board's stream. */
interface Ears {
	/** It is there, for the first time or again. */
	open(): void;
	lost(): void;
	/** Who looks at the board, as the server wrote it. */
	here(people: string): void;
	change(change: Change): void;
}

/** A stream that the server ended for good is asked for again after so long; any other the browser opens again itself. */
const AGAIN_MS = 2000;

/** Hears what others do on a board; the answer stops it. */
export function follow(address: () => string, ears: Ears): () => void {
	let stream: EventSource;
	let retry: ReturnType<typeof setTimeout> | undefined;
	const open = () => {
		stream = new EventSource(address());
		stream.addEventListener('here', (event) => ears.here(event.data as string));
		stream.onopen = () => ears.open();
		stream.onmessage = (event) => ears.change(JSON.parse(event.data) as Change);
		for (const part of ['notices', 'retrospective'])
			stream.addEventListener(part, () => void reread(`harrow:${part}`));
		stream.onerror = () => {
			ears.lost();
			if (stream.readyState !== EventSource.CLOSED) return;
			clearTimeout(retry);
			retry = setTimeout(open, AGAIN_MS);
		};
	};
	open();
	return () => {
		clearTimeout(retry);
		stream.close();
	};
}
