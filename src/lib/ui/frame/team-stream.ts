import { reread } from './reread';

/** So long is waited for more that happens at once. */
const PAUSE_MS = 400;

/**
 * Reads a page of a team again whenever something has happened on one of its boards.
 * @param depends by what the page is known
 * @returns stops
 */
export function followTeam(team: string, depends: string): () => void {
	const stream = new EventSource(`/api/teams/${team}/live`);
	let timer: ReturnType<typeof setTimeout> | undefined;
	let known = false;
	stream.addEventListener('changed', () => {
		// The first word says that it listens; after that line was lost, that it does so again.
		if (!known) return void (known = true);
		clearTimeout(timer);
		timer = setTimeout(() => void reread(depends), PAUSE_MS);
	});
	return () => {
		clearTimeout(timer);
		stream.close();
	};
}
