import { page } from '$app/state';
import { forgetPages } from './kept.svelte';

/** Unfinished texts are kept in this browser, for each person of their own, until they are sent: past a reload and a crash. */
const PREFIX = 'harrow-draft-';
const keyOf = (of: string) => `${PREFIX}${page.data.person?.id ?? ''}-${of}`;

/** What was begun and not sent of a text; null where there is nothing. */
export function draftOf(of: string): string | null {
	try {
		return localStorage.getItem(keyOf(of));
	} catch {
		// Drawn on the server, or where a browser keeps nothing.
		return null;
	}
}

/** Keeps what was begun; null once it is sent, or taken back. */
export function keepDraft(of: string, text: string | null): void {
	try {
		if (text === null) localStorage.removeItem(keyOf(of));
		else localStorage.setItem(keyOf(of), text);
	} catch {
		// A browser that is full keeps it on the page only.
	}
}

/** Whoever signs out leaves nothing behind for the next: no text that was begun, and no page that was kept. */
export function forgetDrafts(): void {
	forgetPages();
	for (const key of Object.keys(localStorage)) if (key.startsWith(PREFIX)) localStorage.removeItem(key);
}
